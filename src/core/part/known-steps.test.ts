import { describe, expect, it } from "vitest";
import { readPart } from "./document";
import { KnownSteps } from "./known-steps";
import { SOLIDS } from "./testing/solids";

const parts = SOLIDS.flatMap((s) => s.ways);

describe("steps read before", () => {
  const known = new KnownSteps();
  it.each([1, 2])("make the same part as reading it anew, time %i", () => {
    for (const part of parts) expect(readPart(structuredClone(part), known)).toEqual(readPart(part));
  });

  it("are not taken for a step that changed", () => {
    const part = structuredClone(parts[0]!) as unknown as { steps: { kind: string; name?: unknown }[] };
    part.steps[0]!.name = 5;
    const anew = readPart(part);
    expect(anew.ok).toBe(false);
    expect(readPart(part, known)).toEqual(anew);
  });

  it("still may not stand twice, or before what they stand on", () => {
    const part = parts.find((p) => p.steps.length > 1)!;
    for (const steps of [[...part.steps, part.steps[0]!], part.steps.toReversed()]) {
      const wrong = { ...part, steps };
      expect(readPart(wrong).ok).toBe(false);
      expect(readPart(wrong, known)).toEqual(readPart(wrong));
    }
  });

  it("are forgotten beyond a size, the longest unused first", () => {
    const step = (i: number) => ({ id: `s${i}`, kind: "sketch", sketch: emptySketch });
    const emptySketch = { plane: { base: "top" }, curves: [], constraints: [], dimensions: [] };
    const few = new KnownSteps(3 * JSON.stringify(step(0)).length);
    const first = few.read(step(0));
    few.read(step(1));
    few.read(step(2));
    expect(few.read(step(0))).toBe(first);
    few.read(step(3));
    expect(few.read(step(0))).toBe(first);
    for (const i of [4, 5, 6]) few.read(step(i));
    expect(few.read(step(0))).not.toBe(first);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { tripodFoot, vaneArm } from "@/demo/parts";
import { record, redo, startHistory, undo, type History } from "@/core/units/history";
import { apply, readCommand, type PartCommand } from "./commands";
import { readPart, type PartDocument } from "./document";

const foot = tripodFoot();

describe("commands on a part", () => {
  it("refuses to delete a sketch that a step stands on, naming it", () => {
    const r = apply(foot, { do: "delete-step", id: "sketch1" });
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.refusal).toMatchObject({ code: "in-use", about: ["extrude1"] });
  });
  it("refuses a step before what it stands on", () => {
    const extrude = foot.steps[1]!;
    const r = apply({ ...foot, steps: [] }, { do: "add-step", step: extrude });
    expect(r.ok ? "" : r.refusal.sentence).toMatch(/not an earlier step/);
  });
  it.each([
    { do: "sketch", step: "extrude1", command: { do: "delete", ids: [] } },
    { do: "delete-step", id: "nothing" },
    { do: "suppress-step", id: "nothing", on: true },
  ] as PartCommand[])("refuses or leaves alone what is not there: %j", (c) => {
    const r = apply(foot, c);
    if (r.ok) expect(r.value.steps).toEqual(foot.steps);
    else expect(r.refusal.code).toBe("not-found");
  });
  it("undo and redo go all the way back and forth", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("change", "undo", "redo"), { maxLength: 60 }), (moves) => {
        let h: History<PartDocument> = startHistory(foot);
        const seen: PartDocument[] = [foot];
        let n = 0;
        for (const m of moves) {
          if (m === "change") {
            const r = apply(h.present, { do: "describe", name: `n${n++}` });
            if (r.ok) seen.push(r.value);
            h = r.ok ? record(h, r.value) : h;
          } else h = m === "undo" ? undo(h) : redo(h);
        }
        for (let i = 0; i < 100; i++) h = undo(h);
        expect(h.present).toBe(foot);
        for (let i = 0; i < 100; i++) h = redo(h);
        expect(seen).toContain(h.present);
      }),
    );
  });
  it("commands from outside are read strictly", () => {
    expect(readCommand({ do: "delete-step", id: "x" }).ok).toBe(true);
    expect(readCommand({ do: "delete-step", id: "x", also: 1 }).ok).toBe(false);
    expect(readCommand("nonsense").ok).toBe(false);
  });
});

describe("reading documents", () => {
  it("reads back what it writes", () => {
    for (const d of [foot, vaneArm()]) {
      const r = readPart(JSON.stringify(d));
      expect(r.ok && r.value).toEqual(d);
    }
  });
  it.each<[string, unknown]>([
    ["text that is no JSON", "{"],
    ["another format", { ...foot, format: "other" }],
    ["a later version", { ...foot, version: 2 }],
    [
      "a coordinate that is no number",
      {
        ...foot,
        steps: [
          {
            id: "s",
            kind: "sketch",
            sketch: {
              plane: { base: "top" },
              curves: [{ id: "l1", kind: "line", start: [0, "x"], end: [1, 1] }],
              constraints: [],
              dimensions: [],
            },
          },
        ],
      },
    ],
    ["an id used twice", { ...foot, steps: [foot.steps[0], foot.steps[0]] }],
    ["a density of nothing", { ...foot, material: { name: "air", density: 0 } }],
    [
      "infinite coordinates",
      {
        ...foot,
        steps: [
          {
            id: "s",
            kind: "sketch",
            sketch: {
              plane: { base: "top" },
              curves: [{ id: "l1", kind: "line", start: [0, 1e300], end: [1, 1] }],
              constraints: [],
              dimensions: [],
            },
          },
        ],
      },
    ],
  ])("refuses %s with one sentence", (_, source) => {
    const r = readPart(source);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.refusal.sentence).toMatch(/^The .*\.$/);
  });
});

import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { ownBracketExercise, ownFootExercise, ownSpacerExercise } from "@/demo/own-numbers";
import { openNodeKernel } from "@/worker/kernel";
import { checkSubmission } from "../check";
import { readExercise, type Exercise } from "./exercise";
import {
  builtFrom,
  checkVarying,
  differentParts,
  ownNumbersAt,
  ownNumbersText,
  valuesOf,
  withOwnNumbers,
  isAlike,
  type Signature,
} from "./own-numbers";
import { prepareExercise } from "./prepare";
import { IS_LONG } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

const ownAt = (e: Exercise, place: number): Exercise => {
  const r = withOwnNumbers(e, ownNumbersAt(e, "seed", place)!);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
/** Thirty in the long run: each is measured and its Sheet proved. */
const STUDENTS = IS_LONG ? 30 : 4;

describe("the row of different parts", () => {
  const varies = fc.array(
    fc.record({
      number: fc.string({ minLength: 1, maxLength: 8 }),
      values: fc.record({ from: fc.integer({ min: 1, max: 50 }), more: fc.integer({ min: 1, max: 12 }) }),
    }),
    { minLength: 1, maxLength: 4 },
  );
  it("holds each once, whatever varies, and ends", () => {
    fc.assert(
      fc.property(varies, fc.string(), (list, seed) => {
        const e = {
          varies: list.map(({ number, values: { from, more } }, i) => ({
            number: `${number}${i}`,
            values: { from, to: from + more, step: 1 },
          })),
        };
        const all = differentParts(e);
        fc.pre(all < 3000);
        const seen = new Set(Array.from({ length: all }, (_, i) => JSON.stringify(ownNumbersAt(e, seed, i))));
        expect(seen.size).toBe(all);
        expect(ownNumbersAt(e, seed, all)).toBeUndefined();
      }),
      { numRuns: 60 },
    );
  });
  it("gives steps of a range without the dirt of binary numbers", () => {
    expect(valuesOf({ number: "n", values: { from: 0.1, to: 0.7, step: 0.1 } })).toEqual([
      0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7,
    ]);
  });
});

it("are told with their unit once", () => {
  const known = [
    { id: "a", step: "s", label: "", quantity: "length" as const, value: 1 },
    { id: "b", step: "s", label: "", quantity: "angle" as const, value: 1 },
  ];
  const own = (...list: [string, number][]) => list.map(([number, value]) => ({ number, value }));
  expect(ownNumbersText(own(["a", 36], ["a", 12.5]), known, "mm")).toBe("36 · 12.5 mm");
  expect(ownNumbersText(own(["a", 36], ["b", Math.PI / 12], ["a", 12]), known, "mm")).toBe("36 mm · 15° · 12 mm");
});

describe("values that", () => {
  const with_ = (of: number[]): Exercise => ({
    ...ownSpacerExercise(),
    varies: [{ number: "sketch1:m3", values: { of } }],
  });
  it("lie nearer than the tolerance can tell are refused with the number", () => {
    const r = checkVarying(with_([16, 16.03]));
    expect(!r.ok && r.refusal.sentence).toMatch(/16 mm and 16\.03 mm, which the tolerance cannot tell apart/);
    expect(checkVarying(with_([16, 16.1])).ok).toBe(true);
  });
  it("belong to no number of the reference are refused", () => {
    const e = { ...ownSpacerExercise(), varies: [{ number: "nothing", values: { of: [1, 2] } }] };
    expect(checkVarying(e).ok).toBe(false);
  });
  it("are read with the exercise, and turned round they are refused", () => {
    expect(readExercise(ownSpacerExercise()).ok).toBe(true);
    const range = { number: "n", values: { from: 3, to: 1, step: 1 } };
    expect(readExercise({ ...ownSpacerExercise(), varies: [range] }).ok).toBe(false);
  });
});

describe.each([
  ["the spacer", ownSpacerExercise()],
  ["the foot", ownFootExercise()],
  ["the bracket", ownBracketExercise()],
])("%s", (_, exercise) => {
  it("builds for a class, with proofs that are silent, and no two alike within the tolerance", () => {
    expect(checkVarying(exercise)).toEqual({ ok: true, value: differentParts(exercise) });
    const base = prepareExercise(kernel, exercise);
    if (!base.ok) throw new Error(base.refusal.sentence);
    const parts: Signature[] = [];
    for (let place = 0; place < STUDENTS; place++) {
      const r = prepareExercise(kernel, { ...ownAt(exercise, place), sizes: [...base.value.sizes] });
      if (!r.ok) throw new Error(`${place}: ${r.refusal.sentence}`);
      expect(r.value.proof.points, `place ${place}`).toEqual([]);
      parts.push(r.value.signature);
    }
    for (const [i, a] of parts.entries())
      for (const [k, b] of parts.slice(i + 1).entries()) expect(isAlike(a, b), `${i} and ${i + 1 + k}`).toBe(false);
  });
  it("is right by its own numbers, and copied is told as another's", () => {
    const base = prepareExercise(kernel, exercise);
    if (!base.ok) throw new Error(base.refusal.sentence);
    const own = (place: number) => ({ ...ownAt(exercise, place), sizes: [...base.value.sizes] });
    const parts = [0, 1, 2, 3].map((place) => {
      const r = prepareExercise(kernel, own(place));
      if (!r.ok) throw new Error(r.refusal.sentence);
      return r.value.signature;
    });
    const evidenceOf = (by: number, of: number) => {
      const r = checkSubmission(kernel, own(by), own(of).reference);
      if (!r.ok) throw new Error(r.refusal.sentence);
      const { evidence } = r.value.report;
      const kind = <K extends (typeof evidence)[number]["check"]>(check: K) =>
        evidence.flatMap((e) => (e.check === check ? [e as Extract<typeof e, { check: K }>] : []))[0];
      return { evidence, sizes: kind("sizes"), figures: kind("figures") };
    };
    const right = evidenceOf(0, 0);
    expect(right.evidence.filter((e) => "verdict" in e && e.verdict === "missed")).toEqual([]);
    expect(builtFrom(right.figures, parts[0]!, parts.slice(1))).toBeUndefined();
    for (const other of [1, 2, 3]) {
      const copied = evidenceOf(0, other);
      expect(copied.sizes!.off).toBeGreaterThan(0);
      expect(builtFrom(copied.figures, parts[0]!, parts.slice(1))).toBe(other - 1);
    }
  });
});

it("a symmetric part turned over is the same part, by whatever numbers", () => {
  const groove = (value: number) => {
    const own = withOwnNumbers(ownSpacerExercise(), [{ number: "sketch2:m5", value }]);
    const r = own.ok ? prepareExercise(kernel, own.value) : own;
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.signature;
  };
  // 40 long, the groove 6 wide: 18 from below is 16 from above
  expect(isAlike(groove(16), groove(18))).toBe(true);
  expect(isAlike(groove(16), groove(17))).toBe(false);
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Exercise } from "@/core/check/exercise/exercise";
import { isSame } from "@/core/units/same";
import { calledThing } from "./called";
import { atOdds, differences, isFrame, isTried, needsMeasuring, thingsAt, thingsOf, withThings } from "./things";
import { anExercise, sample } from "./testing/exercises";

/** As a database hands it out: fields in another order, no undefined. */
const stored = <T>(x: T): T => JSON.parse(JSON.stringify(x), (_, v: unknown) => turned(v)) as T;
const turned = (v: unknown): unknown =>
  v && typeof v === "object" && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).reverse()) : v;

describe("an exercise in its things", () => {
  it("what differs between two makes the one of the other, there and back", () => {
    fc.assert(
      fc.property(anExercise, anExercise, (a, b) => {
        expect(isSame(withThings(a, differences(a, b)), b)).toBe(true);
        expect(isSame(withThings(b, differences(b, a)), a)).toBe(true);
        expect(differences(a, stored(a))).toEqual({});
      }),
      { numRuns: 200 },
    );
  });
  it("of two sets of changes both stand, wherever they meet; what both changed is as it was said later", () => {
    /** Without the order of lists. */
    const bare = (e: Exercise) =>
      Object.fromEntries([...thingsOf(e)].map(([p, v]) => [p, isFrame(p) && Array.isArray(v) ? [...v].sort() : v]));
    fc.assert(
      fc.property(anExercise, anExercise, anExercise, (base, a, b) => {
        const mine = differences(base, a),
          theirs = differences(base, b);
        const there = withThings(withThings(base, theirs), mine);
        const rest = Object.fromEntries(Object.entries(theirs).filter(([p]) => !(p in mine)));
        const here = withThings(withThings(base, mine), rest);
        expect(isSame(bare(there), bare(here))).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
  it("keeps the order of its lists, and puts at their end what somebody else added", () => {
    const base = sample();
    const moved = { ...base, rubric: [...base.rubric].reverse() };
    expect(Object.keys(differences(base, moved))).toEqual(["rubric"]);
    const added = { ...base, rubric: [...base.rubric, { ...base.rubric[0]!, id: "more", title: "More" }] };
    const both = withThings(withThings(base, differences(base, added)), differences(base, moved));
    expect(both.rubric.map((l) => l.id)).toEqual([...moved.rubric.map((l) => l.id), "more"]);
  });
  it("two who add to a list are not at odds; two who change one thing are, unless alike", () => {
    expect(atOdds({ rubric: ["a", "b"] }, { rubric: ["a", "c"] })).toEqual([]);
    expect(atOdds({ title: "A", brief: "x" }, { title: "B", brief: "x" })).toEqual(["title"]);
    expect(atOdds({ "rubric/mass": null }, { "rubric/mass": { points: 3 } })).toEqual(["rubric/mass"]);
  });
  it("the rest of a changed exercise is the very same, not a copy", () => {
    const e = sample();
    expect(withThings(e, { title: "Other" }).reference).toBe(e.reference);
    expect(withThings(e, {})).toBe(e);
  });
  it("words and points ask for no measuring, what is drawn and measured does", () => {
    for (const p of ["brief", "hints", "rubric", "rubric/mass", "tolerances/volume", "varies/x"])
      expect([p, needsMeasuring({ [p]: 1 })]).toEqual([p, false]);
    for (const p of ["title", "units", "reference", "sheet/notes", "tolerances/mass", "tolerances/sizes", "sizes/d1"])
      expect([p, needsMeasuring({ [p]: 1 })]).toEqual([p, true]);
  });
  it("typical mistakes are tried anew for another part, tolerance or line, not for other points", () => {
    for (const p of ["title", "rubric/mass", "sheet/notes", "sheet/layout/views"])
      expect([p, isTried(p)]).toEqual([p, false]);
    for (const p of ["reference", "rubric", "rubric/ways-2", "tolerances/mass", "sizes/d1", "material"])
      expect([p, isTried(p)]).toEqual([p, true]);
  });
  it("every thing has a name that says no id and no place", () => {
    fc.assert(
      fc.property(anExercise, (e) => {
        for (const place of thingsOf(e).keys()) {
          const name = calledThing(e, place, new Map());
          expect(name).not.toMatch(/\/|undefined/);
        }
      }),
      { numRuns: 30 },
    );
    expect(thingsAt(sample(), ["title", "free"])).toEqual({ title: "Bracket", free: null });
  });
});

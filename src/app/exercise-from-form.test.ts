import { describe, expect, it } from "vitest";
import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import { exerciseFrom } from "./exercise-from-form";

/** The form as it is filled, with some fields typed otherwise. */
async function saved(old: Exercise, typed: Record<string, string>): Promise<Exercise | string> {
  const form = new FormData();
  const filled = {
    number: "T-1",
    title: "Plate",
    units: old.units,
    projection: "first-angle",
    material: "Steel S235",
    density: "7.85",
    "tolerance-volume": "0.2",
    "tolerance-mass": "0.5",
    "tolerance-shape": "0.1",
    "shape-by-faces": "on",
  };
  for (const [name, value] of Object.entries({ ...filled, ...typed })) form.set(name, value);
  const r = await exerciseFrom(form, old);
  return r.ok ? r.value : r.refusal.sentence;
}
const sizes = async (typed: Record<string, string>, old = newExercise()) => {
  const e = await saved(old, typed);
  return typeof e === "string" ? e : e.tolerances.sizes;
};

describe("how far sizes may be off, as it is typed", () => {
  it.each([
    ["printed", {}, undefined],
    ["m", {}, { by: "iso", class: "m" }],
    ["own", { "tolerance-length": "0.1", "tolerance-angle": "90" }, { by: "plain", length: 0.1, angle: Math.PI / 2 }],
  ])("%s", async (rule, more, want) => expect(await sizes({ "tolerance-sizes": rule, ...more })).toEqual(want));
  it("is in the exercise's unit, and no more than 0 is told", async () => {
    const inches = { ...newExercise(), units: "in" as const };
    const typed = { "tolerance-sizes": "own", "tolerance-length": ".005", "tolerance-angle": "0.5" };
    expect(await sizes(typed, inches)).toMatchObject({ length: 0.127 });
    expect(await sizes({ ...typed, "tolerance-length": "0" })).toMatch(/^Tolerance: /);
    expect(await sizes({ ...typed, "tolerance-length": "wide" })).toMatch(/^Tolerance: /);
  });
});

it("what is left to the student is kept where the form does not say, and goes where it was taken away", async () => {
  const old: Exercise = { ...newExercise(), free: { steps: ["f"], faces: [] } };
  expect(await saved(old, {})).toMatchObject({ free: old.free });
  expect(await saved(old, { free: "[]" })).not.toHaveProperty("free");
  const drafts = JSON.stringify([{ kind: "thing", of: ["b/end"], within: "0.5" }]);
  expect(await saved(old, { free: drafts })).toMatchObject({
    free: { steps: [], faces: [{ of: "b/end", within: 0.5 }] },
  });
  expect(await saved(old, { free: "no list" })).toMatch(/could not be read/);
});

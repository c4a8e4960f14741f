import fc from "fast-check";
import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import { defaultRubric } from "@/core/check/exercise/rubric";
import { SHOWS, type GivenTerms } from "@/core/check/exercise/terms";
import type { Size } from "@/core/sizes/size";

const distance = (id: string, tolerance: number): Size => ({
  id,
  kind: "distance",
  from: ["a/start"],
  to: ["a/end"],
  tolerance: { plus: tolerance, minus: tolerance },
});

/** An exercise with some of everything, two at least. */
export const sample = (): Exercise => ({
  ...newExercise(),
  number: "T-1",
  title: "Bracket",
  sizes: [distance("d1", 0.1), distance("d2", 0.2), distance("a/b", 1)],
  questions: [
    { id: "q1", title: "How heavy?", asks: { what: "mass" }, tolerance: 0.01 },
    { id: "q2", title: "And after?", asks: { what: "area" }, after: [{ number: "n", value: 12 }], tolerance: 0.02 },
  ],
  hints: ["Begin with the plate.", "Mind the shoulder."],
});

const someOf = <T>(list: readonly T[]): fc.Arbitrary<T[]> => fc.shuffledSubarray([...list]);
const maybe = <T>(a: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(a, { nil: undefined });
const place = (view: string, offset: number) =>
  ({ form: "straight", view, of: [0, 0], side: 1, offset, shift: 0 }) as const;
const layout = fc.record({
  scale: fc.constantFrom(1, 2),
  views: someOf([
    { key: "front", look: { from: "planned" as const, name: "front" } },
    { key: "top", look: { from: "planned" as const, name: "top" }, hidden: true },
    { key: "left", look: { from: "planned" as const, name: "left" } },
  ]),
  places: fc.dictionary(
    fc.constantFrom("d1", "d2", "a/b"),
    fc.integer({ min: 1, max: 9 }).map((n) => place("front", n)),
  ),
});

/** Exercises that differ in all that can be changed; of what is left out nothing is there. */
export const anExercise: fc.Arbitrary<Exercise> = fc
  .record({
    title: fc.constantFrom("Bracket", "Plate", "Hub"),
    brief: fc.constantFrom("", "Model it."),
    units: fc.constantFrom("mm" as const, "in" as const),
    massUnit: maybe(fc.constantFrom("g" as const, "kg" as const)),
    materialByName: maybe(fc.constant(true)),
    mass: fc.constantFrom(0.005, 0.01),
    general: maybe(
      fc.constantFrom({ by: "iso" as const, class: "m" as const }, { by: "plain" as const, length: 0.1, angle: 0.01 }),
    ),
    sizes: maybe(someOf([distance("d1", 0.1), distance("d1", 0.3), distance("d2", 0.2), distance("a/b", 1)])),
    rubric: someOf(defaultRubric()),
    points: fc.integer({ min: 0, max: 9 }),
    hints: maybe(fc.constantFrom(["One."], ["One.", "Two."])),
    free: maybe(fc.constantFrom({ steps: ["s"], faces: [{ of: "b/end", within: 0.5 }] })),
    varies: maybe(
      someOf([
        { number: "n/1", values: { of: [1, 2] } },
        { number: "m", values: { from: 1, to: 9, step: 2 } },
      ]),
    ),
    terms: maybe(
      fc.constantFrom<GivenTerms[]>(
        { attemptsMost: 3, accepts: ["part", "step"] },
        { attemptsMost: 5, shows: { ...SHOWS, points: false }, practice: { shows: "all", most: 2 } },
        {},
      ),
    ),
    notes: fc.constantFrom("", "Break all edges."),
    paper: maybe(fc.constantFrom({ name: "A3" as const, isLying: true }, { name: "A4" as const, isLying: false })),
    layout: maybe(layout),
  })
  .map(({ mass, general, points, notes, paper, layout: laid, sizes, rubric, ...said }) => {
    const plain = sample();
    const once = [...new Map((sizes ?? []).map((s) => [s.id, s])).values()];
    const e = {
      ...plain,
      ...said,
      sizes: sizes && once,
      rubric: rubric.map((l, i) => (i ? l : { ...l, points })),
      tolerances: { ...plain.tolerances, mass, sizes: general },
      sheet: { ...plain.sheet, notes, paper, layout: laid },
    };
    return JSON.parse(JSON.stringify(e)) as Exercise;
  });

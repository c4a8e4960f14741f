import { randomUUID } from "node:crypto";
import { strToU8, zipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import { footExercise } from "@/demo/exercises";
import { tripodFoot } from "@/demo/parts";
import { copyCourse, makeCourse } from "@/server/courses/courses";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import { saveExercise } from "@/server/exercises/changes";
import { createExercise, exercise } from "@/server/exercises/exercises";
import { packageOfExercise, readPackage, takePackage } from "@/server/exercises/exercise-package";
import { handout } from "@/server/handouts/handouts";
import { bringBack, duplicateInto, libraryOf, revisionsOfExercise, tagsOf } from "@/server/library/library";
import type { Person } from "@/server/people/people";
import { sameWorkOn } from "@/server/marking/same-work";
import { handIn } from "@/server/tries/submissions";
import { openWork, saveWork } from "@/server/works/works";
import { dropPerson, newStudent, newSubmission } from "./sample";

const courses: string[] = [];
let course: string, teacher: Person, student: Person;
const newCourse = async (): Promise<string> => {
  const id = await makeCourse({ title: `Library ${randomUUID()}`, term: "Spring", timeZone: "Europe/London" });
  courses.push(id);
  return id;
};
beforeAll(async () => {
  course = await newCourse();
  teacher = await newStudent(course, "instructor");
  student = await newStudent(course);
});
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = any($1)", [courses]);
  });
  for (const p of [teacher, student]) await dropPerson(p.id);
  await closeDatabase();
});

const tagged = (number: string, tags: string[], more: Partial<Exercise> = {}): Exercise => ({
  ...footExercise(),
  number,
  about: { tags, level: 2, minutes: 45 },
  ...more,
});
/** A handout as it is, without waiting for its Sheet. */
async function given(exerciseId: string, document: Exercise, accepts = ["part"]): Promise<string> {
  const made = await one<{ id: string }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, due_at, accepts)
     select id, course_id, $2, version, now() + interval '1 day', $3 from exercises where id = $1 returning id`,
    [exerciseId, document, accepts],
  );
  return made.id;
}

describe("the library", () => {
  it("finds by tag, level and any word, and shows nobody another's", async () => {
    await createExercise(course, tagged("Q-1", ["plate", "holes"]));
    await createExercise(course, tagged("Q-2", ["turning"], { brief: "Mind the shoulder, 100 % of it." }));
    const numbers = async (wanted: Parameters<typeof libraryOf>[1], who = teacher) =>
      (await libraryOf(who, wanted)).map((x) => x.number);
    expect(await numbers({})).toEqual(["Q-1", "Q-2"]);
    expect(await numbers({ tag: "holes" })).toEqual(["Q-1"]);
    expect(await numbers({ text: "SHOULDER" })).toEqual(["Q-2"]);
    // what means something to the database means itself
    expect(await numbers({ text: "100 %" })).toEqual(["Q-2"]);
    expect(await numbers({ text: "_" })).toEqual([]);
    expect(await numbers({ level: 3 })).toEqual([]);
    expect(await numbers({}, student)).toEqual([]);
    expect((await tagsOf(teacher)).map((t) => t.tag)).toEqual(["holes", "plate", "turning"]);
  });
  it("copies an exercise into another course as it is, and within one under another title", async () => {
    const other = await newCourse();
    const id = await createExercise(course, tagged("Q-3", ["plate"]));
    expect((await exercise(await duplicateInto(id, other))).document).toEqual((await exercise(id)).document);
    expect((await exercise(await duplicateInto(id, course))).document.title).toBe("Tripod foot (copy)");
  });
});

describe("revisions", () => {
  it("hold what was given out and the end of each spell, not every save", async () => {
    const start = { ...newExercise(), title: "one" };
    const id = await createExercise(course, start);
    const [hedda, alasdair] = [await newStudent(course, "instructor"), await newStudent(course, "instructor")];
    const save = async (title: string, by: Person) => {
      const { version } = await exercise(id);
      return saveExercise(id, { ...start, title }, version, by.id);
    };
    const titles = async () => (await revisionsOfExercise(id)).map((r) => r.document.title);
    await save("two", hedda);
    await save("three", hedda);
    await save("four", hedda);
    expect(await titles()).toEqual(["four", "one"]);
    await given(id, (await exercise(id)).document);
    await save("five", hedda);
    expect(await titles()).toEqual(["five", "four", "one"]);
    // somebody else goes on from there
    await save("six", alasdair);
    expect((await revisionsOfExercise(id)).map((r) => [r.document.title, r.by_name])).toEqual([
      ["six", alasdair.name],
      ["five", hedda.name],
      ["four", hedda.name],
      ["one", null],
    ]);
    // brought back, nothing in between is lost
    const first = (await revisionsOfExercise(id)).at(-1)!;
    expect(await bringBack(id, first.version, hedda.id)).toBeDefined();
    expect(await titles()).toEqual(["one", "six", "five", "four", "one"]);
    for (const p of [hedda, alasdair]) await dropPerson(p.id);
  });
});

describe("a package", () => {
  const file = (exercises: Record<string, unknown>, manifest: unknown = { format: "caliper-package", version: 1 }) =>
    zipSync({
      "package.json": strToU8(JSON.stringify(manifest)),
      ...Object.fromEntries(Object.entries(exercises).map(([n, x]) => [n, strToU8(JSON.stringify(x))])),
    });
  const refused = (bytes: Uint8Array) => {
    const r = readPackage(bytes);
    return r.ok ? "taken" : r.refusal.sentence;
  };
  it("comes in as it went out", async () => {
    const id = await createExercise(course, tagged("Q-4", ["plate"]));
    const r = await takePackage(course, await packageOfExercise(id));
    if (!r.ok) throw new Error(r.refusal.sentence);
    expect((await exercise(r.value[0]!)).document).toEqual((await exercise(id)).document);
  });
  it("that is damaged, is something else, holds too much, or a bad exercise, is refused whole with a sentence", () => {
    expect(refused(strToU8("PK damaged"))).toMatch(/damaged/);
    expect(refused(strToU8("not even JSON"))).toMatch(/not JSON/);
    expect(refused(file({}, { format: "other" }))).toMatch(/no package of exercises/);
    expect(refused(file({}))).toMatch(/no exercise in this package/);
    const good = footExercise();
    expect(refused(file({ "exercises/a.json": good, "exercises/b.json": { ...good, units: "ell" } }))).toMatch(
      /^b\.json: /,
    );
    const many = Object.fromEntries(Array.from({ length: 70 }, (_, i) => [`exercises/${i}.json`, good]));
    expect(refused(file(many))).toMatch(/more than 60 exercises/);
    // a file that swells to a hundred times its size
    const bomb = zipSync({ "package.json": strToU8("{}"), "exercises/a.json": new Uint8Array(70_000_000) });
    expect(bomb.length).toBeLessThan(1_000_000);
    expect(refused(bomb)).toMatch(/more than 60 MB/);
    // paths lead nowhere else
    expect(refused(file({ "../exercises/a.json": good }))).toMatch(/no exercise in this package/);
  });
});

it("a course copied to a new term takes exercises, series and terms along", async () => {
  const from = await newCourse();
  await createExercise(from, tagged("Q-5", [], { series: { name: "Feet", place: 2 }, terms: { attemptsMost: 3 } }));
  const copy = await copyCourse(from, "Autumn");
  courses.push(copy);
  expect(
    await rows("select document->'series' as series, document->'terms' as terms from exercises where course_id = $1", [
      copy,
    ]),
  ).toEqual([{ series: { name: "Feet", place: 2 }, terms: { attemptsMost: 3 } }]);
});

describe("a handout that goes on from another", () => {
  it("begins with what was handed in last, else with what stands on the Bench, else with nothing", async () => {
    const first = await createExercise(course, tagged("Q-6", []));
    const before = await handout(await given(first, tagged("Q-6", [])));
    const next = tagged("Q-7", [], { title: "Foot, changed", start: { from: "own", number: "Q-6" } });
    const after = () =>
      createExercise(course, next)
        .then((id) => given(id, next))
        .then(handout);
    expect((await openWork(await after(), student.id)).document.steps).toEqual([]);
    const { version } = await openWork(before, student.id);
    const put = { id: randomUUID(), document: tripodFoot(), version, window: "test" };
    await saveWork(before.id, student.id, put);
    const begun = await openWork(await after(), student.id);
    expect(begun.document.steps).toEqual(tripodFoot().steps);
    expect(begun.document.name).toBe("Foot, changed");
    await newSubmission(before.id, student.id, tripodFoot({ baseHole: 20 }));
    expect((await openWork(await after(), student.id)).document.steps).toEqual(tripodFoot({ baseHole: 20 }).steps);
  });
});

it("a body from a file is not handed in as a part, unless the handout takes files or gave it to all", async () => {
  const imported = { id: "imported1", kind: "imported" as const, file: "a.step", step: "ISO-10303-21;" };
  const part = { ...tripodFoot(), steps: [imported] };
  const hands = async (document: Exercise, accepts: string[]) => {
    const h = await handout(await given(await createExercise(course, document), document, accepts));
    const { version } = await openWork(h, student.id);
    const saved = await saveWork(h.id, student.id, { id: randomUUID(), document: part, version, window: "test" });
    const r = await handIn(h, student.id, { id: randomUUID(), version: saved.version });
    return r.ok ? "taken" : r.refusal.sentence;
  };
  expect(await hands(tagged("Q-8", []), ["part"])).toMatch(/holds a body from a file/);
  expect(await hands(tagged("Q-8", []), ["part", "step"])).toBe("taken");
  expect(await hands(tagged("Q-8", [], { start: { from: "starter", part } }), ["part"])).toBe("taken");
});

it("parts that one hand made are found in a class, by names, and others are not", async () => {
  const document = tagged("Q-9", []);
  const h = await handout(await given(await createExercise(course, document), document));
  const made = (hand: number) => ({
    ...tripodFoot(),
    steps: tripodFoot().steps.map((s) =>
      s.kind === "sketch"
        ? {
            ...s,
            sketch: {
              ...s.sketch,
              dimensions: s.sketch.dimensions.map((d, i) => ({
                ...d,
                at: [Math.sin(hand + i) * 30, Math.cos(hand * 3 + i) * 30] as [number, number],
              })),
            },
          }
        : s,
    ),
  });
  const people = await Promise.all([1, 2, 3].map(() => newStudent(course)));
  for (const [i, p] of people.entries()) await newSubmission(h.id, p.id, made(i === 2 ? 1 : i + 1));
  const { pairs, compared } = await sameWorkOn(h);
  expect(compared).toBe(3);
  expect(pairs.map((p) => p.parts.map((x) => x.person).sort())).toEqual([[people[0]!.name, people[2]!.name].sort()]);
  for (const p of people) await dropPerson(p.id);
});

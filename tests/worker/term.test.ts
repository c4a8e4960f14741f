import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownSpacerExercise } from "@/demo/own-numbers";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { PartDocument } from "@/core/part/document";
import { handoutsOf, makeCourse } from "@/server/courses/courses";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import { deskSubmission } from "@/server/marking/desk";
import { createExercise, exercise } from "@/server/exercises/exercises";
import { changeTimes, extend, issueHandout, withdraw, type Terms } from "@/server/handouts/handout-terms";
import { classOn, drawingOf, forStudent, handout } from "@/server/handouts/handouts";
import { copiesOn } from "@/server/handouts/copied-parts";
import { enoughParts, handoutOf, ownPart } from "@/server/handouts/own-parts";
import type { Person } from "@/server/people/people";
import { Denied, permit } from "@/server/permissions";
import { studentView } from "@/server/marking/results";
import { makeGroup, groupsOf } from "@/server/people/roster";
import { handIn, submission } from "@/server/tries/submissions";
import { openWork, saveWork } from "@/server/works/works";
import { dropPerson, newStudent, until } from "./sample";

let course: string, exerciseId: string, teacher: Person;
const students: Person[] = [];
const HOUR = 3_600_000;
const inHours = (n: number) => new Date(Date.now() + n * HOUR);

beforeAll(async () => {
  course = await makeCourse({ title: "A term for tests", term: "Spring", timeZone: "Europe/London" });
  teacher = await newStudent(course, "instructor");
  for (let i = 0; i < 3; i++) students.push(await newStudent(course));
  exerciseId = await createExercise(course, ownSpacerExercise());
  await until(async () => (await exercise(exerciseId)).prepared_version > 0, 120_000);
}, 150_000);
afterAll(async () => {
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  for (const p of [...students, teacher]) await dropPerson(p.id);
  await closeDatabase();
});

const issued = async (terms: Partial<Terms> = {}): Promise<string> => {
  const id = await issueHandout(exerciseId, { dueAt: inHours(24), ...terms });
  if (!id) throw new Error("It could not be issued.");
  return id;
};
const may = (person: Person, id: string) =>
  permit(person, "handout.work", id).then(
    () => true,
    (e: unknown) => {
      if (e instanceof Denied) return false;
      throw e;
    },
  );
const sees = async (person: Person, id: string) => (await handoutsOf(course, person)).some((h) => h.id === id);
async function handsIn(handoutId: string, person: Person, document: PartDocument) {
  const h = await handoutOf(await handout(handoutId), person.id);
  const { version } = await openWork(h, person.id);
  const saved = await saveWork(h.id, person.id, { id: randomUUID(), document, version, window: "test" });
  return handIn(h, person.id, { id: randomUUID(), version: saved.version });
}
const partOf = async (handoutId: string, person: Person): Promise<PartDocument> =>
  (await handoutOf(await handout(handoutId), person.id)).exercise.reference;

describe("a handout", () => {
  it("is not there before it opens, and is there for who teaches", async () => {
    const id = await issued({ opensAt: inHours(1) });
    const [who] = students as [Person];
    expect([await may(who, id), await sees(who, id)]).toEqual([false, false]);
    expect(await sees(teacher, id)).toBe(true);
    await changeTimes(id, { dueAt: inHours(24), opensAt: inHours(-1) });
    expect([await may(who, id), await sees(who, id)]).toEqual([true, true]);
  });
  it("takes nothing once it is closed, but from whom more time was given", async () => {
    const id = await issued();
    const [who, other] = students as [Person, Person];
    await changeTimes(id, { dueAt: inHours(-2), closesAt: inHours(-1), afterDue: "late" });
    const r = await handsIn(id, who, await partOf(id, who));
    expect(!r.ok && r.refusal.code).toBe("closed");
    await extend(id, other.id, inHours(1));
    expect((await handsIn(id, other, await partOf(id, other))).ok).toBe(true);
    // due but not closed: late, and taken
    await changeTimes(id, { dueAt: inHours(-2), closesAt: inHours(1), afterDue: "late" });
    const late = await handsIn(id, who, await partOf(id, who));
    if (!late.ok) throw new Error(late.refusal.sentence);
    expect((await submission(late.value.submission)).late_seconds).toBeGreaterThan(7000);
  });
  it("is for the groups and students it was given to", async () => {
    const [a, b, c] = students as [Person, Person, Person];
    await makeGroup(course, "Bench A");
    const group = (await groupsOf(course)).find((g) => g.name === "Bench A")!.id;
    await rows("update enrolments set group_id = $2 where course_id = $1 and person_id = $3", [course, group, a.id]);
    const id = await issued({ audience: { groups: [group], people: [b.id] } });
    expect(await Promise.all([a, b, c].map((p) => may(p, id)))).toEqual([true, true, false]);
    expect((await classOn(id)).map((r) => r.person_id).sort()).toEqual([a.id, b.id].sort());
    await changeTimes(id, { dueAt: inHours(24) });
    expect(await may(c, id)).toBe(true);
  });
  it("withdrawn is seen by nobody it was for, and back again with what was made", async () => {
    const id = await issued();
    const [who] = students as [Person];
    await handsIn(id, who, await partOf(id, who));
    await withdraw(id, true);
    expect([await may(who, id), await sees(who, id)]).toEqual([false, false]);
    await withdraw(id, false);
    expect(await may(who, id)).toBe(true);
    expect((await classOn(id)).find((r) => r.person_id === who.id)!.submission).not.toBeNull();
  });
});

describe("own numbers", () => {
  it("give each student a Sheet, targets and a check of their own; a copy is told by whose it is", async () => {
    const id = await issued();
    const [a, b] = students as [Person, Person];
    expect((await handoutOf(await handout(id), a.id)).trouble ?? "").toMatch(/^$|own numbers are being put/);
    const ready = async () =>
      (await Promise.all(students.map((p) => ownPart(id, p.id)))).every((o) => o?.state === "ready");
    await until(ready, 120_000);
    const [ownA, ownB] = [(await ownPart(id, a.id))!, (await ownPart(id, b.id))!];
    expect(ownA.numbers).not.toEqual(ownB.numbers);
    expect(ownA.sheet!.svg).not.toBe(ownB.sheet!.svg);
    expect(await drawingOf(id, a.id)).not.toEqual(await drawingOf(id, b.id));

    const checked = async (person: Person, document: PartDocument) => {
      const r = await handsIn(id, person, document);
      if (!r.ok) throw new Error(r.refusal.sentence);
      const { submission: s } = r.value;
      await until(async () => ["checked", "failed"].includes((await submission(s)).state), 60_000);
      return s;
    };
    const right = await deskSubmission(await checked(a, await partOf(id, a)));
    expect(right.grade!.points).toBe(right.grade!.of);
    expect(right.own!.builtFrom).toBeUndefined();
    const copy = await checked(b, await partOf(id, a));
    const copied = await deskSubmission(copy);
    expect(copied.grade!.points).toBeLessThan(copied.grade!.of);
    expect(copied.own!.builtFrom).toBe(a.name);
    expect([...(await copiesOn(id))]).toEqual([[b.id, a.name]]);
    expect((await studentView(copy, await handoutOf(await handout(id), b.id))).isAnothers).toBe(true);
  }, 200_000);
  it("come to who joins later, and nobody has another's", async () => {
    const id = await issued();
    const late = await newStudent(course);
    students.push(late);
    // two windows at once
    const h = await handout(id);
    await Promise.all([handoutOf(h, late.id), handoutOf(h, late.id)]);
    const places = await rows<{ place: number }>("select place from own_parts where handout_id = $1", [id]);
    expect(new Set(places.map((p) => p.place)).size).toBe(places.length);
    const { n } = await one<{ n: number }>(
      "select count(*)::int as n from own_parts where handout_id = $1 and person_id = $2",
      [id, late.id],
    );
    expect(n).toBe(1);
  });
  it("ask each for the same figures, and say nothing of what is right", async () => {
    const h = await handout(await issued());
    const asks: Exercise = {
      ...h.exercise,
      questions: [{ id: "q", title: "Mass", asks: { what: "mass" }, tolerance: 0.01 }],
      wanted: { q: { value: 123.456, quantity: "mass" } },
    };
    const told = forStudent(await handoutOf({ ...h, exercise: asks }, students[0]!.id));
    expect(told.figures.questions).toEqual([{ id: "q", title: "Mass", quantity: "mass" }]);
    expect(JSON.stringify(told)).not.toContain("123.456");
  });
  it("are refused for a class larger than there are parts", async () => {
    const few = { ...ownSpacerExercise(), varies: [{ number: "sketch1:m3", values: { of: [14, 16] } }] };
    const r = await enoughParts(few, 3);
    expect(!r.ok && r.refusal.sentence).toMatch(/give 2 different parts, and there are 3 students/);
    expect((await enoughParts(few, 2)).ok).toBe(true);
  });
});

import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { closeDatabase } from "@/server/database";
import type { Handout } from "@/server/handouts/handouts";
import { hintsFor, openHint } from "@/server/handouts/hints";
import { handIn, submission } from "@/server/tries/submissions";
import { openWork, saveWork } from "@/server/works/works";
import { tripodFoot } from "@/demo/parts";
import type { Person } from "@/server/people/people";
import { dropPerson, handoutNumbered, newStudent } from "./sample";

const HINTS = ["Begin with the upright wall.", "The holes sit 14 from the floor.", "Look at the view from the left."];
let h: Handout, student: Person;
beforeAll(async () => {
  const plain = await handoutNumbered("WS-08");
  h = { ...plain, exercise: { ...plain.exercise, hints: HINTS } };
  student = await newStudent(h.course_id);
});
afterAll(async () => {
  await dropPerson(student.id);
  await closeDatabase();
});

it("hints open one by one, however often they are asked for, and are noted with what is handed in", async () => {
  const work = await openWork(h, student.id);
  expect(await hintsFor(h, student.id)).toEqual({ opened: [], of: 3 });
  expect((await openHint(h, student.id, 1)).opened).toEqual(HINTS.slice(0, 1));
  // the answer was lost, and two windows ask at once
  await Promise.all([openHint(h, student.id, 1), openHint(h, student.id, 1)]);
  expect((await hintsFor(h, student.id)).opened).toEqual(HINTS.slice(0, 1));
  // none is skipped
  expect((await openHint(h, student.id, 3)).opened).toEqual(HINTS.slice(0, 2));
  const saved = await saveWork(h.id, student.id, {
    id: randomUUID(),
    document: tripodFoot(),
    version: work.version,
    window: "test",
  });
  const r = await handIn(h, student.id, { id: randomUUID(), version: saved.version });
  if (!r.ok) throw new Error(r.refusal.sentence);
  await openHint(h, student.id, 3);
  expect((await submission(r.value.submission)).hints_opened).toBe(2);
  expect((await openHint(h, student.id, 9)).opened).toEqual(HINTS);
});

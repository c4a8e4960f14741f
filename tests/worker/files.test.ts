import { randomUUID } from "node:crypto";
import { afterAll, afterEach, beforeAll, expect, it } from "vitest";
import type { PartFile } from "@/core/check/part-file";
import { writeStep } from "@/core/kernel/exchange";
import { rebuild } from "@/core/part/rebuild";
import { tripodFoot } from "@/demo/parts";
import { closeDatabase, row, rows } from "@/server/database";
import type { Handout } from "@/server/handouts";
import type { Person } from "@/server/people";
import { handIn } from "@/server/submissions";
import { openNodeKernel } from "@/worker/kernel";
import { dropPerson, handoutNumbered, newStudent, until } from "./sample";

let foot: Handout, student: Person, text: string;
beforeAll(async () => {
  foot = await handoutNumbered("WS-08");
  student = await newStudent(foot.course_id);
  const kernel = await openNodeKernel();
  const body = rebuild(kernel, tripodFoot()).body!;
  text = writeStep(kernel, body, "foot");
  kernel.release(body.shape);
});
afterEach(async () => {
  await dropPerson(student.id);
  student = await newStudent(foot.course_id);
});
afterAll(async () => {
  await dropPerson(student.id);
  await closeDatabase();
});

const file = (content: string): PartFile => ({
  format: "caliper-file",
  version: 1,
  kind: "step",
  name: "foot.step",
  text: content,
});
const accepting = (): Handout => ({ ...foot, accepts: ["part", "step"] });
const give = (h: Handout, content: string, id: string = randomUUID()) =>
  handIn(h, student.id, { id, version: 0, file: file(content) });

async function ended(submission: string) {
  const look = () =>
    row<{ state: string; trouble: string | null; points: number | null }>(
      `select c.state, c.trouble, (r.grade->>'points')::float as points from checks c
       left join reports r on r.id = c.report_id where c.submission_id = $1`,
      [submission],
    );
  await until(async () => ["checked", "failed"].includes((await look())!.state), 60_000);
  return (await look())!;
}

it("a STEP file is handed in without a part on the Bench, once however often it is sent, and graded", async () => {
  const id = randomUUID();
  const first = await give(accepting(), text, id);
  if (!first.ok) throw new Error(first.refusal.sentence);
  expect(await give(accepting(), text, id)).toEqual(first);
  expect(await rows("select 1 from submissions where person_id = $1", [student.id])).toHaveLength(1);
  // all but the sketches
  expect(await ended(first.value.submission)).toMatchObject({ state: "checked", points: 20 });
});

it("a handout that takes none says so", async () => {
  const r = await give(foot, text);
  expect(r.ok ? "" : r.refusal.sentence).toMatch(/does not take a STEP file: hand in a part built on the Bench/);
});

it("a damaged file ends in a sentence, and the next is checked", async () => {
  const bad = await give(accepting(), text.slice(0, 4000));
  if (!bad.ok) throw new Error(bad.refusal.sentence);
  expect(await ended(bad.value.submission)).toMatchObject({
    state: "failed",
    trouble: expect.stringMatching(/cut off/),
  });
  const good = await give(accepting(), text);
  if (!good.ok) throw new Error(good.refusal.sentence);
  expect((await ended(good.value.submission)).state).toBe("checked");
});

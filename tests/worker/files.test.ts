import { randomUUID } from "node:crypto";
import { afterAll, afterEach, beforeAll, expect, it } from "vitest";
import type { PartFile } from "@/core/check/given/part-file";
import { writeStep } from "@/core/kernel/exchange";
import { rebuild } from "@/core/part/rebuild";
import { tripodFoot } from "@/demo/parts";
import { closeDatabase, row, rows } from "@/server/database";
import type { Handout } from "@/server/handouts/handouts";
import type { Person } from "@/server/people/people";
import { handIn } from "@/server/tries/submissions";
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
  const r = await give({ ...foot, accepts: ["part"] }, text);
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

const box = (x: number, y: number, z: number): string => {
  const corner = (i: number) => `vertex ${i & 1 ? x : 0} ${i & 2 ? y : 0} ${i & 4 ? z : 0}`;
  const sides = ["0264", "1573", "0451", "2376", "0132", "4675"].flatMap((s) => {
    const [a, b, c, d] = [...s].map(Number) as [number, number, number, number];
    return [
      [a, b, c],
      [a, c, d],
    ];
  });
  const facets = sides.map((f) => `facet normal 0 0 0\nouter loop\n${f.map(corner).join("\n")}\nendloop\nendfacet`);
  return `solid box\n${facets.join("\n")}\nendsolid box\n`;
};
const meshFile = (content: string): PartFile => ({
  format: "caliper-file",
  version: 1,
  kind: "stl",
  unit: "mm",
  name: "box.stl",
  data: Buffer.from(content).toString("base64"),
});

it("a mesh is taken where the handout says so, and judged", async () => {
  const h: Handout = { ...foot, accepts: ["mesh"] };
  const refused = await handIn(h, student.id, { id: randomUUID(), version: 0, file: file(text) });
  expect(refused.ok ? "" : refused.refusal.sentence).toMatch(/does not take a STEP file: hand in a mesh file/);
  const r = await handIn(h, student.id, { id: randomUUID(), version: 0, file: meshFile(box(60, 40, 20)) });
  if (!r.ok) throw new Error(r.refusal.sentence);
  // a closed solid, and nothing else right
  expect(await ended(r.value.submission)).toMatchObject({ state: "checked", points: 2 });
});

it("figures are handed in alone where that is enough, and are kept with the submission", async () => {
  const housing = await handoutNumbered("WS-06");
  const own = { id: randomUUID(), version: 0, figuresOnly: true, answers: { q1: "19.53 g" } };
  const refused = await handIn(housing, student.id, own);
  expect(refused.ok ? "" : refused.refusal.sentence).toMatch(/does not take typed figures alone/);
  const r = await handIn({ ...housing, accepts: ["figures"] }, student.id, own);
  if (!r.ok) throw new Error(r.refusal.sentence);
  // one of two figures, and no part
  expect(await ended(r.value.submission)).toMatchObject({ state: "checked", points: 1.5 });
  const [kept] = await rows<{ answers: object }>("select answers from submissions where id = $1", [r.value.submission]);
  expect(kept!.answers).toEqual({ q1: "19.53 g" });
});

import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { readPart, type PartDocument } from "@/core/part/document";
import { closeDatabase } from "@/server/database";
import type { Handout } from "@/server/handouts/handouts";
import type { Person } from "@/server/people/people";
import { enqueue } from "@/server/queue";
import { stopCheck } from "@/server/tries/checks";
import { submission } from "@/server/tries/submissions";
import { dropPerson, handoutNumbered, newStudent, newSubmission, until } from "./sample";

let foot: Handout, villain: Person, next: Person;
beforeAll(async () => {
  foot = await handoutNumbered("WS-08");
});
beforeEach(async () => {
  [villain, next] = [await newStudent(foot.course_id), await newStudent(foot.course_id)];
});
afterEach(async () => {
  for (const p of [villain, next]) await dropPerson(p.id);
});
afterAll(closeDatabase);

const square = (id: string, side: number) => {
  const corners = [
    [0, 0],
    [side, 0],
    [side, side],
    [0, side],
  ];
  const curves = corners.map((start, i) => ({ id: `e${i}`, kind: "line", start, end: corners[(i + 1) % 4] }));
  return { id, kind: "sketch", sketch: { plane: { base: "top" }, curves, constraints: [], dimensions: [] } };
};
const post = (id: string, sketch: string) => ({
  id,
  kind: "extrude",
  sketch,
  operation: "add",
  extent: { kind: "depth", depth: 1 },
});
const row = (axis: "x" | "y", count: number, distance: number) => ({
  along: { axis },
  count,
  by: "step",
  distance,
});
const rows = (id: string, of: object, first: object, second?: object) => ({
  id,
  kind: "pattern",
  of,
  way: { kind: "rows", first, ...(second && { second }) },
});
function part(name: string, steps: object[]): PartDocument {
  const about = { format: "caliper-part", version: 1, units: "mm", material: { name: "Steel", density: 7.85 } };
  const r = readPart({ ...about, name, steps });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
}

/** Parts that no reader of documents can refuse, and that would keep a grader busy for hours. */
const HOSTILE = [
  part("a pattern of 500 × 500", [
    square("s", 1),
    post("b", "s"),
    rows("p", { steps: ["b"] }, row("x", 500, 2), row("y", 500, 2)),
  ]),
  part("patterns of patterns", [
    square("s", 1),
    post("b", "s"),
    ...[2, 60, 1_800, 54_000].map((step, i) =>
      rows(`p${i}`, { steps: [i ? `p${i - 1}` : "b"] }, row("x", 30, step), row("y", 30, step)),
    ),
  ]),
  part("a body doubled thirty times", [
    square("s", 1),
    post("b", "s"),
    ...Array.from({ length: 30 }, (_, i) => rows(`p${i}`, { body: true }, row("x", 2, 2 * 2 ** i))),
  ]),
];

describe("a part made to keep the grader busy", () => {
  // each takes what the quick lane gives it: one of them here, all in the long run
  it.each((process.env["CALIPER_LONG"] ? HOSTILE : HOSTILE.slice(0, 1)).map((d) => [d.name, d] as const))(
    "%s: the next student does not wait for its end, and it ends in a sentence",
    async (_, hostile) => {
      const bad = await newSubmission(foot.id, villain.id, hostile, 1);
      await enqueue({ task: "check", submission: bad });
      await until(async () => (await submission(bad)).state !== "queued", 10_000);
      const began = Date.now();
      const good = await newSubmission(foot.id, next.id, foot.exercise.reference, 1);
      await enqueue({ task: "check", submission: good });
      await until(async () => (await submission(good)).state === "checked", 60_000);
      // the quick lane gives the part before it 15 s; beside that a slow machine has its own check to do
      expect(Date.now() - began).toBeLessThan(45_000);
      // what is still under way goes on in the other lane; waiting a minute for its end is for the long run
      const isOver = async () => ["checked", "failed"].includes((await submission(bad)).state);
      if (process.env["CALIPER_LONG"]) await until(isOver, 120_000);
      else if (!(await isOver())) await stopCheck(bad);
      await until(isOver);
      const { state, trouble } = await submission(bad);
      if (state === "failed") expect(trouble).toMatch(/^(Could not be checked: |Stopped by ).*\.$/);
    },
    150_000,
  );
});

import { randomUUID } from "node:crypto";
import { checkSubmission } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import { References } from "@/core/check/references";
import { typicalMistakes } from "@/core/check/mistakes";
import { newLine } from "@/core/check/exercise/rubric";
import type { Decision, Word } from "@/core/grade/decision";
import { gradeReport } from "@/core/grade/grade";
import { SHOWS } from "@/core/check/exercise/terms";
import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf, emptyPart, type PartDocument } from "@/core/part/document";
import { one, rows } from "@/server/database";
import { handout, type Handout } from "@/server/handouts/handouts";
import { type Terms } from "@/server/handouts/handout-terms";
import { decide } from "@/server/marking/marking";
import { flatPicture } from "@/server/files/part-picture";
import { keepLines } from "@/server/files/line-pictures";
import { packMesh, packPicture } from "@/server/files/pictures";
import { dequeue } from "@/server/queue";
import { beginCheck, finishCheck } from "@/server/tries/checks";
import { rememberShown } from "@/server/works/works";
import { measurePart } from "@/core/check/given/measured";
import { displayMesh } from "@/core/check/facets/display-mesh";
import { handsIn, worksOn } from "./hands-in";
import { INSTRUCTOR } from "./people";

/** What of a class stands behind a handout of the demo. */
export interface DemoClass {
  readonly kernel: Kernel;
  readonly course: string;
  readonly students: ReadonlyMap<string, string>;
  issue(document: Exercise, days: number, terms: Omit<Terms, "dueAt">): Promise<string>;
}

/** A part that somebody built with a mistake, by what it was. */
function mistaken(reference: PartDocument, pattern: RegExp, nth = 0): PartDocument {
  const found = typicalMistakes(reference).filter((m) => pattern.test(m.label))[nth];
  if (!found) throw new Error(`The demo makes no mistake like ${pattern}`);
  return found.document;
}

/** Hands a part in and has it checked here, as the worker would. @returns the submission */
async function handsInChecked(
  c: DemoClass,
  references: References,
  h: Handout,
  name: string,
  document: PartDocument,
): Promise<string> {
  const submission = await handsIn(h, c.students.get(name)!, (own) => ({ ...document, name: own }));
  const { ticket, input } = (await beginCheck(submission, ""))!;
  const checked = checkSubmission(c.kernel, input.exercise, input.document as PartDocument, {
    references,
    by: { initials: input.initials },
    asLines: true,
  });
  if (!checked.ok) throw new Error(checked.refusal.sentence);
  const { report, picture, lines } = checked.value;
  const grade = gradeReport(input.exercise, report);
  await finishCheck(ticket, submission, report, grade, packPicture(picture), await keepLines(lines));
  await dequeue({ task: "check", submission });
  return submission;
}

/** Somebody decides or says something. */
async function says(submission: string, name: string, ...what: (Decision | Word)[]): Promise<void> {
  const person = await one<{ id: string; name: string; email: string }>(
    "select id, name, email from people where name = $1 and demo",
    [name],
  );
  const r = await decide(
    submission,
    person,
    what.map((w) => ({ id: randomUUID(), what: w })),
  );
  if (!r.ok) throw new Error(r.refusal.sentence);
}
const hedda = (submission: string, ...what: Decision[]) => says(submission, INSTRUCTOR.name, ...what);
const comment = (text: string, line?: string): Decision => ({
  do: "comment",
  comment: randomUUID(),
  text,
  ...(line && { line }),
});

/** The counterweight: marked from first to last, and returned. */
export async function markedHandout(c: DemoClass, exercise: Exercise): Promise<void> {
  const id = await c.issue(exercise, 1, { counts: "best", accepts: ["part"] });
  const h = await handout(id),
    references = new References(c.kernel, 2);
  const { reference } = exercise;
  const hand = (name: string, document: PartDocument) => handsInChecked(c, references, h, name, document);
  const wrong = (pattern: RegExp, nth = 0) => mistaken(reference, pattern, nth);
  const barnaby = await hand("Barnaby Teal", reference);
  const sunniva = await hand("Sunniva Rook", reference);
  const first = await hand("Ottoline Marsh", wrong(/instead of/));
  await hedda(first, comment("One size is misread. Compare it with the Sheet and hand in once more."), {
    do: "return",
  });
  const ottoline = await hand("Ottoline Marsh", reference);
  const idris = await hand("Idris Fenwick", wrong(/dimension forgotten/));
  const perpetua = await hand("Perpetua Lowe", wrong(/left out/));
  const casimir = await hand("Casimir Dunn", wrong(/instead of/, 3));
  await hedda(barnaby, comment("Clean from the first sketch to the last step."), { do: "return" });
  await hedda(sunniva, { do: "accept" }, { do: "return" });
  await hedda(ottoline, comment("Now it is as drawn."), { do: "return" });
  await hedda(idris, comment("One dimension is missing: drag the outline and you see what still moves.", "sketches"), {
    do: "return",
  });
  await hedda(
    perpetua,
    comment("The last step of the Sheet is not there yet. Everything before it is right.", "shape"),
    { do: "return" },
  );
  const half = {
    do: "overrule" as const,
    line: "shape",
    points: 3,
    reason: "One size only, already counted under Printed sizes.",
  };
  await hedda(casimir, half, comment("Everything hangs together. Read that one size again."), { do: "return" });
  await says(casimir, "Casimir Dunn", {
    do: "say",
    text: "Do I lose the mass as well if one size is the only mistake?",
  });
  await hedda(casimir, {
    do: "answer",
    text: "Yes: mass and volume are read from the part. Hand in again, the best counts.",
  });
}

/** The gland plate: half marked, with a line that is marked by hand and questions both ways. */
export async function halfMarkedHandout(c: DemoClass, plain: Exercise): Promise<void> {
  const hand = { ...newLine("hand", 3), id: "order", title: "Order of the steps" };
  const exercise: Exercise = { ...plain, rubric: [...plain.rubric, hand] };
  const id = await c.issue(exercise, 2, { shows: { ...SHOWS, when: "returned" }, attemptsMost: 3 });
  const h = await handout(id),
    references = new References(c.kernel, 2);
  const { reference } = exercise;
  const handed = (name: string, document: PartDocument) => handsInChecked(c, references, h, name, document);
  const order = (points: number, reason = ""): Decision => ({ do: "overrule", line: "order", points, reason });
  const barnaby = await handed("Barnaby Teal", reference);
  const idris = await handed("Idris Fenwick", mistaken(reference, /left out/));
  const linnea = await handed("Linnea Holt", reference);
  const ottoline = await handed("Ottoline Marsh", mistaken(reference, /instead of/));
  await handed("Perpetua Lowe", mistaken(reference, /dimension forgotten/));
  const sunniva = await handed("Sunniva Rook", reference);
  await hedda(barnaby, order(3), { do: "accept" });
  await hedda(linnea, order(3, "Holes last, as they should be."), { do: "accept" }, { do: "return" });
  await hedda(idris, order(2), { do: "ask", text: "Did you read the note about the countersunk screws?" });
  await says(sunniva, "Sunniva Rook", { do: "say", text: "I sank the holes before the seat. Is that a fault here?" });
  await hedda(ottoline, comment("Measure this one again on the Sheet.", "sizes"));
}

/** The pulley: being worked on, with checks before handing in. */
export async function practiceHandout(c: DemoClass, exercise: Exercise): Promise<void> {
  const id = await c.issue(exercise, 3, { practice: { shows: "sentences", most: 5 } });
  const h = await handout(id);
  const { reference } = exercise;
  const upTo = (n: number): PartDocument => ({ ...reference, steps: reference.steps.slice(0, n) });
  const most = reference.steps.length;
  const parts: readonly (readonly [string, PartDocument])[] = [
    ["Barnaby Teal", reference],
    ["Linnea Holt", upTo(Math.max(2, most - 1))],
    ["Idris Fenwick", upTo(2)],
    ["Casimir Dunn", emptyPart(reference.name, reference.units, reference.material)],
  ];
  for (const [name, document] of parts) {
    const person = c.students.get(name)!;
    const version = await worksOn(h, person, (own) => ({ ...document, name: own }));
    await shows(c.kernel, h.id, person, version, document);
  }
  // one of them has sat still for a while
  await rows("update works set changed_at = now() - interval '12 minutes' where handout_id = $1 and person_id = $2", [
    h.id,
    c.students.get("Idris Fenwick"),
  ]);
}

/** What the Bench would tell of a part: its numbers and a small picture. */
export async function shows(
  kernel: Kernel,
  handoutId: string,
  person: string,
  version: number,
  document: PartDocument,
) {
  const { solid, properties, built } = measurePart(kernel, document);
  const sketches = [...built.sketches.values()];
  const numbers = {
    steps: document.steps.length,
    sketches: sketches.length,
    defined: sketches.filter((s) => s.diagnosis.freedoms === 0).length,
    loose: sketches.reduce((n, s) => n + s.diagnosis.freedoms, 0),
    ...(properties && { volume: properties.volume, mass: properties.volume * densityOf(document.material) }),
  };
  const mesh = solid && displayMesh(kernel, solid, 100);
  const picture = mesh && svgPicture(flatPicture({ submission: packMesh(mesh) }));
  kernel.release(solid?.shape);
  await rememberShown(handoutId, person, version, { numbers, ...(picture && { picture }) });
}

/** Shaded facets as a small drawing in a data address. */
function svgPicture(flat: ReturnType<typeof flatPicture>): string | undefined {
  if (!flat) return undefined;
  const facets = flat.facets.map(({ corners, light }) => {
    const points = corners.map(([x, y]) => `${(14 + x * 72).toFixed(1)},${(14 + (1 - y) * 72).toFixed(1)}`).join(" ");
    const grey = Math.round(120 + 100 * light);
    const ink = `rgb(${grey - 12},${grey - 4},${grey})`;
    return `<polygon points="${points}" fill="${ink}" stroke="${ink}" stroke-width="0.3"/>`;
  });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${facets.join("")}</svg>`;
  return `data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}`;
}

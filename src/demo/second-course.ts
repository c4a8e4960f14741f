import { followOn } from "@/core/check/exercise/follow-on";
import { prepareExercise } from "@/core/check/exercise/prepare";
import { withOwnNumbers } from "@/core/check/exercise/own-numbers";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import type { Step } from "@/core/part/steps/kinds";
import { rows } from "@/server/database";
import { handout } from "@/server/handouts/handouts";
import { beginOwnPart, handoutOf, ownPartInput, saveOwnPart } from "@/server/handouts/own-parts";
import { stepRun } from "@/server/tries/runs";
import { openWork } from "@/server/works/works";
import { spacerExercise } from "./exercises";
import { handsIn } from "./hands-in";
import { shows, type DemoClass } from "./marking";
import { ownFootExercise, ownSpacerExercise } from "./own-numbers";

/** The same exercise with what a library finds it by. */
const listed = (e: Exercise, tags: readonly string[], level: number, minutes: number): Exercise => ({
  ...e,
  about: { tags: [...tags], level, minutes },
});

/** Measures the own parts of a handout here, as the worker would. */
async function measureOwnParts(kernel: Kernel, handoutId: string, people: Iterable<string>): Promise<void> {
  for (const person of people) {
    const ticket = await beginOwnPart(handoutId, person);
    if (!ticket) continue;
    const input = await ownPartInput(handoutId, person);
    const own = withOwnNumbers(input.exercise, input.numbers);
    const targets = own.ok ? prepareExercise(kernel, own.value) : own;
    if (!targets.ok) throw new Error(targets.refusal.sentence);
    const isSaved = !targets.value.proof.points.length && (await saveOwnPart(ticket, handoutId, person, targets.value));
    // the few that are left go the usual way
    if (!isSaved) await stepRun(ticket, "again");
  }
}

/** Where one hand puts the numbers of its dimensions: never quite where another does. */
function numbersPut(document: PartDocument, hand: number): PartDocument {
  const off = (i: number) => Math.sin(hand * 12.9898 + i * 78.233) * 9;
  const steps = document.steps.map((step, n): Step => {
    if (step.kind !== "sketch") return step;
    const dimensions = step.sketch.dimensions.map((d, i) => ({
      ...d,
      at: [20 + off(n * 40 + i), 20 + off(n * 40 + i + 500)] as [number, number],
    }));
    return { ...step, sketch: { ...step.sketch, dimensions } };
  });
  return { ...document, steps };
}

/**
 * The second course: a spacer with numbers of each student's own, copied once and drawn alike once; the spacer of the
 * first course gone on with, for one bench; and a foot that opens later.
 */
export async function secondCourse(c: DemoClass): Promise<void> {
  const { kernel, students } = c;
  const spacer = listed(ownSpacerExercise(), ["turning", "chamfer"], 2, 40);
  const id = await c.issue(spacer, 5, { counts: "best" });
  await measureOwnParts(kernel, id, students.values());
  const h = await handout(id);
  const names = [...students.keys()];
  const partOf = async (name: string) => (await handoutOf(h, students.get(name)!)).exercise.reference;
  const hand = async (name: string, part: PartDocument) => {
    const person = students.get(name)!;
    await handsIn(h, person, (called) => ({ ...part, name: called }));
    const { version } = await openWork(h, person);
    await shows(kernel, id, person, version, part);
  };
  for (const [i, name] of names.slice(0, 9).entries()) {
    const own = numbersPut(await partOf(name), i + 1);
    await hand(name, own);
  }
  // one built what the neighbour's Sheet says, and one took the neighbour's part and changed the numbers in it
  const [neighbour, second] = [names[2]!, names[4]!];
  const copied = numbersPut(await partOf(neighbour), 3);
  await hand(names[9]!, copied);
  const alike = numbersPut(await partOf(names[10]!), names.indexOf(second) + 1);
  await hand(names[10]!, alike);

  const next = followOn(listed(spacerExercise(), ["turning", "chamfer"], 1, 30), "sketch1:m5", 46);
  if (!next.ok) throw new Error(next.refusal.sentence);
  const groups = await rows<{ id: string }>("select id from groups where course_id = $1 order by name", [c.course]);
  // nobody here has the part it goes on from: they are given it
  const begun: Exercise = { ...next.value, start: { from: "starter", part: spacerExercise().reference } };
  await c.issue(begun, 12, { audience: { groups: groups.slice(1).map((g) => g.id), people: [] } });

  const opensAt = new Date(Date.now() + 7 * 86_400_000);
  opensAt.setHours(8, 0, 0, 0);
  await c.issue(listed(ownFootExercise(), ["bracket", "holes"], 2, 60), 20, {
    opensAt,
    accepts: ["part"],
  });
}

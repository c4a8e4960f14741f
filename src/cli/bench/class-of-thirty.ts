import { randomUUID } from "node:crypto";
import type { Exercise } from "@/core/check/exercise/exercise";
import { typicalMistakes } from "@/core/check/mistakes";
import type { PartDocument } from "@/core/part/document";
import { handsIn } from "@/demo/hands-in";
import { one, rows } from "@/server/database";
import { createExercise, savePrepared } from "@/server/exercises/exercises";
import { handout } from "@/server/handouts/handouts";
import { issueHandout, type Terms } from "@/server/handouts/handout-terms";
import { prepareExercise } from "@/core/check/exercise/prepare";
import { openNodeKernel } from "@/worker/kernel";

/** A class made by machine, with what it handed in. */
export interface MadeClass {
  readonly course: string;
  readonly exercise: string;
  readonly handout: string;
  readonly teacher: string;
  readonly students: readonly { readonly id: string; readonly name: string }[];
}

const FIRST = ["Agnes", "Bertram", "Cosima", "Dunstan", "Elspeth", "Fergus", "Greta", "Horace", "Imelda", "Jocelyn"];
const LAST = ["Ashby", "Birch", "Croft", "Dale", "Elm", "Frost", "Gale", "Heath", "Ivory", "Jessop"];

async function person(name: string): Promise<string> {
  const email = `${randomUUID()}@class.example`;
  const initials = name
    .split(" ")
    .map((w) => w[0])
    .join("");
  const made = await one<{ id: string }>(
    "insert into people (name, email, password_hash, initials) values ($1, $2, 'none', $3) returning id",
    [name, email, initials],
  );
  return made.id;
}

/**
 * A third builds it right, the rest with one mistake or two, the same every time.
 * @param nth of the class
 */
function madePart(reference: PartDocument, nth: number): PartDocument {
  if (nth % 3 === 0) return reference;
  const mistakes = typicalMistakes(reference);
  const once = mistakes[(nth * 5) % mistakes.length]!.document;
  if (nth % 3 === 1) return once;
  const again = typicalMistakes(once);
  return again[(nth * 7 + 2) % again.length]!.document;
}

/** A course with an instructor and so many students, an exercise issued, and their parts waiting for their check. */
export async function makeClass(
  exercise: Exercise,
  many: number,
  terms: Omit<Terms, "dueAt"> = {},
  isHandedIn: (nth: number) => boolean = () => true,
): Promise<MadeClass> {
  const title = `${exercise.title}, evening ${randomUUID().slice(0, 4)}`;
  const course = (await one<{ id: string }>("insert into courses (title) values ($1) returning id", [title])).id;
  const enrol = (id: string, role: string) =>
    rows("insert into enrolments (course_id, person_id, role) values ($1, $2, $3)", [course, id, role]);
  const teacher = await person("Maud Sterling");
  await enrol(teacher, "instructor");
  const kernel = await openNodeKernel();
  const id = await createExercise(course, exercise);
  const targets = prepareExercise(kernel, exercise);
  if (!targets.ok) throw new Error(targets.refusal.sentence);
  await savePrepared(id, 1, targets.value);
  const made = await issueHandout(id, { dueAt: new Date(Date.now() + 86_400_000), ...terms });
  if (!made) throw new Error("the exercise could not be issued");
  const h = await handout(made);
  const students: { id: string; name: string }[] = [];
  for (let i = 0; i < many; i++) {
    const name = `${FIRST[i % 10]} ${LAST[(i * 3 + Math.floor(i / 10)) % 10]}`;
    const student = await person(name);
    students.push({ id: student, name });
    await enrol(student, "student");
    if (!isHandedIn(i)) continue;
    await handsIn(h, student, (own) => ({ ...madePart(exercise.reference, i), name: own }));
  }
  return { course, exercise: id, handout: made, teacher, students };
}

import { randomUUID } from "node:crypto";
import { closeDatabase, one, row, rows } from "@/server/database";
import { createExercise, savePrepared } from "@/server/exercises";
import { handout, issueHandout } from "@/server/handouts";
import { openWork, saveWork } from "@/server/works";
import { migrate } from "@/server/migrate";
import { hashPassword, makePerson } from "@/server/people";
import { handIn } from "@/server/submissions";
import type { Exercise } from "@/core/check/exercise";
import type { Accepted } from "@/core/check/part-file";
import type { Answers, Wanted } from "@/core/check/question";
import { prepareExercise } from "@/core/check/prepare";
import type { Kernel } from "@/core/kernel/opencascade";
import { openNodeKernel } from "@/worker/kernel";
import type { PartDocument } from "@/core/part/document";
import {
  armExercise,
  bracketExercise,
  counterweightExercise,
  footExercise,
  glandExercise,
  housingExercise,
  hubExercise,
  pulleyExercise,
  spacerExercise,
} from "./exercises";
import {
  armSubmissions,
  bracketSubmissions,
  footSubmissions,
  housingAnswers,
  housingSubmissions,
  hubSubmissions,
  ADMINISTRATOR,
  INSTRUCTOR,
  spacerSubmissions,
  STUDENTS,
} from "./people";

/** Loads the demo course once; a second start finds it there. */
async function load(): Promise<void> {
  await migrate();
  if (await row("select 1 from people where demo limit 1")) return;
  const password = await hashPassword("demo-caliper");
  const person = async (name: string, email: string, administrator = false) => {
    const made = await makePerson({ name, email, passwordHash: password, administrator, demo: true });
    if (!made) throw new Error(`There is somebody with the address ${email} already.`);
    return made.id;
  };
  const made = "insert into courses (title, term, demo) values ('Part Modelling 1', 'Autumn', true) returning id";
  const course = (await one<{ id: string }>(made)).id;
  const enrol = (id: string, role: string) =>
    rows("insert into enrolments (course_id, person_id, role) values ($1, $2, $3)", [course, id, role]);
  await enrol(await person(INSTRUCTOR.name, INSTRUCTOR.email), "instructor");
  await person(ADMINISTRATOR.name, ADMINISTRATOR.email, true);
  const students = new Map<string, string>();
  for (const s of STUDENTS) {
    const id = await person(s.name, s.email);
    students.set(s.name, id);
    await enrol(id, "student");
  }
  const kernel = await openNodeKernel();
  await issue(kernel, course, footExercise(), 4, footSubmissions(), students);
  await issue(kernel, course, armExercise(), 11, armSubmissions(), students);
  await issue(kernel, course, spacerExercise(), 13, spacerSubmissions(), students);
  await issue(kernel, course, bracketExercise(), 15, bracketSubmissions(), students);
  await issue(kernel, course, housingExercise(), 18, housingSubmissions(), students, housingAnswers);
  await issue(kernel, course, hubExercise(), 20, hubSubmissions(), students);
  // written, not given out yet
  for (const make of [pulleyExercise, glandExercise, counterweightExercise])
    await prepare(kernel, course, make(kernel));
}

/** An exercise with what is measured on its reference. */
async function prepare(kernel: Kernel, course: string, document: Exercise) {
  const id = await createExercise(course, document);
  const targets = prepareExercise(kernel, document);
  if (!targets.ok) throw new Error(targets.refusal.sentence);
  await savePrepared(id, 1, targets.value);
  return { id, targets: targets.value };
}

async function issue(
  kernel: Kernel,
  course: string,
  document: Exercise,
  days: number,
  submissions: ReadonlyMap<string, PartDocument>,
  students: ReadonlyMap<string, string>,
  typed: (wanted: Wanted) => ReadonlyMap<string, Answers> = () => new Map(),
): Promise<void> {
  const { id, targets } = await prepare(kernel, course, document);
  const due = new Date();
  due.setDate(due.getDate() + days);
  due.setHours(18, 0, 0, 0);
  const accepts: readonly Accepted[] = document.questions ? ["part", "step", "mesh"] : ["part"];
  const made = await issueHandout(id, { dueAt: due, graceMinutes: 10, accepts });
  if (!made) throw new Error(`${document.number} could not be issued`);
  const h = await handout(made);
  for (const [name, part] of submissions) {
    const person = students.get(name)!;
    const work = await openWork(h, person);
    const saved = await saveWork(h.id, person, {
      id: randomUUID(),
      document: part,
      version: work.version,
      window: "demo",
    });
    const r = await handIn(h, person, {
      id: randomUUID(),
      version: saved.version,
      answers: typed(targets.wanted).get(name),
    });
    if (!r.ok) throw new Error(r.refusal.sentence);
  }
}

await load();
await closeDatabase();

import { closeDatabase, one, row, rows } from "@/server/database";
import { createExercise, savePrepared } from "@/server/exercises/exercises";
import { handout } from "@/server/handouts/handouts";
import { issueHandout } from "@/server/handouts/handout-terms";
import { migrate } from "@/server/upkeep/migrate";
import { hashPassword, makePerson } from "@/server/people/people";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Accepted } from "@/core/check/given/part-file";
import type { Answers, Wanted } from "@/core/check/exercise/question";
import { prepareExercise } from "@/core/check/exercise/prepare";
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
import { handsIn } from "./hands-in";
import { halfMarkedHandout, markedHandout, practiceHandout, type DemoClass } from "./marking";
import { secondCourse } from "./second-course";
import {
  armSubmissions,
  bracketSubmissions,
  footSubmissions,
  housingAnswers,
  housingSubmissions,
  hubSubmissions,
  ADMINISTRATOR,
  ASSISTANT,
  INSTRUCTOR,
  SECOND_INSTRUCTOR,
  SECOND_STUDENTS,
  spacerSubmissions,
  STUDENTS,
} from "./people";

/** Loads the demo course once; a second start finds it there. */
async function load(): Promise<void> {
  await migrate();
  if (await row("select 1 from people where demo limit 1")) return;
  const password = await hashPassword("demo-caliper");
  // where there is anybody else, nobody with a password that all know looks after the server
  const isAlone = !(await row("select 1 from people limit 1"));
  const person = async (name: string, email: string, administrator = false) => {
    const made = await makePerson({
      name,
      email,
      passwordHash: password,
      administrator: administrator && isAlone,
      demo: true,
    });
    if (!made) throw new Error(`There is somebody with the address ${email} already.`);
    return made.id;
  };
  const course = await courseWith("Part Modelling 1", "Autumn");
  const enrol = (courseId: string, id: string, role: string, group: string | null = null) =>
    rows("insert into enrolments (course_id, person_id, role, group_id) values ($1, $2, $3, $4)", [
      courseId,
      id,
      role,
      group,
    ]);
  await enrol(course, await person(INSTRUCTOR.name, INSTRUCTOR.email), "instructor");
  await person(ADMINISTRATOR.name, ADMINISTRATOR.email, true);
  const students = new Map<string, string>();
  for (const s of STUDENTS) {
    const id = await person(s.name, s.email);
    students.set(s.name, id);
    await enrol(course, id, "student");
  }
  const kernel = await openNodeKernel();
  await issue(kernel, course, footExercise(), 4, footSubmissions(), students);
  await issue(kernel, course, armExercise(), 11, armSubmissions(), students);
  await issue(kernel, course, spacerExercise(), 13, spacerSubmissions(), students);
  await issue(kernel, course, bracketExercise(), 15, bracketSubmissions(), students);
  await issue(kernel, course, housingExercise(), 18, housingSubmissions(), students, housingAnswers);
  await issue(kernel, course, hubExercise(), 20, hubSubmissions(), students);
  const classIn = (courseId: string, people: ReadonlyMap<string, string>): DemoClass => ({
    kernel,
    course: courseId,
    students: people,
    issue: async (document, days, terms) => {
      const { id } = await prepare(kernel, courseId, document);
      const made = await issueHandout(id, { dueAt: dueIn(days), graceMinutes: 10, ...terms });
      if (!made) throw new Error(`${document.number} could not be issued`);
      return made;
    },
  });
  const demo = classIn(course, students);
  await markedHandout(demo, counterweightExercise(kernel));
  await halfMarkedHandout(demo, glandExercise(kernel));
  await practiceHandout(demo, pulleyExercise(kernel));

  const second = await courseWith("Part Modelling 2", "Autumn");
  await enrol(second, await person(SECOND_INSTRUCTOR.name, SECOND_INSTRUCTOR.email), "instructor");
  await enrol(second, await person(ASSISTANT.name, ASSISTANT.email), "assistant");
  const benches = [];
  for (const name of ["Bench A", "Bench B"])
    benches.push(
      await one<{ id: string }>("insert into groups (course_id, name) values ($1, $2) returning id", [second, name]),
    );
  const others = new Map<string, string>();
  for (const [i, s] of SECOND_STUDENTS.entries()) {
    const id = await person(s.name, s.email);
    others.set(s.name, id);
    await enrol(second, id, "student", benches[i % 2]!.id);
  }
  await secondCourse(classIn(second, others));
}

/** A course of the demo. */
const courseWith = async (title: string, term: string): Promise<string> =>
  (
    await one<{ id: string }>("insert into courses (title, term, demo) values ($1, $2, true) returning id", [
      title,
      term,
    ])
  ).id;

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
  const accepts: readonly Accepted[] = document.questions ? ["part", "step", "mesh"] : ["part"];
  const made = await issueHandout(id, { dueAt: dueIn(days), graceMinutes: 10, accepts });
  if (!made) throw new Error(`${document.number} could not be issued`);
  const h = await handout(made);
  for (const [name, part] of submissions) {
    await handsIn(h, students.get(name)!, () => part, typed(targets.wanted).get(name));
  }
}

/** At six in the evening, so many days on. */
function dueIn(days: number): Date {
  const due = new Date();
  due.setDate(due.getDate() + days);
  due.setHours(18, 0, 0, 0);
  return due;
}

await load();
await closeDatabase();

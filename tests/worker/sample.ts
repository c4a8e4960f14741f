import { randomUUID } from "node:crypto";
import type { PartDocument } from "@/core/part/document";
import { one, rows, transaction } from "@/server/database";
import { handout, type Handout } from "@/server/handouts/handouts";
import type { Person } from "@/server/people/people";
import type { Grade } from "@/core/grade/grade";
import { beginCheck, finishCheck } from "@/server/tries/checks";
import { endOpen } from "@/server/tries/runs";

export const personCalled = (name: string) => one<Person>("select id, name, email from people where name = $1", [name]);

/** The demo's handout of a number. */
export const handoutNumbered = async (number: string): Promise<Handout> =>
  handout((await one<{ id: string }>("select id from handouts where exercise->>'number' = $1", [number])).id);

/** A person of a course, for one test. */
export async function newStudent(courseId: string, role = "student"): Promise<Person> {
  const name = `Student ${randomUUID().slice(0, 8)}`;
  const made = await one<Person>(
    "insert into people (name, email, password_hash) values ($1, $2, 'none') returning id, name, email",
    [name, `${randomUUID()}@elsewhere.example`],
  );
  await rows("insert into enrolments (course_id, person_id, role) values ($1, $2, $3)", [courseId, made.id, role]);
  return made;
}

/** Takes a person away with all that is theirs: the one documented way. */
export const dropPerson = (id: string): Promise<void> =>
  transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from people where id = $1", [id]);
  });

/** A submission that is not queued. */
export async function newSubmission(
  handoutId: string,
  personId: string,
  document: PartDocument,
  attempt = 1,
): Promise<string> {
  const made = await one<{ id: string }>(
    "insert into submissions (handout_id, person_id, attempt, document) values ($1, $2, $3, $4) returning id",
    [handoutId, personId, attempt, document],
  );
  await openQuietly(made.id);
  return made.id;
}

/** A check of a submission that waits, and that no grading process takes up by itself. */
export const openQuietly = (submission: string): Promise<void> =>
  transaction(async (client) => {
    await endOpen({ kind: "check", submission_id: submission }, "replace", null, client);
    // a run without a job is queued after a while: not this one
    const made = await one<{ id: string }>(
      `insert into runs (kind, submission_id, job, changed_at)
       values ('check', $1::uuid, 'check:' || $1::text, now() + interval '1 day') returning id`,
      [submission],
      client,
    );
    await client.query(
      `insert into tries (submission_id, run_id) values ($1, $2)
       on conflict (submission_id) do update set run_id = excluded.run_id`,
      [submission, made.id],
    );
  });

/** Has a submission checked with a grade that is made up. */
export async function gradedAs(submission: string, grade: Grade): Promise<void> {
  const begun = await beginCheck(submission, "");
  if (!begun) {
    await openQuietly(submission);
    return gradedAs(submission, grade);
  }
  await finishCheck(begun.ticket, submission, { version: 1, kernel: "k", evidence: [] }, grade, {} as never);
}

/** Waits for something to become true. */
export async function until(what: () => Promise<boolean>, ms = 30_000): Promise<void> {
  const end = Date.now() + ms;
  while (!(await what())) {
    if (Date.now() > end) throw new Error("It did not come true in time.");
    await new Promise((r) => setTimeout(r, 200));
  }
}

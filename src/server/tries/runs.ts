import type pg from "pg";
import { database, row, rows } from "../database";
import { dequeue, enqueue, keyOf, type Job, type Place } from "../queue";
import { happening, NEEDS_TICKET, type RunEvent, type RunState } from "./life";

type Client = pg.Pool | pg.PoolClient;

/** What a run is of, by the columns of its row. */
export type Subject =
  | { readonly kind: "check"; readonly submission_id: string }
  | { readonly kind: "practice"; readonly practice_id: string }
  | { readonly kind: "second-check"; readonly recheck_id: string; readonly submission_id: string }
  | { readonly kind: "own-part"; readonly handout_id: string; readonly person_id: string }
  | { readonly kind: "measure"; readonly exercise_id: string }
  | { readonly kind: "mistakes"; readonly exercise_id: string };

/** What a process holds of a run it has begun: with it alone the run can be ended. */
export interface Ticket {
  readonly run: string;
  readonly turn: number;
  readonly revision: number;
}

/** The job that does a run. */
function jobOf(subject: Subject): Job {
  switch (subject.kind) {
    case "check":
      return { task: "check", submission: subject.submission_id };
    case "practice":
      return { task: "practise", practice: subject.practice_id };
    case "second-check":
      return { task: "second-check", trial: subject.recheck_id, submission: subject.submission_id };
    case "own-part":
      return { task: "own-part", handout: subject.handout_id, person: subject.person_id };
    case "measure":
      return { task: "prepare-exercise", exercise: subject.exercise_id };
    case "mistakes":
      return { task: "try-rubric", exercise: subject.exercise_id };
  }
}

const columnsOf = (s: Subject): readonly [string, string][] => Object.entries(s);
/** "kind = $1 and submission_id = $2", from a number on. */
const whereOf = (s: Subject, from = 1): string =>
  columnsOf(s)
    .map(([c], i) => `${c} = $${from + i}`)
    .join(" and ");
const valuesOf = (s: Subject): string[] => columnsOf(s).map(([, v]) => v);

/** Writes a run down. @param ended it has ended well already */
async function writeRun(subject: Subject, ended: boolean, client: pg.PoolClient): Promise<string> {
  const columns = columnsOf(subject);
  const made = await client.query<{ id: string }>(
    `insert into runs (job, state, started_at, ended_at, ${columns.map(([c]) => c).join(", ")})
     values ($1, $2, case when $2 = 'done' then now() end, case when $2 = 'done' then now() end,
       ${columns.map((_, i) => `$${i + 3}`).join(", ")}) returning id`,
    [keyOf(jobOf(subject)), ended ? "done" : "queued", ...valuesOf(subject)],
  );
  return made.rows[0]!.id;
}

/**
 * Opens a run and queues its job; what is open of the same thing gives way, and whoever does it hears of it.
 * @returns its id
 */
export async function openRun(s: Subject, place: Place, client: pg.PoolClient): Promise<string> {
  await endOpen(s, "replace", null, client);
  const run = await writeRun(s, false, client);
  await enqueue(jobOf(s), place, client);
  return run;
}

/** A run that has ended well already: what was found beside, in another run. What is open of the thing gives way. */
export async function settledRun(s: Subject, client: pg.PoolClient): Promise<string> {
  await endOpen(s, "replace", null, client);
  return writeRun(s, true, client);
}

/** Whoever changes tries locks them first, in one order. */
export const lockTries = (submissions: readonly string[], client: pg.PoolClient) =>
  client.query("select 1 from tries where submission_id = any($1) order by submission_id for update", [submissions]);

/** All that is open of a second check gives way. */
export async function replaceTrials(recheckId: string, client: pg.PoolClient): Promise<void> {
  const { from, to } = happening("replace");
  const gone = await rows<{ id: string; job: string }>(
    `update runs set state = $1, progress = '', ended_at = now(), changed_at = now()
     where recheck_id = $2 and state = any($3) returning id, job`,
    [to, recheckId, from],
    client,
  );
  for (const r of gone) {
    await client.query("select graphile_worker.remove_job($1)", [r.job]);
    await client.query("select tell($1)", [`stop:${r.id}`]);
  }
}

/**
 * What is open of a thing gives way, or is stopped by hand. @param why what its reader is told
 * @returns whether something was open
 */
export async function endOpen(
  subject: Subject,
  event: "replace" | "stop",
  why: string | null,
  client: pg.PoolClient,
): Promise<boolean> {
  const { from, to } = happening(event);
  const gone = await row<{ id: string }>(
    `update runs set state = $1, progress = '', trouble = $2, ended_at = now(), changed_at = now()
     where state = any($3) and ${whereOf(subject, 4)} returning id`,
    [to, why, from, ...valuesOf(subject)],
    client,
  );
  if (gone) await leaveOff(subject, gone.id, client);
  return gone !== undefined;
}

/** A run's job is taken out of the queue; who does it already hears of it. */
async function leaveOff(s: Subject, run: string, client: pg.PoolClient): Promise<void> {
  await dequeue(jobOf(s), client);
  if (s.kind === "check") await dequeue({ task: "check-long", submission: s.submission_id }, client);
  await client.query("select tell($1)", [`stop:${run}`]);
}

/**
 * Begins what is open of a thing. @param revision an expression over run r: by what it is done, as it stands now
 * @returns undefined where it is no longer wanted
 */
export async function beginRun(
  subject: Subject,
  progress: string,
  revision: string,
  client: Client = database(),
): Promise<Ticket | undefined> {
  const { from, to } = happening("begin");
  return row<Ticket>(
    `update runs r set state = $1, turn = turn + 1, progress = $2, revision = coalesce(${revision}, 0),
       started_at = coalesce(started_at, now()), changed_at = now()
     where state = any($3) and ${whereOf(subject, 4)} returning id as run, turn, revision`,
    [to, progress, from, ...valuesOf(subject)],
    client,
  );
}

/** Says how far a run is; one that has ended, or that another has begun since, says nothing any more. */
export const sayProgress = ({ run, turn }: Ticket, progress: string) =>
  rows("update runs set progress = $3, changed_at = now() where id = $1 and turn = $2 and state = 'running'", [
    run,
    turn,
    progress,
  ]);

/** What is said of a run when something happens to it. */
interface Said {
  readonly progress?: string;
  readonly trouble?: string | null;
  readonly job?: string;
}

/**
 * Lets something happen to a run that was begun: one guarded update. @returns false where it comes too late: the run
 * has ended, gave way, or was begun by another
 */
export async function stepRun(
  ticket: Ticket,
  event: RunEvent,
  { progress = "", trouble = null, job }: Said = {},
  client: Client = database(),
): Promise<boolean> {
  const { from, to } = happening(event);
  const stepped = await row(
    `update runs set state = $2, progress = $3, trouble = $4, job = coalesce($5, job), changed_at = now(),
       ended_at = case when $2 in ('queued', 'running') then null else now() end
     where id = $1 and state = any($6) and (not $7 or turn = $8) returning 1`,
    [ticket.run, to, progress, trouble, job ?? null, from, NEEDS_TICKET.has(event), ticket.turn],
    client,
  );
  return stepped !== undefined;
}

/** Ends a run: well, or with a trouble that is told. @returns false where it comes too late */
export const endRun = (ticket: Ticket, trouble: string | null, client: pg.PoolClient): Promise<boolean> =>
  stepRun(ticket, trouble === null ? "finish" : "fail", { trouble }, client);

/** A run whose process died each time it tried. */
export type Buried = { readonly id: string; readonly state: RunState } & Record<
  "kind" | "submission_id" | "practice_id" | "recheck_id" | "handout_id" | "person_id" | "exercise_id",
  string
>;

/** Ends the open runs whose jobs are out of tries. @param why what their readers are told */
export const buryRuns = (why: string): Promise<Buried[]> => {
  const { from, to } = happening("bury");
  return rows<Buried>(
    `update runs r set state = $1, progress = '', trouble = $2, ended_at = now(), changed_at = now()
     from graphile_worker._private_jobs j
     where j.key = r.job and j.attempts >= j.max_attempts and j.locked_at is null and r.state = any($3)
     returning r.*`,
    [to, why, from],
  );
};

/** Open runs without a job, as after the queue was lost: they are queued anew. */
export async function queueLost(client: Client = database()): Promise<number> {
  const lost = await rows<Record<string, string | null> & { kind: Subject["kind"] }>(
    `select kind, submission_id, practice_id, recheck_id, handout_id, person_id, exercise_id from runs r
     where state in ('queued', 'running') and changed_at < now() - interval '30 seconds'
       and not exists (select 1 from graphile_worker._private_jobs j where j.key = r.job) limit 500`,
    [],
    client,
  );
  for (const l of lost) {
    const own = Object.fromEntries(Object.entries(l).filter(([, v]) => v !== null)) as unknown as Subject;
    await enqueue(jobOf(own), {}, client);
  }
  return lost.length;
}

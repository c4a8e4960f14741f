import type pg from "pg";
import { database } from "./database";

export type Job =
  | { readonly task: "check"; readonly submission: string }
  | { readonly task: "check-long"; readonly submission: string }
  | { readonly task: "prepare-exercise"; readonly exercise: string }
  | { readonly task: "own-part"; readonly handout: string; readonly person: string }
  | { readonly task: "try-rubric"; readonly exercise: string }
  | { readonly task: "practise"; readonly practice: string }
  | { readonly task: "second-check"; readonly trial: string; readonly submission: string };

/** A job whose process dies is tried this often in all. */
const MAX_TRIES = 3;

/** Lower comes first: measuring an exercise holds up a whole class, a fifth attempt only one student. */
export const PRIORITY = {
  prepare: -1,
  ownPart: 1,
  practice: 3,
  attempt: (n: number) => Math.min(n - 1, 10),
  again: 20,
} as const;

export interface Place {
  readonly priority?: number;
  /** Jobs of one lane run one after the other. */
  readonly lane?: string;
}

export const keyOf = ({ task, ...payload }: Job): string => `${task}:${Object.values(payload).join(":")}`;

/** Queues a job; a later one for the same thing replaces an earlier that has not begun. */
export async function enqueue(
  job: Job,
  place: Place = {},
  client: pg.Pool | pg.PoolClient = database(),
): Promise<void> {
  const { task, ...payload } = job;
  await client.query(
    `select graphile_worker.add_job($1::text, payload := $2::json, max_attempts := $3, job_key := $4,
       priority := $5, queue_name := $6)`,
    [task, JSON.stringify(payload), MAX_TRIES, keyOf(job), place.priority ?? 0, place.lane ?? null],
  );
}

/** Takes a job that waits out of the queue; one that runs goes on. */
export const dequeue = (job: Job, client: pg.Pool | pg.PoolClient = database()) =>
  client.query("select graphile_worker.remove_job($1)", [keyOf(job)]);

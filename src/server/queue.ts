import type pg from "pg";
import { database } from "./database";

export type Job =
  | { readonly task: "check"; readonly submission: string }
  | { readonly task: "prepare-exercise"; readonly exercise: string };

/** A check that dies or runs too long is tried this often in all. */
export const MAX_TRIES = 3;

/** Queues a job; a later one for the same thing replaces an earlier that has not begun. */
export async function enqueue(job: Job, client: pg.Pool | pg.PoolClient = database()): Promise<void> {
  const { task, ...payload } = job;
  const key = `${task}:${Object.values(payload)[0]}`;
  await client.query(
    "select graphile_worker.add_job($1::text, payload := $2::json, max_attempts := $3, job_key := $4)",
    [task, JSON.stringify(payload), MAX_TRIES, key],
  );
}

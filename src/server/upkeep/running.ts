import { one, rows } from "../database";

/** A check that has not ended well, for whoever looks after the server. */
export interface RunningCheck {
  readonly id: string;
  readonly number: string;
  readonly person: string;
  readonly attempt: number;
  readonly state: "queued" | "checking" | "failed";
  readonly said: string;
  readonly since: Date;
}
/** A grading process: a lane of it, and what it holds. */
export interface WorkerRow {
  readonly lane: string;
  readonly seen_at: Date;
  readonly holds: string | null;
  readonly held_since: Date | null;
}
export interface Queued {
  readonly task: string;
  readonly waiting: number;
  readonly oldest: Date | null;
  readonly running: number;
}
export interface TableSize {
  readonly name: string;
  readonly rows: number;
  readonly bytes: number;
}

/** What waits and how long, kind by kind. */
export const queueNow = () =>
  rows<Queued>(
    `select t.identifier as task,
       (count(*) filter (where j.locked_at is null and j.attempts < j.max_attempts))::int as waiting,
       min(j.run_at) filter (where j.locked_at is null and j.attempts < j.max_attempts) as oldest,
       (count(*) filter (where j.locked_at is not null))::int as running
     from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
     group by t.identifier order by t.identifier`,
  );

/** Lanes of grading processes that have been heard of lately. */
export const workersNow = () =>
  rows<WorkerRow>(
    `select b.worker_id as lane, b.seen_at, t.identifier as holds, j.locked_at as held_since
     from worker_heartbeats b
     left join graphile_worker._private_jobs j on j.locked_by = b.worker_id
     left join graphile_worker._private_tasks t on t.id = j.task_id
     where b.seen_at > now() - interval '10 minutes' order by b.worker_id`,
  );

/** Checks that run, wait or failed, the longest first. */
export const checksNow = () =>
  rows<RunningCheck>(
    `select s.id, h.exercise->>'number' as number, p.name as person, s.attempt, c.state,
       coalesce(c.trouble, c.progress) as said, c.said_at as since
     from runs r join checks c on c.run_id = r.id join submissions s on s.id = c.submission_id
     join handouts h on h.id = s.handout_id join people p on p.id = s.person_id
     where r.kind = 'check' and r.state in ('queued', 'running', 'failed')
     order by case c.state when 'checking' then 0 when 'queued' then 1 else 2 end, c.said_at limit 200`,
  );

export const tableSizes = () =>
  rows<TableSize>(
    `select relname as name, n_live_tup::float as rows, pg_total_relation_size(relid)::float as bytes
     from pg_stat_user_tables where schemaname = 'public' order by bytes desc`,
  );

/** What anybody may ask: whether the database answers and somebody grades. */
export const health = () =>
  one<{ waiting: number; oldest_seconds: number; lanes: number }>(
    `select (select count(*)::int from runs where kind = 'check' and state = 'queued') as waiting,
       (select coalesce(extract(epoch from now() - min(queued_at)), 0)::float from runs
         where kind = 'check' and state = 'queued')
         as oldest_seconds,
       (select count(*)::int from worker_heartbeats where seen_at > now() - interval '15 seconds') as lanes`,
  );

import { makeWorkerUtils } from "graphile-worker";
import { connectionString, rows } from "@/server/database";

const BEAT_MS = 5_000;
/** A worker silent for this long is dead; its jobs would stay locked for hours. */
const DEAD = "30 seconds";

/** Keeps this worker's mark fresh, frees the jobs of dead ones, and marks checks that ran out of tries. */
export async function startHeartbeat(workerId: () => readonly string[]): Promise<() => Promise<void>> {
  const utils = await makeWorkerUtils({ connectionString: connectionString() });
  const beat = async () => {
    for (const id of workerId())
      await rows(
        "insert into worker_heartbeats (worker_id) values ($1) on conflict (worker_id) do update set seen_at = now()",
        [id],
      );
    const dead = await rows<{ locked_by: string }>(
      `select distinct j.locked_by from graphile_worker._private_jobs j
       left join worker_heartbeats b on b.worker_id = j.locked_by
       where j.locked_by is not null and (b.seen_at is null or b.seen_at < now() - interval '${DEAD}')
         and j.locked_at < now() - interval '${DEAD}'`,
    );
    if (dead.length) await utils.forceUnlockWorkers(dead.map((d) => d.locked_by));
    await rows(
      `update submissions s set state = 'failed', progress = '',
         trouble = 'Could not be checked: the grading process ended each time it tried.'
       from graphile_worker._private_jobs j
       where j.key = 'check:' || s.id and j.attempts >= j.max_attempts and j.locked_at is null
         and s.state in ('queued', 'checking')`,
    );
    await rows("delete from worker_heartbeats where seen_at < now() - interval '1 day'");
  };
  await beat();
  const timer = setInterval(() => void beat().catch((e: unknown) => console.error("heartbeat:", e)), BEAT_MS);
  return async () => {
    clearInterval(timer);
    await rows("delete from worker_heartbeats where worker_id = any($1)", [workerId()]);
    await utils.release();
  };
}

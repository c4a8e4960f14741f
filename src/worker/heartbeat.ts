import { makeWorkerUtils } from "graphile-worker";
import { connectionString, rows } from "@/server/database";
import { noted } from "@/server/log";
import { buryLost } from "@/server/tries/buried";

interface Beat {
  readonly everyMs: number;
  /** A pool silent for this long is dead; its jobs would stay locked for hours. */
  readonly deadMs: number;
}
const BEAT: Beat = { everyMs: 2_000, deadMs: 10_000 };

/**
 * Keeps the marks of this process's pools fresh (a job is locked in the name of its pool), frees the jobs of dead ones,
 * and ends runs that are out of tries.
 */
export async function startHeartbeat(pools: () => readonly string[], beat = BEAT): Promise<() => Promise<void>> {
  const utils = await makeWorkerUtils({ connectionString: connectionString() });
  // after the database was away everyone is silent at first: nobody is buried before all had time to speak
  let steadySince = Date.now();
  const once = async () => {
    for (const id of pools())
      await rows(
        "insert into worker_heartbeats (worker_id) values ($1) on conflict (worker_id) do update set seen_at = now()",
        [id],
      );
    if (Date.now() - steadySince >= beat.deadMs) await bury(beat.deadMs, (ids) => utils.forceUnlockWorkers([...ids]));
  };
  await once();
  let busy = false;
  const timer = setInterval(() => {
    if (busy) return;
    busy = true;
    once()
      .catch((e: unknown) => {
        steadySince = Date.now();
        noted("heartbeat", e);
      })
      .finally(() => (busy = false));
  }, beat.everyMs);
  return async () => {
    clearInterval(timer);
    await rows("delete from worker_heartbeats where worker_id = any($1)", [pools()]).catch(() => {});
    await Promise.resolve(utils.release()).catch(() => {});
  };
}

async function bury(deadMs: number, free: (ids: readonly string[]) => Promise<unknown>): Promise<void> {
  const dead = await rows<{ locked_by: string }>(
    `select distinct j.locked_by from graphile_worker._private_jobs j
     left join worker_heartbeats b on b.worker_id = j.locked_by
     where j.locked_by is not null and coalesce(b.seen_at, j.locked_at) < now() - make_interval(secs => $1)`,
    [deadMs / 1000],
  );
  if (dead.length) await free(dead.map((d) => d.locked_by));
  await buryLost();
  await rows("delete from worker_heartbeats where seen_at < now() - interval '1 day'");
}

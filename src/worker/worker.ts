import { EventEmitter } from "node:events";
import { setPriority } from "node:os";
import { setTimeout as pause } from "node:timers/promises";
import { Logger, run, type Runner, type TaskList, type WorkerEventMap } from "graphile-worker";
import { connectionString, database } from "@/server/database";
import { log, noted, ready } from "@/server/log";
import { startHeartbeat } from "./heartbeat";
import { longJobs, shortJobs } from "./jobs";
import { KernelThreads, LIMITS, SHORT } from "./threads";

// on a machine they share, a save that somebody waits for goes before a check
setPriority(5);

/** The grading process: two lanes, so that one long check holds nobody up. */
const quick = new KernelThreads(SHORT),
  long = new KernelThreads(LIMITS, 1);
const pools = new Map<string, string>();
const quiet = new Logger(() => (level, message) => {
  if (level === "error") log.error({ message: message.slice(0, 300) }, "queue");
});

/** At a quarter past three, by one of however many processes there are. */
const NIGHTLY = "15 3 * * * sweep";

/** Begins a lane. @returns the runner, whose promise fails when the database is lost for good */
function lane(name: string, taskList: TaskList, crontab = ""): Promise<Runner> {
  const events: EventEmitter & { on: unknown } = new EventEmitter();
  (events as unknown as WorkerEventMapEmitter).on("pool:create", ({ workerPool }) => pools.set(name, workerPool.id));
  return run({
    connectionString: connectionString(),
    concurrency: 1,
    pollInterval: 1000,
    noHandleSignals: true,
    taskList,
    crontab,
    events: events as never,
    logger: quiet,
  });
}
interface WorkerEventMapEmitter {
  on(event: "pool:create", hear: (e: WorkerEventMap["pool:create"]) => void): void;
}

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 5_000;
let ending = false;
let stop: (() => Promise<void>) | undefined;

/** One stretch of work: until the database is lost. */
async function stretch(): Promise<void> {
  const runners: Runner[] = [];
  let still: (() => Promise<void>) | undefined;
  try {
    runners.push(await lane("quick", shortJobs(quick)), await lane("long", longJobs(long), NIGHTLY));
    still = await startHeartbeat(() => [...pools.values()]);
    ready("grading worker");
    stop = async () => {
      await Promise.all(runners.map((r) => r.stop().catch(() => {})));
      await still?.();
    };
    await Promise.race(runners.map((r) => r.promise));
  } finally {
    if (!ending) {
      await still?.();
      await Promise.all(runners.map((r) => r.stop().catch(() => {})));
    }
  }
}

async function end() {
  if (ending) return;
  ending = true;
  // a check in progress goes back to the queue
  await Promise.all([quick.close(), long.close()]);
  await stop?.().catch(() => {});
  await database()
    .end()
    .catch(() => {});
  process.exit(0);
}
for (const s of ["SIGINT", "SIGTERM"]) process.on(s, () => void end());

let wait = FIRST_PAUSE_MS;
while (!ending) {
  const began = Date.now();
  await stretch().catch((e: unknown) => noted("grading worker", e));
  if (ending) break;
  // a stretch that went well begins the pauses anew
  wait = Date.now() - began > LONGEST_PAUSE_MS ? FIRST_PAUSE_MS : Math.min(2 * wait, LONGEST_PAUSE_MS);
  await pause(wait);
}

import { EventEmitter } from "node:events";
import { Logger, run } from "graphile-worker";
import { connectionString, database } from "@/server/database";
import { startHeartbeat } from "./heartbeat";
import { jobs } from "./jobs";
import { KernelThreads } from "./threads";

const threads = new KernelThreads();
const ids: string[] = [];
const events = new EventEmitter();
events.on("worker:create", ({ worker }: { worker: { workerId: string } }) => ids.push(worker.workerId));
const quiet = new Logger(() => (level, message) => {
  if (level === "error") console.error(message);
});
const runner = await run({
  connectionString: connectionString(),
  concurrency: 1,
  pollInterval: 1000,
  noHandleSignals: true,
  taskList: jobs(threads),
  events,
  logger: quiet,
});
const stopHeartbeat = await startHeartbeat(() => ids);
console.log("grading worker ready");

let ending = false;
async function end() {
  if (ending) return;
  ending = true;
  // a check in progress goes back to the queue
  await threads.close();
  await runner.stop().catch(() => {});
  await stopHeartbeat();
  await database().end();
  process.exit(0);
}
for (const s of ["SIGINT", "SIGTERM"]) process.on(s, () => void end());

import { parentPort, workerData } from "node:worker_threads";
import { checkSubmission, measurePart } from "@/core/check/check";
import { densityOf } from "@/core/part/document";
import { makeSheet } from "@/core/sheet/sheet";
import { openNodeKernel } from "./kernel";
import type { FromThread, ThreadTask } from "./tasks";

/** The memory limit does not bound the kernel's heap by itself: growing past it ends the thread. */
const { memoryBytes } = workerData as { memoryBytes: number };
const grow = WebAssembly.Memory.prototype.grow;
WebAssembly.Memory.prototype.grow = function (pages: number) {
  if (this.buffer.byteLength + pages * 65536 > memoryBytes) {
    send({ kind: "threw", message: `it needs more than ${Math.round(memoryBytes / 1048576)} MB of memory` });
    process.exit(1);
  }
  return grow.call(this, pages);
};

const send = (m: FromThread) => parentPort!.postMessage(m);
const kernel = await openNodeKernel();

function run(task: ThreadTask): unknown {
  if (task.kind === "check")
    return checkSubmission(kernel, task.exercise, task.document, (what) => send({ kind: "progress", what }));
  const sheet = makeSheet(kernel, task.exercise);
  if (!sheet.ok) return sheet;
  const { solid, properties: p } = measurePart(kernel, task.exercise.reference);
  kernel.release(solid?.shape);
  return {
    ok: true,
    value: {
      sheet: sheet.value,
      volume: p!.volume,
      area: p!.area,
      mass: p!.volume * densityOf(task.exercise.reference.material),
    },
  };
}

parentPort!.on("message", (task: ThreadTask) => {
  try {
    send({ kind: "done", result: run(task), heapBytes: kernel.heapBytes });
  } catch (e) {
    send({ kind: "threw", message: e instanceof Error ? e.message : String(e) });
  }
});
send({ kind: "ready" });

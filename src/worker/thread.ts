import { parentPort, workerData } from "node:worker_threads";
import { checkMeasured, checkSubmission } from "@/core/check/check";
import { References } from "@/core/check/references";
import { measureFile } from "@/core/check/given/file";
import { NO_PART } from "@/core/check/given/measured";
import { tryMistakes } from "@/core/check/mistakes";
import { prepareExercise } from "@/core/check/exercise/prepare";
import { done } from "@/core/units/refusal";
import { openNodeKernel } from "./kernel";
import type { FromThread, ThreadTask } from "./tasks";

/** The memory limit does not bound the kernel's heap by itself: growing past it ends the thread. */
const { memoryBytes } = workerData as { memoryBytes: number };
const grow = WebAssembly.Memory.prototype.grow;
WebAssembly.Memory.prototype.grow = function (pages: number) {
  if (this.buffer.byteLength + pages * 65536 > memoryBytes) {
    send({
      kind: "threw",
      ending: "memory",
      message: `it needs more than ${Math.round(memoryBytes / 1048576)} MB of memory`,
    });
    process.exit(1);
  }
  return grow.call(this, pages);
};

const send = (m: FromThread) => parentPort!.postMessage(m);
const kernel = await openNodeKernel();
const references = new References(kernel);

function run(task: ThreadTask): unknown {
  if (task.kind === "check") {
    const { exercise, document } = task;
    const progress = (what: string) => send({ kind: "progress", what });
    const options = { progress, references, answers: task.answers, by: task.by, asLines: true };
    if (document.format === "caliper-part") return checkSubmission(kernel, exercise, document, options);
    if (document.format === "caliper-figures") return checkMeasured(kernel, exercise, () => done(NO_PART), options);
    const measure = () => {
      progress("reading the file");
      return measureFile(kernel, document);
    };
    return checkMeasured(kernel, exercise, measure, options);
  }
  if (task.kind === "try-mistakes")
    return tryMistakes(kernel, task.exercise, (what) => send({ kind: "progress", what }), references);
  return prepareExercise(kernel, task.exercise, (done, of) =>
    send({ kind: "progress", what: `following the reference's numbers, ${done} of ${of}` }),
  );
}

parentPort!.on("message", (task: ThreadTask) => {
  try {
    send({ kind: "done", result: run(task), heapBytes: kernel.heapBytes });
  } catch (e) {
    send({ kind: "threw", ending: "fault", message: e instanceof Error ? e.message : String(e) });
  }
});
send({ kind: "ready" });

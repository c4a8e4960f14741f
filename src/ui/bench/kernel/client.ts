import type { PartDocument } from "@/core/part/document";
import type { Built, FromWorker, SketchAtWork, ToWorker } from "./messages";

/** A heap past this makes the worker be replaced; the user does not notice. */
const REPLACE_BYTES = 400 * 1_048_576;
/** A rebuild that takes longer is ended. */
const LIMIT_MS = 30_000;

/** Rebuilds parts in a web worker. Of requests that pile up only the latest is built. */
export class BenchKernel {
  private worker: Worker | undefined;
  private next = 1;
  private running: { id: number; timer: ReturnType<typeof setTimeout>; settle: (b: Built | undefined, trouble?: string) => void } | undefined;
  private waiting: { document: PartDocument; sketch: SketchAtWork | undefined; settle: (b: Built | undefined, trouble?: string) => void } | undefined;

  /** @param settle receives what was built, or undefined and a sentence; not called when a later request overtakes */
  request(document: PartDocument, sketch: SketchAtWork | undefined, settle: (built: Built | undefined, trouble?: string) => void): void {
    this.waiting = { document, sketch, settle };
    if (!this.running) this.turn();
  }

  private open(): Worker {
    const worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
    worker.addEventListener("message", (e: MessageEvent<FromWorker>) => this.hear(e.data));
    worker.addEventListener("error", () => this.fail("The part could not be built: the kernel ended unexpectedly."));
    return worker;
  }

  private turn(): void {
    const job = this.waiting;
    if (!job) return;
    this.waiting = undefined;
    this.worker ??= this.open();
    const id = this.next++;
    this.running = { id, settle: job.settle, timer: setTimeout(() => this.fail(`The part took longer than ${LIMIT_MS / 1000} s to build. The last change may be too much for it.`), LIMIT_MS) };
    this.worker.postMessage({ id, document: job.document, sketch: job.sketch } satisfies ToWorker);
  }

  private hear(m: FromWorker): void {
    if (m.id !== this.running?.id) return;
    const { settle, timer } = this.running;
    clearTimeout(timer);
    this.running = undefined;
    if ("failed" in m) {
      this.replace();
      settle(undefined, `The part could not be built: ${m.failed}.`);
    } else {
      if (m.heapBytes > REPLACE_BYTES) this.replace();
      if (!this.waiting) settle(m.built);
    }
    this.turn();
  }

  private fail(sentence: string): void {
    const job = this.running;
    this.running = undefined;
    if (job) clearTimeout(job.timer);
    this.replace();
    job?.settle(undefined, sentence);
    this.turn();
  }

  private replace(): void {
    this.worker?.terminate();
    this.worker = undefined;
  }

  close(): void {
    if (this.running) clearTimeout(this.running.timer);
    this.running = this.waiting = undefined;
    this.replace();
  }
}

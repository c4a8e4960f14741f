import { Worker } from "node:worker_threads";
import type { FromThread, ThreadResults, ThreadTask } from "./tasks";

export interface Limits {
  readonly timeMs: number;
  readonly memoryBytes: number;
  /** A thread whose heap has grown past this is replaced after its task. */
  readonly replaceBytes: number;
}

const MB = 1_048_576;
/** What a check may take in all. */
export const LIMITS: Limits = { timeMs: 60_000, memoryBytes: 700 * MB, replaceBytes: 400 * MB };
/** What it may take while others wait: what needs longer goes on in a lane of its own. */
export const SHORT: Limits = { ...LIMITS, timeMs: 15_000 };

/** Why a thread ended: out of time or memory, called off, its own fault, or it just died. */
export type Ending = "time" | "memory" | "cancelled" | "closing" | "fault" | "died";

/** A thread ended before its task was done, with the reason in words, and what it was doing. */
export class ThreadEnded extends Error {
  constructor(
    readonly ending: Ending,
    reason: string,
    /** What took so long, as it was told last. */
    readonly during = "",
  ) {
    super(reason);
  }
}

/**
 * A kernel thread at work and one standing by. Cancelling or running out of time ends the thread; the other takes
 * over.
 */
export class KernelThreads {
  private standby: Worker[] = [];
  private closed = false;
  /** Largest heap reported so far. */
  peakBytes = 0;
  replaced = 0;

  /** @param ready how many threads stand by */
  constructor(
    private readonly limits: Limits = LIMITS,
    private readonly ready = 2,
  ) {
    for (let i = 0; i < ready; i++) this.standby.push(this.open());
  }

  private open(): Worker {
    const worker = new Worker(new URL("./thread-start.mjs", import.meta.url), {
      workerData: { memoryBytes: this.limits.memoryBytes },
      execArgv: [],
      stdout: true,
    });
    worker.setMaxListeners(20);
    worker.on("error", () => {});
    // one that dies while standing by must not be handed a task
    worker.on("exit", () => (this.standby = this.standby.filter((w) => w !== worker)));
    return worker;
  }

  /** Runs one task in the thread that stands ready. */
  run<K extends ThreadTask["kind"]>(
    task: Extract<ThreadTask, { kind: K }>,
    options: { progress?: (what: string) => void; signal?: AbortSignal } = {},
  ): Promise<ThreadResults[K]> {
    if (this.closed) return Promise.reject(new ThreadEnded("closing", "the worker is closing"));
    const worker = this.standby.shift() ?? this.open();
    return new Promise((resolve, reject) => {
      let over = false,
        doing = "";
      const ended = (ending: Ending, reason: string) =>
        finish(false, () => reject(new ThreadEnded(ending, reason, doing)));
      const finish = (keep: boolean, act: () => void) => {
        if (over) return;
        over = true;
        clearTimeout(timer);
        options.signal?.removeEventListener("abort", cancel);
        worker.off("message", hear).off("error", fail).off("exit", gone);
        if (keep && !this.closed && this.standby.length < this.ready) this.standby.unshift(worker);
        else {
          void worker.terminate();
          this.replaced++;
          if (!this.closed && this.standby.length < this.ready) this.standby.push(this.open());
        }
        act();
      };
      const cancel = () => ended("cancelled", "it was cancelled");
      const fail = (e: Error) => ended("died", e.message);
      const gone = () => ended("died", "its thread ended without a result");
      const hear = (m: FromThread) => {
        if (m.kind === "progress") {
          doing = m.what;
          options.progress?.(m.what);
        }
        if (m.kind === "threw") ended(m.ending, m.message);
        if (m.kind === "done") {
          this.peakBytes = Math.max(this.peakBytes, m.heapBytes);
          finish(m.heapBytes < this.limits.replaceBytes, () => resolve(m.result as ThreadResults[K]));
        }
      };
      const timer = setTimeout(
        () => ended("time", `it took longer than ${Math.round(this.limits.timeMs / 1000)} s`),
        this.limits.timeMs,
      );
      options.signal?.addEventListener("abort", cancel);
      worker.on("message", hear).on("error", fail).on("exit", gone);
      worker.postMessage(task);
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    await Promise.all(this.standby.splice(0).map((w) => w.terminate()));
  }
}

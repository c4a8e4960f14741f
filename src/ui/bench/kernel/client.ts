import { giveKernel } from "../../parts/kernel-module";
import { WARM_PART } from "./warm-part";
import type { PartDocument } from "@/core/part/document";
import type { Answer, Built, BuildOrder, FromWorker, Question, ToWorker } from "./messages";

/** A heap past this makes the worker be replaced; the user does not notice. */
const REPLACE_BYTES = 400 * 1_048_576;
/** A rebuild that takes longer is ended. */
const LIMIT_MS = 30_000;
/** The kernel itself has 22 MB to come over whatever network there is. */
const LOADING_MS = 900_000;
/** How long an overtaken rebuild may stay in the middle of one step before its worker is given up. */
const PATIENCE_MS = 1500;

function start(): Worker {
  const worker = giveKernel(new Worker(new URL("./worker.ts", import.meta.url), { type: "module" }));
  // one that breaks while no Bench is open is not handed on
  const { signal } = new AbortController();
  worker.addEventListener("error", () => spare?.worker === worker && (spare = undefined), { signal });
  return worker;
}
/** The tab's kernel while no Bench is open: loaded, or loading, or at the end of what the last Bench asked of it. */
let spare: { readonly worker: Worker; readonly isBusy: boolean } | undefined;
/** Orders and questions are numbered over all Benches of a tab: what one worker still answers is of its own. */
let next = 1;
/** Loads a kernel before the Bench is opened. */
export function loadKernel(): void {
  spare ??= { worker: start(), isBusy: false };
}
/** The same, and has it build once what most parts need. */
export function warmKernel(): void {
  if (spare) return;
  loadKernel();
  const order: BuildOrder = { document: WARM_PART, at: undefined, fineness: 1 };
  // whatever is asked of it next overtakes this at its next step
  spare!.worker.postMessage({ id: next++, build: order } satisfies ToWorker);
}

/**
 * Has the tab's kernel build a part while no Bench is open, one after another; undefined where a Bench takes the kernel
 * over meanwhile, or it cannot be built.
 */
export async function buildBeforehand(document: PartDocument): Promise<Built | undefined> {
  const turn = ahead.then(() => builtBeforehand(document));
  ahead = turn;
  return turn;
}
let ahead: Promise<unknown> = Promise.resolve();

function builtBeforehand(document: PartDocument): Promise<Built | undefined> {
  // a Bench is open, or nothing is warm yet
  if (!spare) return Promise.resolve(undefined);
  const { worker } = spare,
    id = next++,
    ends = new AbortController();
  return new Promise<Built | undefined>((done) => {
    let mesh: Built["mesh"];
    const end = (built: Built | undefined) => {
      ends.abort();
      if (spare?.worker === worker) spare = { worker, isBusy: false };
      done(built);
    };
    const hear = ({ data: m }: MessageEvent<FromWorker>) => {
      if ("ready" in m || m.id < id) return;
      // a Bench has the kernel now
      if (m.id > id || "overtaken" in m || "failed" in m) return end(undefined);
      // before that the kernel is on its way: whoever takes it over waits for nothing of this
      if ("begun" in m && spare?.worker === worker) spare = { worker, isBusy: true };
      if ("picture" in m) mesh = m.picture.mesh;
      if ("built" in m) end({ ...m.built, id, mesh });
    };
    worker.addEventListener("message", hear, { signal: ends.signal });
    worker.addEventListener("error", () => end(undefined), { signal: ends.signal });
    worker.postMessage({ id, build: { document, at: undefined, fineness: 1 } } satisfies ToWorker);
  });
}

export interface BuildListener {
  /** The picture, before anything is measured. */
  picture(p: Pick<Built, "mesh" | "steps" | "bodies">): void;
  /** All of it, or undefined and a sentence. Not called when a later request overtakes. */
  settle(built: Built | undefined, trouble?: string): void;
}
type Settle = { done: (a: Answer) => void; fail: (e: Error) => void };

/** Rebuilds parts in a web worker. A later request overtakes an earlier one at its next step, or by a fresh worker. */
export class BenchKernel {
  private worker: Worker | undefined;
  private standby: Worker | undefined;
  private running:
    | {
        id: number;
        order: BuildOrder;
        listener: BuildListener;
        limit: ReturnType<typeof setTimeout>;
        /** Its worker is at it: before that the kernel is still on its way, which nothing hastens. */
        hasBegun: boolean;
        mesh?: Built["mesh"];
      }
    | undefined;
  private impatience: ReturnType<typeof setTimeout> | undefined;
  private readonly questions = new Map<number, Settle>();
  private readonly deaf = new AbortController();
  private grown = false;
  /** The worker was taken over in the middle of something. */
  private tookBusy = false;
  /** The build whose part is shown. */
  private shown: { readonly id: number; readonly order: BuildOrder } | undefined;
  private isStandbyReady = false;

  request(order: BuildOrder, listener: BuildListener): void {
    const wasAtIt = this.running?.hasBegun === true;
    this.start(order, listener);
    const overtakes = wasAtIt || this.tookBusy;
    this.tookBusy = false;
    clearTimeout(this.impatience);
    // the earlier one leaves off at its next step; if that is long in coming, its worker goes
    this.impatience = overtakes ? setTimeout(() => this.restart(), PATIENCE_MS) : undefined;
  }

  ask(question: Question): Promise<Answer> {
    const id = next++;
    this.worker ??= this.open();
    return new Promise((done, fail) => {
      this.questions.set(id, { done, fail });
      this.post({ id, question });
    });
  }

  private start(order: BuildOrder, listener: BuildListener): void {
    if (this.running) clearTimeout(this.running.limit);
    this.worker ??= this.open();
    const id = next++;
    this.running = {
      id,
      order,
      listener,
      hasBegun: false,
      limit: setTimeout(
        () =>
          this.fail("The part could not be built: the kernel did not come. Look to the connection, and open it again."),
        LOADING_MS,
      ),
    };
    this.post({ id, build: order });
  }
  private post(m: ToWorker): void {
    this.worker!.postMessage(m);
  }

  private open(): Worker {
    const worker = spare?.worker ?? start(),
      { signal } = this.deaf;
    this.tookBusy = spare?.isBusy ?? false;
    spare = undefined;
    worker.addEventListener("message", (e: MessageEvent<FromWorker>) => this.hear(worker, e.data), { signal });
    worker.addEventListener(
      "error",
      () => worker === this.worker && this.fail("The part could not be built: the kernel ended unexpectedly."),
      { signal },
    );
    return worker;
  }

  private hear(from: Worker, m: FromWorker): void {
    if ("ready" in m) {
      if (from !== this.standby) return;
      this.isStandbyReady = true;
      if (!this.running && !this.questions.size) this.swap();
      return;
    }
    if (from !== this.worker) return;
    const q = this.questions.get(m.id);
    if (q) {
      this.questions.delete(m.id);
      if ("answer" in m) q.done(m.answer);
      else q.fail(new Error("failed" in m ? m.failed : "no answer"));
      if (this.isStandbyReady && !this.running && !this.questions.size) this.swap();
      return;
    }
    const { running } = this;
    if ("begun" in m) return this.begin(m.id);
    const isOlder = running !== undefined && m.id < running.id;
    // an end or a word of the later build: the worker is not stuck in the earlier one any more
    if (!isOlder || !("picture" in m)) clearTimeout(this.impatience);
    if (!running || isOlder || "overtaken" in m) return;
    if ("picture" in m) {
      running.mesh = m.picture.mesh;
      return running.listener.picture(m.picture);
    }
    clearTimeout(running.limit);
    this.running = undefined;
    if ("failed" in m) {
      this.replace();
      running.listener.settle(undefined, `The part could not be built: ${m.failed}.`);
    } else if ("built" in m) {
      this.shown = { id: m.id, order: running.order };
      running.listener.settle({ ...m.built, id: m.id, mesh: running.mesh });
      // a fresh instance gets ready beside this one and takes over when nothing is under way
      this.grown = m.heapBytes > REPLACE_BYTES / 2;
      if (m.heapBytes > REPLACE_BYTES && !this.standby) this.standby = this.open();
      else if (this.isStandbyReady && !this.questions.size) this.swap();
    }
  }

  /** The worker is at a build: now its time counts. */
  private begin(id: number): void {
    const { running } = this;
    if (running?.id !== id) return;
    clearTimeout(this.impatience);
    clearTimeout(running.limit);
    running.hasBegun = true;
    running.limit = setTimeout(
      () =>
        this.fail(`The part took longer than ${LIMIT_MS / 1000} s to build. The last change may be too much for it.`),
      LIMIT_MS,
    );
  }

  private swap(): void {
    const fresh = this.standby;
    this.standby = undefined;
    this.isStandbyReady = false;
    this.worker?.terminate();
    this.worker = fresh;
    // what is measured next is measured on the part that is shown
    if (this.shown) this.post({ id: this.shown.id, build: this.shown.order });
  }

  private restart(): void {
    const { running } = this;
    if (!running) return;
    this.replace();
    this.start(running.order, running.listener);
  }

  private fail(sentence: string): void {
    const { running } = this;
    this.running = undefined;
    if (running) clearTimeout(running.limit);
    this.replace();
    running?.listener.settle(undefined, sentence);
  }

  private replace(): void {
    this.worker?.terminate();
    this.worker = undefined;
    for (const q of this.questions.values()) q.fail(new Error("the kernel was replaced"));
    this.questions.clear();
  }

  close(): void {
    if (this.running) clearTimeout(this.running.limit);
    clearTimeout(this.impatience);
    const isBusy = this.running !== undefined || this.questions.size > 0;
    this.running = undefined;
    this.standby?.terminate();
    this.standby = undefined;
    // the next Bench of the tab takes the kernel over; one that has grown is replaced while no Bench is open
    this.deaf.abort();
    if (!this.grown && this.worker && !spare) {
      spare = { worker: this.worker, isBusy };
      this.worker = undefined;
    }
    this.replace();
    warmKernel();
  }
}

import { giveKernel } from "../parts/kernel-module";
import type { BoardAnswer, BoardQuestion, FromBoard, ToBoard } from "./messages";

type Progress = (done: number, of: number) => void;
interface Waiting {
  readonly done: (a: BoardAnswer) => void;
  readonly fail: (e: Error) => void;
  readonly tell: Progress | undefined;
}

/** Something on the board takes longer: its worker is ended. */
const LIMIT_MS = 120_000;

/** A drawing board in a web worker. When the worker ends, all that waits fails; the next question begins a new one. */
export class BoardClient {
  private worker: Worker | undefined;
  private next = 1;
  private readonly waiting = new Map<number, Waiting>();
  private limit: ReturnType<typeof setTimeout> | undefined;

  /** @param opening what a fresh worker is asked first */
  constructor(private readonly opening: () => BoardQuestion) {}

  async ask(question: BoardQuestion, tell?: Progress): Promise<BoardAnswer> {
    if (!this.worker) {
      this.start();
      const opened = await this.post(this.opening());
      if ("refused" in opened) {
        this.close();
        return opened;
      }
    }
    return this.post(question, tell);
  }

  private post(question: BoardQuestion, tell?: Progress): Promise<BoardAnswer> {
    const id = this.next++;
    clearTimeout(this.limit);
    this.limit = setTimeout(() => this.fail("It took too long."), LIMIT_MS);
    return new Promise((done, fail) => {
      this.waiting.set(id, { done, fail, tell });
      const message: ToBoard = { id, question };
      this.worker!.postMessage(message);
    });
  }

  private start(): void {
    const worker = giveKernel(new Worker(new URL("./worker.ts", import.meta.url), { type: "module" }));
    this.worker = worker;
    worker.addEventListener("message", (e: MessageEvent<FromBoard>) => worker === this.worker && this.hear(e.data));
    worker.addEventListener(
      "error",
      () => worker === this.worker && this.fail("The drawing board ended unexpectedly."),
    );
  }

  private hear(m: FromBoard): void {
    const w = this.waiting.get(m.id);
    if (!w) return;
    if ("done" in m) return w.tell?.(m.done, m.of);
    this.waiting.delete(m.id);
    if (!this.waiting.size) clearTimeout(this.limit);
    if ("answer" in m) w.done(m.answer);
    else w.fail(new Error(m.failed));
  }

  private fail(sentence: string): void {
    const all = [...this.waiting.values()];
    this.close();
    for (const w of all) w.fail(new Error(sentence));
  }

  close(): void {
    clearTimeout(this.limit);
    this.waiting.clear();
    this.worker?.terminate();
    this.worker = undefined;
  }
}

import type { Decision, Entry } from "@/core/grade/decision";

/** A decision on its way to the server. */
interface Outgoing {
  readonly id: string;
  readonly submission: string;
  readonly what: Decision;
}

export type OutboxState =
  | { readonly kind: "kept" }
  | { readonly kind: "sending"; readonly count: number }
  /** In this browser only, and why. */
  | { readonly kind: "waiting"; readonly count: number; readonly sentence: string };

interface Site {
  /** Who decides: nobody else signed in in this browser may send it as theirs. */
  readonly owner: string;
  /** Where what is on its way is kept over a reload. */
  readonly shelf: Pick<Storage, "getItem" | "setItem" | "removeItem">;
  readonly fetch: typeof fetch;
  tell(state: OutboxState): void;
  /** What the server holds now of a submission. */
  took(submission: string, history: readonly Entry[], returned: { points: number; at: string } | null): void;
  /** The server would not have it: it is gone from the way, and the submission is to be read anew. */
  refused(submission: string, sentence: string): void;
}

const FIRST_PAUSE_MS = 1_000;
const LONGEST_PAUSE_MS = 15_000;
/** An answer that takes longer is lost; what was sent is sent again under the same ids. */
const PATIENCE_MS = 15_000;
/** So many go together. */
const TOGETHER = 40;
/** Browsers keep requests of 64 kB in all alive, bytes; characters may have three. */
const MOST_KEPT_ALIVE = 20_000;
const AWAY = "Kept in this browser; no connection to the server. It is sent as soon as there is one.";

/** Sends decisions in their order, each once, however often the connection is lost; kept over a reload. */
export class Outbox {
  private queue: Outgoing[];
  private isBusy = false;
  private isEnded = false;
  private pause = FIRST_PAUSE_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** All that this window has ever had on the way. */
  private readonly own = new Set<string>();

  constructor(private readonly site: Site) {
    this.queue = this.kept();
    for (const o of this.queue) this.own.add(o.id);
  }

  private get place(): string {
    return `caliper-desk:${this.site.owner}`;
  }
  private kept(): Outgoing[] {
    try {
      return JSON.parse(this.site.shelf.getItem(this.place) ?? "[]") as Outgoing[];
    } catch {
      return [];
    }
  }
  private keep(): void {
    try {
      // another window of the same person keeps what it sends there too
      const all = [...this.kept().filter((o) => !this.own.has(o.id)), ...this.queue];
      if (all.length) this.site.shelf.setItem(this.place, JSON.stringify(all));
      else this.site.shelf.removeItem(this.place);
    } catch {
      // a full or forbidden shelf: what is on its way stays in this window
    }
  }

  /** What of a submission has not arrived yet. */
  of = (submission: string): Outgoing[] => this.queue.filter((o) => o.submission === submission);
  get count(): number {
    return this.queue.length;
  }

  send(o: Outgoing): void {
    this.queue.push(o);
    this.own.add(o.id);
    this.keep();
    void this.run();
  }
  /** Tries now: the connection may be back. */
  hurry(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    void this.run();
  }
  close(): void {
    this.isEnded = true;
    clearTimeout(this.timer);
  }

  private async run(): Promise<void> {
    if (this.isBusy || this.timer || this.isEnded) return;
    this.isBusy = true;
    while (this.queue.length && !this.isEnded) {
      const { submission } = this.queue[0]!;
      const together = this.queue.filter((o) => o.submission === submission).slice(0, TOGETHER);
      this.site.tell({ kind: "sending", count: this.queue.length });
      const trouble = await this.post(submission, together);
      if (trouble !== undefined) {
        this.site.tell({ kind: "waiting", count: this.queue.length, sentence: trouble });
        this.timer = setTimeout(() => this.hurry(), this.pause);
        this.pause = Math.min(2 * this.pause, LONGEST_PAUSE_MS);
        break;
      }
      this.pause = FIRST_PAUSE_MS;
    }
    this.isBusy = false;
    if (!this.queue.length) this.site.tell({ kind: "kept" });
  }

  /** @returns why it has to wait; undefined where it is done with, taken or refused */
  private async post(submission: string, together: readonly Outgoing[]): Promise<string | undefined> {
    const gone = () => {
      const ids = new Set(together.map((o) => o.id));
      this.queue = this.queue.filter((o) => !ids.has(o.id));
      this.keep();
    };
    try {
      const entries = together.map(({ id, what }) => ({ id, what }));
      const body = JSON.stringify({ owner: this.site.owner, entries });
      const r = await this.site.fetch(`/api/submissions/${submission}/entries`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body,
        // it goes on when the page is left while it is on its way
        keepalive: body.length < MOST_KEPT_ALIVE,
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
      const answer = (await r.json()) as {
        sentence?: string;
        history?: Entry[];
        returned?: { points: number; at: string } | null;
      };
      if (r.ok) {
        gone();
        this.site.took(submission, answer.history ?? [], answer.returned ?? null);
        return undefined;
      }
      const sentence = answer.sentence ?? "The server would not take it.";
      // signed out, or the server in trouble: it goes later
      if (r.status === 401 || r.status >= 500) return sentence;
      gone();
      this.site.refused(submission, sentence);
      return undefined;
    } catch {
      return AWAY;
    }
  }
}

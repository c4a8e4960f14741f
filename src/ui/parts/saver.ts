import type { PartDocument } from "@/core/part/document";
import type { Keep, Waiting } from "./keep";

export type SaveState =
  /** On the server; `at` by the server's clock. */
  | { readonly kind: "saved"; readonly at?: string }
  | { readonly kind: "sending" }
  /** In this browser only, and why. */
  | { readonly kind: "here"; readonly sentence: string }
  /** Neither the browser nor the server could keep it yet. */
  | { readonly kind: "nowhere"; readonly sentence: string }
  /** Another window went on from here: this one reads only. */
  | { readonly kind: "parted"; readonly sentence: string }
  | { readonly kind: "refused"; readonly sentence: string };

export interface Site<D = PartDocument> {
  readonly url: string;
  /** Whose part it is: nobody else signed in in this browser may save it as theirs. */
  readonly owner: string;
  readonly keep: Keep<D>;
  readonly tell: (s: SaveState) => void;
  /** What is said when another window went on. */
  readonly elsewhere?: string;
  /**
   * A document that others change at the same time: told what the server answered, also where it did not take what was
   * sent, it says what is still to be sent. Then no window parts from another.
   */
  readonly merge?: (answer: Answer, sent: { readonly document: D; readonly isTaken: boolean }) => D | undefined;
}

const FIRST_PAUSE_MS = 1_000;
const LONGEST_PAUSE_MS = 15_000;
/** An answer that takes longer is lost; the save is sent again under its id. */
const PATIENCE_MS = 20_000;
const AWAY = "Kept in this browser; no connection to the server. It is sent as soon as there is one.";
export const ELSEWHERE =
  "This part was changed in another window. Here it can be read only; what you had is kept beside it.";

export interface Answer {
  readonly version?: number;
  readonly at?: string;
  readonly sentence?: string;
  /** What else has changed meanwhile, where documents are merged. */
  readonly theirs?: Readonly<Record<string, unknown>>;
  /** Who changed it last. */
  readonly by?: string;
}

/**
 * Keeps each change in the browser first, then sends it to the server: one at a time, of those that pile up the newest
 * only. A save whose answer was lost is sent again under the same id, and is answered with what it made.
 */
export class Saver<D = PartDocument> {
  /** On its way; it may have arrived. */
  private current: Waiting<D> | undefined;
  private newest: Waiting<D> | undefined;
  private busy = false;
  private ended = false;
  private isKeptHere = true;
  private pause = FIRST_PAUSE_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private idle: (() => void)[] = [];
  private trouble: string | undefined;
  readonly window = crypto.randomUUID();

  constructor(
    private readonly site: Site<D>,
    private known: number,
  ) {}

  /** The version the server holds, as far as this window knows. */
  get version(): number {
    return this.known;
  }
  get isReadOnly(): boolean {
    return this.ended;
  }
  /** Something waits for the server, or is on its way to it. */
  get isBusy(): boolean {
    return this.busy || this.current !== undefined || this.newest !== undefined;
  }
  /** What is on its way: it may have arrived. */
  get underway(): D | undefined {
    return this.current?.document;
  }
  /** Something would be gone if the window closed now. */
  get isAtRisk(): boolean {
    return !this.isKeptHere && (this.current !== undefined || this.newest !== undefined);
  }

  save(document: D): void {
    if (this.ended) return;
    this.newest = { id: crypto.randomUUID(), document, version: this.known };
    this.shelve();
    if (!this.busy) void this.turn();
    else if (this.trouble) this.say();
  }

  /**
   * Takes up what an earlier window left behind: sends it, and tells what to go on with. Nothing is dropped: what no
   * longer fits goes into the history.
   */
  async takeUp(): Promise<D | "parted" | undefined> {
    const left = await this.site.keep.read().catch((): readonly Waiting<D>[] => []);
    const [first, last] = [left[0], left[left.length - 1]];
    if (!first || !last) return undefined;
    const held = this.known;
    this.known = first.version;
    this.current = first;
    if (last !== first) this.newest = last;
    const settled = this.settled();
    if (!this.busy) void this.turn();
    await Promise.race([settled, new Promise((r) => setTimeout(r, 4_000))]);
    if (!this.ended) return last.document;
    // it stands in the history now, and this window goes on with what the server holds
    this.ended = false;
    this.known = held;
    this.site.tell({ kind: "saved" });
    return "parted";
  }

  /** Another window has saved. */
  heard(version: number, window: string): void {
    if (this.ended || window === this.window || version <= this.known) return;
    // what is on its way finds out by itself, and is put aside
    if (this.current || this.newest) return;
    this.part();
  }

  /** Goes on from what the server now holds. */
  goOn(version: number): void {
    this.known = version;
  }

  /** Puts what is on the screen into the history of a part that went on elsewhere. */
  async keepCopy(document: D): Promise<boolean> {
    const r = await this.send({ id: crypto.randomUUID(), document, version: 0 }).catch(() => undefined);
    return r?.status === 409;
  }

  /** Resolves when all is on the server, or when it no longer goes there from here. */
  settled(): Promise<void> {
    const waits = this.busy || this.newest !== undefined || this.current !== undefined;
    return waits && !this.ended ? new Promise((r) => this.idle.push(r)) : Promise.resolve();
  }

  /** Tries at once: the network is back, or somebody pressed the button. */
  hurry(): void {
    if (!this.timer) return;
    clearTimeout(this.timer);
    this.timer = undefined;
    this.pause = FIRST_PAUSE_MS;
    void this.turn();
  }

  close(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private shelve(): void {
    this.isKeptHere = false;
    const waiting = [this.current, this.newest].filter((w) => w !== undefined);
    this.site.keep.write(waiting).then(
      () => {
        const now = [this.current, this.newest].filter((w) => w !== undefined);
        if (now.every((w) => waiting.some((k) => k.id === w.id))) this.isKeptHere = true;
        // what was refused meanwhile waits no longer, and has been told
        if (this.trouble && now.length) this.say();
      },
      () => this.trouble && (this.current ?? this.newest) && this.say(),
    );
  }

  private say(): void {
    const sentence = this.trouble ?? AWAY;
    this.site.tell(
      this.isKeptHere
        ? { kind: "here", sentence }
        : {
            kind: "nowhere",
            sentence: "Not kept yet: neither this browser nor the server takes it. Leave this page open.",
          },
    );
  }

  private part(): void {
    this.ended = true;
    this.release();
    this.site.tell({ kind: "parted", sentence: this.site.elsewhere ?? ELSEWHERE });
  }

  private release(): void {
    this.idle.splice(0).forEach((f) => f());
  }

  private send(w: Waiting<D>): Promise<Response> {
    return fetch(this.site.url, {
      method: "PUT",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ...w, window: this.window, owner: this.site.owner }),
      signal: AbortSignal.timeout(PATIENCE_MS),
    });
  }

  private async turn(): Promise<void> {
    this.timer = undefined;
    if (!this.current) {
      if (!this.newest) {
        this.busy = false;
        return this.release();
      }
      this.current = { ...this.newest, version: this.known };
      this.newest = undefined;
    }
    this.busy = true;
    if (!this.trouble) this.site.tell({ kind: "sending" });
    let r: Response, answer: Answer;
    try {
      r = await this.send(this.current);
      answer = (await r.json()) as Answer;
    } catch {
      return this.later(AWAY);
    }
    if (r.ok && answer.version !== undefined) {
      return this.goOnFrom(answer, this.current.document, true);
    }
    if (r.status === 409 && this.site.merge && answer.version !== undefined)
      return this.goOnFrom(answer, this.current.document, false);
    if (r.status === 409) {
      // put aside by the server; a newer one goes the same way
      this.current = undefined;
      this.shelve();
      if (this.newest) return this.turn();
      this.busy = false;
      return this.part();
    }
    if (r.status === 404 || r.status === 413 || r.status === 422) {
      // this one is never taken; the next may be
      this.current = undefined;
      this.busy = false;
      this.trouble = answer.sentence ?? "The change was not taken.";
      this.release();
      if (this.newest) return this.turn();
      return this.site.tell({ kind: "refused", sentence: `${this.trouble} The server has what stood before.` });
    }
    return this.later(`Kept in this browser. ${answer.sentence ?? "The server does not take it yet; trying again."}`);
  }

  /** The server has answered with what stands now: what is newer here follows it. */
  private goOnFrom(answer: Answer, document: D, isTaken: boolean): Promise<void> {
    this.known = Math.max(this.known, answer.version!);
    this.current = undefined;
    this.trouble = undefined;
    this.pause = FIRST_PAUSE_MS;
    if (this.site.merge) {
      const left = this.site.merge(answer, { document, isTaken });
      const id = this.newest?.id ?? crypto.randomUUID();
      this.newest = left === undefined ? undefined : { id, document: left, version: this.known };
    } else if (this.newest) this.newest = { ...this.newest, version: this.known };
    this.shelve();
    if (!this.newest) this.site.tell({ kind: "saved", ...(answer.at && { at: answer.at }) });
    return this.turn();
  }

  private later(sentence: string): void {
    this.trouble = sentence;
    this.say();
    this.timer = setTimeout(() => void this.turn(), this.pause);
    this.pause = Math.min(2 * this.pause, LONGEST_PAUSE_MS);
  }
}

/** So long what is given back can be taken back. */
export const HELD_MS = 10_000;

/** Something that is about to be given to a student. */
export interface Held {
  readonly text: string;
  readonly until: number;
}

/**
 * Holds one return for ten seconds before it goes out, so that it can be taken back; another, or the end of the page,
 * sends it at once.
 */
export class Holding {
  private commit: (() => void) | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly tell: (held: Held | undefined) => void) {}

  hold(text: string, commit: () => void): void {
    this.flush();
    this.commit = commit;
    this.timer = setTimeout(() => this.flush(), HELD_MS);
    this.tell({ text, until: Date.now() + HELD_MS });
  }
  /** Sends what is held now. */
  flush(): void {
    const { commit } = this;
    this.end();
    commit?.();
  }
  /** @returns whether something was held */
  takeBack(): boolean {
    const had = this.commit !== undefined;
    this.end();
    return had;
  }
  private end(): void {
    clearTimeout(this.timer);
    if (this.commit) this.tell(undefined);
    this.commit = undefined;
  }
}

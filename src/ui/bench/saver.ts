import type { PartDocument } from "@/core/part/document";

export type SaveState =
  | { readonly kind: "saved"; readonly at?: string }
  | { readonly kind: "saving" }
  | { readonly kind: "waiting"; readonly sentence: string }
  | { readonly kind: "stopped"; readonly sentence: string };

const RETRY_MS = 2500;

/** Sends each change to the server, one at a time, the latest only; keeps trying while the network is away. */
export class Saver {
  private waiting: PartDocument | undefined;
  private busy = false;
  private stopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private idle: (() => void)[] = [];

  constructor(
    private readonly url: string,
    private version: number,
    private readonly tell: (s: SaveState) => void,
  ) {}

  save(document: PartDocument): void {
    this.waiting = document;
    if (!this.busy && !this.stopped) void this.turn();
  }

  /** Resolves when all is on the server. */
  settled(): Promise<void> {
    return this.busy || this.waiting ? new Promise((r) => this.idle.push(r)) : Promise.resolve();
  }

  private async turn(): Promise<void> {
    const document = this.waiting;
    if (!document) {
      this.idle.splice(0).forEach((f) => f());
      return;
    }
    this.waiting = undefined;
    this.busy = true;
    this.tell({ kind: "saving" });
    const failed = (sentence: string) => {
      this.waiting ??= document;
      this.tell({ kind: "waiting", sentence });
      this.timer = setTimeout(() => void this.turn(), RETRY_MS);
    };
    try {
      const r = await fetch(this.url, {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ document, version: this.version }),
      });
      const answer = (await r.json()) as { version?: number; sentence?: string };
      if (r.ok) {
        this.version = answer.version!;
        this.busy = false;
        this.tell({
          kind: "saved",
          at: new Date().toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" }),
        });
        return this.turn();
      }
      if (r.status === 409 || r.status === 404 || r.status === 422) {
        this.stopped = true;
        this.busy = false;
        this.tell({ kind: "stopped", sentence: answer.sentence ?? "The change was not taken." });
      } else failed(answer.sentence ?? "The server did not take the change yet; trying again.");
    } catch {
      failed("No connection. Your changes are kept here and sent when it is back.");
    }
  }

  close(): void {
    clearTimeout(this.timer);
  }
}

/**
 * What a Bench and the window of its Sheet tell each other. Both are pages of this program in one browser: whoever
 * closes leaves the other as it is.
 */
export type Told =
  /** A window has opened, and asks what it shows. */
  | { readonly told: "hello" }
  | { readonly told: "sheet"; readonly heading: string; readonly svg: string }
  /** Ids of sizes that are ticked off. */
  | { readonly told: "ticked"; readonly ids: readonly string[] }
  /** A size that is pointed at; null: none. */
  | { readonly told: "hovered"; readonly id: string | null }
  /** A size was clicked in the window. */
  | { readonly told: "size"; readonly id: string; readonly asSum: boolean }
  /** A view was clicked in the window. */
  | { readonly told: "view"; readonly key: string }
  /** A view that the model was turned to. */
  | { readonly told: "turned"; readonly key: string };

/** A way between the windows of one part. @param of what tells it from others: where it is saved to */
export class SheetLink {
  private readonly channel: BroadcastChannel;

  constructor(of: string, hear: (told: Told) => void) {
    this.channel = new BroadcastChannel(`caliper-sheet ${of}`);
    this.channel.onmessage = (e: MessageEvent<Told>) => hear(e.data);
  }

  tell(told: Told): void {
    this.channel.postMessage(told);
  }

  close(): void {
    this.channel.close();
  }
}

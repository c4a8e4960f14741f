import { mirror } from "@/core/sketch/edit/mirror";
import type { Hands, Pointer, Preview, Tool } from "../tool";
import { Gather } from "./gather";

/**
 * Mirrors curves in a line: gather the curves, Enter, click the line. With curves picked before, click the line at
 * once.
 */
export class MirrorTool implements Tool {
  readonly usesPicked = true;
  private readonly gather: Gather;
  private lining = false;
  private about: string | undefined;
  constructor(private readonly hands: Hands) {
    this.gather = new Gather(hands);
  }
  get hint(): string {
    return this.lining
      ? `Mirror: ${this.gather.text}. Click the line or axis to mirror in.`
      : `Mirror: click the curves (${this.gather.text} so far), then Enter.`;
  }
  get preview(): Preview {
    const sketch = this.hands.sketch(),
      made = this.about ? mirror(sketch, this.gather.curves, this.about) : undefined;
    return { picked: this.gather.curves, ...(made?.ok && { curves: made.value.curves.slice(sketch.curves.length) }) };
  }
  release(): void {
    this.hands.select(this.gather.curves);
  }
  begin(): void {
    this.gather.begin();
    this.lining = this.gather.curves.length > 0;
  }
  move(p: Pointer): void {
    this.about = this.lining && p.hit?.kind === "line" ? p.hit.ref : undefined;
  }
  down(p: Pointer): void {
    if (!this.lining) return this.gather.toggle(p);
    if (p.hit?.kind === "line" && this.hands.draw({ do: "mirror", curves: this.gather.curves, about: p.hit.ref }))
      this.cancel();
  }
  enter(): boolean {
    if (this.lining || !this.gather.curves.length) return false;
    return (this.lining = true);
  }
  cancel(): boolean {
    const had = this.gather.curves.length > 0;
    this.gather.curves = [];
    this.lining = false;
    this.about = undefined;
    return had;
  }
}

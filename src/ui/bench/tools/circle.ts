import { distance2 } from "@/core/geometry/vector";
import { circle, idSource } from "@/core/sketch/shapes";
import { snapPoint, type Snap } from "../sketch/snap";
import { drawTied } from "./tying";
import type { Hands, Pointer, Preview, Tool } from "./tool";

/** A circle from its centre to its rim. */
export class CircleTool implements Tool {
  preview: Preview = {};
  private centre: Snap | undefined;
  constructor(private readonly hands: Hands) {}

  get hint(): string {
    return this.centre ? "Circle: click how far it reaches." : "Circle: click its centre.";
  }

  move(p: Pointer): void {
    if (this.centre) {
      const radius = distance2(this.centre.at, p.at);
      this.preview = radius > 0 ? { curves: [{ id: "preview", kind: "circle", centre: [...this.centre.at] as [number, number], radius }] } : {};
    } else {
      const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
      this.preview = snap.label ? { mark: { at: snap.at, label: snap.label } } : {};
    }
  }

  down(p: Pointer): void {
    if (!this.centre) {
      this.centre = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
      return;
    }
    const radius = distance2(this.centre.at, p.at);
    if (radius < 2 * p.pixel) return;
    const sketch = this.hands.sketch();
    const id = idSource(sketch);
    const command = circle(sketch, this.centre.at, radius, id);
    if (drawTied(this.hands, command, this.centre.ties.map((t) => ({ kind: t.kind, of: t.of(`${command.curves[0]!.id}.centre`) })), id)) this.cancel();
  }

  cancel(): boolean {
    const had = this.centre !== undefined;
    this.centre = undefined;
    this.preview = {};
    return had;
  }
}

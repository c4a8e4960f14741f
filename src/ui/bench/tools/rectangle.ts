import type { Vec2 } from "@/core/geometry/vector";
import { idSource, rectangle } from "@/core/sketch/shapes";
import { snapPoint, type Snap } from "../sketch/snap";
import { drawTied } from "./tying";
import type { Hands, Pointer, Preview, Tool } from "./tool";

/** A rectangle from corner to corner. */
export class RectangleTool implements Tool {
  preview: Preview = {};
  private from: Snap | undefined;
  constructor(private readonly hands: Hands) {}

  get hint(): string {
    return this.from ? "Rectangle: click the opposite corner." : "Rectangle: click one corner.";
  }

  move(p: Pointer): void {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
    const corners: Vec2[] = this.from ? [this.from.at, [snap.at[0], this.from.at[1]], snap.at, [this.from.at[0], snap.at[1]]] : [];
    this.preview = {
      ...(snap.label && { mark: { at: snap.at, label: snap.label } }),
      curves: corners.map((c, i) => ({ id: `preview${i}`, kind: "line" as const, start: [...c] as [number, number], end: [...corners[(i + 1) % 4]!] as [number, number] })),
    };
  }

  down(p: Pointer): void {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
    if (!this.from) {
      this.from = snap;
      return;
    }
    if (Math.abs(snap.at[0] - this.from.at[0]) < 3 * p.pixel || Math.abs(snap.at[1] - this.from.at[1]) < 3 * p.pixel) return;
    const sketch = this.hands.sketch();
    const id = idSource(sketch);
    const command = rectangle(sketch, this.from.at, snap.at, id);
    const first = `${command.curves[0]!.id}.start`, opposite = `${command.curves[2]!.id}.start`;
    const ties = [...this.from.ties.map((t) => ({ kind: t.kind, of: t.of(first) })), ...snap.ties.map((t) => ({ kind: t.kind, of: t.of(opposite) }))];
    if (drawTied(this.hands, command, ties, id)) this.cancel();
  }

  cancel(): boolean {
    const had = this.from !== undefined;
    this.from = undefined;
    this.preview = {};
    return had;
  }
}

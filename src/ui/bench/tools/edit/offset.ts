import { segmentAt, segmentMotion, nearestOn } from "@/core/geometry/segment";
import { cross2, sub2, type Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import { chainOf, offset } from "@/core/sketch/edit/offset";
import { curveOf, type Sketch } from "@/core/sketch/sketch";
import { lengthText, readQuantity } from "@/core/units/quantity";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";

/** Signed distance of a place from a chain: positive at the left of its run. */
function sideOf(sketch: Sketch, id: string, at: Vec2): { id: string; by: number } | undefined {
  let best: { id: string; by: number } | undefined;
  for (const { curve, back } of chainOf(sketch, id)) {
    const s = segmentOf(curve)!,
      n = nearestOn(s, at),
      [d] = segmentMotion(s, n.t);
    const side = Math.sign(cross2(d, sub2(at, segmentAt(s, n.t)))) || 1;
    if (!best || n.distance < Math.abs(best.by)) best = { id, by: side * n.distance * (back ? -1 : 1) };
  }
  return best;
}

/** Offsets a chain: click it, then the side and distance; the distance can be typed. */
export class OffsetTool implements Tool {
  preview: Preview = {};
  private id: string | undefined;
  private by = 0;
  private text: string | undefined;
  constructor(private readonly hands: Hands) {}
  get hint(): string {
    return this.id
      ? "Offset: click where the copy is to run, or type the distance; Enter makes it at the pointer's side."
      : "Offset: click a line, arc or circle; what is joined to it comes along.";
  }
  get fields(): readonly Field[] {
    return this.id
      ? [
          {
            label: "distance",
            quantity: "length",
            typed: this.text !== undefined,
            text: this.text ?? lengthText(Math.abs(this.by), this.hands.unit, false),
          },
        ]
      : [];
  }
  private distance(): number | undefined {
    if (this.text === undefined) return Math.abs(this.by);
    const r = readQuantity(this.text, "length", this.hands.unit);
    return r.ok && r.value > 0 ? r.value : undefined;
  }
  move(p: Pointer): void {
    if (!this.id) return;
    const sketch = this.hands.sketch(),
      side = sideOf(sketch, this.id, p.at);
    if (side) this.by = side.by;
    this.show(sketch);
  }
  private show(sketch: Sketch): void {
    const d = this.distance();
    if (!this.id || !d) return void (this.preview = {});
    const made = offset(sketch, this.id, Math.sign(this.by) * d, d);
    this.preview = made.ok ? { curves: made.value.curves.slice(sketch.curves.length) } : {};
  }
  down(p: Pointer): void {
    const id = p.hit && curveOf(p.hit.ref),
      c = this.hands.sketch().curves.find((k) => k.id === id);
    if (!this.id) {
      if (c && segmentOf(c)) this.id = c.id;
      return;
    }
    this.move(p);
    this.enter();
  }
  type(_: number, text: string): void {
    this.text = text === "" ? undefined : text;
    this.show(this.hands.sketch());
  }
  enter(): boolean {
    if (!this.id) return false;
    const value = this.text ?? lengthText(Math.abs(this.by), this.hands.unit, false).replace(/\s/g, "");
    if (this.hands.draw({ do: "offset", id: this.id, value, left: this.by > 0 })) this.cancel();
    return true;
  }
  cancel(): boolean {
    const had = this.id !== undefined;
    this.id = this.text = undefined;
    this.preview = {};
    return had;
  }
}

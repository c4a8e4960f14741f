import type { Segment } from "@/core/geometry/segment";
import { nearestOn } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { extensionAt } from "@/core/sketch/edit/extend";
import { stretchAt, stretchShape } from "@/core/sketch/edit/trim";
import { curveOf } from "@/core/sketch/sketch";
import type { Hands, Pointer, Preview, Tool } from "../tool";

type Kind = "trim" | "extend" | "split";
const SAYS: Record<Kind, string> = {
  trim: "Trim: point at the stretch that is to go; it goes at a click.",
  extend: "Extend: click a line or arc near the end that is to go on to the next curve.",
  split: "Split: click a curve where it is to be parted.",
};

/** Trim, extend and split: what would happen shows under the pointer and happens at a click. */
export class CutTool implements Tool {
  preview: Preview = {};
  constructor(
    private readonly hands: Hands,
    private readonly kind: Kind,
  ) {}
  get hint(): string {
    return SAYS[this.kind];
  }
  private curveAt(p: Pointer): string | undefined {
    const id = p.hit && curveOf(p.hit.ref),
      c = this.hands.sketch().curves.find((k) => k.id === id);
    return c && segmentOf(c) ? c.id : undefined;
  }
  move(pointer: Pointer): void {
    const id = this.curveAt(pointer),
      sketch = this.hands.sketch();
    this.preview = {};
    if (!id) return;
    const show = (gone: Segment) => void (this.preview = { gone: [gone] });
    if (this.kind === "trim") {
      const s = stretchAt(sketch, id, pointer.at);
      if (s) show(stretchShape(s));
    } else if (this.kind === "extend") {
      const e = extensionAt(sketch, id, pointer.at);
      if (e) show(e.added);
    } else
      this.preview = {
        mark: {
          at: nearestOn(segmentOf(sketch.curves.find((c) => c.id === id)!)!, pointer.at).at,
          label: "split here",
        },
      };
  }
  down(p: Pointer): void {
    const id = this.curveAt(p);
    if (!id) return;
    this.hands.draw({ do: this.kind, id, near: [p.at[0], p.at[1]] });
    this.preview = {};
  }
}

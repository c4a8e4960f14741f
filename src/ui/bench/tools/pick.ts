import { distance2, type Vec2 } from "@/core/geometry/vector";
import { segmentBox } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import { Drag } from "@/core/sketch/drag";
import { pointAt } from "@/core/sketch/sketch";
import type { Hit } from "../sketch/hit";
import type { Hands, Pointer, Preview, Tool } from "./tool";

type State =
  | { kind: "waiting" }
  | { kind: "pressing"; hit: Hit; from: Vec2 }
  | { kind: "dragging"; drag: Drag }
  | { kind: "boxing"; from: Vec2; to: Vec2 };

const PRESS_PIXELS = 4;

/** Picks, picks by a box, and drags what is loose. */
export class PickTool implements Tool {
  readonly usesPicked = true;
  readonly hint = "Click to pick, drag what is loose, drag across empty paper to pick several. Delete removes.";
  preview: Preview = {};
  private state: State = { kind: "waiting" };
  constructor(private readonly hands: Hands) {}

  down(p: Pointer): void {
    this.state = p.hit ? { kind: "pressing", hit: p.hit, from: p.at } : { kind: "boxing", from: p.at, to: p.at };
  }

  move(pointer: Pointer): void {
    const s = this.state;
    if (s.kind === "pressing" && distance2(s.from, pointer.at) > PRESS_PIXELS * pointer.pixel) {
      const drag = Drag.begin(this.hands.sketch(), this.hands.unit, {
        ref: s.hit.ref,
        at: s.from,
        ...(s.hit.kind === "circle" && { rim: true }),
      });
      if (!drag) {
        this.hands.say("notice", "This is pinned and cannot be dragged. Change a dimension instead.");
        this.state = { kind: "waiting" };
        return;
      }
      this.state = { kind: "dragging", drag };
    }
    if (this.state.kind === "dragging") this.preview = { sketch: this.state.drag.to(pointer.at) };
    if (this.state.kind === "boxing") {
      this.state.to = pointer.at;
      this.preview = { box: [this.state.from, pointer.at] };
    }
  }

  up(p: Pointer): void {
    const s = this.state;
    const moved = this.preview.sketch;
    this.state = { kind: "waiting" };
    this.preview = {};
    if (s.kind === "dragging" && moved) this.hands.draw({ do: "drag", curves: [...moved.curves] });
    if (s.kind === "pressing") this.toggle(s.hit.ref, p.shift);
    if (s.kind === "boxing") {
      const [x0, x1] = [s.from[0], s.to[0]].sort((a, b) => a - b) as [number, number],
        [y0, y1] = [s.from[1], s.to[1]].sort((a, b) => a - b) as [number, number];
      const inside = (q: Vec2) => q[0] >= x0 && q[0] <= x1 && q[1] >= y0 && q[1] <= y1;
      const found = this.hands
        .sketch()
        .curves.filter((c) =>
          (segmentOf(c) ? segmentBox(segmentOf(c)!) : [pointAt(this.hands.sketch(), c.id)]).every(inside),
        )
        .map((c) => c.id);
      this.hands.select(p.shift ? [...new Set([...this.hands.selection(), ...found])] : found);
    }
  }

  private toggle(ref: string, grow: boolean): void {
    const now = this.hands.selection();
    this.hands.select(!grow ? [ref] : now.includes(ref) ? now.filter((r) => r !== ref) : [...now, ref]);
  }

  abandon(): void {
    this.state = { kind: "waiting" };
    this.preview = {};
  }
  cancel(): boolean {
    const busy = this.state.kind !== "waiting";
    this.abandon();
    return busy;
  }
}

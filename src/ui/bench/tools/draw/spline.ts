import { COINCIDENT } from "@/core/geometry/tolerance";
import { centripetalKnots } from "@/core/geometry/spline";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { idSource } from "@/core/sketch/shapes";
import type { Spline } from "@/core/sketch/sketch";
import { snapPoint, type Snap } from "../../sketch/snap";
import { drawTied, type Tie } from "../tying";
import type { Hands, Pointer, Preview, Tool } from "../tool";
import { own } from "./places";

/**
 * Through as many points as are clicked; a click on the last, or Enter, ends it. With handles its end directions can
 * be dragged.
 */
export class SplineTool implements Tool {
  preview: Preview = {};
  private places: Snap[] = [];
  constructor(
    private readonly hands: Hands,
    private readonly handles: boolean,
  ) {}

  get hint(): string {
    const name = this.handles ? "Spline with end directions" : "Spline";
    return this.places.length
      ? `${name}: click the next point; Enter or a second click on the last point ends it.`
      : `${name}: click where it begins.`;
  }
  private spline(points: readonly Vec2[], id: string): Spline {
    const third = (a: Vec2, b: Vec2): [number, number] => [a[0] + (b[0] - a[0]) / 3, a[1] + (b[1] - a[1]) / 3];
    const n = points.length;
    return {
      id,
      kind: "spline",
      through: points.map(own),
      knots: centripetalKnots(points),
      ...(this.handles && {
        startHandle: third(points[0]!, points[1]!),
        endHandle: third(points[n - 1]!, points[n - 2]!),
      }),
    };
  }
  move(p: Pointer): void {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift),
      all = [...this.places.map((s) => s.at), snap.at];
    const apart = all.every((a, i) => !i || distance2(a, all[i - 1]!) > COINCIDENT);
    this.preview = {
      ...(all.length > 1 && apart && { curves: [this.spline(all, "preview")] }),
      ...(snap.label && { mark: { at: snap.at, label: snap.label } }),
    };
  }
  down(p: Pointer): void {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift),
      last = this.places[this.places.length - 1];
    if (last && distance2(last.at, snap.at) < 4 * p.pixel) return void this.enter();
    this.places.push(snap);
    if (this.places.length >= 100) this.enter();
  }
  enter(): boolean {
    if (this.places.length < 2) return false;
    const id = idSource(this.hands.sketch()),
      name = id("s"),
      n = this.places.length;
    const ref = (i: number) => `${name}.${i === 0 ? "start" : i === n - 1 ? "end" : `p${i}`}`;
    const ties = this.places.flatMap((s, i): Tie[] => s.ties.map((t) => ({ kind: t.kind, of: t.of(ref(i)) })));
    if (
      drawTied(
        this.hands,
        {
          do: "draw",
          curves: [
            this.spline(
              this.places.map((s) => s.at),
              name,
            ),
          ],
          constraints: [],
        },
        ties,
        id,
      )
    )
      this.cancel();
    return true;
  }
  cancel(): boolean {
    const had = this.places.length > 0;
    this.places = [];
    this.preview = {};
    return had;
  }
}

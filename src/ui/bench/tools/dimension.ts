import { sub2, type Vec2 } from "@/core/geometry/vector";
import { pointAt, typeOf, type Dimension, type Sketch } from "@/core/sketch/sketch";
import type { Hands, NewDimension, Pointer, Preview, Tool } from "./tool";

/** Points a distance can be taken between, for one picked thing. */
const asPoint = (sketch: Sketch, ref: string): string => (typeOf(sketch, ref) === "circle" ? `${ref}.centre` : ref);

function ends(sketch: Sketch, line: string): [Vec2, Vec2] {
  if (line === "x-axis") return [[0, 0], [1, 0]];
  if (line === "y-axis") return [[0, 0], [0, 1]];
  return [pointAt(sketch, `${line}.start`), pointAt(sketch, `${line}.end`)];
}

/** Which of aligned, level and upright distance is meant: where the pointer goes beside the two points tells. */
function distanceKind(a: Vec2, b: Vec2, at: Vec2): "distance" | "horizontal-distance" | "vertical-distance" {
  const slack = 1e-6 * (Math.abs(b[0] - a[0]) + Math.abs(b[1] - a[1]));
  if (Math.abs(a[1] - b[1]) <= slack) return "horizontal-distance";
  if (Math.abs(a[0] - b[0]) <= slack) return "vertical-distance";
  const within = (v: number, p: number, q: number) => v >= Math.min(p, q) && v <= Math.max(p, q);
  const inX = within(at[0], a[0], b[0]), inY = within(at[1], a[1], b[1]);
  return inX && !inY ? "horizontal-distance" : inY && !inX ? "vertical-distance" : "distance";
}

/** What a dimension over the picked things would be with its number at `at`. */
export function meant(sketch: Sketch, picked: readonly string[], at: Vec2): NewDimension | undefined {
  const spot: [number, number] = [at[0], at[1]];
  const make = (kind: Dimension["kind"], of: string[], flip = false): NewDimension => ({ kind, of, at: spot, ...(flip && { flip }) });
  const [first, second] = picked;
  if (first === undefined) return undefined;
  const one = typeOf(sketch, first);
  if (second === undefined) {
    if (one === "circle") return make("diameter", [first]);
    if (one !== "line" || first.endsWith("-axis")) return undefined;
    const [a, b] = ends(sketch, first);
    const kind = distanceKind(a, b, at);
    const level = a[0] === b[0] || a[1] === b[1];
    return kind === "distance" || level ? make("length", [first]) : make(kind, [`${first}.start`, `${first}.end`]);
  }
  const two = typeOf(sketch, second);
  if (one === "line" && two === "line") {
    const [[a, b], [c, d]] = [ends(sketch, first), ends(sketch, second)];
    const u = sub2(b, a), v = sub2(d, c);
    const sine = (u[0] * v[1] - u[1] * v[0]) / (Math.hypot(...u) * Math.hypot(...v));
    // a point of the line that is not an axis carries the distance of two parallels
    if (Math.abs(sine) < 1e-6) return second.endsWith("-axis") ? make("point-line", [`${first}.start`, second]) : make("point-line", [`${second}.start`, first]);
    return make("angle", [first, second], !sameSector(a, u, c, v, at));
  }
  const [p, q] = [asPoint(sketch, first), asPoint(sketch, second)];
  if (typeOf(sketch, p) === "line") return make("point-line", [q, p]);
  if (typeOf(sketch, q) === "line") return make("point-line", [p, q]);
  return p === q ? undefined : make(distanceKind(pointAt(sketch, p), pointAt(sketch, q), at), [p, q]);
}

/** Whether the pointer stands in the sector between the two directions (or the opposite one). */
function sameSector(a: Vec2, u: Vec2, c: Vec2, v: Vec2, at: Vec2): boolean {
  const k = u[0] * v[1] - u[1] * v[0];
  const t = ((c[0] - a[0]) * v[1] - (c[1] - a[1]) * v[0]) / k;
  const w: Vec2 = [at[0] - a[0] - u[0] * t, at[1] - a[1] - u[1] * t];
  const alongU = (w[0] * v[1] - w[1] * v[0]) / k, alongV = (u[0] * w[1] - u[1] * w[0]) / k;
  return alongU > 0 === alongV > 0;
}

/** Picks one or two things, places the number, then asks for its size. */
export class DimensionTool implements Tool {
  preview: Preview = {};
  private picked: string[] = [];
  constructor(private readonly hands: Hands) {}

  get hint(): string {
    return this.picked.length ? "Dimension: pick a second thing, or click free paper to place the number." : "Dimension: pick a line, a circle, or the first of two things.";
  }

  begin(): void {
    this.picked = this.hands.selection().filter((r) => typeOf(this.hands.sketch(), r)).slice(0, 2);
    this.hands.select([]);
  }

  private next(p: Pointer): string[] {
    return p.hit && !this.picked.includes(p.hit.ref) && this.picked.length < 2 ? [...this.picked, p.hit.ref] : this.picked;
  }

  move(p: Pointer): void {
    const dimension = this.picked.length ? meant(this.hands.sketch(), this.next(p), p.at) : undefined;
    this.preview = { picked: this.next(p), ...(dimension && { dimension }) };
  }

  down(p: Pointer): void {
    const next = this.next(p);
    if (next !== this.picked) {
      this.picked = next;
      this.move(p);
      return;
    }
    const dimension = meant(this.hands.sketch(), this.picked, p.at);
    if (!dimension) return;
    this.picked = [];
    this.preview = {};
    this.hands.type(dimension);
  }

  cancel(): boolean {
    const had = this.picked.length > 0;
    this.picked = [];
    this.preview = {};
    return had;
  }
}

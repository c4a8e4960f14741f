import { COINCIDENT } from "@/core/geometry/tolerance";
import { DRAWN_PARALLEL } from "../tolerance";
import { cross2, distance2, dot2, sub2, type Vec2 } from "@/core/geometry/vector";
import { curveById, entityOf, lineThrough, pointAt, typeOf, type Dimension, type Sketch } from "@/core/sketch/sketch";
import type { Hands, NewDimension, Pointer, Preview, Tool } from "./tool";

const isRound = (t: string | undefined) => t === "circle" || t === "arc";
const isCentreLine = (sketch: Sketch, ref: string) => curveById(sketch, ref)?.construction === "centre-line";

/** A line that whole sizes can be taken across: a centre line, or one of the sketch's own axes. */
const isAxis = (sketch: Sketch, ref: string) => ref.endsWith("-axis") || isCentreLine(sketch, ref);

const side = ([a, b]: [Vec2, Vec2], p: Vec2) => cross2(sub2(b, a), sub2(p, a));

/** Which of aligned, level and upright distance is meant: where the pointer goes beside the two points tells. */
function distanceKind(a: Vec2, b: Vec2, at: Vec2): "distance" | "horizontal-distance" | "vertical-distance" {
  const slack = COINCIDENT * (Math.abs(b[0] - a[0]) + Math.abs(b[1] - a[1]));
  if (Math.abs(a[1] - b[1]) <= slack) return "horizontal-distance";
  if (Math.abs(a[0] - b[0]) <= slack) return "vertical-distance";
  const within = (v: number, p: number, q: number) => v >= Math.min(p, q) && v <= Math.max(p, q);
  const inX = within(at[0], a[0], b[0]),
    inY = within(at[1], a[1], b[1]);
  return inX && !inY ? "horizontal-distance" : inY && !inX ? "vertical-distance" : "distance";
}

/** Ways to measure that the pointer alone does not tell; the tool's key goes from one to the next. */
export const WAYS = { one: ["diameter", "radius", "arc-length"], two: ["centre", "near", "far"] } as const;

export interface Choice {
  /** For one circle or arc. */
  readonly round?: (typeof WAYS.one)[number] | undefined;
  /** From which side of a round thing: its centre, its near or far side. */
  readonly side?: (typeof WAYS.two)[number] | undefined;
}

/** What a dimension over the picked things would be with its number at `at`. */
export function meant(
  sketch: Sketch,
  picked: readonly string[],
  at: Vec2,
  choice: Choice = {},
): NewDimension | undefined {
  const make = (
    kind: Dimension["kind"],
    of: string[],
    more: { flip?: boolean; sides?: ("near" | "far")[] } = {},
  ): NewDimension => ({
    kind,
    of,
    at: [at[0], at[1]],
    ...(more.flip && { flip: true }),
    ...(more.sides && { sides: more.sides }),
  });
  const [first, second] = picked;
  if (first === undefined) return undefined;
  const one = typeOf(sketch, first);
  if (second === undefined) {
    if (one === "arc") return make(choice.round ?? "radius", [first]);
    if (one === "circle") return make(choice.round === "radius" ? "radius" : "diameter", [first]);
    if (one !== "line" || first.endsWith("-axis")) return undefined;
    const [a, b] = lineThrough(sketch, first);
    const kind = distanceKind(a, b, at);
    const level = a[0] === b[0] || a[1] === b[1];
    return kind === "distance" || level ? make("length", [first]) : make(kind, [`${first}.start`, `${first}.end`]);
  }
  const two = typeOf(sketch, second);
  if (one === "line" && two === "line") {
    const [[a, b], [c, d]] = [lineThrough(sketch, first), lineThrough(sketch, second)];
    const u = sub2(b, a),
      v = sub2(d, c),
      sine = cross2(u, v) / (Math.hypot(...u) * Math.hypot(...v));
    const isParallel = Math.abs(sine) < DRAWN_PARALLEL;
    // angles are doubled across centre lines only: beside an axis the other sector may be meant
    const isWhole = (ref: string) => (isParallel ? isAxis(sketch, ref) : isCentreLine(sketch, ref));
    const centre = [second, first].find(isWhole);
    const other = centre === second ? first : second;
    // across it once the pointer has gone past it
    const past =
      centre !== undefined &&
      side(lineThrough(sketch, centre), at) > 0 !==
        side(lineThrough(sketch, centre), lineThrough(sketch, other)[1]) > 0;
    if (isParallel) {
      if (centre && past) return make("across", [other, centre]);
      // a point of the line that is not an axis carries the distance of two parallels
      return second.endsWith("-axis") || centre === second
        ? make("point-line", [`${first}.start`, second])
        : make("point-line", [`${second}.start`, first]);
    }
    const flip = !sameSector(a, u, c, v, at);
    if (centre && past)
      return make("full-angle", [other, centre], {
        flip:
          dot2(
            sub2(lineThrough(sketch, other)[1], lineThrough(sketch, other)[0]),
            sub2(lineThrough(sketch, centre)[1], lineThrough(sketch, centre)[0]),
          ) < 0,
      });
    return make("angle", [first, second], { flip });
  }
  return twoThings(sketch, first, second, at, choice, make);
}

type Make = (
  kind: Dimension["kind"],
  of: string[],
  more?: { flip?: boolean; sides?: ("near" | "far")[] },
) => NewDimension;

/** Points, lines and round things in pairs. */
function twoThings(
  sketch: Sketch,
  first: string,
  second: string,
  at: Vec2,
  choice: Choice,
  make: Make,
): NewDimension | undefined {
  const types = [typeOf(sketch, first), typeOf(sketch, second)];
  const line = types[0] === "line" ? first : types[1] === "line" ? second : undefined;
  const chosen = choice.side === "near" || choice.side === "far" ? choice.side : undefined;
  if (chosen && types.some(isRound)) {
    const round = [first, second].filter((r) => isRound(typeOf(sketch, r))),
      rest = [first, second].filter((r) => !round.includes(r));
    return make("to-side", [...rest, ...round], { sides: round.map(() => chosen) });
  }
  if (isRound(types[0]) && isRound(types[1])) {
    const [c, d] = [pointAt(sketch, `${first}.centre`), pointAt(sketch, `${second}.centre`)];
    if (distance2(c, d) < COINCIDENT) return make("ring", [first, second]);
  }
  const asPoint = (ref: string) =>
    isRound(typeOf(sketch, ref)) || typeOf(sketch, ref) === "ellipse" ? `${ref}.centre` : ref;
  const [p, q] = [asPoint(first), asPoint(second)];
  if (typeOf(sketch, p) === "spline" || typeOf(sketch, q) === "spline") return undefined;
  if (line) {
    const point = line === first ? q : p,
      through = lineThrough(sketch, line);
    const past = isAxis(sketch, line) && side(through, at) > 0 !== side(through, pointAt(sketch, point)) > 0;
    return make(past ? "across" : "point-line", [point, line]);
  }
  return p === q ? undefined : make(distanceKind(pointAt(sketch, p), pointAt(sketch, q), at), [p, q]);
}

/** Whether the pointer stands in the sector between the two directions (or the opposite one). */
function sameSector(a: Vec2, u: Vec2, c: Vec2, v: Vec2, at: Vec2): boolean {
  const k = cross2(u, v),
    t = cross2(sub2(c, a), v) / k;
  const w: Vec2 = [at[0] - a[0] - u[0] * t, at[1] - a[1] - u[1] * t];
  return cross2(w, v) / k > 0 === cross2(u, w) / k > 0;
}

/** The way chosen last for one round thing goes on with the next. */
let lastRound: Choice["round"];

/** Picks one or two things, places the number, then asks for its size. */
export class DimensionTool implements Tool {
  readonly usesPicked = true;
  preview: Preview = {};
  private picked: string[] = [];
  private side: Choice["side"];
  private last: Pointer | undefined;
  constructor(private readonly hands: Hands) {}

  get takesPart(): boolean {
    return this.picked.length < 2;
  }
  private get isOneRound(): boolean {
    return this.picked.length === 1 && isRound(typeOf(this.hands.sketch(), this.picked[0]!));
  }
  private isCentreLine(ref: string): boolean {
    const c = this.hands.sketch().curves.find((k) => k.id === ref);
    return c?.kind === "line" && c.construction === "centre-line";
  }
  get hint(): string {
    if (!this.picked.length) return "Dimension: pick a line, a circle, or the first of two things.";
    if (this.isOneRound)
      return (
        "Dimension: click to place the number, or pick a second thing. The key once more: diameter, " +
        "radius, arc length."
      );
    const round = this.picked.some((r) => isRound(typeOf(this.hands.sketch(), r)));
    const hasAxis = this.picked.some((r) => this.isCentreLine(r));
    const across = hasAxis ? " Past the centre line it means across: the diameter." : "";
    return (
      `Dimension: ${this.picked.length === 1 ? "pick a second thing, or click" : "click"} free paper to ` +
      `place the number.${round ? " The key once more: centre, near side, far side." : ""}${across}`
    );
  }
  begin(): void {
    this.picked = this.hands
      .selection()
      .filter((r) => typeOf(this.hands.sketch(), r))
      .slice(0, 2);
    this.hands.select([]);
  }
  private next(p: Pointer): string[] {
    return p.hit && !this.picked.includes(p.hit.ref) && this.picked.length < 2
      ? [...this.picked, p.hit.ref]
      : this.picked;
  }
  private meant(picked: readonly string[], at: Vec2): NewDimension | undefined {
    return meant(this.hands.sketch(), picked, at, { round: lastRound, side: this.side });
  }
  move(p: Pointer): void {
    this.last = p;
    const dimension = this.picked.length ? this.meant(this.next(p), p.at) : undefined;
    this.preview = { picked: this.next(p), ...(dimension && { dimension }) };
  }
  down(pointer: Pointer): void {
    const next = this.next(pointer);
    if (next !== this.picked) {
      this.picked = next;
      this.move(pointer);
      return;
    }
    const dimension = this.meant(this.picked, pointer.at);
    if (!dimension) return;
    this.cancel();
    this.hands.type(dimension);
  }
  again(): boolean {
    if (!this.picked.length) return false;
    if (this.isOneRound) {
      const whole = entityOf(curveById(this.hands.sketch(), this.picked[0]!)!) === "circle";
      const ways = whole ? WAYS.one.slice(0, 2) : WAYS.one,
        now = lastRound ?? (whole ? "diameter" : "radius");
      lastRound = ways[(ways.indexOf(now) + 1) % ways.length];
    } else this.side = WAYS.two[(WAYS.two.indexOf(this.side ?? "centre") + 1) % 3];
    if (this.last) this.move(this.last);
    return true;
  }
  cancel(): boolean {
    const had = this.picked.length > 0;
    this.picked = [];
    this.side = undefined;
    this.preview = {};
    return had;
  }
}

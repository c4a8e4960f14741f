import { HEIGHT, NOTHING, ROUND, SQUARE } from "./tolerance";
import { onEllipse, TURN } from "@/core/geometry/segment";
import { deBoor } from "@/core/geometry/spline";
import { cross2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import { LETTER } from "@/core/sketch/edit/rewire";
import { pointAt, pointsOf, type Constraint, type Curve } from "@/core/sketch/sketch";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { placedCurve, placesOf } from "./dxf-block";
import { numberOf, readDxfFile, textOf, type Block, type Entity } from "./dxf-file";
import { TOO_FAR, UNITS } from "./dxf-units";
import { DXF_LAYERS } from "./dxf-layers";
import { joints } from "./dxf-joints";
import { isDegenerate, splinePieces, type Piece } from "./dxf-spline";

/** What came out of a DXF file, in mm. */
interface Imported {
  readonly curves: Curve[];
  /** Ends that stood at one place are joined. */
  readonly constraints: Constraint[];
  /** How many of each kind of entity could not be taken. */
  readonly left: Readonly<Record<string, number>>;
  /** How many were taken that lay above or below the drawing plane. */
  readonly raised: number;
  /** The unit the file states, or the one assumed. */
  readonly unit: string;
}

const MAX_CURVES = 2500;
/** Blocks lie in blocks so deep at most; one that holds itself has no end. */
const MAX_DEPTH = 12;

/**
 * Reads the plane curves of an ASCII DXF file (R12 and 2000): line, arc, circle, ellipse, point, polylines with
 * bulges, splines up to degree 3, and blocks of them wherever they are put. Everything else is counted: paper space,
 * what is invisible or on a frozen layer, what slants. Coordinates become mm by the unit the file states.
 */
export function readDxf(text: string, id: (letter: string) => string, assume: "mm" | "in" = "mm"): Outcome<Imported> {
  const file = readDxfFile(text);
  if (!file.ok) return file;
  const { entities, blocks, hiddenLayers, unitCode } = file.value;
  const unit = unitCode === 0 ? ([assume, assume === "mm" ? 1 : 25.4] as const) : UNITS[unitCode];
  if (!unit) {
    const name = TOO_FAR[unitCode] ?? `the unit number ${unitCode}, which is not known here`;
    return refuse("bad-unit", `The file is drawn in ${name}. Save it in millimetres or inches.`);
  }
  const reader = new CurveReader(unit[1], id, hiddenLayers, blocks);
  for (const e of entities) {
    reader.take(e);
    if (reader.isFull) return refuse("too-large", `The file holds more than ${MAX_CURVES} curves.`);
  }
  const { curves, left, raised } = reader;
  if (!curves.length) return refuse("empty", "No curve could be taken from this file.");
  return done({ curves, constraints: joints(curves, id), left, raised, unit: unit[0] });
}

/** In a sentence: what was not taken as it stands in the file. */
export function importNotice({ left, raised }: Pick<Imported, "left" | "raised">): string {
  const kinds = Object.entries(left).map(([kind, n]) => `${n} × ${kind}`);
  const parts = [
    ...(kinds.length ? [`Not taken: ${kinds.join(", ")}.`] : []),
    ...(raised
      ? [`${raised} curve${raised > 1 ? "s" : ""} lay above or below the drawing plane and were put into it.`]
      : []),
  ];
  return parts.join(" ");
}

/** Codes under which entities keep their heights. */
const HEIGHTS: Record<string, readonly number[]> = { LINE: [30, 31], LWPOLYLINE: [38], SPLINE: [30, 31] };

class CurveReader {
  readonly curves: Curve[] = [];
  readonly left: Record<string, number> = {};
  raised = 0;
  /** -1 while an entity is seen from below. */
  private side = 1;
  private construction: { construction?: true | "centre-line" } = {};
  private tooMany = false;

  constructor(
    private readonly factor: number,
    private readonly id: (letter: string) => string,
    private readonly hiddenLayers: ReadonlySet<string>,
    private readonly blocks: ReadonlyMap<string, Block>,
    /** What layer 0 stands for within a block, and how deep blocks lie in each other. */
    private readonly within: { readonly layer: string; readonly depth: number } = { layer: "0", depth: 0 },
  ) {}

  get isFull(): boolean {
    return this.tooMany || this.curves.length > MAX_CURVES;
  }

  /** Of what lies on layer 0 of a block the layer is that on which the block is put. */
  private layerOf(e: Entity): string {
    const own = textOf(e, 8).toUpperCase() || "0";
    return own === "0" ? this.within.layer : own;
  }

  /** A block is read in its own coordinates, and then put wherever it is asked for. */
  private insert(e: Entity): void {
    const block = this.blocks.get(textOf(e, 2).toUpperCase());
    if (!block || this.within.depth >= MAX_DEPTH) return this.skip(e.kind);
    const own = new CurveReader(this.factor, this.id, this.hiddenLayers, this.blocks, {
      layer: this.layerOf(e),
      depth: this.within.depth + 1,
    });
    for (const each of block.entities) {
      own.take(each);
      if (own.isFull) return void (this.tooMany = true);
    }
    const base: Vec2 = [numberOf(block.head, 10, 0) * this.factor, numberOf(block.head, 20, 0) * this.factor];
    const places = placesOf(e, base, this.factor);
    if (this.curves.length + places.count * own.curves.length > MAX_CURVES) return void (this.tooMany = true);
    for (let i = 0; i < places.count; i++)
      for (const curve of own.curves) {
        const put = placedCurve(curve, places.at(i));
        if (canHold(put)) this.curves.push({ ...put, id: this.id(LETTER[put.kind]) });
        else this.skip(e.kind);
      }
    for (const [kind, n] of Object.entries(own.left)) this.left[kind] = (this.left[kind] ?? 0) + n;
    this.raised += own.raised * places.count;
  }

  take(e: Entity): void {
    const trouble = this.unfit(e);
    if (trouble) return this.skip(`${e.kind}${trouble}`);
    if (e.kind === "INSERT") return this.insert(e);
    const heights = heightsOf(e);
    if (heights.some((h) => Math.abs(h - heights[0]!) * this.factor > HEIGHT)) return this.skip(`${e.kind} (slanting)`);
    const before = this.curves.length;
    this.side = numberOf(e, 230, 1) < 0 ? -1 : 1;
    const layer = this.layerOf(e);
    this.construction = {
      ...(layer === DXF_LAYERS.construction && { construction: true }),
      ...(layer === DXF_LAYERS.centre && { construction: "centre-line" }),
    };
    if (!this.read(e)) return this.skip(e.kind);
    // numbers that are none, or outside what a sketch can hold
    const fresh = this.curves.slice(before);
    if (fresh.length && fresh.every(canHold)) {
      if (heights.some((h) => Math.abs(h) * this.factor > HEIGHT)) this.raised += fresh.length;
      return;
    }
    this.curves.length = before;
    this.skip(e.kind);
  }

  /** Why an entity is no geometry of the drawing. */
  private unfit(e: Entity): string | undefined {
    if (numberOf(e, 67, 0) === 1) return " (on the layout)";
    if (numberOf(e, 60, 0) === 1) return " (invisible)";
    if (this.hiddenLayers.has(this.layerOf(e))) return " (on a hidden layer)";
    const out = Math.abs(Math.abs(numberOf(e, 230, 1)) - 1) > SQUARE;
    return out && e.kind !== "LINE" && e.kind !== "POINT" ? " (out of the drawing plane)" : undefined;
  }
  private skip(kind: string): void {
    this.left[kind] = (this.left[kind] ?? 0) + 1;
  }

  /** @returns whether this kind of entity is known */
  private read(e: Entity): boolean {
    switch (e.kind) {
      case "LINE":
        this.line(this.point(e, 10), this.point(e, 11));
        return true;
      case "POINT":
        this.add({ id: this.id(LETTER.point), kind: "point", at: this.point(e, 10) });
        return true;
      case "CIRCLE":
        this.circle(this.turned(this.point(e, 10)), numberOf(e, 40) * this.factor);
        return true;
      case "ARC":
        this.arcEntity(e);
        return true;
      case "ELLIPSE":
        this.ellipseEntity(e);
        return true;
      case "LWPOLYLINE":
        this.polyline(lightVertices(e, this.factor), (numberOf(e, 70, 0) & 1) === 1);
        return true;
      case "POLYLINE": {
        const list = e.vertices.map((v) => ({ at: this.point(v, 10), bulge: numberOf(v, 42, 0) }));
        this.polyline(list, (numberOf(e, 70, 0) & 1) === 1);
        return true;
      }
      case "SPLINE":
        this.spline(e);
        return true;
      default:
        return false;
    }
  }

  private point(e: Entity, code: number): [number, number] {
    return [numberOf(e, code) * this.factor, numberOf(e, code + 10) * this.factor];
  }
  /** Own coordinates of an entity seen from below: its x runs the other way (the arbitrary axis algorithm). */
  private turned([x, y]: Vec2): [number, number] {
    return [this.side * x, y];
  }
  private add(c: Curve): void {
    this.curves.push({ ...c, ...this.construction });
  }
  private line(a: Vec2, b: Vec2): void {
    if (distance2(a, b) > NOTHING)
      this.add({ id: this.id(LETTER.line), kind: "line", start: [a[0], a[1]], end: [b[0], b[1]] });
  }
  private circle(centre: [number, number], radius: number): void {
    this.add({ id: this.id(LETTER.circle), kind: "circle", centre, radius });
  }
  /** Counter-clockwise as seen from the entity's own side. */
  private arc(centre: Vec2, start: Vec2, end: Vec2): void {
    const [a, b] = this.side > 0 ? [start, end] : [end, start];
    this.add({
      id: this.id(LETTER.arc),
      kind: "arc",
      centre: this.turned(centre),
      start: this.turned(a),
      end: this.turned(b),
    });
  }

  private arcEntity(e: Entity): void {
    const centre = this.point(e, 10),
      radius = numberOf(e, 40) * this.factor;
    const [from, to] = [50, 51].map((code) => (numberOf(e, code) * Math.PI) / 180) as [number, number];
    const turns = (to - from) / TURN;
    // once round, or several times: a circle
    if (Math.abs(turns - Math.round(turns)) < SQUARE) return this.circle(this.turned(centre), radius);
    const at = (t: number): Vec2 => [centre[0] + radius * Math.cos(t), centre[1] + radius * Math.sin(t)];
    this.arc(centre, at(from), at(to));
  }

  /** Centre and axis stand in the drawing's own coordinates; seen from below it runs the other way round. */
  private ellipseEntity(e: Entity): void {
    const centre = this.point(e, 10),
      major = this.point(e, 11),
      ratio = numberOf(e, 40) * this.side;
    const from = numberOf(e, 41, 0),
      to = numberOf(e, 42, TURN);
    const minor: Vec2 = [-major[1] * ratio, major[0] * ratio];
    const at = (t: number) => [...onEllipse(centre, major, minor, t)] as [number, number];
    const ends = { centre, major: at(0), minor: at(Math.PI / 2) };
    if (Math.abs(to - from - TURN) < SQUARE) this.add({ id: this.id(LETTER.ellipse), kind: "ellipse", ...ends });
    else this.add({ id: this.id(LETTER.ellipse), kind: "ellipse-arc", ...ends, start: at(from), end: at(to) });
  }

  /** A bulge is the tangent of a quarter of the arc's angle; positive runs counter-clockwise. */
  private polyline(list: readonly { at: Vec2; bulge: number }[], closed: boolean): void {
    const n = closed ? list.length : list.length - 1;
    for (let i = 0; i < n; i++) {
      const { at: a, bulge } = list[i]!,
        { at: b } = list[(i + 1) % list.length]!;
      if (!bulge) {
        this.line(this.turned(a), this.turned(b));
        continue;
      }
      const k = (1 - bulge * bulge) / (4 * bulge);
      if (distance2(a, b) < NOTHING) continue;
      const centre: Vec2 = [(a[0] + b[0]) / 2 - k * (b[1] - a[1]), (a[1] + b[1]) / 2 + k * (b[0] - a[0])];
      const [start, end] = bulge > 0 ? [a, b] : [b, a];
      this.arc(centre, start, end);
    }
  }

  /** Cubic ones with simple knots stay one curve; others come in pieces, or through the points they were fitted to. */
  private spline(e: Entity): void {
    const values = (code: number) => e.pairs.filter(([c]) => c === code).map(([, v]) => Number(v));
    const places = (code: number): Vec2[] => {
      const ys = values(code + 10);
      return values(code).map((x, i) => [x * this.factor, (ys[i] ?? NaN) * this.factor]);
    };
    const degree = numberOf(e, 71, 3),
      knots = values(40),
      poles = places(10),
      weights = values(41),
      fit = places(11);
    const distinct = [...new Set(knots)];
    const isSimple = knots.length === poles.length + 4 && distinct.length === poles.length - 2;
    const isPlain = weights.every((w) => Math.abs(w - (weights[0] ?? 1)) < ROUND);
    if (degree === 3 && isSimple && poles.length >= 4 && isPlain && distinct.length <= 100) {
      const through = distinct.map((t) => [...deBoor(3, knots, poles, t)] as [number, number]);
      return this.smooth(through, poles[1]!, poles[poles.length - 2]!, distinct);
    }
    const pieces = splinePieces(degree, knots, poles, weights);
    if (pieces) return pieces.filter((p) => !isDegenerate(p)).forEach((p) => this.piece(p));
    if (fit.length >= 2 && fit.length <= 100)
      this.add({ id: this.id(LETTER.spline), kind: "spline", through: fit.map((p): [number, number] => [p[0], p[1]]) });
  }
  private smooth(through: [number, number][], first: Vec2, last: Vec2, knots?: number[]): void {
    const handles = { startHandle: [...first] as [number, number], endHandle: [...last] as [number, number] };
    this.add({ id: this.id(LETTER.spline), kind: "spline", through, ...(knots && { knots }), ...handles });
  }
  private piece(p: Piece): void {
    if (p.kind === "line") return this.line(p.a, p.b);
    if (p.kind === "bezier") {
      const [a, b, c, d] = p.poles;
      return this.smooth([[...a] as [number, number], [...d] as [number, number]], b, c);
    }
    const { centre, major, minor, start, end } = p;
    const [u, v] = [sub2(major, centre), sub2(minor, centre)];
    if (Math.abs(Math.hypot(...u) / Math.hypot(...v) - 1) > ROUND) {
      const own = { centre, major, minor, start, end } as unknown as Omit<
        Curve & { kind: "ellipse-arc" },
        "id" | "kind"
      >;
      return this.add({ id: this.id(LETTER.ellipse), kind: "ellipse-arc", ...own });
    }
    const [a, b] = cross2(u, v) > 0 ? [start, end] : [end, start];
    this.add({ id: this.id(LETTER.arc), kind: "arc", centre: [...centre], start: [...a], end: [...b] });
  }
}

function heightsOf(e: Entity): number[] {
  const own = e.kind === "POLYLINE" ? e.vertices.map((v) => numberOf(v, 30, 0)) : [];
  const codes = HEIGHTS[e.kind] ?? [30];
  return [...own, ...e.pairs.flatMap(([c, v]) => (codes.includes(c) ? [Number(v) || 0] : []))];
}

function lightVertices(e: Entity, factor: number): { at: [number, number]; bulge: number }[] {
  const list: { at: [number, number]; bulge: number }[] = [];
  for (const [code, value] of e.pairs) {
    const last = list[list.length - 1];
    if (code === 10) list.push({ at: [Number(value) * factor, 0], bulge: 0 });
    else if (code === 20 && last) last.at[1] = Number(value) * factor;
    else if (code === 42 && last) last.bulge = Number(value);
  }
  return list;
}

/** Whether a curve's numbers are numbers, and such as a sketch can hold. */
function canHold(c: Curve): boolean {
  if (JSON.stringify(c).includes("null")) return false;
  if (c.kind === "circle" && !(c.radius > 0 && c.radius <= 1e6)) return false;
  return pointsOf(c).every((p) => pointAt({ curves: [c] }, p).every((v) => Math.abs(v) <= 1e6));
}

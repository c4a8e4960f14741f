import { onEllipse } from "@/core/geometry/segment";
import { deBoor } from "@/core/geometry/spline";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { LETTER } from "@/core/sketch/edit/rewire";
import { pointAt, pointsOf, type Constraint, type Curve } from "@/core/sketch/sketch";
import { done, refuse, type Outcome } from "@/core/units/refusal";

/** What came out of a DXF file, in mm. */
export interface Imported {
  readonly curves: Curve[];
  /** Ends that stood at one place are joined. */
  readonly constraints: Constraint[];
  /** How many of each kind of entity could not be taken. */
  readonly left: Readonly<Record<string, number>>;
  /** The unit the file states, or none. */
  readonly unit: string;
}

type Pair = readonly [code: number, value: string];
/** Units of the header variable $INSUNITS: millimetres per unit. */
const UNITS: Record<number, readonly [string, number]> = {
  1: ["in", 25.4],
  2: ["ft", 304.8],
  4: ["mm", 1],
  5: ["cm", 10],
  6: ["m", 1000],
  13: ["µm", 0.001],
};
const MAX_TEXT = 20e6,
  MAX_CURVES = 2500;
/** Ends nearer than this share of the drawing's size are one. */
const ONE = 1e-7;

/**
 * Reads the plane curves of an ASCII DXF file (R12 and 2000): line, arc, circle, ellipse, point, polylines with
 * bulges, cubic splines. Everything else is counted. Coordinates become mm by the unit the file states.
 */
export function readDxf(text: string, id: (letter: string) => string, assume: "mm" | "in" = "mm"): Outcome<Imported> {
  if (text.length > MAX_TEXT) return refuse("too-large", "The DXF file is larger than 20 MB.");
  const rows = text.split(/\r\n|\r|\n/);
  const pairs: Pair[] = [];
  for (let i = 0; i + 1 < rows.length; i += 2) {
    const code = Number(rows[i]);
    if (!Number.isInteger(code))
      return refuse("bad-dxf", `This is no ASCII DXF file: line ${i + 1} holds no group code.`);
    pairs.push([code, rows[i + 1]!.trim()]);
  }
  if (!pairs.some(([c, v]) => c === 2 && v === "ENTITIES"))
    return refuse("bad-dxf", "This is no DXF file: it has no section of entities.");
  const [unit, factor] = unitOf(pairs, assume);
  const left: Record<string, number> = {};
  const skip = (kind: string) => void (left[kind] = (left[kind] ?? 0) + 1);
  const curves: Curve[] = [];
  const reader = new Entities(factor, id, curves, skip);
  for (const e of entities(pairs)) {
    reader.take(e);
    if (curves.length > MAX_CURVES) return refuse("too-large", `The file holds more than ${MAX_CURVES} curves.`);
  }
  if (!curves.length) return refuse("empty", "No curve could be taken from this file.");
  return done({ curves, constraints: joints(curves, id), left, unit });
}

function unitOf(pairs: readonly Pair[], assume: "mm" | "in"): readonly [string, number] {
  const at = pairs.findIndex(([c, v]) => c === 9 && v === "$INSUNITS");
  return UNITS[Number(pairs[at + 1]?.[1] ?? 0) * (at < 0 ? 0 : 1)] ?? [assume, assume === "mm" ? 1 : 25.4];
}

interface Entity {
  readonly kind: string;
  readonly pairs: readonly Pair[];
  readonly vertices: Entity[];
}

/** Entities of the section ENTITIES; the vertices of an old polyline belong to it. */
function entities(pairs: readonly Pair[]): Entity[] {
  const start = pairs.findIndex(([c, v]) => c === 2 && v === "ENTITIES");
  const list: Entity[] = [];
  let open: Entity | undefined,
    own: Pair[] = [];
  for (const [code, value] of pairs.slice(start + 1)) {
    if (code !== 0) {
      own.push([code, value]);
      continue;
    }
    if (value === "ENDSEC" || value === "EOF") break;
    own = [];
    if (value === "SEQEND") {
      open = undefined;
      continue;
    }
    const e: Entity = { kind: value, pairs: own, vertices: [] };
    if (value === "VERTEX" && open) open.vertices.push(e);
    else {
      list.push(e);
      open = value === "POLYLINE" ? e : undefined;
    }
  }
  return list;
}

class Entities {
  constructor(
    private readonly factor: number,
    private readonly id: (letter: string) => string,
    private readonly curves: Curve[],
    private readonly skip: (kind: string) => void,
  ) {}

  private number(e: Entity, code: number, otherwise = NaN): number {
    const found = e.pairs.find(([c]) => c === code);
    const v = found ? Number(found[1]) : otherwise;
    return Number.isFinite(v) ? v : otherwise;
  }
  private point(e: Entity, code: number): [number, number] {
    return [this.number(e, code) * this.factor, this.number(e, code + 10) * this.factor];
  }
  private add(c: Curve): void {
    this.curves.push(c);
  }
  private line(a: Vec2, b: Vec2): void {
    if (distance2(a, b) > 1e-9)
      this.add({ id: this.id(LETTER.line), kind: "line", start: [a[0], a[1]], end: [b[0], b[1]] });
  }
  private arc(centre: Vec2, radius: number, from: number, to: number): void {
    const at = (t: number): [number, number] => [centre[0] + radius * Math.cos(t), centre[1] + radius * Math.sin(t)];
    this.add({ id: this.id(LETTER.arc), kind: "arc", centre: [centre[0], centre[1]], start: at(from), end: at(to) });
  }

  take(e: Entity): void {
    const before = this.curves.length;
    // a plane turned over or out of the drawing plane is not ours to guess
    if (Math.abs(this.number(e, 230, 1) - 1) > 1e-9 && e.kind !== "LINE") return this.skip(e.kind);
    switch (e.kind) {
      case "LINE":
        this.line(this.point(e, 10), this.point(e, 11));
        break;
      case "POINT":
        this.add({ id: this.id(LETTER.point), kind: "point", at: this.point(e, 10) });
        break;
      case "CIRCLE":
        this.add({
          id: this.id(LETTER.circle),
          kind: "circle",
          centre: this.point(e, 10),
          radius: this.number(e, 40) * this.factor,
        });
        break;
      case "ARC":
        this.arc(
          this.point(e, 10),
          this.number(e, 40) * this.factor,
          (this.number(e, 50) * Math.PI) / 180,
          (this.number(e, 51) * Math.PI) / 180,
        );
        break;
      case "ELLIPSE":
        this.ellipse(e);
        break;
      case "LWPOLYLINE":
        this.lightPolyline(e);
        break;
      case "POLYLINE":
        this.polyline(
          e.vertices.map((v) => ({ at: this.point(v, 10), bulge: this.number(v, 42, 0) })),
          (this.number(e, 70, 0) & 1) === 1,
        );
        break;
      case "SPLINE":
        this.spline(e);
        break;
      default:
        return this.skip(e.kind);
    }
    // numbers that are none, or outside what a sketch can hold
    const fresh = this.curves.slice(before);
    if (
      fresh.some(
        (c) =>
          JSON.stringify(c).includes("null") ||
          pointsOf(c).some((p) => pointAt({ curves: [c] }, p).some((v) => !(Math.abs(v) <= 1e6))) ||
          (c.kind === "circle" && !(c.radius > 0 && c.radius <= 1e6)),
      )
    ) {
      this.curves.length = before;
      this.skip(e.kind);
    } else if (!fresh.length) this.skip(e.kind);
  }

  private ellipse(e: Entity): void {
    const centre = this.point(e, 10),
      major = this.point(e, 11),
      ratio = this.number(e, 40),
      from = this.number(e, 41, 0),
      to = this.number(e, 42, 2 * Math.PI);
    const minor: Vec2 = [-major[1] * ratio, major[0] * ratio];
    const ends = {
      centre,
      major: [centre[0] + major[0], centre[1] + major[1]] as [number, number],
      minor: [centre[0] + minor[0], centre[1] + minor[1]] as [number, number],
    };
    const at = (t: number) => [...onEllipse(centre, major, minor, t)] as [number, number];
    if (Math.abs(to - from - 2 * Math.PI) < 1e-9) this.add({ id: this.id(LETTER.ellipse), kind: "ellipse", ...ends });
    else this.add({ id: this.id(LETTER.ellipse), kind: "ellipse-arc", ...ends, start: at(from), end: at(to) });
  }

  private lightPolyline(e: Entity): void {
    const list: { at: [number, number]; bulge: number }[] = [];
    for (const [code, value] of e.pairs) {
      if (code === 10) list.push({ at: [Number(value) * this.factor, 0], bulge: 0 });
      else if (code === 20 && list.length) list[list.length - 1]!.at[1] = Number(value) * this.factor;
      else if (code === 42 && list.length) list[list.length - 1]!.bulge = Number(value);
    }
    this.polyline(list, (this.number(e, 70, 0) & 1) === 1);
  }

  /** A bulge is the tangent of a quarter of the arc's angle; positive runs counter-clockwise. */
  private polyline(list: readonly { at: Vec2; bulge: number }[], closed: boolean): void {
    const n = closed ? list.length : list.length - 1;
    for (let i = 0; i < n; i++) {
      const { at: a, bulge } = list[i]!,
        { at: b } = list[(i + 1) % list.length]!;
      if (!bulge) {
        this.line(a, b);
        continue;
      }
      const chord = distance2(a, b),
        k = (1 - bulge * bulge) / (4 * bulge);
      if (chord < 1e-9) continue;
      const centre: Vec2 = [(a[0] + b[0]) / 2 - k * (b[1] - a[1]), (a[1] + b[1]) / 2 + k * (b[0] - a[0])];
      const [start, end] = bulge > 0 ? [a, b] : [b, a];
      this.add({
        id: this.id(LETTER.arc),
        kind: "arc",
        centre: [centre[0], centre[1]],
        start: [start[0], start[1]],
        end: [end[0], end[1]],
      });
    }
  }

  /** Cubic ones without weights are taken exactly; others that give points to go through, through those. */
  private spline(e: Entity): void {
    const values = (code: number) => e.pairs.filter(([c]) => c === code).map(([, v]) => Number(v));
    const places = (code: number): Vec2[] =>
      values(code).map((x, i) => [x * this.factor, (values(code + 10)[i] ?? NaN) * this.factor]);
    const degree = this.number(e, 71, 3),
      knots = values(40),
      poles = places(10),
      weights = values(41),
      fit = places(11);
    const distinct = [...new Set(knots)];
    const inner = knots.length === poles.length + 4 && distinct.length === poles.length - 2;
    if (degree === 3 && inner && poles.length >= 4 && weights.every((w) => Math.abs(w - (weights[0] ?? 1)) < 1e-12)) {
      const through = distinct.map((t) => [...deBoor(3, knots, poles, t)] as [number, number]);
      if (through.length > 100) return;
      const own = (p: Vec2): [number, number] => [p[0], p[1]];
      return this.add({
        id: this.id(LETTER.spline),
        kind: "spline",
        through,
        knots: distinct,
        startHandle: own(poles[1]!),
        endHandle: own(poles[poles.length - 2]!),
      });
    }
    if (fit.length >= 2 && fit.length <= 100)
      this.add({
        id: this.id(LETTER.spline),
        kind: "spline",
        through: fit.map((p) => [p[0], p[1]] as [number, number]),
      });
  }
}

/** Ends at one place are made to coincide, each with the first that stood there. */
function joints(curves: readonly Curve[], id: (letter: string) => string): Constraint[] {
  const ends = curves.flatMap((c) =>
    pointsOf(c)
      .filter((r) => /\.(start|end)$/.test(r))
      .map((ref) => ({ ref, at: pointAt({ curves: [c] }, ref) })),
  );
  const size = Math.max(1e-9, ...ends.map((e) => Math.hypot(...e.at))),
    slack = Math.max(ONE * size, 1e-9);
  const grid = new Map<string, typeof ends>();
  const list: Constraint[] = [];
  for (const e of ends) {
    const [x, y] = e.at.map((v) => Math.floor(v / (4 * slack))) as [number, number];
    let met = false;
    for (let i = -1; i <= 1 && !met; i++)
      for (let j = -1; j <= 1 && !met; j++) {
        const other = grid.get(`${x + i},${y + j}`)?.find((o) => distance2(o.at, e.at) <= slack);
        if (!other) continue;
        met = true;
        list.push({ id: id("k"), kind: "coincident", of: [other.ref, e.ref] });
      }
    if (!met) grid.set(`${x},${y}`, [...(grid.get(`${x},${y}`) ?? []), e]);
  }
  return list;
}

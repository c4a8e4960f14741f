import type { Equation, Options, Slots } from "./constraints/kind";
import { KINDS } from "./constraints/registry";
import { COLLAPSED } from "./tolerance";
import { curveKind } from "./curves/registry";
import type { Spline } from "./curves/schema";
import { knotsOf } from "./curves/spline";
import { entityOf, isDimension, takenApart, quantityOf, type Curve, type Relation, type Sketch } from "./sketch";

/** An equation with the relation it comes from and slots already replaced by their representatives. */
export interface BoundEquation {
  readonly relation: string;
  readonly slots: readonly number[];
  readonly evaluate: Equation["evaluate"];
  /** Its derivatives when it was evaluated last. */
  readonly g: number[];
}

/** A sketch as numbers: slots, which of them are constants, which are one, and the equations between them. */
export interface System {
  readonly slots: Slots;
  /** Values; only representatives count while solving. */
  readonly x: Float64Array;
  readonly constant: Uint8Array;
  /** Representative of each slot. */
  readonly root: Int32Array;
  readonly equations: BoundEquation[];
  /** What holds the curves themselves together comes first: so many of the equations. */
  readonly ownCount: number;
  /** Relations that only merge slots and whose every merge was there already. */
  readonly agreeing: string[];
  /** Relations whose merge would join two different constants, or that collapse a line. */
  readonly broken: string[];
  readonly slotOf: ReadonlyMap<string, number>;
  readonly scale: number;
}

/** Slots of the origin and of the ends of the two axes. */
const FIXED = 6;

/**
 * Builds the numbers of a sketch from the given relations (those of the sketch, or some of them).
 * The sketch must have passed referenceFault.
 */
export function buildSystem(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): System {
  const slotOf = new Map<string, number>();
  const curves = new Map<string, Curve>();
  const values: number[] = [0, 0, 1, 0, 0, 1];
  const pointNames = new Map<string, readonly string[]>();
  let extent = 0;
  for (const c of sketch.curves) {
    const kind = curveKind(c);
    slotOf.set(c.id, values.length);
    curves.set(c.id, c);
    pointNames.set(c.id, kind.points(c));
    for (const v of kind.numbers(c)) {
      values.push(v);
      extent = Math.max(extent, Math.abs(v));
    }
  }
  for (const r of relations)
    if (isDimension(r) && quantityOf(r) === "length") extent = Math.max(extent, sizes.get(r.id) ?? 0);
  const scale = extent || 1;
  let x = Float64Array.from(values);

  let root = counting(values.length);
  let constant = new Uint8Array(values.length);
  // origin 0,0; the axes run from it to 1,0 and 0,1
  constant.fill(1, 0, FIXED);
  // pictures of the part stand where the part puts them
  for (const c of sketch.curves)
    if (c.projected) constant.fill(1, slotOf.get(c.id), slotOf.get(c.id)! + curveKind(c).numbers(c).length);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]!]!;
    return i;
  };
  const same = (a: number, b: number) =>
    find(a) === find(b) || (constant[find(a)] === 1 && constant[find(b)] === 1 && x[find(a)] === x[find(b)]);
  const held: readonly (readonly [string, string])[] = relations
    .filter((r) => r.kind === "point-on-curve")
    .map((r) => [r.of[0]!, r.of[1]!]);
  const points = new Map<string, readonly [number, number]>([["origin", [0, 1]]]);
  const slots: Slots = {
    scale,
    same,
    point(ref) {
      const known = points.get(ref);
      if (known) return known;
      const [id, part] = takenApart(ref),
        at = slotOf.get(id)!;
      const k = part === undefined ? 0 : pointNames.get(id)!.indexOf(part);
      const place = [at + 2 * k, at + 2 * k + 1] as const;
      points.set(ref, place);
      return place;
    },
    line(ref) {
      if (ref === "x-axis") return [0, 1, 2, 3];
      if (ref === "y-axis") return [0, 1, 4, 5];
      const at = slotOf.get(ref)!;
      return [at, at + 1, at + 2, at + 3];
    },
    centre(ref) {
      const at = slotOf.get(ref)! + 2 * pointNames.get(ref)!.indexOf("centre");
      return [at, at + 1];
    },
    radius: (ref) => slotOf.get(ref)! + curveKind(curves.get(ref)!).radius!,
    all(ref) {
      const at = slotOf.get(ref)!,
        c = curves.get(ref)!;
      return Array.from({ length: curveKind(c).numbers(c).length }, (_, i) => at + i);
    },
    type: (ref) =>
      ref === "origin" || ref.includes(".") ? "point" : ref.endsWith("-axis") ? "line" : entityOf(curves.get(ref)!),
    ends: (ref) => (pointNames.get(ref)?.includes("end") ? [`${ref}.start`, `${ref}.end`] : []),
    spline(ref) {
      const c = curves.get(ref) as Spline;
      return { knots: knotsOf(c), start: c.startHandle !== undefined, end: c.endHandle !== undefined };
    },
    isOn(point, curve) {
      const p = slots.point(point);
      const is = (ref: string) => {
        const q = slots.point(ref);
        return same(p[0], q[0]) && same(p[1], q[1]);
      };
      return slots.ends(curve).some(is) || held.some(([ref, on]) => on === curve && is(ref));
    },
  };

  const agreeing: string[] = [];
  const broken: string[] = [];
  for (const r of relations) {
    if (r.kind !== "fixed") continue;
    const ref = r.of[0]!;
    const type = slots.type(ref);
    const tied = type === "point" ? slots.point(ref) : type === "line" ? slots.line(ref) : slots.all(ref);
    if (tied.every((s) => constant[s])) agreeing.push(r.id);
    for (const s of tied) constant[s] = 1;
  }
  // merged values start from the mean of what was drawn
  const weight = new Float64Array(x.length).fill(1);
  for (const late of [false, true])
    for (const r of relations) {
      const kind = KINDS[r.kind];
      if (!kind.merge || (kind.mergesLate ?? false) !== late) continue;
      const pairs = kind.merge(slots, r.of);
      let fresh = false;
      for (const [a, b] of pairs) {
        const p = find(a),
          q = find(b);
        if (slots.same(p, q)) continue;
        fresh = true;
        if (constant[p] && constant[q]) {
          if (Math.abs(x[p]! - x[q]!) > COLLAPSED * scale) broken.push(r.id);
          continue;
        }
        const [keep, lose] = constant[p] || (!constant[q] && p < q) ? [p, q] : [q, p];
        if (!constant[keep])
          x[keep] = (x[keep]! * weight[keep]! + x[lose]! * weight[lose]!) / (weight[keep]! + weight[lose]!);
        weight[keep]! += weight[lose]!;
        root[lose] = keep;
      }
      if (pairs.length && !fresh) agreeing.push(r.id);
    }
  // unknowns that relations bring along stand after those of the curves
  const extraOf = new Map<string, number>();
  const extras: number[] = [];
  let merged: Float64Array | undefined;
  for (const r of relations) {
    const { extra } = KINDS[r.kind];
    if (!extra) continue;
    const own = extra(slots, r.of, (merged ??= x.map((_, i) => x[find(i)]!)));
    if (own.length) extraOf.set(r.id, x.length + extras.length);
    extras.push(...own);
  }
  if (extras.length) {
    const n = x.length;
    x = Float64Array.from([...x, ...extras]);
    const [before, fixed] = [root, constant];
    root = counting(x.length);
    root.set(before);
    constant = new Uint8Array(n + extras.length);
    constant.set(fixed);
  }
  for (let i = 0; i < x.length; i++) {
    root[i] = find(i);
    x[i] = x[root[i]!]!;
  }
  for (const c of sketch.curves) {
    if (c.kind !== "line") continue;
    const at = slotOf.get(c.id)!;
    const [a, b, d, e] = [root[at]!, root[at + 1]!, root[at + 2]!, root[at + 3]!];
    if (slots.same(a, d) && slots.same(b, e)) broken.push(c.id);
    else spread(x, constant, [a, b, d, e], slots.same(a, d), c);
  }

  const equations: BoundEquation[] = [];
  const bind = (relation: string, e: Equation) =>
    equations.push({ relation, slots: e.slots.map((s) => root[s]!), evaluate: e.evaluate, g: e.slots.map(() => 0.5) });
  for (const c of sketch.curves) for (const e of curveKind(c).own?.(slotOf.get(c.id)!, c) ?? []) bind(c.id, e);
  const ownCount = equations.length;
  for (const r of relations) {
    const kind = KINDS[r.kind];
    if (!kind.equations || (isDimension(r) && r.reference)) continue;
    const options: Options = { ...optionsOf(r), ...(extraOf.has(r.id) && { extra: extraOf.get(r.id)! }) };
    for (const e of kind.equations(slots, r.of, sizes.get(r.id) ?? 0, x, options)) bind(r.id, e);
  }
  return { slots, x, constant, root, equations, ownCount, agreeing, broken, slotOf, scale };
}

/** 0, 1, 2 … */
function counting(n: number): Int32Array {
  const list = new Int32Array(n);
  for (let i = 0; i < n; i++) list[i] = i;
  return list;
}

/** An upright line told to be level would begin with no length at all: its ends are laid out the other way. */
function spread(
  x: Float64Array,
  constant: Uint8Array,
  [ax, ay, bx, by]: readonly [number, number, number, number],
  isUpright: boolean,
  c: Extract<Curve, { kind: "line" }>,
): void {
  const now = Math.abs(x[ax]! - x[bx]!) + Math.abs(x[ay]! - x[by]!);
  const drawn = Math.abs(c.end[0] - c.start[0]) + Math.abs(c.end[1] - c.start[1]);
  if (now > COLLAPSED * drawn) return;
  const [from, to] = isUpright ? [ay, by] : [ax, bx];
  if (!constant[to]) x[to] = x[from]! + drawn;
  else if (!constant[from]) x[from] = x[to]! - drawn;
}

/** What a relation says besides its kind and arguments. */
export const optionsOf = (r: Relation): Options =>
  isDimension(r) ? { flip: r.flip, sides: r.sides } : { factor: r.factor };

/** Residual of an equation at x; its derivatives are left in `e.g`. */
export function residual(e: BoundEquation, x: Float64Array): number {
  const { slots } = e;
  for (let i = 0; i < slots.length; i++) values[i] = x[slots[i]!]!;
  return e.evaluate(values, e.g);
}
/** Local values of the equation being evaluated; as many as the longest has. */
const values: number[] = [];

/** A connected set of unknowns and the equations between them. */
export interface Cluster {
  readonly unknowns: number[];
  readonly equations: BoundEquation[];
}

/**
 * Splits unknowns and equations into connected clusters; equations without unknowns form one with none.
 * @param constant slots that stand; what is settled already may be among them
 */
export function clustersOf(system: System, constant = system.constant): Cluster[] {
  const { root, equations } = system;
  const group = counting(root.length);
  const find = (i: number): number => {
    while (group[i] !== i) i = group[i] = group[group[i]!]!;
    return i;
  };
  const heads = equations.map((e) => e.slots.find((s) => !constant[s]));
  equations.forEach((e, k) => {
    const head = heads[k];
    if (head === undefined) return;
    const to = find(head);
    for (const s of e.slots) if (!constant[s] && group[s] !== to) group[find(s)] = to;
  });
  const byGroup = new Map<number, Cluster>();
  const cluster = (g: number) => {
    let c = byGroup.get(g);
    if (!c) byGroup.set(g, (c = { unknowns: [], equations: [] }));
    return c;
  };
  for (let i = 0; i < root.length; i++) if (root[i] === i && !constant[i]) cluster(find(i)).unknowns.push(i);
  equations.forEach((e, k) => {
    const head = heads[k];
    cluster(head === undefined ? -1 : find(head)).equations.push(e);
  });
  return [...byGroup.values()];
}

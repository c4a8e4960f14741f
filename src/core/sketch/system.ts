import { refuse, type Refusal } from "@/core/units/refusal";
import type { Equation, Options, Slots } from "./constraints/kind";
import { KINDS } from "./constraints/registry";
import { sharedPoint } from "./constraints/direction";
import { curveKind } from "./curves/registry";
import type { Spline } from "./curves/schema";
import { knotsOf } from "./curves/spline";
import {
  curveOf,
  entityOf,
  fits,
  isDimension,
  nameOf,
  typeOf,
  type Curve,
  type EntityType,
  type Relation,
  type Sketch,
} from "./sketch";

/** An equation with the relation it comes from and slots already replaced by their representatives. */
export interface BoundEquation {
  readonly relation: string;
  readonly slots: Int32Array;
  readonly evaluate: Equation["evaluate"];
  /** Scratch for local values and derivatives. */
  readonly v: Float64Array;
  readonly g: Float64Array;
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

/** Checks that every relation refers to things that are there and of the right kind. */
export function referenceFault(
  sketch: Sketch,
  relations: readonly Relation[] = [...sketch.constraints, ...sketch.dimensions],
): Refusal | undefined {
  const types = new Map<string, EntityType | undefined>();
  const type = (ref: string) => {
    if (!types.has(ref)) types.set(ref, typeOf(sketch, ref));
    return types.get(ref);
  };
  for (const r of relations) {
    for (const ref of r.of)
      if (!type(ref))
        return refuse("lost-reference", `${r.id} (${r.kind}) refers to ${ref}, which is not in the sketch.`, [r.id])
          .refusal;
    if (!KINDS[r.kind].takes.some((t) => t.length === r.of.length && t.every((want, i) => fits(want, type(r.of[i]!)))))
      return refuse("wrong-reference", `${r.id} (${r.kind}) cannot be applied to ${r.of.map(nameOf).join(" and ")}.`, [
        r.id,
      ]).refusal;
    if (r.of.length > 1 && r.of[0] === r.of[1])
      return refuse("wrong-reference", `${r.id} (${r.kind}) needs two different things.`, [r.id]).refusal;
  }
  for (const r of relations) {
    if (
      (r.kind === "curvature" || r.kind === "tangent") &&
      type(r.of[1]!) === "spline" &&
      !joinedSpline(sketch, r.of as [string, string])
    )
      return refuse(
        "not-joined",
        `${r.id} (${r.kind}) needs the end of ${nameOf(r.of[1]!)} joined to ${nameOf(r.of[0]!)} first: make them coincide.`,
        [r.id],
      ).refusal;
  }
  return undefined;
}

/** Whether an end of one is tied, directly or through other points, to the other. */
function joinedSpline(sketch: Sketch, [a, b]: [string, string]): boolean {
  const system = buildSystem(
    sketch,
    sketch.constraints.filter(
      (c) =>
        (c.kind === "coincident" || c.kind === "point-on-curve") &&
        KINDS[c.kind].takes.some(
          (t) => t.length === c.of.length && t.every((want, i) => fits(want, typeOf(sketch, c.of[i]!))),
        ),
    ),
    new Map(),
  );
  return sharedPoint(system.slots, a, b) !== undefined;
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
    if (isDimension(r) && KINDS[r.kind].quantity === "length") extent = Math.max(extent, sizes.get(r.id) ?? 0);
  const scale = extent || 1;
  let x = Float64Array.from(values);

  let root = Int32Array.from({ length: values.length }, (_, i) => i);
  let constant = new Uint8Array(values.length);
  // origin 0,0; the axes run from it to 1,0 and 0,1
  constant.fill(1, 0, FIXED);
  // pictures of the part stand where the part puts them
  for (const c of sketch.curves)
    if (c.projected) constant.fill(1, slotOf.get(c.id)!, slotOf.get(c.id)! + curveKind(c).numbers(c).length);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]!]!;
    return i;
  };
  const same = (a: number, b: number) =>
    find(a) === find(b) || (constant[find(a)] === 1 && constant[find(b)] === 1 && x[find(a)] === x[find(b)]);
  const held: readonly (readonly [string, string])[] = relations
    .filter((r) => r.kind === "point-on-curve")
    .map((r) => [r.of[0]!, r.of[1]!]);
  const slots: Slots = {
    scale,
    same,
    point(ref) {
      if (ref === "origin") return [0, 1];
      const id = curveOf(ref),
        at = slotOf.get(id)!;
      const k = id === ref ? 0 : pointNames.get(id)!.indexOf(ref.slice(id.length + 1));
      return [at + 2 * k, at + 2 * k + 1];
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
          if (Math.abs(x[p]! - x[q]!) > 1e-9 * scale) broken.push(r.id);
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
  for (const r of relations) {
    const own =
      KINDS[r.kind].extra?.(
        slots,
        r.of,
        x.map((_, i) => x[find(i)]!),
      ) ?? [];
    if (own.length) extraOf.set(r.id, x.length + extras.length);
    extras.push(...own);
  }
  if (extras.length) {
    const n = x.length;
    x = Float64Array.from([...x, ...extras]);
    root = Int32Array.from({ length: x.length }, (_, i) => root[i] ?? i);
    constant = Uint8Array.from({ length: n + extras.length }, (_, i) => constant[i] ?? 0);
  }
  for (let i = 0; i < x.length; i++) {
    root[i] = find(i);
    x[i] = x[root[i]!]!;
  }
  for (const c of sketch.curves) {
    if (c.kind !== "line") continue;
    const [a, b, d, e] = slots.line(c.id).map((s) => root[s]!) as [number, number, number, number];
    if (slots.same(a, d) && slots.same(b, e)) broken.push(c.id);
    else
      spread(
        x,
        constant,
        slots.same(a, d) ? [b, e] : [a, d],
        Math.hypot(c.end[0] - c.start[0], c.end[1] - c.start[1]),
        Math.hypot(x[a]! - x[d]!, x[b]! - x[e]!),
      );
  }

  const equations: BoundEquation[] = [];
  const bind = (relation: string, e: Equation) =>
    equations.push({
      relation,
      slots: Int32Array.from(e.slots, (s) => root[s]!),
      evaluate: e.evaluate,
      v: new Float64Array(e.slots.length),
      g: new Float64Array(e.slots.length),
    });
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

/** An upright line told to be level would begin with no length at all: its ends are laid out the other way. */
function spread(
  x: Float64Array,
  constant: Uint8Array,
  [from, to]: readonly [number, number],
  drawn: number,
  now: number,
): void {
  if (now > 1e-9 * drawn) return;
  if (!constant[to]) x[to] = x[from]! + drawn;
  else if (!constant[from]) x[from] = x[to]! - drawn;
}

/** What a relation says besides its kind and arguments. */
export const optionsOf = (r: Relation): Options =>
  isDimension(r) ? { flip: r.flip, sides: r.sides } : { factor: r.factor };

/** Residual of an equation at x; its derivatives are left in `e.g`. */
export function residual(e: BoundEquation, x: Float64Array): number {
  for (let i = 0; i < e.slots.length; i++) e.v[i] = x[e.slots[i]!]!;
  return e.evaluate(e.v, e.g);
}

/** A connected set of unknowns and the equations between them. */
export interface Cluster {
  readonly unknowns: number[];
  readonly equations: BoundEquation[];
}

/** Splits unknowns and equations into connected clusters; equations without unknowns form one with none. */
export function clustersOf(system: System): Cluster[] {
  const { root, constant, equations } = system;
  const group = Int32Array.from(root, (_, i) => i);
  const find = (i: number): number => {
    while (group[i] !== i) i = group[i] = group[group[i]!]!;
    return i;
  };
  const first = (e: BoundEquation) => e.slots.find((s) => !constant[s]);
  for (const e of equations) {
    const head = first(e);
    if (head === undefined) continue;
    for (const s of e.slots) if (!constant[s]) group[find(s)] = find(head);
  }
  const byGroup = new Map<number, Cluster>();
  const cluster = (g: number) => {
    let c = byGroup.get(g);
    if (!c) byGroup.set(g, (c = { unknowns: [], equations: [] }));
    return c;
  };
  for (let i = 0; i < root.length; i++) if (root[i] === i && !constant[i]) cluster(find(i)).unknowns.push(i);
  for (const e of equations) {
    const head = first(e);
    cluster(head === undefined ? -1 : find(head)).equations.push(e);
  }
  return [...byGroup.values()];
}

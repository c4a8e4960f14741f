import { readQuantity, type LengthUnit } from "@/core/units/quantity";
import { refuse, type Refusal } from "@/core/units/refusal";
import type { Equation, Slots } from "./constraints/kind";
import { KINDS } from "./constraints/registry";
import { curveOf, isDimension, nameOf, typeOf, type EntityType, type Relation, type Sketch } from "./sketch";

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
  /** Relations that only merge slots and whose every merge was there already. */
  readonly agreeing: string[];
  /** Relations whose merge would join two different constants, or that collapse a line. */
  readonly broken: string[];
  readonly slotOf: ReadonlyMap<string, number>;
  readonly scale: number;
}

const WIDTH = { line: 4, circle: 3 } as const;

/** Size that drives, in mm or radians, or a refusal naming the dimension. */
export function drivingSize(d: Relation, unit: LengthUnit): { ok: true; value: number } | { ok: false; refusal: Refusal } {
  if (!isDimension(d)) return { ok: true, value: 0 };
  const quantity = KINDS[d.kind].quantity ?? "length";
  const r = readQuantity(d.value, quantity, unit);
  if (!r.ok) return refuse("bad-number", `Dimension ${d.id}: ${r.refusal.sentence}`, [d.id]);
  if (r.value <= 0) return refuse("bad-number", `Dimension ${d.id} must be greater than 0; use a coincident constraint to bring things together.`, [d.id]);
  if (quantity === "angle" && r.value > Math.PI) return refuse("bad-number", `Dimension ${d.id} must be at most 180°.`, [d.id]);
  return r;
}

/** Checks that every relation refers to things that are there and of the right kind. */
export function referenceFault(sketch: Sketch): Refusal | undefined {
  const types = new Map<string, EntityType | undefined>();
  const type = (ref: string) => {
    if (!types.has(ref)) types.set(ref, typeOf(sketch, ref));
    return types.get(ref);
  };
  for (const r of [...sketch.constraints, ...sketch.dimensions]) {
    for (const ref of r.of) if (!type(ref)) return refuse("lost-reference", `${r.id} (${r.kind}) refers to ${ref}, which is not in the sketch.`, [r.id]).refusal;
    if (!KINDS[r.kind].takes.some((t) => t.length === r.of.length && t.every((want, i) => type(r.of[i]!) === want)))
      return refuse("wrong-reference", `${r.id} (${r.kind}) cannot be applied to ${r.of.map(nameOf).join(" and ")}.`, [r.id]).refusal;
    if (r.of.length === 2 && r.of[0] === r.of[1]) return refuse("wrong-reference", `${r.id} (${r.kind}) needs two different things.`, [r.id]).refusal;
  }
  return undefined;
}

/**
 * Builds the numbers of a sketch from the given relations (those of the sketch, or some of them).
 * The sketch must have passed referenceFault.
 */
export function buildSystem(sketch: Sketch, relations: readonly Relation[], sizes: ReadonlyMap<string, number>): System {
  const slotOf = new Map<string, number>();
  const kindOf = new Map<string, EntityType>();
  let count = 6;
  for (const c of sketch.curves) {
    slotOf.set(c.id, count);
    kindOf.set(c.id, c.kind);
    count += WIDTH[c.kind];
  }
  const x = new Float64Array(count);
  const constant = new Uint8Array(count);
  // origin 0,0; the axes run from it to 1,0 and 0,1
  x[2] = 1;
  x[5] = 1;
  constant.fill(1, 0, 6);
  let extent = 0;
  for (const c of sketch.curves) {
    const at = slotOf.get(c.id)!;
    if (c.kind === "line") x.set([...c.start, ...c.end], at);
    else x.set([...c.centre, c.radius], at);
  }
  for (let i = 6; i < count; i++) extent = Math.max(extent, Math.abs(x[i]!));
  for (const r of relations) if (isDimension(r) && KINDS[r.kind].quantity === "length") extent = Math.max(extent, sizes.get(r.id) ?? 0);
  const scale = extent || 1;

  const root = Int32Array.from({ length: count }, (_, i) => i);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]!]!;
    return i;
  };
  const slots: Slots = {
    scale,
    point(ref) {
      if (ref === "origin") return [0, 1];
      const at = slotOf.get(curveOf(ref))!;
      return ref.endsWith(".end") ? [at + 2, at + 3] : [at, at + 1];
    },
    line(ref) {
      if (ref === "x-axis") return [0, 1, 2, 3];
      if (ref === "y-axis") return [0, 1, 4, 5];
      const at = slotOf.get(ref)!;
      return [at, at + 1, at + 2, at + 3];
    },
    centre: (ref) => [slotOf.get(ref)!, slotOf.get(ref)! + 1],
    radius: (ref) => slotOf.get(ref)! + 2,
    type: (ref) => (ref === "origin" || ref.includes(".") ? "point" : ref.endsWith("-axis") ? "line" : kindOf.get(ref)!),
    same: (a, b) => find(a) === find(b) || (constant[find(a)] === 1 && constant[find(b)] === 1 && x[find(a)] === x[find(b)]),
  };

  const agreeing: string[] = [];
  const broken: string[] = [];
  for (const r of relations) {
    if (r.kind !== "fixed") continue;
    const ref = r.of[0]!;
    const type = slots.type(ref);
    const tied = type === "point" ? slots.point(ref) : type === "line" ? slots.line(ref) : [...slots.centre(ref), slots.radius(ref)];
    if (tied.every((s) => constant[s])) agreeing.push(r.id);
    for (const s of tied) constant[s] = 1;
  }
  // merged values start from the mean of what was drawn
  const weight = new Float64Array(count).fill(1);
  for (const late of [false, true])
    for (const r of relations) {
      const kind = KINDS[r.kind];
      if (!kind.merge || (kind.mergesLate ?? false) !== late) continue;
      const pairs = kind.merge(slots, r.of);
      let fresh = false;
      for (const [a, b] of pairs) {
        const p = find(a), q = find(b);
        if (slots.same(p, q)) continue;
        fresh = true;
        if (constant[p] && constant[q]) {
          if (Math.abs(x[p]! - x[q]!) > 1e-9 * scale) broken.push(r.id);
          continue;
        }
        const [keep, lose] = constant[p] || (!constant[q] && p < q) ? [p, q] : [q, p];
        if (!constant[keep]) x[keep] = (x[keep]! * weight[keep]! + x[lose]! * weight[lose]!) / (weight[keep]! + weight[lose]!);
        weight[keep]! += weight[lose]!;
        root[lose] = keep;
      }
      if (pairs.length && !fresh) agreeing.push(r.id);
    }
  for (let i = 0; i < count; i++) {
    root[i] = find(i);
    x[i] = x[root[i]!]!;
  }
  for (const c of sketch.curves) {
    if (c.kind !== "line") continue;
    const [a, b, d, e] = slots.line(c.id).map((s) => root[s]!) as [number, number, number, number];
    if (slots.same(a, d) && slots.same(b, e)) broken.push(c.id);
  }

  const equations: BoundEquation[] = [];
  for (const r of relations) {
    const kind = KINDS[r.kind];
    if (!kind.equations || (isDimension(r) && r.reference)) continue;
    for (const e of kind.equations(slots, r.of, sizes.get(r.id) ?? 0, x, isDimension(r) && r.flip === true)) {
      equations.push({
        relation: r.id,
        slots: Int32Array.from(e.slots, (s) => root[s]!),
        evaluate: e.evaluate,
        v: new Float64Array(e.slots.length),
        g: new Float64Array(e.slots.length),
      });
    }
  }
  return { slots, x, constant, root, equations, agreeing, broken, slotOf, scale };
}

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

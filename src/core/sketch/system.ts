import type { Equation, Options, Slots } from "./constraints/kind";
import { KINDS } from "./constraints/registry";
import { COLLAPSED } from "./tolerance";
import { curveKind } from "./curves/registry";
import { counting, Numbers } from "./numbers";
import { isDimension, quantityOf, type Curve, type Relation, type Sketch } from "./sketch";

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

/**
 * Builds the numbers of a sketch from the given relations (those of the sketch, or some of them).
 * The sketch must have passed referenceFault.
 */
export function buildSystem(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): System {
  const lengths = relations.flatMap((r) =>
    isDimension(r) && quantityOf(r) === "length" ? (sizes.get(r.id) ?? 0) : [],
  );
  const numbers = new Numbers(
    sketch,
    lengths.reduce((most, length) => Math.max(most, length), 0),
  );
  const held = relations.flatMap((r) => (r.kind === "point-on-curve" ? [[r.of[0]!, r.of[1]!] as const] : []));
  const slots = numbers.slots(held);
  const told: Told = { agreeing: [], broken: [] };
  fix(numbers, slots, relations, told);
  mergeAll(numbers, slots, relations, told);
  const extraOf = withExtras(numbers, slots, relations);
  layOut(numbers, sketch, told);
  const { x, constant, root, slotOf, scale } = numbers;
  const equations: BoundEquation[] = [];
  const bind = (relation: string, e: Equation) =>
    equations.push({ relation, slots: e.slots.map((i) => root[i]!), evaluate: e.evaluate, g: e.slots.map(() => 0.5) });
  for (const c of sketch.curves) for (const e of curveKind(c).own?.(slotOf.get(c.id)!, c) ?? []) bind(c.id, e);
  const ownCount = equations.length;
  for (const r of relations) {
    const kind = KINDS[r.kind];
    if (!kind.equations || (isDimension(r) && r.reference)) continue;
    const options: Options = { ...optionsOf(r), ...(extraOf.has(r.id) && { extra: extraOf.get(r.id)! }) };
    for (const e of kind.equations(slots, r.of, sizes.get(r.id) ?? 0, x, options)) bind(r.id, e);
  }
  return { slots, x, constant, root, equations, ownCount, ...told, slotOf, scale };
}

/** Relations that change nothing, and those that cannot hold. */
interface Told {
  readonly agreeing: string[];
  readonly broken: string[];
}

function fix({ constant }: Numbers, slots: Slots, relations: readonly Relation[], { agreeing }: Told): void {
  for (const r of relations) {
    if (r.kind !== "fixed") continue;
    const ref = r.of[0]!;
    const type = slots.type(ref);
    const tied = type === "point" ? slots.point(ref) : type === "line" ? slots.line(ref) : slots.all(ref);
    if (tied.every((i) => constant[i])) agreeing.push(r.id);
    for (const i of tied) constant[i] = 1;
  }
}

function mergeAll(numbers: Numbers, slots: Slots, relations: readonly Relation[], { agreeing, broken }: Told): void {
  for (const late of [false, true])
    for (const r of relations) {
      const kind = KINDS[r.kind];
      if (!kind.merge || (kind.mergesLate ?? false) !== late) continue;
      const pairs = kind.merge(slots, r.of);
      let fresh = false;
      for (const [one, other] of pairs) {
        if (numbers.same(one, other)) continue;
        fresh = true;
        if (numbers.merge(one, other) > COLLAPSED * numbers.scale) broken.push(r.id);
      }
      if (pairs.length && !fresh) agreeing.push(r.id);
    }
}

/** Unknowns that relations bring along stand after those of the curves. @returns where each relation's begin */
function withExtras(numbers: Numbers, slots: Slots, relations: readonly Relation[]): ReadonlyMap<string, number> {
  const extraOf = new Map<string, number>();
  const extras: number[] = [];
  let merged: Float64Array | undefined;
  for (const r of relations) {
    const { extra } = KINDS[r.kind];
    if (!extra) continue;
    const own = extra(slots, r.of, (merged ??= numbers.merged()));
    if (own.length) extraOf.set(r.id, numbers.x.length + extras.length);
    extras.push(...own);
  }
  numbers.close(extras);
  return extraOf;
}

/** No line may begin without a length: one whose ends are one cannot hold. */
function layOut(numbers: Numbers, sketch: Sketch, { broken }: Told): void {
  const { x, constant, root, slotOf } = numbers;
  for (const c of sketch.curves) {
    if (c.kind !== "line") continue;
    const at = slotOf.get(c.id)!;
    const [ax, ay, bx, by] = [root[at]!, root[at + 1]!, root[at + 2]!, root[at + 3]!];
    if (numbers.same(ax, bx) && numbers.same(ay, by)) broken.push(c.id);
    else spread(x, constant, [ax, ay, bx, by], numbers.same(ax, bx), c);
  }
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

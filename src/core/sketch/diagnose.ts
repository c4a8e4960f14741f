import type { Vec2 } from "@/core/geometry/vector";
import { newton, prepare, type Prepared } from "./newton";
import { rankOf } from "./rank";
import { curveKind } from "./curves/registry";
import { isDimension, pointsOf, type Curve, type Relation, type Sketch } from "./sketch";
import { residual, type System } from "./system";
import { LEFT_OVER, MOVES, PROBE, PROBE_SURVIVES, RANK, STILL } from "./tolerance";
import { preparedClusters, type Solution } from "./relations";

/** How a point can still go: along one direction, or anywhere. */
export type Way = { readonly point: string; readonly along: Vec2 | "any" };

export interface Diagnosis {
  readonly solved: boolean;
  /** The sketch with exact coordinates; unchanged when not solved. */
  readonly sketch: Sketch;
  readonly freedoms: number;
  /** Where they are: what moves together, and how many ways it has. */
  readonly clusters: readonly { readonly curves: readonly string[]; readonly freedoms: number }[];
  /** Curves that can still move or change size. */
  readonly loose: readonly string[];
  readonly ways: readonly Way[];
  /** Circles and arcs whose radius is still free. */
  readonly looseRadii: readonly string[];
  /** Constraints that agree with the others and add nothing. */
  readonly agreeing: readonly string[];
  /** Driving dimensions that add nothing: they should be reference dimensions. */
  readonly surplus: readonly string[];
  /** When not solved: a smallest set of relations that disagree; none where they could be met, but not from here. */
  readonly conflict: readonly string[];
  /** When they could be met, but not from how the sketch is drawn: where they are. */
  readonly elsewhere?: Sketch;
}

/** What is still loose in a solved sketch, what agrees, what is surplus. */
export function diagnose(relations: readonly Relation[], { system, sketch: solved }: Solution): Diagnosis {
  const { x: values, root, slotOf } = system;
  const clusters = preparedClusters(system);
  const dimensions = new Set(relations.filter(isDimension).map((r) => r.id));
  const agreeing = new Set(system.agreeing);
  const surplus = new Set<string>();
  const moves = new Map<number, number[]>();
  let freedoms = 0;
  const loosely: { slots: ReadonlySet<number>; freedoms: number }[] = [];
  const ends = centreLineEnds(solved, system);
  const equationsOf = new Map<string, number>();
  const dependentOf = new Map<string, number>();
  for (const prepared of clusters) {
    // equations stand in the order of the relations already: constraints before dimensions
    const order = prepared.cluster.equations.map((_, i) => i);
    const { dependent, motions } = rankOf(prepared, values, order);
    for (const e of prepared.cluster.equations) equationsOf.set(e.relation, (equationsOf.get(e.relation) ?? 0) + 1);
    const made =
      dependent.length && motions.length ? motions.filter((m) => survives(prepared, values, system.scale, m)) : motions;
    const stopped = motions.filter((m) => !made.includes(m));
    const real = without(made, made.length ? idleMotions(prepared, values, ends) : []);
    const needed = new Map<string, boolean>();
    for (const k of dependent) {
      const id = prepared.cluster.equations[k]!.relation;
      // where rank calls a motion free that cannot be made, what stops it is not superfluous
      if (stopped.length && !needed.has(id)) needed.set(id, frees(prepared, values, system, id, stopped));
      if (!needed.get(id)) dependentOf.set(id, (dependentOf.get(id) ?? 0) + 1);
    }
    freedoms += real.length;
    if (real.length) loosely.push({ slots: new Set(prepared.cluster.unknowns), freedoms: real.length });
    for (const m of real)
      m.forEach((v, i) => {
        if (v === 0) return;
        const slot = prepared.cluster.unknowns[i]!;
        if (!moves.has(slot)) moves.set(slot, []);
      });
    real.forEach((m, k) =>
      m.forEach((v, i) => {
        const list = moves.get(prepared.cluster.unknowns[i]!);
        if (list) list[freedoms - real.length + k] = v;
      }),
    );
  }
  for (const [id, n] of dependentOf) {
    if (n < equationsOf.get(id)!) continue;
    if (dimensions.has(id)) surplus.add(id);
    else agreeing.add(id);
  }
  const told = looseIn(solved, system, moves, freedoms);
  const holds = (c: Curve, slots: ReadonlySet<number>) =>
    curveKind(c)
      .numbers(c)
      .some((_, i) => slots.has(root[slotOf.get(c.id)! + i]!));
  const parts = loosely.map((l) => ({
    curves: solved.curves.filter((c) => holds(c, l.slots)).map((c) => c.id),
    freedoms: l.freedoms,
  }));
  return {
    solved: true,
    sketch: solved,
    freedoms,
    clusters: parts,
    ...told,
    agreeing: [...agreeing],
    surplus: [...surplus],
    conflict: [],
  };
}

/** Curves, points and radii that some motion moves, and which way. @param moves of each slot, motion by motion */
function looseIn(
  sketch: Sketch,
  { root, slotOf }: System,
  moves: ReadonlyMap<number, number[]>,
  freedoms: number,
): Pick<Diagnosis, "loose" | "ways" | "looseRadii"> {
  const moving = (slot: number) => moves.get(root[slot]!);
  const loose: string[] = [],
    ways: Way[] = [],
    looseRadii: string[] = [];
  for (const c of moves.size ? sketch.curves : []) {
    const s = slotOf.get(c.id)!;
    const kind = curveKind(c);
    if (kind.numbers(c).some((_, i) => moving(s + i))) loose.push(c.id);
    if (kind.radius !== undefined && moving(s + kind.radius)) looseRadii.push(c.id);
    pointsOf(c).forEach((point, k) => {
      const way = wayOf(moving(s + 2 * k), moving(s + 2 * k + 1), freedoms);
      if (way) ways.push({ point, along: way });
    });
  }
  return { loose, ways, looseRadii };
}

/** An end of a centre line that nothing else holds on to: its slots, and which way its line runs. */
type LineEnd = { readonly slots: readonly number[]; readonly along: readonly number[] };

function centreLineEnds({ curves }: Sketch, { root, slotOf, constant }: System): LineEnd[] {
  const lines = curves.filter((c) => c.kind === "line" && c.construction && !c.projected);
  if (!lines.length) return [];
  const uses = new Map<number, number>();
  for (const c of curves)
    curveKind(c)
      .numbers(c)
      .forEach((_, i) => {
        const slot = root[slotOf.get(c.id)! + i]!;
        uses.set(slot, (uses.get(slot) ?? 0) + 1);
      });
  return lines.flatMap((curve) => {
    if (curve.kind !== "line") return [];
    const run = [curve.end[0] - curve.start[0], curve.end[1] - curve.start[1]],
      length = Math.hypot(...run);
    return [0, 2].flatMap((from) => {
      const axes = [0, 1].filter((i) => Math.abs(run[i]!) > MOVES * length);
      const slots = axes.map((i) => root[slotOf.get(curve.id)! + from + i]!);
      const isOwn = slots.every((s) => !constant[s] && uses.get(s) === 1);
      return isOwn && length > 0 ? [{ slots, along: axes.map((i) => run[i]! / length) }] : [];
    });
  });
}

/**
 * How far a centre line reaches is nobody's concern: motions of a cluster that only carry a free end along its own
 * line, as unit vectors over the cluster's unknowns.
 */
function idleMotions(p: Prepared, values: Float64Array, ends: readonly LineEnd[]): Float64Array[] {
  const { unknowns, equations } = p.cluster;
  return ends.flatMap(({ slots, along }) => {
    const places = slots.map((s) => unknowns.indexOf(s));
    if (places.includes(-1)) return [];
    const isStill = equations.every((e) => {
      if (!e.slots.some((s) => slots.includes(s))) return true;
      residual(e, values);
      const size = Math.hypot(...e.g);
      const moved = e.slots.reduce((sum, s, i) => sum + e.g[i]! * (along[slots.indexOf(s)] ?? 0), 0);
      return Math.abs(moved) <= RANK * size;
    });
    if (!isStill) return [];
    const motion = new Float64Array(unknowns.length);
    places.forEach((at, i) => (motion[at] = along[i]!));
    return [motion];
  });
}

/** A basis of what motions are left beside some that do not count; those must lie among them, square to each other. */
function without(motions: Float64Array[], idle: readonly Float64Array[]): Float64Array[] {
  if (!idle.length) return motions;
  const basis: Float64Array[] = [...idle],
    left: Float64Array[] = [];
  for (const motion of motions) {
    const rest = Float64Array.from(motion);
    for (const b of basis) {
      const share = rest.reduce((sum, v, i) => sum + v * b[i]!, 0);
      rest.forEach((v, i) => (rest[i] = v - share * b[i]!));
    }
    const size = Math.hypot(...rest);
    if (size <= LEFT_OVER) continue;
    const next = rest.map((v) => (Math.abs(v / size) < MOVES ? 0 : v / size));
    basis.push(next);
    left.push(next);
  }
  return left;
}

/** Whether one of the motions becomes possible without the equations of a relation. */
function frees(
  prepared: Prepared,
  values: Float64Array,
  system: System,
  relation: string,
  motions: readonly Float64Array[],
): boolean {
  const less = prepare(
    {
      unknowns: prepared.cluster.unknowns,
      equations: prepared.cluster.equations.filter((e) => e.relation !== relation),
    },
    system.constant,
  );
  return motions.some((m) => survives(less, values, system.scale, m));
}

/** Freedom means finite motion: a small step along the null vector must survive the return to the constraints. */
export function survives(p: Prepared, x: Float64Array, scale: number, motion: Float64Array): boolean {
  const { unknowns } = p.cluster;
  const start = unknowns.map((s) => x[s]!);
  const step = PROBE * scale;
  unknowns.forEach((s, i) => (x[s] = start[i]! + step * motion[i]!));
  const back = newton(p, x, scale, { iterations: 200 });
  const gone = Math.hypot(...unknowns.map((s, i) => x[s]! - start[i]!));
  unknowns.forEach((s, i) => (x[s] = start[i]!));
  return back && gone > PROBE_SURVIVES * step;
}

function wayOf(mx: number[] | undefined, my: number[] | undefined, count: number): Vec2 | "any" | undefined {
  let way: Vec2 | undefined;
  for (let k = 0; k < count; k++) {
    const v: Vec2 = [mx?.[k] ?? 0, my?.[k] ?? 0];
    const l = Math.hypot(v[0], v[1]);
    if (l === 0) continue;
    if (!way) way = [v[0] / l, v[1] / l];
    else if (Math.abs(way[0] * v[1] - way[1] * v[0]) > STILL * l) return "any";
  }
  return way;
}

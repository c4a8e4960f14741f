import type { Vec2 } from "@/core/geometry/vector";
import type { LengthUnit } from "@/core/units/quantity";
import type { Refusal } from "@/core/units/refusal";
import { conflictAmong } from "./conflict";
import { KINDS } from "./constraints/registry";
import { newton, prepare, type Prepared } from "./newton";
import { presolve } from "./presolve";
import { rankOf } from "./rank";
import { curveKind } from "./curves/registry";
import { arcSweep } from "./curves/arc";
import { ellipseSweep } from "./curves/ellipse";
import { curveOf, isDimension, pointsOf, type Curve, type Dimension, type Relation, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { buildSystem, clustersOf, optionsOf, referenceFault, type System } from "./system";
import { COLLAPSED, PROBE, PROBE_SURVIVES } from "./tolerance";

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
  /** When not solved: a smallest set of relations that disagree. */
  readonly conflict: readonly string[];
}

/** Driving relations of a sketch: geometric ones first, so that a surplus falls on a dimension. */
export const drivingRelations = (sketch: Sketch): Relation[] => [
  ...sketch.constraints,
  ...sketch.dimensions.filter((d) => !d.reference),
];

/** The sketch with the coordinates that the solver's vector holds; curves that stand where they stood stay the same objects. */
export function withCoordinates(sketch: Sketch, system: System): Sketch {
  const { x, root, slotOf } = system;
  const at = (i: number) => x[root[i]!]! + 0;
  return {
    ...sketch,
    curves: sketch.curves.map((c) => {
      const s = slotOf.get(c.id)!,
        kind = curveKind(c);
      const before = kind.numbers(c),
        now = before.map((_, i) => at(s + i));
      return now.every((v, i) => v === before[i]) ? c : kind.withNumbers(c, now);
    }),
  };
}

/** Lines of no length and circles of no radius that a solution would leave. */
const collapsed = (sketch: Sketch, scale: number): boolean =>
  sketch.curves.some((c) =>
    curveKind(c)
      .sizes(c)
      .some((size) => !(size > COLLAPSED * scale)),
  );

/** Arcs turned inside out: one that was short is nearly whole, or the other way round. */
const turnedOut = (before: readonly Curve[], after: readonly Curve[]): boolean =>
  after.some((c, i) => {
    const b = before[i]!;
    const sweeps =
      c.kind === "arc" && b.kind === "arc"
        ? [arcSweep(b)[1], arcSweep(c)[1]]
        : c.kind === "ellipse-arc" && b.kind === "ellipse-arc"
          ? [ellipseSweep(b)[1], ellipseSweep(c)[1]]
          : undefined;
    return sweeps !== undefined && Math.abs(sweeps[1]! - sweeps[0]!) > Math.PI;
  });

export interface Solution {
  readonly system: System;
  readonly sketch: Sketch;
}

/** Solves the given relations from where the sketch stands; undefined when they cannot all be met from there. */
export function solveRelations(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
  iterations = 60,
): Solution | undefined {
  const system = buildSystem(sketch, relations, sizes);
  if (system.broken.length) return undefined;
  const start = Float64Array.from(system.x);
  const solution = (settled: Uint8Array): Solution | undefined => {
    if (!meets(system, settled, iterations)) return undefined;
    const solved = withCoordinates(sketch, system);
    const isGood = !collapsed(solved, system.scale) && !turnedOut(sketch.curves, solved.curves);
    return isGood ? { system, sketch: solved } : undefined;
  };
  const first = solution(presolve(system));
  if (first) return first;
  // what was settled by itself may have taken the wrong way: all at once, from where it was drawn
  system.x.set(start);
  return solution(system.constant);
}

/** Solves every cluster of what is not settled. */
function meets(system: System, settled: Uint8Array, iterations: number): boolean {
  return clustersOf(system, settled).every((c) => newton(prepare(c, settled), system.x, system.scale, { iterations }));
}

/** All clusters of a system, settled or not, as rank and swinging want them. */
export const preparedClusters = (system: System): Prepared[] =>
  clustersOf(system).map((c) => prepare(c, system.constant));

/** A large change is walked in steps from the sizes as drawn, so that the shape keeps its character. */
function solveInSteps(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): Solution | undefined {
  const drawn = buildSystem(sketch, [], new Map());
  const from = new Map<string, number>();
  for (const r of relations) {
    const measure = isDimension(r) && KINDS[r.kind].measure;
    if (measure) from.set(r.id, measure(drawn.slots, r.of, drawn.x, optionsOf(r)));
  }
  const STEPS = 12;
  let at = sketch;
  for (let k = 1; k <= STEPS; k++) {
    const part = new Map(
      [...sizes].map(([id, size]) => [id, (from.get(id) ?? size) + (size - (from.get(id) ?? size)) * (k / STEPS)]),
    );
    const s = solveRelations(at, relations, part);
    if (!s) return undefined;
    if (k === STEPS) return s;
    at = s.sketch;
  }
  return undefined;
}

/**
 * Solves a sketch and tells what is still loose, what agrees, what is surplus or what disagrees.
 * @returns a refusal only for a sketch that cannot be read (a lost reference, a size that is no number)
 */
export function solveSketch(
  sketch: Sketch,
  unit: LengthUnit,
): { ok: true; value: Diagnosis } | { ok: false; refusal: Refusal } {
  const fault = referenceFault(sketch);
  if (fault) return { ok: false, refusal: fault };
  const sizes = drivingSizes(sketch, unit);
  if (!sizes.ok) return sizes;
  const relations = drivingRelations(sketch);
  const solution = solveRelations(sketch, relations, sizes.value) ?? solveInSteps(sketch, relations, sizes.value);
  if (!solution) {
    const conflict = conflictIn(sketch, relations, sizes.value);
    return {
      ok: true,
      value: {
        solved: false,
        sketch,
        freedoms: 0,
        clusters: [],
        loose: [],
        ways: [],
        looseRadii: [],
        agreeing: [],
        surplus: [],
        conflict,
      },
    };
  }
  return { ok: true, value: diagnose(relations, solution) };
}

/** So many relations, summed over all tries, are solved at most to make a conflict smallest; then the set is told as it is. */
const CONFLICT_WORK = 40_000;

/** A smallest set of relations that disagree; looked for among the curves of the first cluster that cannot be solved. */
function conflictIn(sketch: Sketch, relations: readonly Relation[], sizes: ReadonlyMap<string, number>): string[] {
  let left = CONFLICT_WORK;
  const fits = (subset: readonly Relation[]) => {
    if (left <= 0) return true;
    left -= subset.length + 10;
    return solveRelations(sketch, subset, sizes, 40) !== undefined;
  };
  const curves = failingCurves(sketch, relations, sizes);
  const near = curves && relations.filter((r) => r.of.some((ref) => curves.has(curveOf(ref))));
  return near?.length && near.length < relations.length && !fits(near)
    ? conflictAmong(near, fits)
    : conflictAmong(relations, (s) => (s === relations ? false : fits(s)));
}

/** Ids of the curves whose numbers stand in the first cluster that cannot be solved. */
function failingCurves(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): Set<string> | undefined {
  const system = buildSystem(sketch, relations, sizes);
  if (system.broken.length) return undefined;
  const failing = clustersOf(system).find(
    (c) => !newton(prepare(c, system.constant), system.x, system.scale, { iterations: 60 }),
  );
  if (!failing) return undefined;
  const slots = new Set(failing.unknowns);
  return new Set(
    sketch.curves
      .filter((c) =>
        curveKind(c)
          .numbers(c)
          .some((_, i) => slots.has(system.root[system.slotOf.get(c.id)! + i]!)),
      )
      .map((c) => c.id),
  );
}

function diagnose(relations: readonly Relation[], { system, sketch: solved }: Solution): Diagnosis {
  const { x, root, slotOf } = system;
  const clusters = preparedClusters(system);
  const dimensions = new Set(relations.filter(isDimension).map((r) => r.id));
  const agreeing = new Set(system.agreeing);
  const surplus = new Set<string>();
  const moves = new Map<number, number[]>();
  let freedoms = 0;
  const loosely: { slots: ReadonlySet<number>; freedoms: number }[] = [];
  const equationsOf = new Map<string, number>();
  const dependentOf = new Map<string, number>();
  for (const p of clusters) {
    // equations stand in the order of the relations already: constraints before dimensions
    const order = p.cluster.equations.map((_, i) => i);
    const { dependent, motions } = rankOf(p, x, order);
    for (const e of p.cluster.equations) equationsOf.set(e.relation, (equationsOf.get(e.relation) ?? 0) + 1);
    const real = dependent.length && motions.length ? motions.filter((m) => survives(p, x, system.scale, m)) : motions;
    const stopped = motions.filter((m) => !real.includes(m));
    const needed = new Map<string, boolean>();
    for (const k of dependent) {
      const id = p.cluster.equations[k]!.relation;
      // where rank calls a motion free that cannot be made, what stops it is not superfluous
      if (stopped.length && !needed.has(id)) needed.set(id, frees(p, x, system, id, stopped));
      if (!needed.get(id)) dependentOf.set(id, (dependentOf.get(id) ?? 0) + 1);
    }
    freedoms += real.length;
    if (real.length) loosely.push({ slots: new Set(p.cluster.unknowns), freedoms: real.length });
    for (const m of real)
      m.forEach((v, i) => {
        if (v === 0) return;
        const slot = p.cluster.unknowns[i]!;
        if (!moves.has(slot)) moves.set(slot, []);
      });
    real.forEach((m, k) =>
      m.forEach((v, i) => {
        const list = moves.get(p.cluster.unknowns[i]!);
        if (list) list[freedoms - real.length + k] = v;
      }),
    );
  }
  for (const [id, n] of dependentOf) {
    if (n < equationsOf.get(id)!) continue;
    if (dimensions.has(id)) surplus.add(id);
    else agreeing.add(id);
  }
  const moving = (slot: number) => moves.get(root[slot]!);
  const loose: string[] = [],
    ways: Way[] = [],
    looseRadii: string[] = [];
  for (const c of moves.size ? solved.curves : []) {
    const s = slotOf.get(c.id)!;
    const kind = curveKind(c);
    if (kind.numbers(c).some((_, i) => moving(s + i))) loose.push(c.id);
    if (kind.radius !== undefined && moving(s + kind.radius)) looseRadii.push(c.id);
    pointsOf(c).forEach((point, k) => {
      const way = wayOf(moving(s + 2 * k), moving(s + 2 * k + 1), freedoms);
      if (way) ways.push({ point, along: way });
    });
  }
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
    loose,
    ways,
    looseRadii,
    agreeing: [...agreeing],
    surplus: [...surplus],
    conflict: [],
  };
}

/** Whether one of the motions becomes possible without the equations of a relation. */
function frees(
  p: Prepared,
  x: Float64Array,
  system: System,
  relation: string,
  motions: readonly Float64Array[],
): boolean {
  const less = prepare(
    { unknowns: p.cluster.unknowns, equations: p.cluster.equations.filter((e) => e.relation !== relation) },
    system.constant,
  );
  return motions.some((m) => survives(less, x, system.scale, m));
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
    else if (Math.abs(way[0] * v[1] - way[1] * v[0]) > 1e-6 * l) return "any";
  }
  return way;
}

/** What a dimension measures as the sketch stands: mm or radians. Its references must be sound. */
export function measureDimension(sketch: Sketch, d: Pick<Dimension, "kind" | "of" | "flip" | "sides">): number {
  const system = buildSystem(sketch, [], new Map());
  return KINDS[d.kind].measure!(system.slots, d.of, system.x, { flip: d.flip, sides: d.sides });
}

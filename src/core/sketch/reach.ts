import { conflictAmong } from "./conflict";
import { KINDS } from "./constraints/registry";
import { newton, prepare } from "./newton";
import { curveKind } from "./curves/registry";
import { curveOf, isDimension, type Relation, type Sketch } from "./sketch";
import { buildSystem, clustersOf, optionsOf } from "./system";
import { solveRelations, type Solution } from "./relations";
import { BESIDE, CONFLICT_WORK, NUDGE, NUDGES, ROUGH, STARTS_BESIDE } from "./tolerance";
import { nudged } from "./nudge";

/** Solves from where the sketch is drawn, in one go, in steps of its sizes, or from a hair beside it. */
export function solveNear(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): Solution | undefined {
  return (
    solveRelations(sketch, relations, sizes) ??
    solveInSteps(sketch, relations, sizes) ??
    solveNudged(sketch, relations, sizes) ??
    solveBeside(sketch, relations, sizes)
  );
}

/**
 * An outline of short lines and small arcs, drawn by hand, has some of them the wrong way round: from starts beside it
 * others are. What comes of those is meant where nothing lies far from where it was drawn.
 */
function solveBeside(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): Solution | undefined {
  const numbers = ({ curves }: Sketch) => curves.flatMap((c) => curveKind(c).numbers(c));
  const drawn = numbers(sketch),
    size = Math.max(...drawn.map(Math.abs));
  const isNear = (s: Solution) => numbers(s.sketch).every((v, i) => Math.abs(v - drawn[i]!) <= BESIDE * size);
  for (const [i, share] of STARTS_BESIDE.entries()) {
    const s = solveRelations(nudged(sketch, share, i + NUDGES + 1), relations, sizes);
    if (s && isNear(s)) return s;
  }
  return undefined;
}

/** Lines drawn exactly level or upright stand still for lengths and angles: a hair beside they do not. */
function solveNudged(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
  iterations = 60,
): Solution | undefined {
  for (let seed = 1; seed <= NUDGES; seed++) {
    const s = solveRelations(nudged(sketch, NUDGE, seed), relations, sizes, iterations);
    if (s) return s;
  }
  return undefined;
}

/** Solves from rougher and rougher starts: whether relations can be met at all. */
export function solveElsewhere(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): Solution | undefined {
  for (const [i, share] of ROUGH.entries()) {
    const s = solveRelations(nudged(sketch, share, i + 1), relations, sizes);
    if (s) return s;
  }
  return undefined;
}

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
 * A smallest set of relations that disagree; looked for among the curves of the first cluster that cannot be solved.
 * Empty where the set that was found can be met after all, from elsewhere.
 */
export function conflictIn(
  sketch: Sketch,
  relations: readonly Relation[],
  sizes: ReadonlyMap<string, number>,
): string[] {
  let left = CONFLICT_WORK;
  const fits = (subset: readonly Relation[]) => {
    if (left <= 0) return true;
    left -= subset.length + 10;
    const met = solveRelations(sketch, subset, sizes, 40) ?? solveNudged(sketch, subset, sizes, 40);
    return met !== undefined;
  };
  const curves = failingCurves(sketch, relations, sizes);
  const near = curves && relations.filter((r) => r.of.some((ref) => curves.has(curveOf(ref))));
  const isNear = near?.length && near.length < relations.length && !fits(near);
  const found = isNear
    ? conflictAmong(near, fits)
    : conflictAmong(relations, (s) => (s === relations ? false : fits(s)));
  const named = relations.filter((r) => found.includes(r.id));
  if (!solveElsewhere(sketch, named, sizes)) return found;
  if (solveElsewhere(sketch, relations, sizes)) return [];
  // the place misled: what cannot be met from anywhere that was tried
  left = CONFLICT_WORK;
  const anywhere = (s: readonly Relation[]) =>
    s !== relations && (fits(s) || solveElsewhere(sketch, s, sizes) !== undefined);
  return conflictAmong(relations, anywhere);
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

import { ROUNDING } from "@/core/geometry/tolerance";
import { SMALLEST_SCALE, STILL } from "../tolerance";
import type { Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { LengthUnit } from "@/core/units/quantity";
import { KINDS } from "../constraints/registry";
import { mappedCurve } from "../curves/registry";
import { curveOf, isDimension, type Relation, type Sketch } from "../sketch";
import { drivingSizes } from "../sizes";
import { quantityOf } from "../sketch";
import { buildSystem, residual } from "../system";
import { copyOf } from "./duplicate";
import { droppedSentence, idsFor } from "./rewire";

/** Turn (radians) and scale about a point, then move (mm). */
interface Motion {
  readonly about?: Vec2;
  readonly turn?: number;
  readonly scale?: number;
  readonly by?: Vec2;
}

const mapOf = ({ about = [0, 0], turn = 0, scale = 1, by = [0, 0] }: Motion) => {
  const c = scale * Math.cos(turn),
    s = scale * Math.sin(turn);
  return (p: Vec2): Vec2 => [
    about[0] + c * (p[0] - about[0]) - s * (p[1] - about[1]) + by[0],
    about[1] + s * (p[0] - about[0]) + c * (p[1] - about[1]) + by[1],
  ];
};

/** Whether a relation holds as the sketch stands. */
export function holds(sketch: Sketch, r: Relation, size: number): boolean {
  const bare = { ...sketch, constraints: [], dimensions: [] };
  const system = buildSystem(bare, [], new Map());
  const kind = KINDS[r.kind];
  if (isDimension(r))
    return (
      Math.abs(kind.measure!(system.slots, r.of, system.x, { flip: r.flip, sides: r.sides }) - size) <=
      STILL * (quantityOf(r) === "angle" ? 1 : system.scale)
    );
  const merged = kind.merge?.(system.slots, r.of) ?? [];
  if (merged.some(([a, b]) => Math.abs(system.x[a]! - system.x[b]!) > STILL * system.scale)) return false;
  if (r.kind === "tangent" || r.kind === "curvature") return true;
  return buildSystem(bare, [{ ...r }], new Map())
    .equations.filter((e) => e.relation === r.id)
    .every((e) => Math.abs(residual(e, system.x)) <= STILL * system.scale);
}

/**
 * Moves, turns or scales curves, or a copy of them. Relations among what moved stay; sizes are scaled with it;
 * those to the rest stay where they are still true.
 */
export function transform(
  sketch: Sketch,
  curves: readonly string[],
  motion: Motion,
  copies: boolean,
  unit: LengthUnit,
): Outcome<Sketch> {
  const { scale = 1 } = motion,
    map = mapOf(motion);
  if (!(scale > SMALLEST_SCALE && scale < 1e6)) return refuse("bad-number", "The scale must be greater than 0.", []);
  const source = curves.filter((id) => sketch.curves.some((c) => c.id === id));
  if (!source.length) return refuse("nothing-picked", "Pick the curves first.", []);
  const sizes = drivingSizes(sketch, unit);
  if (!sizes.ok) return sizes;
  const inside = (r: Relation) => r.of.every((ref) => source.includes(curveOf(ref)));
  const turns = Math.abs(Math.sin(motion.turn ?? 0)) > ROUNDING;
  // level and upright things do not stay so when turned
  const survivesTurn = (r: Relation) =>
    !turns || !["horizontal", "vertical", "horizontal-distance", "vertical-distance"].includes(r.kind);
  const rescaled = <R extends Relation>(r: R): R =>
    isDimension(r) && scale !== 1 && !r.reference && quantityOf(r) === "length" && typeof r.value === "number"
      ? { ...r, value: r.value * scale }
      : isDimension(r) && scale !== 1 && !r.reference && quantityOf(r) === "length"
        ? { ...r, value: `${(sizes.value.get(r.id) ?? 0) * scale} mm` }
        : r;
  if (copies) {
    const ids = idsFor(sketch),
      copy = copyOf(sketch, source, map, ids, scale);
    const again = <R extends Relation>(list: readonly R[], letter: string): R[] =>
      list
        .filter(
          (r) =>
            inside(r) && r.kind !== "coincident" && r.kind !== "concentric" && r.kind !== "fixed" && survivesTurn(r),
        )
        .map((r) => ({
          ...rescaled(r),
          id: ids(letter),
          of: r.of.map(copy.map),
          ...(isDimension(r) && { name: undefined, ...(r.at && { at: map(r.at) as [number, number] }) }),
        }));
    // a copied size repeats the first by name, so that both change together
    const dimensions = again(sketch.dimensions, "m").map((d, i) => ({
      ...d,
      ...(scale === 1 &&
        !d.reference && { value: `=${sketch.dimensions.filter((o) => inside(o) && survivesTurn(o))[i]!.id}` }),
    }));
    return done({
      ...sketch,
      curves: [...sketch.curves, ...copy.curves],
      constraints: [...sketch.constraints, ...copy.joints, ...again(sketch.constraints, "k")],
      dimensions: [...sketch.dimensions, ...dimensions.map(({ name: _, ...d }) => d)],
    });
  }
  const moved: Sketch = {
    ...sketch,
    curves: sketch.curves.map((c) => (source.includes(c.id) ? mappedCurve(c, map, scale) : c)),
  };
  const dropped: Relation[] = [];
  const keep = (relation: Relation) => {
    const own = inside(relation),
      touched = own || relation.of.some((ref) => source.includes(curveOf(ref)));
    const ok =
      !touched ||
      (own
        ? survivesTurn(relation) && relation.kind !== "fixed"
        : (isDimension(relation) && relation.reference) || holds(moved, relation, sizes.value.get(relation.id) ?? 0));
    if (!ok) dropped.push(relation);
    return ok;
  };
  const constraints = moved.constraints.filter(keep),
    dimensions = moved.dimensions.filter(keep).map((d) => (inside(d) ? rescaled(d) : d));
  return done({ ...moved, constraints, dimensions }, droppedSentence(dropped));
}

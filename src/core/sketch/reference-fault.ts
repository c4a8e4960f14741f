import { refuse, type Refusal } from "@/core/units/refusal";
import { KINDS } from "./constraints/registry";
import { sharedPoint } from "./constraints/direction";
import { fits, nameOf, typeOf, type EntityType, type Relation, type Sketch } from "./sketch";
import { buildSystem } from "./system";

/** Checks that every relation refers to things that are there and of the right kind. */
export function referenceFault(
  sketch: Sketch,
  relations: readonly Relation[] = [...sketch.constraints, ...sketch.dimensions],
): Refusal | undefined {
  const types = new Map<string, EntityType | undefined>();
  const type = (ref: string) => {
    let t = types.get(ref);
    if (!t) types.set(ref, (t = typeOf(sketch, ref)));
    return t;
  };
  const found: (EntityType | undefined)[] = [];
  const isFitting = (wanted: readonly EntityType[]): boolean => {
    if (wanted.length !== found.length) return false;
    for (let i = 0; i < found.length; i++) if (!fits(wanted[i]!, found[i])) return false;
    return true;
  };
  for (const r of relations) {
    found.length = 0;
    for (const ref of r.of) {
      const t = type(ref);
      if (!t)
        return refuse("lost-reference", `${r.id} (${r.kind}) refers to ${ref}, which is not in the sketch.`, [r.id])
          .refusal;
      found.push(t);
    }
    if (!KINDS[r.kind].takes.some(isFitting))
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

import { begun } from "@/core/naming/words";
import { refuse, type Refusal } from "@/core/units/refusal";
import type { LengthUnit } from "@/core/units/quantity";
import { KINDS } from "./constraints/registry";
import { sharedPoint } from "./constraints/direction";
import { fits, typeOf, type EntityType, type Relation, type Sketch } from "./sketch";
import { buildSystem } from "./system";
import { wordsFor } from "./words";

/** What a relation is called: "Tangent", "Point on curve". */
const said = ({ kind }: Relation) => begun(kind).replaceAll("-", " ");

/** Checks that every relation refers to things that are there and of the right kind. */
export function referenceFault(
  sketch: Sketch,
  relations: readonly Relation[] = [...sketch.constraints, ...sketch.dimensions],
  unit: LengthUnit = "mm",
): Refusal | undefined {
  // only a refusal needs words
  const call = (ref: string) => wordsFor(sketch, unit)(ref);
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
  for (const relation of relations) {
    found.length = 0;
    for (const ref of relation.of) {
      const t = type(ref);
      if (!t)
        return refuse(
          "lost-reference",
          `${said(relation)} refers to something that is no longer in the sketch (${ref}).`,
          [relation.id],
        ).refusal;
      found.push(t);
    }
    if (!KINDS[relation.kind].takes.some(isFitting))
      return refuse(
        "wrong-reference",
        `${said(relation)} cannot be applied to ${relation.of.map(call).join(" and ")}.`,
        [relation.id],
      ).refusal;
    if (relation.of.length > 1 && relation.of[0] === relation.of[1])
      return refuse("wrong-reference", `${said(relation)} needs two different things.`, [relation.id]).refusal;
  }
  for (const r of relations) {
    if (
      (r.kind === "curvature" || r.kind === "tangent") &&
      type(r.of[1]!) === "spline" &&
      !joinedSpline(sketch, r.of as [string, string])
    )
      return refuse(
        "not-joined",
        `${said(r)} needs the end of ${call(r.of[1]!)} joined to ${call(r.of[0]!)} first: make them coincide.`,
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

import { fillet } from "@/core/kernel/blend";
import { lengthText } from "@/core/units/quantity";
import { blendEdges } from "../edges";
import { lengthOf, type Build } from "../step";
import type { FilletStep } from "./schema";

export const buildFillet: Build<FilletStep> = (context, step) => {
  const radii = new Map<unknown, number>();
  for (const g of step.groups) {
    const r = lengthOf(context, g.radius, "The radius");
    if (!r.ok) return r;
    radii.set(g, r.value);
  }
  return blendEdges(
    context,
    step,
    step.groups,
    (solid, t, list, share) =>
      fillet(
        context.kernel,
        solid,
        list.map((f) => ({ id: f.id, edge: t.edges[f.index]!, radius: radii.get(f.group)! * share })),
        step.id,
      ),
    (g, share) => `a radius of ${lengthText(radii.get(g)! * share, context.unit)}`,
  );
};

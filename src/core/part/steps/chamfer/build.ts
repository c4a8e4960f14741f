import { parseEdge } from "@/core/naming/names";
import { chamfer } from "@/core/kernel/blend";
import { lengthText } from "@/core/units/quantity";
import { refuse } from "@/core/units/refusal";
import { blendEdges } from "../edges";
import { angleOf, lengthOf, type Build } from "../step";
import type { ChamferStep } from "./schema";

interface Sizes {
  readonly first: number;
  readonly second: { readonly distance: number } | { readonly angle: number };
  readonly swap: boolean;
}

export const buildChamfer: Build<ChamferStep> = (context, step) => {
  const sizes = new Map<unknown, Sizes>();
  for (const g of step.groups) {
    const first = lengthOf(context, g.size.kind === "two" ? g.size.first : g.size.distance, "The distance");
    if (!first.ok) return first;
    let second: Sizes["second"] = { distance: first.value };
    if (g.size.kind === "two") {
      const s = lengthOf(context, g.size.second, "The second distance");
      if (!s.ok) return s;
      second = { distance: s.value };
    } else if (g.size.kind === "angle") {
      const a = angleOf(context, g.size.angle);
      if (!a.ok) return a;
      if (a.value < 0.01 || a.value > 1.56)
        return refuse("bad-number", "The angle must be between 1° and 89°.", [step.id]);
      second = { angle: a.value };
    }
    sizes.set(g, { first: first.value, second, swap: g.size.kind !== "equal" && g.size.swap === true });
  }
  return blendEdges(
    context,
    step,
    step.groups,
    (solid, topology, list, share) =>
      chamfer(
        context.kernel,
        solid,
        list.map((f) => {
          const { first, second, swap } = sizes.get(f.group)!,
            [p, q] = topology.edgeFaces[f.index]! as [number, number];
          // the name puts one of the two faces first: that is the one the first distance lies on
          const isFirst = topology.names[p]!.includes(parseEdge(f.ref.edge)[0]),
            face = isFirst !== (swap !== f.swap) ? p : q;
          return {
            id: f.id,
            edge: topology.edges[f.index]!,
            face: topology.faces[face]!,
            first: first * share,
            second: "angle" in second ? second : { distance: second.distance * share },
          };
        }),
        step.id,
      ),
    (g, share) => lengthText(sizes.get(g)!.first * share, context.unit),
  );
};

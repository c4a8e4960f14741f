import { z } from "zod";
import { chamfer } from "@/core/kernel/blend";
import { lengthText } from "@/core/units/quantity";
import { refuse } from "@/core/units/refusal";
import { stepsOf } from "../../reference/schema";
import { blendEdges, StepEdgeSchema } from "../edges";
import { sizeText } from "../extrude/extrude";
import { angleOf, lengthOf, SizeSchema, stepFields, type StepKind } from "../step";

export const ChamferStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("chamfer"),
  groups: z
    .array(
      z.strictObject({
        size: z.discriminatedUnion("kind", [
          z.strictObject({ kind: z.literal("equal"), distance: SizeSchema }),
          /** `first` is measured on the face that the edge's name puts first; `swap` on the other. */
          z.strictObject({
            kind: z.literal("two"),
            first: SizeSchema,
            second: SizeSchema,
            swap: z.boolean().optional(),
          }),
          /** The angle between the chamfer and the face that `distance` is measured on. */
          z.strictObject({
            kind: z.literal("angle"),
            distance: SizeSchema,
            angle: SizeSchema,
            swap: z.boolean().optional(),
          }),
        ]),
        edges: z.array(StepEdgeSchema).max(500),
      }),
    )
    .min(1)
    .max(50),
});
export type ChamferStep = z.infer<typeof ChamferStepSchema>;

interface Sizes {
  readonly first: number;
  readonly second: { readonly distance: number } | { readonly angle: number };
  readonly swap: boolean;
}

export const chamferStep: StepKind<ChamferStep> = {
  schema: ChamferStepSchema,
  uses: (step) => [...new Set(step.groups.flatMap((g) => g.edges.flatMap((e) => stepsOf(e.on))))],
  build(context, step) {
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
      (solid, t, list, share) =>
        chamfer(
          context.kernel,
          solid,
          list.map((f) => {
            const { first, second, swap } = sizes.get(f.group)!,
              [p, q] = t.edgeFaces[f.index]! as [number, number];
            // the name puts one of the two faces first: that is the one the first distance lies on
            const isFirst = t.names[p]!.includes(f.ref.edge.split("|")[0]!),
              face = isFirst !== swap ? p : q;
            return {
              id: f.id,
              edge: t.edges[f.index]!,
              face: t.faces[face]!,
              first: first * share,
              second: "angle" in second ? second : { distance: second.distance * share },
            };
          }),
          step.id,
        ),
      (g, share) => lengthText(sizes.get(g)!.first * share, context.unit),
    );
  },
  read(step, unit) {
    const n = step.groups.reduce((s, g) => s + g.edges.length, 0);
    const size = (g: ChamferStep["groups"][number]["size"]) =>
      g.kind === "equal"
        ? sizeText(g.distance, unit)
        : g.kind === "two"
          ? `${sizeText(g.first, unit)} × ${sizeText(g.second, unit)}`
          : `${sizeText(g.distance, unit)} × ${g.angle}°`;
    return {
      title: "Chamfer",
      detail: `${step.groups.map((g) => size(g.size)).join(", ")} · ${n} edge${n === 1 ? "" : "s"}`,
    };
  },
};

import { z } from "zod";
import { combine } from "@/core/kernel/boolean";
import { KernelFault } from "@/core/kernel/opencascade";
import { shelled } from "@/core/kernel/shell";
import type { Solid } from "@/core/kernel/solid";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { lengthOf, SizeSchema, type BuildContext } from "./step";

/** A wall along the outline instead of the full volume: inside it, outside it, or half to each side. */
export const ThinSchema = z.strictObject({ thickness: SizeSchema, side: z.enum(["inside", "outside", "middle"]) });
export type Thin = z.infer<typeof ThinSchema>;

/** The wall along the sides of a swept volume: its start and end are left open. The volume stays the caller's. */
export function thinned(context: BuildContext, solid: Solid, thin: Thin, step: string): Outcome<Solid> {
  const { kernel } = context, thickness = lengthOf(context, thin.thickness, "The thickness of the wall");
  if (!thickness.ok) return thickness;
  const open = solid.names.flatMap((n, i) => (n[0]?.role === "side" ? [] : [i]));
  try {
    if (thin.side === "inside") return done(shelled(kernel, solid, open, thickness.value, step));
    if (thin.side === "outside") return done(shelled(kernel, solid, open, -thickness.value, step));
    const inner = shelled(kernel, solid, open, thickness.value / 2, step), outer = shelled(kernel, solid, open, -thickness.value / 2, step);
    const both = combine(kernel, "fuse", inner, [outer]);
    kernel.release(inner.shape, outer.shape);
    return done(both);
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    return refuse("no-wall", "A wall of this thickness cannot be made along this outline. Make it thinner.", [step]);
  }
}

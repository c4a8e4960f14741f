import { z } from "zod";
import { normalOf } from "@/core/geometry/frame";
import { dot3 } from "@/core/geometry/vector";
import { combine } from "@/core/kernel/boolean";
import { KernelFault } from "@/core/kernel/opencascade";
import { prism } from "@/core/kernel/prism";
import { boxOf, volumeOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { defaultRegions, type Region } from "@/core/sketch/regions";
import { lengthText, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { BuildContext, BuiltSketch, StepKind } from "../step";

export const ExtrudeStepSchema = z.strictObject({
  id: z.string(), kind: z.literal("extrude"), name: z.string().max(80).optional(), suppressed: z.boolean().optional(),
  sketch: z.string(),
  /** Names of the regions it takes; left out: all that are not inside a hole. */
  regions: z.array(z.string().max(2000)).max(200).optional(),
  operation: z.enum(["add", "cut"]),
  extent: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("depth"), depth: z.union([z.number(), z.string().max(200)]) }),
    /** The whole depth, half to each side of the sketch. */
    z.strictObject({ kind: z.literal("both"), depth: z.union([z.number(), z.string().max(200)]) }),
    /** Through the whole part, both ways. */
    z.strictObject({ kind: z.literal("through") }),
  ]),
  /** Against the sketch's normal. */
  reverse: z.boolean().optional(),
});
export type ExtrudeStep = z.infer<typeof ExtrudeStepSchema>;

/** How far past the part a Through cut reaches, so that no face of the tool lies on one of the part. */
const CLEARANCE = 1;

function regionsFor(step: ExtrudeStep, sketch: BuiltSketch): Outcome<Region[]> {
  const { regions, gaps } = sketch.regions;
  const wanted = step.regions ? regions.filter((r) => step.regions!.includes(r.name)) : defaultRegions(sketch.regions);
  const lost = step.regions?.filter((n) => !regions.some((r) => r.name === n)) ?? [];
  if (lost.length) return refuse("lost-region", `The region inside ${lost[0]!.replaceAll("+", ", ")} is no longer closed in its sketch. Pick the regions anew.`, [step.id]);
  if (wanted.length) return done(wanted);
  const g = gaps[0];
  const where = g ? ` The end of ${g.curve} at (${g.at.map((v) => Number(v.toFixed(3))).join(", ")}) meets nothing${g.nearest ? `; the nearest other end, of ${g.nearest.curve}, is ${Number(g.nearest.distance.toFixed(6))} mm away` : ""}.` : " It holds no curves that close.";
  return refuse("open-profile", `The sketch has no closed region to extrude.${where}`, g ? [g.curve] : []);
}

/** From and to along the sketch's normal, mm. */
function reach(step: ExtrudeStep, context: BuildContext, sketch: BuiltSketch): Outcome<[number, number]> {
  if (step.extent.kind === "through") {
    if (!context.body) return refuse("nothing-to-cut", "Through needs a part to go through. Use To depth.", [step.id]);
    const { min, max } = boxOf(context.kernel, context.body.shape);
    const n = normalOf(sketch.frame), o = dot3(n, sketch.frame.origin);
    const along = [0, 1, 2].map((i) => [n[i]! * min[i]!, n[i]! * max[i]!]);
    const low = along.reduce((s, [a, b]) => s + Math.min(a!, b!), -o), high = along.reduce((s, [a, b]) => s + Math.max(a!, b!), -o);
    return done([Math.min(low, 0) - CLEARANCE, Math.max(high, 0) + CLEARANCE]);
  }
  const r = readQuantity(step.extent.depth, "length", context.unit);
  if (!r.ok) return r;
  if (r.value <= 1e-6) return refuse("bad-number", "The depth must be greater than 0. Turn the direction round instead of typing a negative depth.", [step.id]);
  if (step.extent.kind === "both") return done([-r.value / 2, r.value / 2]);
  return done(step.reverse ? [-r.value, 0] : [0, r.value]);
}

export const extrudeStep: StepKind<ExtrudeStep> = {
  schema: ExtrudeStepSchema,
  uses: (step) => [step.sketch],
  build(context, step) {
    const { kernel, body } = context;
    const sketch = context.sketches.get(step.sketch);
    if (!sketch) return refuse("no-sketch", "The sketch this step stands on is missing or in trouble. Mend the sketch first.", [step.sketch]);
    const regions = regionsFor(step, sketch);
    if (!regions.ok) return regions;
    if (step.operation === "add" && step.extent.kind === "through") return refuse("through-adds", "Through only makes sense for Cut material. Use To depth.", [step.id]);
    if (step.operation === "cut" && !body) return refuse("nothing-to-cut", "There is no material to cut yet. Add material first.", [step.id]);
    const span = reach(step, context, sketch);
    if (!span.ok) return span;
    const tools: Solid[] = [];
    try {
      for (const r of regions.value) tools.push(prism(kernel, sketch.frame, r, span.value[0], span.value[1], step.id));
      const [first, ...rest] = tools as [Solid, ...Solid[]];
      if (!body && !rest.length) return done({ body: tools.pop()! });
      const next = body ? combine(kernel, step.operation === "add" ? "fuse" : "cut", body, tools) : combine(kernel, "fuse", first, rest);
      const fault = faultOf(context, step, next);
      if (fault) {
        kernel.release(next.shape);
        return fault;
      }
      return done({ body: next });
    } catch (e) {
      if (!(e instanceof KernelFault)) throw e;
      return refuse("kernel", `The solid could not be built: ${e.message}. Change the sketch or the depth a little.`, [step.id]);
    } finally {
      for (const t of tools) kernel.release(t.shape);
    }
  },
  read(step, unit) {
    const { extent } = step;
    const operation = step.operation === "add" ? "Add material" : "Cut material";
    const how = { depth: "to depth", both: "both ways", through: "through" }[extent.kind];
    return { title: `Extrude`, detail: `${operation} · ${how}${extent.kind === "through" ? "" : ` · ${depthText(extent.depth, unit)}`}` };
  },
};

function faultOf({ kernel, body }: BuildContext, step: ExtrudeStep, next: Solid) {
  const after = volumeOf(kernel, next.shape).volume;
  if (after <= 1e-9) return refuse("nothing-left", "This cut would take away the whole part.", [step.id]);
  if (step.operation === "cut" && body && after >= volumeOf(kernel, body.shape).volume * (1 - 1e-12)) return refuse("cuts-nothing", "This cut meets no material. Turn its direction round or make it deeper.", [step.id]);
  return undefined;
}

const depthText = (depth: number | string, unit: LengthUnit): string => {
  const r = readQuantity(depth, "length", unit);
  return r.ok ? lengthText(r.value, unit) : String(depth);
};

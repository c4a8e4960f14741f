import { formatRegion, parseRegion } from "@/core/naming/names";
import { defaultRegions, regionOf, type Region } from "@/core/sketch/regions";
import { wordsFor } from "@/core/sketch/words";
import { lengthText, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { BuildContext, BuiltSketch } from "./step";

export const sketchFor = (context: BuildContext, id: string): Outcome<BuiltSketch> => {
  const sketch = context.sketches.get(id);
  return sketch
    ? done(sketch)
    : refuse("no-sketch", "The sketch this step stands on is missing or in trouble. Mend the sketch first.", [id]);
};

/** The regions a step takes: those named, or all that are not inside a hole. */
export function regionsFor(
  step: { readonly id: string; readonly regions?: readonly string[] | undefined },
  sketch: BuiltSketch,
  unit: LengthUnit,
): Outcome<Region[]> {
  const call = wordsFor(sketch.diagnosis.sketch, unit);
  const { regions, gaps } = sketch.regions;
  const named = step.regions?.map((name) => ({ name, region: regionOf(regions, name) }));
  const lost = named?.find((n) => !n.region);
  if (lost) {
    const { curves } = parseRegion(lost.name);
    const where = `The region inside ${curves.map(call).join(", ")}`;
    const isSplit =
      regions.filter((r) => formatRegion({ curves: parseRegion(r.identity).curves }) === formatRegion({ curves }))
        .length > 1;
    const sentence = isSplit
      ? `${where} has come apart, and which piece was meant is not clear. Pick the regions anew.`
      : `${where} is no longer closed in its sketch. Pick the regions anew.`;
    return refuse("lost-region", sentence, [step.id]);
  }
  const wanted = named ? [...new Set(named.flatMap((n) => n.region ?? []))] : defaultRegions(sketch.regions);
  if (wanted.length) return done(wanted);
  const gap = gaps[0],
    near = gap?.nearest;
  const nearest = near
    ? `; the nearest other end, of ${call(near.curve)}, is ${lengthText(near.distance, unit)} away`
    : "";
  const where = gap ? ` An end of ${call(gap.curve)} meets nothing${nearest}.` : " It holds no curves that close.";
  const wall = gap ? " Along an open outline a thin wall can be built instead." : "";
  return refuse("open-profile", `The sketch has no closed region to build on.${where}${wall}`, gap ? [gap.curve] : []);
}

/** Whether a thin step follows open outlines: its sketch closes nothing, and it names no regions. */
export const isOpen = (
  step: { readonly regions?: readonly string[] | undefined; readonly thin?: unknown },
  sketch: BuiltSketch,
): boolean =>
  step.thin !== undefined && !step.regions && !sketch.regions.regions.length && sketch.regions.gaps.length > 0;

import { AS_SHOWN } from "./tolerance";
import { scale2 } from "@/core/geometry/vector";
import { plainNumber, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { SketchCommand } from "./command-schema";
import { curveKind } from "./curves/registry";
import { idsFor } from "./edit/rewire";
import { referenceFault } from "./reference-fault";
import { relationText } from "./sentences";
import { measuredValue, settle } from "./settle";
import { DimensionSchema, quantityOf, type Dimension, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { measureDimension, solveSketch } from "./solve";

export function rename(sketch: Sketch, id: string, name: string, unit: LengthUnit): Outcome<Sketch> {
  const d = sketch.dimensions.find((x) => x.id === id);
  if (!d) return refuse("not-found", `There is no dimension ${id}.`);
  if (name && !DimensionSchema.shape.name.safeParse(name).success)
    return refuse("bad-name", `“${name}” cannot be a name: it starts with a letter and holds letters, digits and _.`, [
      id,
    ]);
  const { name: old, ...rest } = d;
  // sizes that called it by its old name go on under the new one
  const next = { ...rest, ...(name && { name }) };
  const call = name || id;
  const dimensions = sketch.dimensions.map((x) =>
    x === d
      ? next
      : old && typeof x.value === "string"
        ? { ...x, value: x.value.replace(new RegExp(`(^|[^A-Za-z0-9_])${old}(?![A-Za-z0-9_])`, "g"), `$1${call}`) }
        : x,
  );
  return settle({ ...sketch, dimensions }, unit);
}

/** The value follows: twice a radius is its diameter, whatever it was typed as. */
export function retype(
  sketch: Sketch,
  { id, kind, of, sides }: Extract<SketchCommand, { do: "retype" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const d = sketch.dimensions.find((x) => x.id === id);
  if (!d) return refuse("not-found", `There is no dimension ${id}.`);
  const { sides: _, ...bare } = d;
  const next: Dimension = { ...bare, kind, of: of ?? d.of, ...(sides && { sides }) };
  const fault = referenceFault(sketch, [next], unit);
  if (fault) return { ok: false, refusal: fault };
  const factor =
    d.kind === "radius" && kind === "diameter" ? 2 : d.kind === "diameter" && kind === "radius" ? 0.5 : undefined;
  const value =
    factor && typeof d.value === "number"
      ? d.value * factor
      : factor && !d.reference
        ? `=${String(d.value).replace(/^\s*=/, "(")}${String(d.value).trim().startsWith("=") ? ")" : ""}*${factor}`
        : measuredValue(sketch, next, unit);
  return settle({ ...sketch, dimensions: sketch.dimensions.map((x) => (x === d ? { ...next, value } : x)) }, unit);
}

export function constrain(
  sketch: Sketch,
  { kind, of }: Extract<SketchCommand, { do: "constrain" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const fresh = { id: idsFor(sketch)("k"), kind, of };
  const next = { ...sketch, constraints: [...sketch.constraints, fresh] };
  const fault = referenceFault(next, [fresh], unit);
  if (fault) return { ok: false, refusal: fault };
  const r = settle(next, unit);
  if (!r.ok) return r;
  const after = solveSketch(r.value, unit);
  const adds = !(after.ok && after.value.agreeing.includes(fresh.id));
  return adds
    ? r
    : done(r.value, `${relationText(fresh, unit, r.value)}: this was so already. It is marked and harms nothing.`);
}

export function dimension(
  sketch: Sketch,
  command: Extract<SketchCommand, { do: "dimension" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const { do: _, value, ...rest } = command;
  const probe: Dimension = { id: idsFor(sketch)("m"), ...rest, value: value ?? 1 };
  const fault = referenceFault(sketch, [probe], unit);
  if (fault) return { ok: false, refusal: fault };
  const measured = measuredValue(sketch, probe, unit);
  if (measured === 0) return refuse("bad-number", "These measure 0; use a coincident constraint instead.", command.of);
  const given = value ?? measured;
  // surplus is judged at the size as drawn: a dimension that is settled by the others can only measure
  const asDrawn = solveSketch(
    { ...sketch, dimensions: [...sketch.dimensions, { ...probe, value: exactly(sketch, probe) }] },
    unit,
  );
  if (asDrawn.ok && asDrawn.value.solved && asDrawn.value.surplus.includes(probe.id)) {
    const reference = { ...probe, value: measured, reference: true };
    const want = typed(sketch, probe, given, unit);
    const is = measureDimension(sketch, probe);
    if (value !== undefined && want.ok && Math.abs(want.value - is) > AS_SHOWN[quantityOf(probe)])
      return settle({ ...sketch, dimensions: [...sketch.dimensions, { ...probe, value: given }] }, unit);
    return done(
      { ...sketch, dimensions: [...sketch.dimensions, reference] },
      "The others settle this size already, so it only measures: a reference dimension.",
    );
  }
  const first =
    sketch.dimensions.every((d) => d.reference || d.kind === "angle") &&
    !sketch.constraints.some((c) => c.kind === "fixed");
  const want = typed(sketch, probe, given, unit);
  if (!want.ok) return want;
  const ratio = first && probe.kind !== "angle" && want.value > 0 ? want.value / measureDimension(sketch, probe) : 1;
  const scaled = Math.abs(ratio - 1) > 0.3 ? scaledBy(sketch, ratio) : sketch;
  // its number was placed on the sketch as it was
  const placed = scaled !== sketch && probe.at ? { at: scale2(probe.at, ratio) as [number, number] } : {};
  return settle(
    { ...scaled, dimensions: [...scaled.dimensions, { ...probe, ...placed, value: given }] },
    unit,
    scaled === sketch
      ? undefined
      : `The whole sketch was scaled by ${plainNumber(ratio, 3)} to this first size. Undo takes it back.`,
  );
}

/** A size as typed for a dimension that is not there yet. */
function typed(sketch: Sketch, probe: Dimension, value: number | string, unit: LengthUnit): Outcome<number> {
  const alone = readQuantity(value, quantityOf(probe), unit);
  if (alone.ok) return alone;
  const r = drivingSizes({ dimensions: [...sketch.dimensions, { ...probe, value }] }, unit);
  return r.ok ? done(r.value.get(probe.id)!) : r;
}

/** The exact measure as text the reader takes back without loss. */
const exactly = (sketch: Sketch, d: Dimension): string => {
  const m = measureDimension(sketch, d);
  return quantityOf(d) === "angle" ? `${m} rad` : `${m} mm`;
};

function scaledBy(sketch: Sketch, k: number): Sketch {
  return {
    ...sketch,
    // every number of a curve is a length
    curves: sketch.curves.map((c) =>
      curveKind(c).withNumbers(
        c,
        curveKind(c)
          .numbers(c)
          .map((v) => v * k),
      ),
    ),
    dimensions: sketch.dimensions.map((d) => (d.at ? { ...d, at: scale2(d.at, k) as [number, number] } : d)),
  };
}

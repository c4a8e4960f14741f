import { z } from "zod";
import { scale2 } from "@/core/geometry/vector";
import { angleText, inUnit, lengthText, plainNumber, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { KINDS } from "./constraints/registry";
import { curveKind } from "./curves/registry";
import { ConstraintSchema, CurveSchema, curveOf, DimensionSchema, isDimension, nameOf, type Curve, type Dimension, type Relation, type Sketch } from "./sketch";
import { measureDimension, solveSketch } from "./solve";
import { referenceFault } from "./system";


/** Every change a sketch can undergo. */
export const SketchCommandSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("draw"), curves: z.array(CurveSchema), constraints: z.array(ConstraintSchema) }),
  z.strictObject({ do: z.literal("constrain"), kind: ConstraintSchema.shape.kind, of: ConstraintSchema.shape.of }),
  z.strictObject({ do: z.literal("dimension"), kind: DimensionSchema.shape.kind, of: DimensionSchema.shape.of, value: DimensionSchema.shape.value.optional(), at: DimensionSchema.shape.at, flip: z.boolean().optional() }),
  z.strictObject({ do: z.literal("resize"), id: z.string(), value: DimensionSchema.shape.value }),
  z.strictObject({ do: z.literal("place"), id: z.string(), at: z.tuple([z.number(), z.number()]) }),
  z.strictObject({ do: z.literal("drive"), id: z.string(), reference: z.boolean() }),
  z.strictObject({ do: z.literal("construction"), ids: z.array(z.string()), on: z.boolean() }),
  z.strictObject({ do: z.literal("drag"), curves: z.array(CurveSchema) }),
  z.strictObject({ do: z.literal("delete"), ids: z.array(z.string()) }),
  z.strictObject({ do: z.literal("move-plane"), plane: z.strictObject({ base: z.enum(["front", "top", "right"]), offset: z.number().optional() }) }),
]);
export type SketchCommand = z.infer<typeof SketchCommandSchema>;

/** The first id of a letter and a number that the sketch does not use. */
export function freeId(sketch: Sketch, letter: string, taken: readonly string[] = []): string {
  const used = new Set([...sketch.curves, ...sketch.constraints, ...sketch.dimensions].map((e) => e.id).concat(taken));
  let n = 1;
  while (used.has(`${letter}${n}`)) n++;
  return `${letter}${n}`;
}

/** A relation as a person would say it. */
export function relationText(r: Relation, unit: LengthUnit): string {
  const size = isDimension(r) ? sizeText(r, unit) : "";
  return KINDS[r.kind].sentence(r.of.map(nameOf), size);
}

/** The size a dimension states, in the document's unit. */
export function sizeText(d: Dimension, unit: LengthUnit): string {
  const quantity = KINDS[d.kind].quantity ?? "length";
  const r = readQuantity(d.value, quantity, unit);
  if (!r.ok) return String(d.value);
  return quantity === "angle" ? angleText(r.value) : lengthText(r.value, unit);
}

/** A size given within this of what is measured was read off the rounded figure shown: mm, radians. */
const AS_SHOWN = { length: 0.006, angle: 2e-4 };

const describe = (sketch: Sketch, unit: LengthUnit) => (id: string) => {
  const r = [...sketch.constraints, ...sketch.dimensions].find((x) => x.id === id);
  return r ? relationText(r, unit) : id;
};

/** Solves after a change; refuses what cannot be met and says which relations disagree. */
function settle(next: Sketch, unit: LengthUnit, notice?: string): Outcome<Sketch> {
  const r = solveSketch(next, unit);
  if (!r.ok) return r;
  if (!r.value.solved) {
    return refuse("conflict", conflictSentence(next, r.value.conflict, unit), r.value.conflict);
  }
  return done(refreshReferences(r.value.sketch, unit), notice);
}

/** Names what disagrees; joined ends are taken as read, they are rarely the mistake. */
export function conflictSentence(sketch: Sketch, conflict: readonly string[], unit: LengthUnit): string {
  const joins = new Set(sketch.constraints.filter((c) => c.kind === "coincident").map((c) => c.id));
  const telling = conflict.filter((id) => !joins.has(id));
  const named = (telling.length ? telling : conflict).map(describe(sketch, unit));
  if (!named.length) return "The sketch cannot be solved this way.";
  const rest = named.length - 6;
  return `This cannot be: ${named.slice(0, 6).join("; ")}${rest > 0 ? `; and ${rest} more` : ""} disagree. Remove one of them or change its size.`;
}

/** Reference dimensions show what they measure now. */
function refreshReferences(sketch: Sketch, unit: LengthUnit): Sketch {
  if (!sketch.dimensions.some((d) => d.reference)) return sketch;
  return { ...sketch, dimensions: sketch.dimensions.map((d) => (d.reference ? { ...d, value: measuredValue(sketch, d, unit) } : d)) };
}

/** What a dimension measures, as a value in the document's unit or in degrees, rounded to what is shown. */
export function measuredValue(sketch: Sketch, d: Pick<Dimension, "kind" | "of" | "flip">, unit: LengthUnit): number {
  const m = measureDimension(sketch, d);
  return KINDS[d.kind].quantity === "angle" ? Number(((m * 180) / Math.PI).toFixed(6)) : Number(inUnit(m, unit).toFixed(6));
}

/**
 * Applies one command to a sketch.
 * @returns the solved sketch, with a notice where something happened that was not asked for, or a refusal
 */
export function applyToSketch(sketch: Sketch, command: SketchCommand, unit: LengthUnit): Outcome<Sketch> {
  switch (command.do) {
    case "draw":
      return settle({ ...sketch, curves: [...sketch.curves, ...command.curves], constraints: [...sketch.constraints, ...command.constraints] }, unit);
    case "constrain":
      return constrain(sketch, command, unit);
    case "dimension":
      return dimension(sketch, command, unit);
    case "resize": {
      const d = sketch.dimensions.find((x) => x.id === command.id);
      if (!d) return refuse("not-found", `There is no dimension ${command.id}.`);
      if (d.reference) return refuse("reference", "A reference dimension only measures. Let it drive first.", [d.id]);
      return settle({ ...sketch, dimensions: sketch.dimensions.map((x) => (x === d ? { ...x, value: command.value } : x)) }, unit);
    }
    case "place":
      return done({ ...sketch, dimensions: sketch.dimensions.map((x) => (x.id === command.id ? { ...x, at: command.at } : x)) });
    case "drive":
      return settle({ ...sketch, dimensions: sketch.dimensions.map((x) => (x.id === command.id ? withReference(x, command.reference) : x)) }, unit);
    case "construction":
      return done({ ...sketch, curves: sketch.curves.map((c) => (command.ids.includes(c.id) ? withConstruction(c, command.on) : c)) });
    case "drag": {
      const moved = new Map(command.curves.map((c) => [c.id, c]));
      return settle({ ...sketch, curves: sketch.curves.map((c) => moved.get(c.id) ?? c) }, unit);
    }
    case "delete":
      return remove(sketch, command.ids, unit);
    case "move-plane":
      return done({ ...sketch, plane: command.plane });
  }
}

const withConstruction = (c: Curve, on: boolean): Curve => {
  const { construction: _, ...rest } = c;
  return on ? { ...rest, construction: true } : rest;
};
const withReference = (d: Dimension, on: boolean): Dimension => {
  const { reference: _, ...rest } = d;
  return on ? { ...rest, reference: true } : rest;
};

function constrain(sketch: Sketch, { kind, of }: Extract<SketchCommand, { do: "constrain" }>, unit: LengthUnit): Outcome<Sketch> {
  const fresh = { id: freeId(sketch, "k"), kind, of };
  const next = { ...sketch, constraints: [...sketch.constraints, fresh] };
  const fault = referenceFault({ ...next, constraints: [fresh], dimensions: [] });
  if (fault) return { ok: false, refusal: fault };
  const r = settle(next, unit);
  if (!r.ok) return r;
  const after = solveSketch(r.value, unit);
  const adds = !(after.ok && after.value.agreeing.includes(fresh.id));
  return adds ? r : done(r.value, `${relationText(fresh, unit)}: this was so already. It is marked and harms nothing.`);
}

function dimension(sketch: Sketch, command: Extract<SketchCommand, { do: "dimension" }>, unit: LengthUnit): Outcome<Sketch> {
  const { do: _, value, ...rest } = command;
  const probe: Dimension = { id: freeId(sketch, "m"), ...rest, value: value ?? 1 };
  const fault = referenceFault({ ...sketch, constraints: [], dimensions: [probe] });
  if (fault) return { ok: false, refusal: fault };
  const measured = measuredValue(sketch, probe, unit);
  if (measured === 0) return refuse("bad-number", "These measure 0; use a coincident constraint instead.", command.of);
  const given = value ?? measured;
  // surplus is judged at the size as drawn: a dimension that is settled by the others can only measure
  const asDrawn = solveSketch({ ...sketch, dimensions: [...sketch.dimensions, { ...probe, value: exactly(sketch, probe) }] }, unit);
  if (asDrawn.ok && asDrawn.value.solved && asDrawn.value.surplus.includes(probe.id)) {
    const reference = { ...probe, value: measured, reference: true };
    const want = readQuantity(given, KINDS[probe.kind].quantity ?? "length", unit);
    const is = measureDimension(sketch, probe);
    if (value !== undefined && want.ok && Math.abs(want.value - is) > AS_SHOWN[KINDS[probe.kind].quantity ?? "length"]) return settle({ ...sketch, dimensions: [...sketch.dimensions, { ...probe, value: given }] }, unit);
    return done({ ...sketch, dimensions: [...sketch.dimensions, reference] }, "The others settle this size already, so it only measures: a reference dimension.");
  }
  const first = sketch.dimensions.every((d) => d.reference || d.kind === "angle") && !sketch.constraints.some((c) => c.kind === "fixed");
  const want = readQuantity(given, KINDS[probe.kind].quantity ?? "length", unit);
  if (!want.ok) return want;
  const ratio = first && probe.kind !== "angle" && want.value > 0 ? want.value / measureDimension(sketch, probe) : 1;
  const scaled = Math.abs(ratio - 1) > 0.3 ? scaledBy(sketch, ratio) : sketch;
  return settle({ ...scaled, dimensions: [...scaled.dimensions, { ...probe, value: given }] }, unit, scaled === sketch ? undefined : `The whole sketch was scaled by ${plainNumber(ratio, 3)} to this first size. Undo takes it back.`);
}

/** The exact measure as text the reader takes back without loss. */
const exactly = (sketch: Sketch, d: Dimension): string => {
  const m = measureDimension(sketch, d);
  return KINDS[d.kind].quantity === "angle" ? `${m} rad` : `${m} mm`;
};

function scaledBy(sketch: Sketch, k: number): Sketch {
  return {
    ...sketch,
    // every number of a curve is a length
    curves: sketch.curves.map((c) => curveKind(c).withNumbers(c, curveKind(c).numbers(c).map((v) => v * k))),
    dimensions: sketch.dimensions.map((d) => (d.at ? { ...d, at: scale2(d.at, k) as [number, number] } : d)),
  };
}

function remove(sketch: Sketch, ids: readonly string[], unit: LengthUnit): Outcome<Sketch> {
  const gone = new Set(ids);
  const keeps = (r: Relation) => !gone.has(r.id) && r.of.every((ref) => !gone.has(curveOf(ref)));
  const next = { ...sketch, curves: sketch.curves.filter((c) => !gone.has(c.id)), constraints: sketch.constraints.filter(keeps), dimensions: sketch.dimensions.filter(keeps) };
  const dropped = sketch.constraints.length + sketch.dimensions.length - next.constraints.length - next.dimensions.length - ids.filter((id) => !sketch.curves.some((c) => c.id === id)).length;
  const settled = settle(next, unit);
  // deleting must always work, also out of a sketch that could not be solved
  return done(settled.ok ? settled.value : next, dropped > 0 ? `${dropped} constraint${dropped > 1 ? "s and dimensions" : " or dimension"} went with what was deleted.` : undefined);
}

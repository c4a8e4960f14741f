import { z } from "zod";
import { scale2 } from "@/core/geometry/vector";
import { inUnit, plainNumber, readQuantity, type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome, type Refusal } from "@/core/units/refusal";
import { curveKind } from "./curves/registry";
import { ClipSchema, paste } from "./edit/clipboard";
import { corner } from "./edit/corner";
import { extend } from "./edit/extend";
import { mirror } from "./edit/mirror";
import { offset } from "./edit/offset";
import { circularPattern, linearPattern, polygonOn, regroup } from "./edit/pattern";
import { idsFor, without } from "./edit/rewire";
import { split } from "./edit/split";
import { transform } from "./edit/transform";
import { trim } from "./edit/trim";
import { conflictSentence, relationText } from "./sentences";
import {
  ConstraintSchema,
  CurveSchema,
  DimensionSchema,
  GroupSchema,
  PlaneSchema,
  type Curve,
  type Dimension,
  type Relation,
  type Sketch,
} from "./sketch";
import { drivingSizes, usersOf } from "./sizes";
import { quantityOf } from "./sketch";
import { measureDimension, solveSketch } from "./solve";
import { referenceFault } from "./system";

const Place = z.tuple([z.number(), z.number()]);
const Value = DimensionSchema.shape.value;
const Curves = z.array(z.string()).max(2500);

/** Every change a sketch can undergo. */
export const SketchCommandSchema = z.discriminatedUnion("do", [
  z.strictObject({
    do: z.literal("draw"),
    curves: z.array(CurveSchema),
    constraints: z.array(ConstraintSchema),
    dimensions: z.array(DimensionSchema).optional(),
    groups: z.array(GroupSchema).optional(),
  }),
  z.strictObject({ do: z.literal("constrain"), kind: ConstraintSchema.shape.kind, of: ConstraintSchema.shape.of }),
  /** Several at once: what a program proposed and a person took. */
  z.strictObject({
    do: z.literal("pin"),
    constraints: z.array(ConstraintSchema.omit({ id: true })),
    dimensions: z.array(DimensionSchema.omit({ id: true })),
  }),
  z.strictObject({
    do: z.literal("dimension"),
    kind: DimensionSchema.shape.kind,
    of: DimensionSchema.shape.of,
    value: DimensionSchema.shape.value.optional(),
    at: DimensionSchema.shape.at,
    flip: z.boolean().optional(),
    sides: DimensionSchema.shape.sides,
  }),
  z.strictObject({ do: z.literal("resize"), id: z.string(), value: Value }),
  /** Several values changed first and solved at once. */
  z.strictObject({
    do: z.literal("resize-all"),
    sizes: z
      .array(z.strictObject({ id: z.string(), value: Value }))
      .min(1)
      .max(5000),
  }),
  z.strictObject({ do: z.literal("name"), id: z.string(), name: z.string().max(40) }),
  /** Another kind of dimension over the same things: radius, diameter, distance across. */
  z.strictObject({
    do: z.literal("retype"),
    id: z.string(),
    kind: DimensionSchema.shape.kind,
    of: DimensionSchema.shape.of.optional(),
    sides: DimensionSchema.shape.sides,
  }),
  z.strictObject({ do: z.literal("place"), id: z.string(), at: z.tuple([z.number(), z.number()]) }),
  z.strictObject({ do: z.literal("drive"), id: z.string(), reference: z.boolean() }),
  z.strictObject({
    do: z.literal("construction"),
    ids: z.array(z.string()),
    on: z.union([z.boolean(), z.literal("centre-line")]),
  }),
  z.strictObject({ do: z.literal("drag"), curves: z.array(CurveSchema) }),
  z.strictObject({ do: z.literal("delete"), ids: z.array(z.string()) }),
  z.strictObject({ do: z.literal("trim"), id: z.string(), near: Place }),
  z.strictObject({ do: z.literal("extend"), id: z.string(), near: Place }),
  z.strictObject({ do: z.literal("split"), id: z.string(), near: Place }),
  z.strictObject({
    do: z.literal("corner"),
    kind: z.enum(["fillet", "chamfer"]),
    corners: z.array(z.string()).min(1).max(200),
    value: Value,
  }),
  z.strictObject({ do: z.literal("offset"), id: z.string(), value: Value, left: z.boolean() }),
  z.strictObject({ do: z.literal("mirror"), curves: Curves, about: z.string() }),
  z.strictObject({
    do: z.literal("linear-pattern"),
    curves: Curves,
    count: z.number().int().min(2).max(60),
    step: Place,
  }),
  z.strictObject({
    do: z.literal("circular-pattern"),
    curves: Curves,
    count: z.number().int().min(2).max(60),
    about: z.string(),
    angle: z.number(),
  }),
  z.strictObject({
    do: z.literal("polygon"),
    circle: z.string(),
    count: z.number().int().min(3).max(60),
    outside: z.boolean(),
    turn: z.number(),
  }),
  z.strictObject({
    do: z.literal("regroup"),
    id: z.string(),
    count: z.number().int().min(2).max(60),
    angle: z.number().optional(),
  }),
  /** Turn in degrees. */
  z.strictObject({
    do: z.literal("transform"),
    curves: Curves,
    about: Place.optional(),
    turn: z.number().optional(),
    scale: z.number().optional(),
    by: Place.optional(),
    copy: z.boolean().optional(),
  }),
  z.strictObject({ do: z.literal("paste"), clip: ClipSchema, by: Place }),
  z.strictObject({ do: z.literal("move-plane"), plane: PlaneSchema }),
]);
export type SketchCommand = z.infer<typeof SketchCommandSchema>;

/** A size given within this of what is measured was read off the rounded figure shown: mm, radians. */
const AS_SHOWN = { length: 0.006, angle: 2e-4 };

/** A change that could be made, but not from how the sketch is drawn: with the sketch as it would then lie. */
export interface NotFromHere extends Refusal {
  readonly elsewhere: Sketch;
}
const NOT_FROM_HERE =
  "These relations can be met, but not from how the sketch is drawn. Draw it nearer to what you mean, or let it be drawn so.";

/** Solves after a change; refuses what cannot be met and says which relations disagree. */
function settle(next: Sketch, unit: LengthUnit, notice?: string): Outcome<Sketch> {
  const r = solveSketch(next, unit);
  if (!r.ok) return r;
  const { solved, conflict, elsewhere } = r.value;
  if (elsewhere)
    return { ok: false, refusal: { ...refuse("not-from-here", NOT_FROM_HERE).refusal, elsewhere } as NotFromHere };
  if (!solved) return refuse("conflict", conflictSentence(next, conflict, unit), conflict);
  return done(refreshReferences(r.value.sketch, unit), notice);
}

/** Reference dimensions show what they measure now. */
function refreshReferences(sketch: Sketch, unit: LengthUnit): Sketch {
  if (!sketch.dimensions.some((d) => d.reference)) return sketch;
  return {
    ...sketch,
    dimensions: sketch.dimensions.map((d) => (d.reference ? { ...d, value: measuredValue(sketch, d, unit) } : d)),
  };
}

/** What a dimension measures, as a value in the document's unit or in degrees, rounded to what is shown. */
export function measuredValue(
  sketch: Sketch,
  d: Pick<Dimension, "kind" | "of" | "flip" | "sides">,
  unit: LengthUnit,
): number {
  const m = measureDimension(sketch, d);
  return quantityOf(d) === "angle" ? Number(((m * 180) / Math.PI).toFixed(6)) : Number(inUnit(m, unit).toFixed(6));
}

/**
 * Applies one command to a sketch.
 * @param redraw what can be met, but not from how the sketch is drawn, is drawn so
 * @returns the solved sketch, with a notice where something happened that was not asked for, or a refusal
 */
export function applyToSketch(
  sketch: Sketch,
  command: SketchCommand,
  unit: LengthUnit,
  redraw = false,
): Outcome<Sketch> {
  const r = changed(sketch, command, unit);
  if (r.ok || !redraw || !("elsewhere" in r.refusal)) return r;
  return done((r.refusal as NotFromHere).elsewhere, "The sketch was drawn anew so that everything fits.");
}

function changed(sketch: Sketch, command: SketchCommand, unit: LengthUnit): Outcome<Sketch> {
  switch (command.do) {
    case "draw":
      return settle(
        {
          ...sketch,
          curves: [...sketch.curves, ...command.curves],
          constraints: [...sketch.constraints, ...command.constraints],
          dimensions: [...sketch.dimensions, ...(command.dimensions ?? [])],
          ...(command.groups && { groups: [...(sketch.groups ?? []), ...command.groups] }),
        },
        unit,
      );
    case "constrain":
      return constrain(sketch, command, unit);
    case "pin": {
      const ids = idsFor(sketch);
      return settle(
        {
          ...sketch,
          constraints: [...sketch.constraints, ...command.constraints.map((c) => ({ id: ids("k"), ...c }))],
          dimensions: [...sketch.dimensions, ...command.dimensions.map((d) => ({ id: ids("m"), ...d }))],
        },
        unit,
      );
    }
    case "dimension":
      return dimension(sketch, command, unit);
    case "resize": {
      const d = sketch.dimensions.find((x) => x.id === command.id);
      if (!d) return refuse("not-found", `There is no dimension ${command.id}.`);
      if (d.reference) return refuse("reference", "A reference dimension only measures. Let it drive first.", [d.id]);
      return settle(
        { ...sketch, dimensions: sketch.dimensions.map((x) => (x === d ? { ...x, value: command.value } : x)) },
        unit,
      );
    }
    case "resize-all": {
      const values = new Map(command.sizes.map((x) => [x.id, x.value]));
      return settle(
        {
          ...sketch,
          dimensions: sketch.dimensions.map((d) =>
            values.has(d.id) && !d.reference ? { ...d, value: values.get(d.id)! } : d,
          ),
        },
        unit,
      );
    }
    case "name":
      return rename(sketch, command.id, command.name.trim(), unit);
    case "retype":
      return retype(sketch, command, unit);
    case "place":
      return done({
        ...sketch,
        dimensions: sketch.dimensions.map((x) => (x.id === command.id ? { ...x, at: command.at } : x)),
      });
    case "drive":
      return settle(
        {
          ...sketch,
          dimensions: sketch.dimensions.map((x) => (x.id === command.id ? withReference(x, command.reference) : x)),
        },
        unit,
      );
    case "construction":
      return done({
        ...sketch,
        curves: sketch.curves.map((c) => (command.ids.includes(c.id) ? withConstruction(c, command.on) : c)),
      });
    case "drag": {
      const moved = new Map(command.curves.map((c) => [c.id, c]));
      return settle({ ...sketch, curves: sketch.curves.map((c) => moved.get(c.id) ?? c) }, unit);
    }
    case "delete":
      return remove(sketch, command.ids, unit);
    case "trim":
      return settled(trim(sketch, command.id, command.near), unit);
    case "extend":
      return settled(extend(sketch, command.id, command.near), unit);
    case "split":
      return settled(split(sketch, command.id, command.near), unit);
    case "corner": {
      const size = positive(sketch, command.value, unit);
      return size.ok ? settled(corner(sketch, command.kind, command.corners, size.value, command.value), unit) : size;
    }
    case "offset": {
      const size = positive(sketch, command.value, unit);
      return size.ok
        ? settled(offset(sketch, command.id, command.left ? size.value : -size.value, command.value), unit)
        : size;
    }
    case "mirror":
      return settled(mirror(sketch, command.curves, command.about), unit);
    case "linear-pattern":
      return settled(linearPattern(sketch, command.curves, command.count, command.step), unit);
    case "circular-pattern":
      return settled(circularPattern(sketch, command.curves, command.count, command.about, command.angle), unit);
    case "polygon":
      return settled(polygonOn(sketch, command.circle, command.count, command.outside, command.turn), unit);
    case "regroup":
      return settled(regroup(sketch, command.id, command.count, command.angle), unit);
    case "transform": {
      const { about, turn, scale, by } = command;
      return settled(
        transform(
          sketch,
          command.curves,
          {
            ...(about && { about }),
            ...(turn !== undefined && { turn: (turn * Math.PI) / 180 }),
            ...(scale !== undefined && { scale }),
            ...(by && { by }),
          },
          command.copy ?? false,
          unit,
        ),
        unit,
      );
    }
    case "paste":
      return settled(paste(sketch, command.clip, command.by), unit);
    case "move-plane":
      return done({ ...sketch, plane: command.plane });
  }
}

/** A length as typed, greater than 0, mm; other sizes of the sketch may be named. */
function positive(sketch: Sketch, value: number | string, unit: LengthUnit): Outcome<number> {
  const probe: Dimension = { id: "typed", kind: "distance", of: ["origin"], value };
  const r = drivingSizes({ dimensions: [...sketch.dimensions, probe] }, unit);
  return r.ok
    ? done(r.value.get("typed")!)
    : {
        ok: false,
        refusal: {
          ...r.refusal,
          sentence: r.refusal.sentence.replace("Dimension typed: ", "").replace("Dimension typed", "The size"),
        },
      };
}

const settled = (r: Outcome<Sketch>, unit: LengthUnit): Outcome<Sketch> => (r.ok ? settle(r.value, unit, r.notice) : r);

function rename(sketch: Sketch, id: string, name: string, unit: LengthUnit): Outcome<Sketch> {
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
function retype(
  sketch: Sketch,
  { id, kind, of, sides }: Extract<SketchCommand, { do: "retype" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const d = sketch.dimensions.find((x) => x.id === id);
  if (!d) return refuse("not-found", `There is no dimension ${id}.`);
  const { sides: _, ...bare } = d;
  const next: Dimension = { ...bare, kind, of: of ?? d.of, ...(sides && { sides }) };
  const fault = referenceFault(sketch, [next]);
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

const withConstruction = (c: Curve, on: boolean | "centre-line"): Curve => {
  const { construction: _, ...rest } = c;
  return (on ? { ...rest, construction: on } : rest) as Curve;
};
const withReference = (d: Dimension, on: boolean): Dimension => {
  const { reference: _, ...rest } = d;
  return on ? { ...rest, reference: true } : rest;
};

function constrain(
  sketch: Sketch,
  { kind, of }: Extract<SketchCommand, { do: "constrain" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const fresh = { id: idsFor(sketch)("k"), kind, of };
  const next = { ...sketch, constraints: [...sketch.constraints, fresh] };
  const fault = referenceFault(next, [fresh]);
  if (fault) return { ok: false, refusal: fault };
  const r = settle(next, unit);
  if (!r.ok) return r;
  const after = solveSketch(r.value, unit);
  const adds = !(after.ok && after.value.agreeing.includes(fresh.id));
  return adds ? r : done(r.value, `${relationText(fresh, unit)}: this was so already. It is marked and harms nothing.`);
}

function dimension(
  sketch: Sketch,
  command: Extract<SketchCommand, { do: "dimension" }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  const { do: _, value, ...rest } = command;
  const probe: Dimension = { id: idsFor(sketch)("m"), ...rest, value: value ?? 1 };
  const fault = referenceFault(sketch, [probe]);
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

function remove(sketch: Sketch, ids: readonly string[], unit: LengthUnit): Outcome<Sketch> {
  const gone = new Set(ids);
  const { sketch: bare, dropped } = without(sketch, gone);
  const keeps = (r: Relation) => !gone.has(r.id);
  const next = {
    ...bare,
    constraints: bare.constraints.filter(keeps),
    dimensions: frozen(sketch, bare.dimensions.filter(keeps), unit),
  };
  const settled = settle(next, unit),
    lost = dropped.length;
  // deleting must always work, also out of a sketch that could not be solved
  return done(
    settled.ok ? settled.value : next,
    lost > 0
      ? `${lost} constraint${lost > 1 ? "s and dimensions" : " or dimension"} went with what was deleted.`
      : undefined,
  );
}

/** Sizes that named one that goes keep the value they had. */
function frozen(sketch: Sketch, kept: Dimension[], unit: LengthUnit): Dimension[] {
  const gone = sketch.dimensions.filter((d) => !kept.some((k) => k.id === d.id));
  const users = new Set(gone.flatMap((d) => usersOf(sketch, d)));
  const sizes = users.size ? drivingSizes(sketch, unit) : undefined;
  return kept.map((d) => {
    const size = users.has(d.id) && sizes?.ok ? sizes.value.get(d.id) : undefined;
    return size === undefined ? d : { ...d, value: quantityOf(d) === "angle" ? `${size} rad` : `${size} mm` };
  });
}

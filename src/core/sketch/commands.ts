import { type LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { SketchCommand } from "./command-schema";
import { paste } from "./edit/clipboard";
import { corner } from "./edit/corner";
import { extend } from "./edit/extend";
import { mirror } from "./edit/mirror";
import { offset } from "./edit/offset";
import { circularPattern, linearPattern, polygonOn, regroup } from "./edit/pattern";
import { idsFor, without } from "./edit/rewire";
import { split } from "./edit/split";
import { transform } from "./edit/transform";
import { trim } from "./edit/trim";
import { constrain, dimension, rename, retype } from "./relate";
import { settle, settled, type NotFromHere } from "./settle";
import { quantityOf, type Curve, type Dimension, type Relation, type Sketch } from "./sketch";
import { drivingSizes, usersOf } from "./sizes";

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

/** What each command makes of a sketch. */
type Changes = {
  readonly [K in SketchCommand["do"]]: (
    sketch: Sketch,
    command: Extract<SketchCommand, { do: K }>,
    unit: LengthUnit,
  ) => Outcome<Sketch>;
};

const CHANGES: Changes = {
  draw: (sketch, { curves, constraints, dimensions = [], groups }, unit) =>
    settle(
      {
        ...sketch,
        curves: [...sketch.curves, ...curves],
        constraints: [...sketch.constraints, ...constraints],
        dimensions: [...sketch.dimensions, ...dimensions],
        ...(groups && { groups: [...(sketch.groups ?? []), ...groups] }),
      },
      unit,
    ),
  constrain,
  pin,
  dimension,
  resize,
  "resize-all": resizeAll,
  name: (sketch, { id, name }, unit) => rename(sketch, id, name.trim(), unit),
  retype,
  place: (sketch, { id, at }) =>
    done({ ...sketch, dimensions: sketch.dimensions.map((d) => (d.id === id ? { ...d, at } : d)) }),
  drive: (sketch, { id, reference }, unit) =>
    settle(
      { ...sketch, dimensions: sketch.dimensions.map((d) => (d.id === id ? withReference(d, reference) : d)) },
      unit,
    ),
  construction: (sketch, { ids, on }) =>
    done({ ...sketch, curves: sketch.curves.map((c) => (ids.includes(c.id) ? withConstruction(c, on) : c)) }),
  drag: (sketch, { curves }, unit) => {
    const moved = new Map(curves.map((c) => [c.id, c]));
    return settle({ ...sketch, curves: sketch.curves.map((c) => moved.get(c.id) ?? c) }, unit);
  },
  delete: (sketch, { ids }, unit) => remove(sketch, ids, unit),
  trim: (sketch, { id, near }, unit) => settled(trim(sketch, id, near), unit),
  extend: (sketch, { id, near }, unit) => settled(extend(sketch, id, near), unit),
  split: (sketch, { id, near }, unit) => settled(split(sketch, id, near), unit),
  corner: (sketch, { value, kind, corners }, unit) => {
    const size = positive(sketch, value, unit);
    return size.ok ? settled(corner(sketch, kind, corners, size.value, value), unit) : size;
  },
  offset: (sketch, { value, id, left }, unit) => {
    const size = positive(sketch, value, unit);
    return size.ok ? settled(offset(sketch, id, left ? size.value : -size.value, value), unit) : size;
  },
  mirror: (sketch, { curves, about }, unit) => settled(mirror(sketch, curves, about), unit),
  "linear-pattern": (sketch, { curves, count, step }, unit) =>
    settled(linearPattern(sketch, curves, count, step), unit),
  "circular-pattern": (sketch, { curves, count, about, angle }, unit) =>
    settled(circularPattern(sketch, curves, count, about, angle), unit),
  polygon: (sketch, { circle, count, outside, turn }, unit) =>
    settled(polygonOn(sketch, circle, count, outside, turn), unit),
  regroup: (sketch, { id, count, angle }, unit) => settled(regroup(sketch, id, count, angle), unit),
  transform: (sketch, { curves, about, turn, scale, by, copy = false }, unit) => {
    const motion = {
      ...(about && { about }),
      ...(turn !== undefined && { turn: (turn * Math.PI) / 180 }),
      ...(scale !== undefined && { scale }),
      ...(by && { by }),
    };
    return settled(transform(sketch, curves, motion, copy, unit), unit);
  },
  paste: (sketch, { clip, by }, unit) => settled(paste(sketch, clip, by), unit),
  "move-plane": (sketch, { plane }) => done({ ...sketch, plane }),
};

function changed<K extends SketchCommand["do"]>(
  sketch: Sketch,
  command: Extract<SketchCommand, { do: K }>,
  unit: LengthUnit,
): Outcome<Sketch> {
  return (CHANGES[command.do as K] as Changes[K])(sketch, command, unit);
}

type Of<K extends SketchCommand["do"]> = Extract<SketchCommand, { do: K }>;

function pin(sketch: Sketch, { constraints, dimensions }: Of<"pin">, unit: LengthUnit): Outcome<Sketch> {
  const ids = idsFor(sketch);
  return settle(
    {
      ...sketch,
      constraints: [...sketch.constraints, ...constraints.map((c) => ({ id: ids("k"), ...c }))],
      dimensions: [...sketch.dimensions, ...dimensions.map((d) => ({ id: ids("m"), ...d }))],
    },
    unit,
  );
}

function resize(sketch: Sketch, { id, value }: Of<"resize">, unit: LengthUnit): Outcome<Sketch> {
  const found = sketch.dimensions.find((d) => d.id === id);
  if (!found) return refuse("not-found", `There is no dimension ${id}.`);
  if (found.reference) return refuse("reference", "A reference dimension only measures. Let it drive first.", [id]);
  return settle({ ...sketch, dimensions: sketch.dimensions.map((d) => (d === found ? { ...d, value } : d)) }, unit);
}

function resizeAll(sketch: Sketch, { sizes }: Of<"resize-all">, unit: LengthUnit): Outcome<Sketch> {
  const values = new Map(sizes.map((size) => [size.id, size.value]));
  const resized = (d: Dimension): Dimension =>
    values.has(d.id) && !d.reference ? { ...d, value: values.get(d.id)! } : d;
  return settle({ ...sketch, dimensions: sketch.dimensions.map(resized) }, unit);
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

const withConstruction = (c: Curve, on: boolean | "centre-line"): Curve => {
  const { construction: _, ...rest } = c;
  return on ? { ...rest, construction: on } : rest;
};
const withReference = (d: Dimension, on: boolean): Dimension => {
  const { reference: _, ...rest } = d;
  return on ? { ...rest, reference: true } : rest;
};

function remove(sketch: Sketch, ids: readonly string[], unit: LengthUnit): Outcome<Sketch> {
  const gone = new Set(ids);
  const { sketch: bare, dropped } = without(sketch, gone);
  const keeps = (r: Relation) => !gone.has(r.id);
  const next = {
    ...bare,
    constraints: bare.constraints.filter(keeps),
    dimensions: frozen(sketch, bare.dimensions.filter(keeps), unit),
  };
  const after = settle(next, unit),
    lost = dropped.length;
  // deleting must always work, also out of a sketch that could not be solved
  return done(
    after.ok ? after.value : next,
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

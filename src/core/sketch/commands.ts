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

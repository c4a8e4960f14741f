import { fieldsOf, pathText, withValue, type Field, type Path } from "@/core/naming/field";
import type { PartDocument } from "@/core/part/document";
import { numbersOf } from "@/core/part/numbers";
import { kindOf, type Step } from "@/core/part/steps/kinds";
import { defineTheRest } from "@/core/sketch/define";
import { isDimension, quantityOf, type Sketch } from "@/core/sketch/sketch";
import { measureDimension, solveSketch } from "@/core/sketch/solve";
import { drivingSizes } from "@/core/sketch/sizes";
import { readQuantity, type LengthUnit } from "@/core/units/quantity";

/** A number that the reference was made with and that nothing else gives. mm, radians. */
export interface DrivingNumber {
  readonly id: string;
  /** The step it stands in; undefined for a parameter, which every step may use. */
  readonly step: string | undefined;
  /** As lists of numbers call it. */
  readonly label: string;
  readonly quantity: "length" | "angle";
  readonly value: number;
}

interface Driving extends DrivingNumber {
  /** The document with another value, mm or radians. */
  readonly give: (value: number) => PartDocument;
}

const text = (value: number, quantity: "length" | "angle") => `${value} ${quantity === "length" ? "mm" : "rad"}`;
const degrees = (rad: number) => (rad * 180) / Math.PI;

/**
 * Every number of a part that drives it: sizes of sketches, numbers of steps, places, offsets of planes, parameters.
 */
export function drivingNumbers(document: PartDocument): Driving[] {
  const called = new Map(
    numbersOf(document).flatMap((s) =>
      s.numbers.map((n): [string, string] => [`${s.step}:${n.path}`, `${s.title}: ${n.label}`]),
    ),
  );
  const label = (id: string) => called.get(id) ?? id;
  const parameters = (document.parameters ?? []).flatMap((p, i): Driving[] => {
    const quantity = p.kind ?? "length",
      r = readQuantity(p.value, quantity, document.units);
    if (!r.ok) return [];
    const give = (value: number) => withValue(document, ["parameters", i, "value"], text(value, quantity));
    return [{ id: p.name, step: undefined, label: `parameter ${p.name}`, quantity, value: r.value, give }];
  });
  return [
    ...parameters,
    ...document.steps.flatMap((s, i): Driving[] => {
      if (s.suppressed) return [];
      const give = (path: Path, value: unknown) => withValue(document, ["steps", i, ...path], value);
      return s.kind === "sketch"
        ? ofSketch(s.id, s.sketch, document.units, label, (path, v) => give(["sketch", ...path], v))
        : ofStep(s, document.units, label, give);
    }),
  ];
}

type Give = (path: Path, value: unknown) => PartDocument;

function ofSketch(
  step: string,
  sketch: Sketch,
  unit: LengthUnit,
  label: (id: string) => string,
  give: Give,
): Driving[] {
  const list = sketch.dimensions.flatMap((d, k): Driving[] => {
    // what names others is driven by them
    const own = d.reference ? undefined : readQuantity(d.value, quantityOf(d), unit);
    if (!own?.ok) return [];
    const id = `${step}:${d.id}`,
      quantity = quantityOf(d);
    const change = (v: number) => give(["dimensions", k, "value"], text(v, quantity));
    return [{ id, step, label: label(id), quantity, value: own.value, give: change }];
  });
  const { plane } = sketch;
  if (!("base" in plane)) return list;
  if (plane.offset)
    list.push({
      id: `${step}:offset`,
      step,
      label: `${label(step)}: offset of its plane`,
      quantity: "length",
      value: plane.offset,
      give: (v) => give(["plane", "offset"], v),
    });
  if (plane.tilt?.angle)
    list.push({
      id: `${step}:tilt`,
      step,
      label: `${label(step)}: tilt of its plane`,
      quantity: "angle",
      value: (plane.tilt.angle * Math.PI) / 180,
      give: (v) => give(["plane", "tilt", "angle"], degrees(v)),
    });
  return list;
}

function ofStep(step: Step, unit: LengthUnit, label: (id: string) => string, give: Give): Driving[] {
  return fieldsOf(kindOf(step).schema, step).flatMap((f): Driving[] => {
    const id = `${step.id}:${pathText(f.path)}`;
    if (f.meaning === "place") return ofPlace(step.id, f, label(step.id), give);
    if (f.meaning !== "length" && f.meaning !== "angle") return [];
    const quantity = f.meaning,
      r = readQuantity(f.value as number | string, quantity, unit);
    if (!r.ok || r.value === 0) return [];
    const change = (v: number) => give(f.path, text(v, quantity));
    return [{ id, step: step.id, label: label(id), quantity, value: r.value, give: change }];
  });
}

/** Where a hole was placed freely: two coordinates, mm. */
function ofPlace(step: string, f: Field, called: string, give: Give): Driving[] {
  if (!Array.isArray(f.value)) return [];
  return (f.value as number[]).map((value, axis) => ({
    id: `${step}:${pathText([...f.path, axis])}`,
    step,
    label: `${called}: place ${["across", "up"][axis] ?? axis}`,
    quantity: "length" as const,
    value,
    give: (v: number) => give([...f.path, axis], v),
  }));
}

/**
 * A part whose loose sketches are defined by what stands there: what nobody dimensioned is a number too, which a
 * drawing must give. The sizes are those of the sketch to the last digit, so that nothing moves.
 */
export function withSketchesDefined(document: PartDocument): PartDocument {
  const steps = document.steps.map((step): Step => {
    if (step.kind !== "sketch") return step;
    const r = solveSketch(step.sketch, document.units);
    if (!r.ok || !r.value.solved || !r.value.freedoms) return step;
    const { sketch } = r.value;
    const fresh = defineTheRest(step.sketch, document.units).map((p, i) => ({ ...p.relation, id: `defined-${i + 1}` }));
    const constraints = fresh.filter((f) => !isDimension(f));
    const dimensions = fresh.filter(isDimension).map((d) => {
      const measured = measureDimension(sketch, d);
      return { ...d, value: text(measured, quantityOf(d)) };
    });
    const next = {
      ...step.sketch,
      constraints: [...step.sketch.constraints, ...constraints],
      dimensions: [...step.sketch.dimensions, ...dimensions],
    } as Sketch;
    return drivingSizes(next, document.units).ok ? { ...step, sketch: next } : step;
  });
  return steps.every((s, i) => s === document.steps[i]) ? document : { ...document, steps };
}

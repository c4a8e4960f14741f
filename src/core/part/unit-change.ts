import { withFields } from "@/core/naming/field";
import { drivingSizes } from "@/core/sketch/sizes";
import { quantityOf, type Sketch } from "@/core/sketch/sketch";
import { withUnitWritten, type Names } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { PartSchema, type PartDocument } from "./document";
import { parameterNames } from "./parameters";

const LONGEST = 200;

/**
 * The document in another unit, the part exactly the same: wherever a plain number counted in the old unit, that unit
 * is written out, inside expressions too.
 */
export function inOtherUnits(document: PartDocument, units: PartDocument["units"]): Outcome<PartDocument> {
  if (units === document.units) return done(document);
  const names = parameterNames(document);
  let tooLong: string | undefined;
  const next = withFields(PartSchema, document, (f) => {
    if (f.meaning !== "length") return f.value;
    const step = f.path[0] === "steps" ? document.steps[Number(f.path[1])] : undefined;
    const known = step?.kind === "sketch" ? sizeNames(step.sketch, document) : names;
    const written = withUnitWritten(f.value as string | number, document.units, known);
    if (String(written).length > LONGEST) tooLong ??= String(f.value);
    return written;
  });
  if (tooLong !== undefined)
    return refuse("too-long", `The size “${tooLong}” is too long to have its unit written out. Shorten it first.`);
  return done({ ...next, units });
}

/** What sizes of a sketch are called within it, and the part's parameters. */
function sizeNames(sketch: Sketch, document: PartDocument): Names {
  const parameters = parameterNames(document);
  const sizes = drivingSizes(sketch, document.units);
  return (name) => {
    const d = sketch.dimensions.find((x) => x.name === name || x.id === name);
    const n = d && sizes.ok ? sizes.value.get(d.id) : undefined;
    if (!d || n === undefined) return parameters(name);
    return quantityOf(d) === "angle" ? { n, length: 0, angle: 1 } : { n, length: 1, angle: 0 };
  };
}

import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";
import { KINDS } from "./constraints/registry";
import { isDimension, nameOf, type Dimension, type Relation, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { quantityOf } from "./sketch";
import { wordsFor } from "./words";

/** A relation as a person would say it. @param sketch in which its things are called by what and where they are */
export function relationText(r: Relation, unit: LengthUnit, sketch?: Sketch): string {
  const size = isDimension(r) ? sizeText(r, unit, sketch) : "";
  return KINDS[r.kind].sentence(r.of.map(sketch ? wordsFor(sketch, unit) : nameOf), size);
}

/** The size a dimension states, in the document's unit. @param sketch where other sizes it names are found */
export function sizeText(dimension: Dimension, unit: LengthUnit, sketch?: Pick<Sketch, "dimensions">): string {
  const sizes = drivingSizes(sketch ?? { dimensions: [{ ...dimension, reference: false }] }, unit);
  const size = sizes.ok ? sizes.value.get(dimension.id) : undefined;
  const own =
    size ??
    (() => {
      const r = drivingSizes({ dimensions: [{ ...dimension, reference: false }] }, unit);
      return r.ok ? r.value.get(dimension.id) : undefined;
    })();
  if (own === undefined) return String(dimension.value);
  return quantityOf(dimension) === "angle" ? angleText(own) : lengthText(own, unit);
}

const describe = (sketch: Sketch, unit: LengthUnit) => (id: string) => {
  const r = [...sketch.constraints, ...sketch.dimensions].find((x) => x.id === id);
  return r ? relationText(r, unit, sketch) : id;
};

/** Names what disagrees; joined ends are taken as read, they are rarely the mistake. */
export function conflictSentence(sketch: Sketch, conflict: readonly string[], unit: LengthUnit): string {
  const joins = new Set(sketch.constraints.filter((c) => c.kind === "coincident").map((c) => c.id));
  const sizes = new Set(sketch.dimensions.map((d) => d.id));
  // sizes first: they were typed, and are the likeliest mistake
  const telling = conflict.filter((id) => !joins.has(id)).sort((a, b) => Number(sizes.has(b)) - Number(sizes.has(a)));
  const named = (telling.length ? telling : conflict).map(describe(sketch, unit));
  if (!named.length) return "The sketch cannot be solved this way.";
  const rest = named.length > 6 ? `; and ${named.length - 6} more` : "";
  const told = `This cannot be: ${named.slice(0, 6).join("; ")}${rest} disagree.`;
  return `${told} Remove one of them or change its size.`;
}

import { SAME_WAY } from "@/core/geometry/tolerance";
import { angleText, isReserved, readQuantity, type LengthUnit, type Value } from "@/core/units/quantity";
import { refuse, type Refusal } from "@/core/units/refusal";
import { quantityOf, type Dimension, type Sketch } from "./sketch";

/**
 * Reads every driving size of a sketch, expressions over each other included.
 * @returns mm and radians by dimension id, or a refusal that names the dimension and the place
 */
export function drivingSizes(sketch: Pick<Sketch, "dimensions" | "given">, unit: LengthUnit): Sizes {
  // asked for often with the same list: while dragging, and for every number shown
  const known = read.get(sketch.dimensions);
  if (known?.unit === unit && known.given === sketch.given) return known.sizes;
  const sizes = readSizes(sketch, unit);
  read.set(sketch.dimensions, { unit, given: sketch.given, sizes });
  return sizes;
}

type Sizes =
  | { readonly ok: true; readonly value: ReadonlyMap<string, number> }
  | { readonly ok: false; readonly refusal: Refusal };
const read = new WeakMap<readonly Dimension[], { unit: LengthUnit; given: Sketch["given"]; sizes: Sizes }>();

function readSizes(sketch: Pick<Sketch, "dimensions" | "given">, unit: LengthUnit): Sizes {
  const byName = new Map<string, Dimension>();
  for (const dimension of sketch.dimensions) {
    byName.set(dimension.id, byName.get(dimension.id) ?? dimension);
    if (!dimension.name) continue;
    if (isReserved(dimension.name))
      return refuse("bad-name", `“${dimension.name}” cannot name a size: it is a unit or a function.`, [dimension.id]);
    const other = byName.get(dimension.name);
    if (other && other !== dimension)
      return refuse("bad-name", `Two sizes are called “${dimension.name}”.`, [dimension.id, other.id]);
    byName.set(dimension.name, dimension);
  }
  const sizes = new Map<string, number>();
  const open: string[] = [];
  let fault: Refusal | undefined;
  const size = (d: Dimension): number | undefined => {
    const known = sizes.get(d.id);
    if (known !== undefined) return known;
    const quantity = quantityOf(d),
      label = d.name ?? d.id;
    if (typeof d.value === "number") {
      const plain = readQuantity(d.value, quantity, unit);
      const most = quantity === "length" ? Infinity : Math.PI - SAME_WAY;
      if (plain.ok && plain.value > 0 && plain.value < most) return (sizes.set(d.id, plain.value), plain.value);
    }
    const names = (name: string): Value | string | undefined => {
      const other = byName.get(name);
      if (!other) {
        const given = sketch.given?.find((g) => g.name === name);
        return (
          given &&
          (given.kind === "angle" ? { n: given.value, length: 0, angle: 1 } : { n: given.value, length: 1, angle: 0 })
        );
      }
      if (other.reference) return `“${name}” only measures; a size that drives is needed`;
      if (open.includes(other.id))
        return `it goes round in a circle (${[...open.slice(open.indexOf(other.id)), other.id].join(" → ")})`;
      const v = size(other);
      if (v === undefined) return `“${name}” has no value`;
      return quantityOf(other) === "angle" ? { n: v, length: 0, angle: 1 } : { n: v, length: 1, angle: 0 };
    };
    open.push(d.id);
    const r = readQuantity(d.value, quantity, unit, names);
    open.pop();
    const wrong = (sentence: string) => void (fault ??= refuse("bad-number", sentence, [d.id]).refusal);
    if (!r.ok) return wrong(`Dimension ${label}: ${r.refusal.sentence}`);
    if (quantity === "angle" && (r.value === 0 || (d.kind === "angle" && Math.abs(r.value - Math.PI) < SAME_WAY)))
      return wrong(
        `Dimension ${label}: an angle of ${angleText(r.value)} is said by a parallel or a collinear constraint.`,
      );
    if (r.value <= 0)
      return wrong(`Dimension ${label} must be greater than 0; use a coincident constraint to bring things together.`);
    if (quantity === "angle" && r.value > (d.kind === "full-angle" ? 2 : 1) * Math.PI)
      return wrong(`Dimension ${label} must be at most ${d.kind === "full-angle" ? 360 : 180}°.`);
    sizes.set(d.id, r.value);
    return r.value;
  };
  for (const d of sketch.dimensions) {
    if (d.reference) continue;
    if (open.length === 0 && size(d) === undefined && fault) return { ok: false, refusal: fault };
  }
  return { ok: true, value: sizes };
}

/** Ids of the dimensions whose values mention this one. */
export function usersOf(sketch: Pick<Sketch, "dimensions">, d: Dimension): string[] {
  const called = [d.id, d.name].filter((n): n is string => n !== undefined);
  return sketch.dimensions
    .filter(
      (o) =>
        o !== d &&
        typeof o.value === "string" &&
        called.some((n) => new RegExp(`(^|[^A-Za-z0-9_])${n}($|[^A-Za-z0-9_])`).test(String(o.value))),
    )
    .map((o) => o.id);
}

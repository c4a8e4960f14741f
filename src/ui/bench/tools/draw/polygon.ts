import { COINCIDENT } from "@/core/geometry/tolerance";
import { distance2 } from "@/core/geometry/vector";
import { polygonOn } from "@/core/sketch/edit/pattern";
import { atSize, heading, own } from "./places";
import type { Shape } from "./shape";

/** n equal sides in or about a circle, which stays as construction; the sides can be changed later. */
const polygon = (outside: boolean): Shape => ({
  name: outside ? "Polygon about a circle" : "Polygon in a circle",
  asks: ["click its centre", outside ? "click the middle of a side" : "click a corner"],
  sizes: [
    [],
    [
      { label: "sides", quantity: "count", measure: () => 6 },
      { label: "⌀", quantity: "length", measure: ([a, b]) => (a && b ? 2 * distance2(a, b) : 0) },
    ],
  ],
  meet: ([a, b], [, d]) => atSize(a!, b!, d === undefined ? undefined : d / 2, undefined),
  make([a, b], id, [count = 6], sketch) {
    const r = a && b ? distance2(a, b) : 0;
    if (r < COINCIDENT) return undefined;
    const circle = { id: id("c"), kind: "circle" as const, centre: own(a!), radius: r, construction: true as const };
    const base = { ...sketch, curves: [...sketch.curves, circle] };
    const made = polygonOn(base, circle.id, count, outside, heading(a!, b!) + (outside ? Math.PI / count : 0));
    if (!made.ok) return undefined;
    const lines = made.value.curves.slice(base.curves.length),
      constraints = made.value.constraints.slice(sketch.constraints.length);
    return {
      curves: [circle, ...lines],
      constraints,
      groups: made.value.groups!.slice(sketch.groups?.length ?? 0),
      anchors: [`${circle.id}.centre`, outside ? undefined : `${lines[0]!.id}.start`],
      sizes: [undefined, { kind: "diameter", of: [circle.id] }],
    };
  },
});
export const innerPolygon = polygon(false);
export const outerPolygon = polygon(true);

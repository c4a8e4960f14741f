import { COINCIDENT } from "@/core/geometry/tolerance";
import { distance2, mid2, type Vec2 } from "@/core/geometry/vector";
import type { Circle } from "@/core/sketch/sketch";
import { atSize, centreOf, gap, own } from "./places";
import type { Shape } from "./shape";

const circle = (id: (letter: string) => string, centre: Vec2, radius: number): Circle => ({
  id: id("c"),
  kind: "circle",
  centre: own(centre),
  radius,
});

/** From its centre to its rim. */
export const centreCircle: Shape = {
  name: "Circle",
  asks: ["click its centre", "click how far it reaches"],
  sizes: [[], [{ label: "⌀", quantity: "length", measure: ([a, b]) => (a && b ? 2 * distance2(a, b) : 0) }]],
  meet: ([a, b], [d]) => atSize(a!, b!, d === undefined ? undefined : d / 2, undefined),
  make([a, b], id) {
    const r = a && b ? distance2(a, b) : 0;
    if (r < COINCIDENT) return undefined;
    const c = circle(id, a!, r);
    return { curves: [c], anchors: [`${c.id}.centre`, { on: c.id }], sizes: [{ kind: "diameter", of: [c.id] }] };
  },
};

/** By the ends of a diameter. */
export const twoPointCircle: Shape = {
  name: "Circle by two points",
  asks: ["click a point of its rim", "click the point opposite"],
  sizes: [[], [gap("⌀", 0, 1)]],
  meet: ([a, b], [d]) => atSize(a!, b!, d, undefined),
  make([a, b], id) {
    const d = a && b ? distance2(a, b) : 0;
    if (d < COINCIDENT) return undefined;
    const c = circle(id, mid2(a!, b!), d / 2);
    return { curves: [c], anchors: [{ on: c.id }, { on: c.id }], sizes: [{ kind: "diameter", of: [c.id] }] };
  },
};

/** Through three points. */
export const threePointCircle: Shape = {
  name: "Circle by three points",
  asks: ["click a point of its rim", "click a second", "click a third"],
  make([a, b, p], id) {
    const centre = a && b && p ? centreOf(a, b, p) : undefined;
    if (!centre) return undefined;
    const c = circle(id, centre, distance2(centre, a!));
    return { curves: [c], anchors: [{ on: c.id }, { on: c.id }, { on: c.id }] };
  },
};

import { COINCIDENT } from "@/core/geometry/tolerance";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import { ellipseAngle, onEllipse } from "@/core/geometry/segment";
import { asideBy, atSize, beside, gap, heading, own } from "./places";
import type { Shape, Size } from "./shape";

const short: Size = {
  label: "other half axis",
  quantity: "length",
  measure: ([c, a, p]) => (c && a && p ? Math.abs(beside(c, a, p)) : 0),
};
function axes(
  c: Vec2,
  a: Vec2,
  p: Vec2,
): { centre: [number, number]; major: [number, number]; minor: [number, number] } | undefined {
  const b = Math.abs(beside(c, a, p)),
    t = heading(c, a);
  if (b < COINCIDENT || distance2(c, a) < COINCIDENT) return undefined;
  return { centre: own(c), major: own(a), minor: [c[0] - Math.sin(t) * b, c[1] + Math.cos(t) * b] };
}
const meet: NonNullable<Shape["meet"]> = (p, [d]) =>
  p.length === 2
    ? atSize(p[0]!, p[1]!, d, undefined)
    : p.length === 3 && d !== undefined
      ? asideBy(p[0]!, p[1]!, p[2]!, d)
      : p[p.length - 1]!;

export const wholeEllipse: Shape = {
  name: "Ellipse",
  asks: ["click its centre", "click the end of one half axis", "click how wide it is"],
  sizes: [[], [gap("half axis", 0, 1)], [short]],
  meet,
  make([c, a, p], id) {
    const e = c && a && p ? axes(c, a, p) : undefined;
    if (!e) return undefined;
    const name = id("e");
    return {
      curves: [{ id: name, kind: "ellipse", ...e }],
      anchors: [`${name}.centre`, `${name}.major`, undefined],
      sizes: [
        { kind: "distance", of: [`${name}.centre`, `${name}.major`] },
        { kind: "distance", of: [`${name}.centre`, `${name}.minor`] },
      ],
    };
  },
};

export const ellipseArc: Shape = {
  name: "Arc of an ellipse",
  asks: [
    "click its centre",
    "click the end of one half axis",
    "click how wide it is",
    "click where it starts",
    "click where it ends, counter-clockwise",
  ],
  sizes: [[], [gap("half axis", 0, 1)], [short]],
  meet,
  make([c, a, p, s, t], id) {
    const e = c && a && p ? axes(c, a, p) : undefined;
    if (!e || !s || !t) return undefined;
    const name = id("e"),
      u: Vec2 = [e.major[0] - e.centre[0], e.major[1] - e.centre[1]],
      v: Vec2 = [e.minor[0] - e.centre[0], e.minor[1] - e.centre[1]];
    const on = (q: Vec2) => own(onEllipse(e.centre, u, v, ellipseAngle(e.centre, u, v, q)));
    return {
      curves: [{ id: name, kind: "ellipse-arc", ...e, start: on(s), end: on(t) }],
      anchors: [`${name}.centre`, `${name}.major`, undefined, `${name}.start`, `${name}.end`],
      sizes: [
        { kind: "distance", of: [`${name}.centre`, `${name}.major`] },
        { kind: "distance", of: [`${name}.centre`, `${name}.minor`] },
      ],
    };
  },
};

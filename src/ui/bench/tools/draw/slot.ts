import { COINCIDENT } from "@/core/geometry/tolerance";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import type { Arc, Constraint, Curve, Line } from "@/core/sketch/sketch";
import { asideBy, atSize, beside, gap, heading, own, polar } from "./places";
import type { Shape } from "./shape";

const tie =
  (id: (letter: string) => string) =>
  (kind: Constraint["kind"], ...of: string[]): Constraint => ({ id: id("k"), kind, of });
const quarter = Math.PI / 2;

/** Two half circles joined by lines; a centre line holds the middles. */
export const straightSlot: Shape = {
  name: "Slot",
  asks: ["click the centre of one end", "click the centre of the other", "click how wide it is"],
  sizes: [
    [],
    [gap("length", 0, 1)],
    [{ label: "radius", quantity: "length", measure: ([a, b, p]) => (a && b && p ? Math.abs(beside(a, b, p)) : 0) }],
  ],
  meet: (p, [d]) =>
    p.length === 2 ? atSize(p[0]!, p[1]!, d, undefined) : d === undefined ? p[2]! : asideBy(p[0]!, p[1]!, p[2]!, d),
  make([a, b, p], id) {
    const r = a && b && p ? Math.abs(beside(a, b, p)) : 0;
    if (r < COINCIDENT || distance2(a!, b!) < COINCIDENT) return undefined;
    const t = heading(a!, b!),
      right = (c: Vec2) => own(polar(c, r, t - quarter)),
      left = (c: Vec2) => own(polar(c, r, t + quarter)),
      k = tie(id);
    const low: Line = { id: id("l"), kind: "line", start: right(a!), end: right(b!) },
      high: Line = { id: id("l"), kind: "line", start: left(b!), end: left(a!) };
    const far: Arc = { id: id("a"), kind: "arc", centre: own(b!), start: right(b!), end: left(b!) },
      near: Arc = { id: id("a"), kind: "arc", centre: own(a!), start: left(a!), end: right(a!) };
    const axis: Line = { id: id("l"), kind: "line", start: own(a!), end: own(b!), construction: true };
    const constraints = [
      k("coincident", `${low.id}.end`, `${far.id}.start`),
      k("coincident", `${far.id}.end`, `${high.id}.start`),
      k("coincident", `${high.id}.end`, `${near.id}.start`),
      k("coincident", `${near.id}.end`, `${low.id}.start`),
      k("tangent", low.id, far.id),
      k("tangent", high.id, far.id),
      k("tangent", high.id, near.id),
      k("tangent", low.id, near.id),
      k("equal", far.id, near.id),
      k("coincident", `${axis.id}.start`, `${near.id}.centre`),
      k("coincident", `${axis.id}.end`, `${far.id}.centre`),
    ];
    return {
      curves: [low, far, high, near, axis],
      constraints,
      anchors: [`${axis.id}.start`, `${axis.id}.end`, undefined],
      sizes: [
        { kind: "length", of: [axis.id] },
        { kind: "radius", of: [far.id] },
      ],
    };
  },
};

/** A slot bent about a centre. */
export const arcSlot: Shape = {
  name: "Bent slot",
  asks: [
    "click the centre it bends about",
    "click the centre of its first end",
    "click where the other end lies, counter-clockwise",
    "click how wide it is",
  ],
  sizes: [
    [],
    [gap("radius of its middle", 0, 1)],
    [],
    [
      {
        label: "end radius",
        quantity: "length",
        measure: ([c, a, , p]) => (c && a && p ? Math.abs(distance2(c, p) - distance2(c, a)) : 0),
      },
    ],
  ],
  meet: (p, [d]) =>
    d === undefined
      ? p[p.length - 1]!
      : p.length === 2
        ? atSize(p[0]!, p[1]!, d, undefined)
        : polar(p[0]!, distance2(p[0]!, p[1]!) + d, heading(p[0]!, p[3]!)),
  make([c, a, b, p], id) {
    if (!c || !a || !b || !p) return undefined;
    const r = distance2(c, a),
      w = Math.abs(distance2(c, p) - r),
      from = heading(c, a),
      to = heading(c, b);
    if (w < COINCIDENT || w >= r || Math.abs(from - to) < COINCIDENT) return undefined;
    const at = (t: number, d: number) => own(polar(c, r + d, t)),
      k = tie(id);
    const arc = (centre: Vec2, start: Vec2, end: Vec2, construction?: true): Arc => ({
      id: id("a"),
      kind: "arc",
      centre: own(centre),
      start: own(start),
      end: own(end),
      ...(construction && { construction }),
    });
    const outer = arc(c, at(from, w), at(to, w)),
      inner = arc(c, at(from, -w), at(to, -w)),
      far = arc(at(to, 0), at(to, w), at(to, -w)),
      near = arc(at(from, 0), at(from, -w), at(from, w)),
      axis = arc(c, at(from, 0), at(to, 0), true);
    const constraints = [
      k("coincident", `${outer.id}.end`, `${far.id}.start`),
      k("coincident", `${far.id}.end`, `${inner.id}.end`),
      k("coincident", `${inner.id}.start`, `${near.id}.start`),
      k("coincident", `${near.id}.end`, `${outer.id}.start`),
      k("concentric", outer.id, axis.id),
      k("concentric", inner.id, axis.id),
      k("coincident", `${axis.id}.start`, `${near.id}.centre`),
      k("coincident", `${axis.id}.end`, `${far.id}.centre`),
      k("tangent", outer.id, far.id),
      k("tangent", inner.id, far.id),
      k("tangent", outer.id, near.id),
      k("tangent", inner.id, near.id),
    ];
    const curves: Curve[] = [outer, far, inner, near, axis];
    return {
      curves,
      constraints,
      anchors: [`${axis.id}.centre`, `${axis.id}.start`, `${axis.id}.end`, undefined],
      sizes: [
        { kind: "radius", of: [axis.id] },
        { kind: "radius", of: [far.id] },
      ],
    };
  },
};

import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import type { Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import {
  curveOf,
  isDimension,
  pointAt,
  typeOf,
  type Constraint,
  type Curve,
  type Dimension,
  type Group,
  type Sketch,
} from "../sketch";
import { copyOf, placesOf } from "./duplicate";
import { idsFor, without } from "./rewire";

const turnBy =
  (c: Vec2, t: number) =>
  (p: Vec2): Vec2 => [
    c[0] + (p[0] - c[0]) * Math.cos(t) - (p[1] - c[1]) * Math.sin(t),
    c[1] + (p[0] - c[0]) * Math.sin(t) + (p[1] - c[1]) * Math.cos(t),
  ];

/** Repeats curves in a row. @param step from one to the next, mm; it becomes dimensions @param count how many in all */
export function linearPattern(sketch: Sketch, source: readonly string[], count: number, step: Vec2): Outcome<Sketch> {
  const { points, round } = placesOf(sketch, source);
  const lead = points[0];
  if (lead === undefined) return refuse("nothing-picked", "Pick the curves to repeat first.", []);
  if (Math.hypot(...step) < COINCIDENT)
    return refuse("bad-number", "The step from one to the next must be greater than 0.", []);
  const ids = idsFor(sketch),
    curves = [],
    constraints: Constraint[] = [],
    dimensions: Dimension[] = [];
  let firstLead = "";
  for (let k = 1; k < count; k++) {
    const copy = copyOf(sketch, source, (p) => [p[0] + k * step[0], p[1] + k * step[1]], ids);
    curves.push(...copy.curves);
    constraints.push(...copy.joints);
    const tie = (kind: Constraint["kind"], of: string[], factor?: number) =>
      constraints.push({ id: ids("k"), kind, of, ...(factor !== undefined && { factor }) });
    if (k === 1) {
      firstLead = copy.map(lead);
      const level = Math.abs(step[1]) < SAME_WAY * Math.abs(step[0]),
        upright = Math.abs(step[0]) < SAME_WAY * Math.abs(step[1]);
      if (level) tie("horizontal", [lead, firstLead]);
      if (upright) tie("vertical", [lead, firstLead]);
      if (!upright)
        dimensions.push({
          id: ids("m"),
          kind: "horizontal-distance",
          of: [lead, firstLead],
          value: `${Math.abs(step[0])} mm`,
        });
      if (!level)
        dimensions.push({
          id: ids("m"),
          kind: "vertical-distance",
          of: [lead, firstLead],
          value: `${Math.abs(step[1])} mm`,
        });
    }
    for (const p of points) if (k > 1 || p !== lead) tie("spaced", [lead, firstLead, p, copy.map(p)], k);
    for (const c of round) tie("equal", [c, copy.map(c)]);
  }
  const group: Group = {
    id: ids("g"),
    kind: "linear-pattern",
    count,
    source: [...source],
    made: curves.map((c) => c.id),
  };
  return done({
    ...sketch,
    curves: [...sketch.curves, ...curves],
    constraints: [...sketch.constraints, ...constraints],
    dimensions: [...sketch.dimensions, ...dimensions],
    groups: [...(sketch.groups ?? []), group],
  });
}

/** Repeats curves around a point. @param angle over which all are spread, degrees: 360 goes all round */
export function circularPattern(
  sketch: Sketch,
  source: readonly string[],
  count: number,
  about: string,
  angle: number,
): Outcome<Sketch> {
  if (typeOf(sketch, about) !== "point") return refuse("not-a-point", "Pick the point to go around.", [about]);
  const { points, round } = placesOf(sketch, source);
  if (!points.length) return refuse("nothing-picked", "Pick the curves to repeat first.", []);
  if (!(Math.abs(angle) > COINCIDENT) || Math.abs(angle) > 360)
    return refuse("bad-number", "The angle must be between 0 and 360°.", []);
  const whole = Math.abs(Math.abs(angle) - 360) < SAME_WAY,
    each = angle / (whole ? count : count - 1);
  const ids = idsFor(sketch),
    curves = [],
    constraints: Constraint[] = [],
    centre = pointAt(sketch, about);
  for (let k = 1; k < count; k++) {
    const copy = copyOf(sketch, source, turnBy(centre, (k * each * Math.PI) / 180), ids);
    curves.push(...copy.curves);
    constraints.push(...copy.joints);
    for (const p of points)
      constraints.push({ id: ids("k"), kind: "turned", of: [p, copy.map(p), about], factor: k * each });
    for (const c of round) constraints.push({ id: ids("k"), kind: "equal", of: [c, copy.map(c)] });
  }
  const group: Group = {
    id: ids("g"),
    kind: "circular-pattern",
    count,
    source: [...source],
    made: curves.map((c) => c.id),
    about,
    angle,
  };
  return done({
    ...sketch,
    curves: [...sketch.curves, ...curves],
    constraints: [...sketch.constraints, ...constraints],
    groups: [...(sketch.groups ?? []), group],
  });
}

/** Makes a pattern or polygon anew with another count; what else had been hung on its copies goes, and is counted. */
export function regroup(sketch: Sketch, id: string, count: number, angle?: number): Outcome<Sketch> {
  const group = sketch.groups?.find((g) => g.id === id);
  if (!group) return refuse("not-found", `There is no pattern ${id}.`);
  if (group.kind === "polygon") return regroupPolygon(sketch, group, count);
  const first = group.made.slice(0, group.source.length);
  const { points } = placesOf(sketch, group.source),
    lead = points[0]!;
  const copied = `${first[group.source.indexOf(curveOf(lead))] ?? first[0]!}${lead.slice(curveOf(lead).length)}`;
  const [a, b] = [pointAt(sketch, lead), pointAt(sketch, copied)];
  const spacing = sketch.dimensions.filter((d) => d.of.includes(lead) && d.of.includes(copied));
  const gone = new Set(group.made);
  const hung = sketch.dimensions.filter((d) => d.of.some((r) => gone.has(curveOf(r))) && !spacing.includes(d)).length;
  const bare = without({ ...sketch, groups: sketch.groups!.filter((g) => g !== group) }, gone).sketch;
  const made =
    group.kind === "linear-pattern"
      ? linearPattern(bare, group.source, count, [b[0] - a[0], b[1] - a[1]])
      : circularPattern(bare, group.source, count, group.about!, angle ?? group.angle!);
  if (!made.ok) return made;
  // the spacing keeps what had been typed for it
  const typed = new Map(spacing.map((d) => [d.kind, d]));
  const fresh = new Set(made.value.dimensions.slice(bare.dimensions.length));
  const value = {
    ...made.value,
    dimensions: made.value.dimensions.map((d) =>
      fresh.has(d) && typed.has(d.kind) ? { ...typed.get(d.kind)!, of: d.of } : d,
    ),
  };
  return done(value, hung ? `${hung} dimension${hung > 1 ? "s" : ""} on the copies went with them.` : undefined);
}

/**
 * A polygon on its circle. @param outside its sides, not its corners, lie on the circle @param turn angle of its
 * first corner
 */
export function polygonOn(
  sketch: Sketch,
  circle: string,
  count: number,
  outside: boolean,
  turn: number,
): Outcome<Sketch> {
  const c = sketch.curves.find((k) => k.id === circle);
  if (c?.kind !== "circle") return refuse("not-a-circle", "A polygon is drawn in or about a circle.", [circle]);
  const ids = idsFor(sketch),
    r = outside ? c.radius / Math.cos(Math.PI / count) : c.radius;
  const corner = (i: number): [number, number] => [
    c.centre[0] + r * Math.cos(turn + (2 * Math.PI * i) / count),
    c.centre[1] + r * Math.sin(turn + (2 * Math.PI * i) / count),
  ];
  const names = Array.from({ length: count }, () => ids("l"));
  // sides that touch the circle leave a rhombus free: the corners are held on a circle of their own
  const around = outside ? ids("c") : circle;
  const curves: Curve[] = names.map((id, i) => ({ id, kind: "line", start: corner(i), end: corner((i + 1) % count) }));
  if (outside) curves.push({ id: around, kind: "circle", centre: c.centre, radius: r, construction: true });
  const constraints = names.flatMap((n, i): Constraint[] => [
    { id: ids("k"), kind: "coincident", of: [`${n}.end`, `${names[(i + 1) % count]!}.start`] },
    { id: ids("k"), kind: "point-on-curve", of: [`${n}.start`, around] },
    ...(i ? [{ id: ids("k"), kind: "equal" as const, of: [names[0]!, n] }] : []),
  ]);
  if (outside)
    constraints.push(
      { id: ids("k"), kind: "concentric", of: [circle, around] },
      { id: ids("k"), kind: "tangent", of: [names[0]!, circle] },
    );
  const group: Group = {
    id: ids("g"),
    kind: "polygon",
    count,
    source: [circle],
    made: curves.map((k) => k.id),
    ...(outside && { outside: true }),
  };
  return done({
    ...sketch,
    curves: [...sketch.curves, ...curves],
    constraints: [...sketch.constraints, ...constraints],
    groups: [...(sketch.groups ?? []), group],
  });
}

function regroupPolygon(sketch: Sketch, group: Group, count: number): Outcome<Sketch> {
  if (count < 3) return refuse("bad-number", "A polygon has at least 3 sides.", []);
  const curve = sketch.curves.find((k) => k.id === group.source[0]);
  if (curve?.kind !== "circle") return refuse("not-a-circle", "The circle of this polygon is gone.", group.source);
  const start = pointAt(sketch, `${group.made[0]!}.start`);
  const gone = new Set(group.made);
  const hung = [...sketch.dimensions, ...sketch.constraints].filter(
    (r) => isDimension(r) && r.of.some((o) => gone.has(curveOf(o))),
  ).length;
  const bare = without({ ...sketch, groups: sketch.groups!.filter((g) => g !== group) }, gone).sketch;
  const made = polygonOn(
    bare,
    curve.id,
    count,
    group.outside ?? false,
    Math.atan2(start[1] - curve.centre[1], start[0] - curve.centre[0]),
  );
  return made.ok
    ? done(made.value, hung ? `${hung} dimension${hung > 1 ? "s" : ""} on its sides went with them.` : undefined)
    : made;
}

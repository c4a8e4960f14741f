import { footOn, type Line } from "@/core/geometry/line";
import { cross3, distance3, dot3, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Gaze } from "@/core/kernel/scene";
import { halfSpace, type Cutter } from "@/core/kernel/section";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "@/core/sizes/anchor";
import type { ViewSpec } from "../layout/layout";
import { reachOf } from "./direction";
import type { SheetModel } from "./model";
import { plansOf } from "./plans";
import { NEAR, TURNED_SHARE } from "../tolerance";
import { GAZES, project, upOf, type Projection, type ViewPlan } from "./views";

/** The views that could show a part, the first of them its main view. */
export function plannedViews(model: SheetModel, projection: Projection): ViewPlan[] {
  const axis = turningAxis(model);
  return axis ? turnedViews(model, axis, projection) : principalViews(model, projection);
}

/** The axis of a part that is turned for the most part; undefined where it is not. */
function turningAxis({ body }: SheetModel): Line | undefined {
  const lines: { line: Line; area: number }[] = [];
  for (const s of body.surfaces) {
    const line = axisOf(s.carrier);
    if (!line || !goesRound(s)) continue;
    const known = lines.find((l) => isParallel(l.line.along, line.along) && offAxis(line.at, l.line) < NEAR);
    if (known) known.area += s.area;
    else lines.push({ line, area: s.area });
  }
  const best = lines.sort((a, b) => b.area - a.area)[0]?.line;
  if (!best) return undefined;
  const all = body.surfaces.reduce((s, f) => s + f.area, 0);
  const turned = body.surfaces.filter((f) => isTurnedAbout(f, best)).reduce((s, f) => s + f.area, 0);
  // a plate with a hole is flat for the most part, and none of its outline is round
  const hasRim = body.surfaces.some((f) => isTurnedAbout(f, best) && isOuterRound(f));
  return hasRim && turned >= TURNED_SHARE * all ? best : undefined;
}

const offAxis = (p: Vec3, line: Line): number => distance3(footOn(p, line), p);
const isOuterRound = (s: Surface) => "hollow" in s.carrier && !s.carrier.hollow;

/** Round about the axis, or flat square to it with a middle on it. */
function isTurnedAbout(s: Surface, axis: Line): boolean {
  if (s.carrier.kind === "plane") return isParallel(s.carrier.normal, axis.along) && offAxis(s.centre, axis) < 1;
  if (s.carrier.kind === "sphere") return offAxis(s.carrier.centre, axis) < NEAR;
  const own = s.carrier.kind === "elliptic" ? undefined : axisOf(s.carrier);
  return !!own && isParallel(own.along, axis.along) && offAxis(own.at, axis) < NEAR;
}

/**
 * A turned part lies as in the lathe, its upper half cut where it is hollow; what stands off its axis wants a second
 * view along it.
 */
function turnedViews(model: SheetModel, axis: Line, projection: Projection): ViewPlan[] {
  const along = positive(axis.along);
  // an axis that points to the viewer of the front view is laid level too
  const toViewer: Vec3 = Math.abs(along[1]) > 0.5 ? [0, 0, 1] : [0, -1, 0];
  const gaze: Gaze = { toViewer: squareTo(toViewer, along), right: along };
  const isHollow = model.body.surfaces.some((s) => isTurnedAbout(s, axis) && "hollow" in s.carrier && s.carrier.hollow);
  const long: ViewPlan = isHollow
    ? { key: "long", name: "long", gaze, hidden: false, isHalf: true, cutters: [upperHalf(model, gaze, axis)] }
    : { key: "long", name: "long", gaze, hidden: false };
  const isOff = model.body.surfaces.some((s) => !isTurnedAbout(s, axis));
  if (!isOff) return [long];
  // in first angle what is seen from the left stands at the right
  const side = projection === "first-angle" ? -1 : 1;
  const seenFrom = (sign: 1 | -1): Gaze => {
    const from = scale3(along, sign);
    return { toViewer: from, right: cross3(upOf(gaze), from) };
  };
  return [
    long,
    { key: "end", name: "end", gaze: seenFrom(side), hidden: false },
    { key: "start", name: "start", gaze: seenFrom(-side as 1 | -1), hidden: false },
    ...crossSections(model, axis, long),
  ];
}

/** Sections across the long view through what stands off the axis and reaches neither end: no end view shows it. */
function crossSections(model: SheetModel, axis: Line, long: ViewPlan): ViewPlan[] {
  const reach = (s: Surface) =>
    reachOf(
      s.keys.flatMap((k) => model.points(k)).map((p) => project(long, p)),
      [1, 0],
    );
  const all = model.body.surfaces.map(reach),
    [start, end] = [Math.min(...all.map((r) => r[0])), Math.max(...all.map((r) => r[1]))];
  const within = model.body.surfaces
    .flatMap((s, i) => (isTurnedAbout(s, axis) ? [] : [all[i]!]))
    .filter(([from, to]) => from > start + NEAR && to < end - NEAR && to - from > NEAR);
  const places = sharedPlaces(within).slice(0, MOST_SECTIONS);
  const specs = places.map((x, i): ViewSpec => {
    const line: [number, number][] = [
      [x, 1],
      [x, -1],
    ];
    return { key: `across-${i + 1}`, look: { from: "section", of: long.key, line, slice: true } };
  });
  return plansOf(model, [{ key: long.key, look: { from: "planned", name: long.name } }, ...specs], [long]).slice(1);
}
const MOST_SECTIONS = 3;

/** As few places as lie within all of some stretches, each in the middle of what its stretches share. */
function sharedPlaces(stretches: readonly (readonly [number, number])[]): number[] {
  const groups: [number, number][] = [];
  for (const [from, to] of [...stretches].sort((a, b) => a[1] - b[1])) {
    const open = groups.find((g) => Math.max(g[0], from) < Math.min(g[1], to) - NEAR);
    if (open) [open[0], open[1]] = [Math.max(open[0], from), Math.min(open[1], to)];
    else groups.push([from, to]);
  }
  return groups.map(([from, to]) => (from + to) / 2);
}

const positive = (d: Vec3): Vec3 => {
  const largest = [0, 1, 2].reduce((m, i) => (Math.abs(d[i]!) > Math.abs(d[m]!) + NEAR ? i : m), 0);
  return d[largest]! < 0 ? scale3(d, -1) : d;
};
function squareTo(d: Vec3, along: Vec3): Vec3 {
  const v = sub3(d, scale3(along, dot3(d, along))),
    l = Math.hypot(...v);
  return scale3(v, 1 / l);
}

/** The quarter towards the viewer and above the axis. */
function upperHalf({ properties: { box } }: SheetModel, gaze: Gaze, axis: Line): Cutter {
  const far = distance3(box.min, box.max) * 2;
  const frame = { origin: axis.at, x: gaze.right, y: upOf(gaze) };
  return halfSpace(frame, [-far, 0], [far, far], far);
}

/** Front, top and side; where much of the front is hidden it is a section through the middle of what is hollow. */
function principalViews(model: SheetModel, projection: Projection): ViewPlan[] {
  const side = projection === "first-angle" ? ("left" as const) : ("right" as const);
  const plain = (["front", "top", side] as const).map((name): ViewPlan => ({
    key: name,
    name,
    gaze: GAZES[name],
    hidden: true,
  }));
  const [front, ...rest] = plain as [ViewPlan, ...ViewPlan[]];
  const cut = hollowCut(model, front.gaze);
  return cut ? [{ ...front, cutters: [cut], hidden: false, letter: "A" }, ...rest] : plain;
}

/** A cut that lays a hollow open: through the axis of a hole that is seen round from the side, or the middle. */
function hollowCut(model: SheetModel, gaze: Gaze): Cutter | undefined {
  const inner = model.body.surfaces.filter((s) => isInner(model, s));
  const area = inner.reduce((s, f) => s + f.area, 0),
    all = model.body.surfaces.reduce((s, f) => s + f.area, 0);
  if (area < HOLLOW_SHARE * all) return undefined;
  const { box } = model.properties;
  const across = model.body.surfaces
    .filter((s) => s.carrier.kind === "cylinder" && s.carrier.hollow && goesRound(s))
    .filter((s) => isSquare(axisOf(s.carrier)!.along, gaze.toViewer))
    .sort((a, b) => b.area - a.area)[0];
  const middle = scale3([box.min[0] + box.max[0], box.min[1] + box.max[1], box.min[2] + box.max[2]], 0.5);
  const origin = across ? axisOf(across.carrier)!.at : middle;
  const far = distance3(box.min, box.max) * 2;
  return halfSpace({ origin, x: gaze.right, y: upOf(gaze) }, [-far, -far], [far, far], far);
}
/** So much of the surface must lie inside. */
const HOLLOW_SHARE = 0.3;

/** Whether a face looks into a hollow: something of the part stands before it on its way out. */
function isInner({ body, properties: { box } }: SheetModel, surface: Surface): boolean {
  const { carrier } = surface;
  // into a bent pipe one looks at its ends
  if (carrier.kind === "torus") return false;
  if (carrier.kind !== "plane") return "hollow" in carrier && carrier.hollow && !goesRound(surface);
  // a wall inside faces another wall: a plane that looks back at it, further out
  return body.surfaces.some((o) => {
    if (o === surface || o.carrier.kind !== "plane" || dot3(o.carrier.normal, carrier.normal) > -1 + NEAR) return false;
    const gap = -o.carrier.offset - carrier.offset;
    const reach = Math.max(...[0, 1, 2].map((i) => box.max[i]! - box.min[i]!));
    return gap > NEAR && gap < reach && o.area > surface.area / 4;
  });
}

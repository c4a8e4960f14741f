import { dot3, scale3, sub3, add3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import type { Gaze } from "@/core/kernel/hidden-lines";
import type { Support } from "@/core/measure/measure";
import { isParallel, lineOf, supportAt, wayOf } from "@/core/sizes/anchor";
import { asLettered, type Lettering } from "@/core/sizes/lettering";
import { facesOfSize, measureSize, sizeText, type Size, type SizeOf } from "@/core/sizes/size";
import type { SheetModel } from "./model";
import { ALONG_VIEW } from "./tolerance";
import { project, type ViewName } from "./views";

export type FlatView = Exclude<ViewName, "pictorial">;

/** A size as it stands on the Sheet, with the points it hangs on in view coordinates (mm). */
export interface DrawnDimension {
  readonly id: string;
  readonly view: FlatView;
  readonly kind: Size["kind"];
  /** Its numbers as lettered: what is behind the last digit printed stays here; mm and radians. */
  readonly values: readonly number[];
  readonly text: string;
  /** Between two points along the view's x or y; else a leader to b, which lies on a circle about a. */
  readonly along?: "x" | "y";
  readonly a: Vec2;
  readonly b: Vec2;
}

const VIEWS: readonly FlatView[] = ["front", "top", "side"];

/** Places a size in the view that shows it; undefined where it cannot be measured or no view looks the right way. */
export function placeSize(
  model: SheetModel,
  size: Size,
  gazes: Record<ViewName, Gaze>,
  lettering: Lettering,
): DrawnDimension | undefined {
  const reading = measureSize(size, model.body.on)[0];
  if (!reading) return undefined;
  const base = {
    id: size.id,
    kind: size.kind,
    values: reading.map((v) => asLettered(v.value, v.quantity, lettering)),
    text: sizeText(size, model.body.on, lettering),
  };
  const straight = size.kind === "distance" ? straightLine(model, size, gazes) : undefined;
  return { ...base, ...(straight ?? leader(model, size, gazes)) };
}

/** A distance along one of the view's own directions. */
function straightLine(
  model: SheetModel,
  size: SizeOf<"distance">,
  gazes: Record<ViewName, Gaze>,
): Pick<DrawnDimension, "view" | "along" | "a" | "b"> | undefined {
  const { on } = model.body;
  const p = supportAt(size.from, on),
    q = supportAt(size.to, on);
  if (!p || !q) return undefined;
  const way = size.along === undefined ? (planeWay(p) ?? planeWay(q)) : wayOf(supportAt([size.along], on));
  const d = way ?? betweenAxes(p, q);
  if (!d) return undefined;
  const end = pointOn(model, size.to, q, undefined),
    start = pointOn(model, size.from, p, end);
  const [near, far] = [reached(start, p, size.sides?.[0], d, end), reached(end, q, size.sides?.[1], d, start)];
  const axes = [lineOf(p), lineOf(q)].filter((l) => l !== undefined).map((l) => l.along);
  const fits = VIEWS.flatMap((view) => {
    const flat = project(gazes[view], d);
    const along =
      Math.abs(flat[0]) > ALONG_VIEW ? ("x" as const) : Math.abs(flat[1]) > ALONG_VIEW ? ("y" as const) : undefined;
    if (!along) return [];
    // best where round things are seen round
    const round = axes.filter((a) => Math.abs(dot3(a, gazes[view].toViewer)) > ALONG_VIEW).length;
    return [{ view, along, round }];
  });
  const best = fits.sort((a, b) => b.round - a.round)[0];
  if (!best) return undefined;
  const gaze = gazes[best.view];
  return { view: best.view, along: best.along, a: project(gaze, near), b: project(gaze, far) };
}

const planeWay = (s: Support): Vec3 | undefined => ("plane" in s ? s.plane.normal : undefined);

function betweenAxes(p: Support, q: Support): Vec3 | undefined {
  const [a, b] = [lineOf(p), lineOf(q)];
  if (!a || !b || !isParallel(a.along, b.along)) return undefined;
  const apart = sub3(b.at, a.at),
    across = sub3(apart, scale3(a.along, dot3(apart, a.along)));
  const length = Math.hypot(...across);
  return length > 0 ? scale3(across, 1 / length) : undefined;
}

/** A point of an anchor to draw from: of a flat face the one nearest to where the dimension goes. */
function pointOn(model: SheetModel, anchor: readonly string[], s: Support, toward: Vec3 | undefined): Vec3 {
  if ("point" in s) return s.point;
  if ("line" in s) return s.centre ?? s.line.at;
  const points = model.points(anchor[0]!);
  const target = toward ?? points[0];
  if (!target) return scale3(s.plane.normal, s.plane.offset);
  const far = (p: Vec3) => dot3(sub3(p, target), sub3(p, target));
  return points.reduce((m, p) => (far(p) < far(m) ? p : m), points[0] ?? target);
}

/** The end moved to the round side that is meant. */
function reached(at: Vec3, s: Support, side: "near" | "far" | "centre" | undefined, d: Vec3, other: Vec3): Vec3 {
  if (!side || side === "centre" || "plane" in s || s.radius === undefined) return at;
  const away = dot3(sub3(at, other), d) >= 0 ? 1 : -1;
  return add3(at, scale3(d, s.radius * away * (side === "far" ? 1 : -1)));
}

/** A leader to the first face of a size, in the view that sees it along its axis, or flat. */
function leader(
  model: SheetModel,
  size: Size,
  gazes: Record<ViewName, Gaze>,
): Pick<DrawnDimension, "view" | "a" | "b"> {
  const face = facesOfSize(size)[0]!;
  const surface = model.body.surfaces.find((s) => s.keys.includes(face)) ?? model.body.surfaces[0]!;
  const c = surface.carrier,
    axis = axisOf(c);
  const look = axis?.along ?? (c.kind === "plane" ? c.normal : undefined);
  const isRound = size.kind === "diameter" || size.kind === "radius";
  // a bevel or an angle is seen from the side, a round thing along its axis
  const along = (view: FlatView) => Math.abs(dot3(look ?? [0, 0, 0], gazes[view].toViewer));
  const view = [...VIEWS].sort((p, q) => (axis || isRound ? along(q) - along(p) : along(p) - along(q)))[0]!;
  if (c.kind === "torus") {
    // a rounding about an axis shows its section from the side
    const side = [...VIEWS].sort((p, q) => along(p) - along(q))[0]!;
    const out = c.major - (c.hollow ? c.minor * Math.SQRT1_2 : -c.minor * Math.SQRT1_2);
    const at = project(gazes[side], add3(surface.centre, scale3(gazes[side].right, out)));
    return { view: side, a: at, b: at };
  }
  const radius = c.kind === "cylinder" || c.kind === "sphere" ? c.radius : 0;
  const middle = radius ? project(gazes[view], axis?.at ?? surface.centre) : project(gazes[view], surface.centre);
  const isSeenRound = radius > 0 && along(view) > ALONG_VIEW;
  const half = isSeenRound ? radius * Math.SQRT1_2 : 0;
  return {
    view,
    a: isSeenRound ? middle : project(gazes[view], surface.centre),
    b: [middle[0] + half, middle[1] + half],
  };
}

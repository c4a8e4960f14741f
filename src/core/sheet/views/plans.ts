import {
  add2,
  add3,
  cross2,
  cross3,
  distance3,
  dot2,
  dot3,
  scale2,
  scale3,
  sub2,
  unit3,
  type Vec2,
  type Vec3,
} from "@/core/geometry/vector";
import type { Gaze } from "@/core/kernel/scene";
import type { Cutter } from "@/core/kernel/section";
import { seenWay } from "./direction";
import type { Look, ViewSpec } from "../layout/layout";
import type { SheetModel } from "./model";
import { ALONG_VIEW, LEVEL } from "../tolerance";
import { GAZES, upOf, type ViewName, type ViewPlan } from "./views";

type Named = keyof typeof GAZES;
const isNamed = (name: string): name is Named => name in GAZES;

/**
 * What a layout's views are drawn by, in their order; a view whose parent or face is lost is left out.
 * @param planned those that the program would choose from
 */
export function plansOf(model: SheetModel, specs: readonly ViewSpec[], planned: readonly ViewPlan[]): ViewPlan[] {
  const done = new Map<string, ViewPlan>();
  for (const spec of specs) {
    const plan = planOf(model, spec, planned, done);
    if (plan) done.set(plan.key, plan);
  }
  return [...done.values()];
}

function planOf(
  model: SheetModel,
  spec: ViewSpec,
  planned: readonly ViewPlan[],
  parents: ReadonlyMap<string, ViewPlan>,
): ViewPlan | undefined {
  const { key, look } = spec;
  const base =
    look.from === "planned"
      ? plannedPlan(look, planned)
      : parents.has(look.of)
        ? takenFrom(model, look, parents.get(look.of)!, spec)
        : undefined;
  if (!base) return undefined;
  const local = spec.local?.map((l) => localCutter(model, base.gaze, l.outline, l.depth)) ?? [];
  const { letter = base.letter } = spec;
  return {
    ...base,
    key,
    ...(letter !== undefined && { letter }),
    ...(spec.scale !== undefined && { scale: spec.scale }),
    ...(spec.hidden !== undefined && { hidden: spec.hidden }),
    ...(spec.tangent !== undefined && { tangent: spec.tangent }),
    ...(spec.only && { only: spec.only }),
    ...(spec.breaks && { breaks: spec.breaks }),
    ...(local.length > 0 && { cutters: [...(base.cutters ?? []), ...local], isLocal: true }),
  };
}

function plannedPlan(
  { name, plain }: Extract<Look, { from: "planned" }>,
  planned: readonly ViewPlan[],
): ViewPlan | undefined {
  const known = planned.find((p) => p.name === name);
  if (known && !plain) return known;
  if (known) {
    const { cutters: _, letter: __, isHalf: ___, ...rest } = known;
    return { ...rest, hidden: true };
  }
  return isNamed(name) ? { key: name, name, gaze: GAZES[name], hidden: name !== "pictorial" } : undefined;
}

type Taken = Exclude<Look, { from: "planned" }>;

function takenFrom(model: SheetModel, look: Taken, parent: ViewPlan, spec: ViewSpec): ViewPlan | undefined {
  if (look.from === "detail") {
    const { centre, radius } = look;
    const { cutters: _, path: __, ...rest } = parent;
    return { ...rest, key: spec.key, name: "detail", of: parent.key, round: { centre, radius } };
  }
  if (look.from === "section") return sectionPlan(model, look, parent, spec.key);
  const surface = model.body.surfaces.find((s) => s.keys.includes(look.face));
  if (surface?.carrier.kind !== "plane") return undefined;
  const gaze = auxiliaryGaze(parent.gaze, surface.carrier.normal);
  return gaze && { key: spec.key, name: "auxiliary", gaze, hidden: false, of: parent.key };
}

/** Looks square at a face that the parent sees edge on, folded over that edge (ISO 128-3: it keeps its direction). */
function auxiliaryGaze(parent: Gaze, normal: Vec3): Gaze | undefined {
  const n = seenWay(parent, normal);
  if (Math.hypot(...n) < ALONG_VIEW) return undefined;
  const edge = cross3(parent.toViewer, normal),
    e = seenWay(parent, edge);
  // what was nearer to the parent's viewer lies nearer to the parent
  const right = add3(scale3(edge, e[0]), scale3(parent.toViewer, -n[0]));
  return { toViewer: unit3(normal), right: unit3(right) };
}

const far = ({ properties: { box } }: SheetModel): number => distance3(box.min, box.max) * 2;

function sectionPlan(
  model: SheetModel,
  { line, flip, slice }: Extract<Look, { from: "section" }>,
  parent: ViewPlan,
  key: string,
): ViewPlan | undefined {
  const first = line[0]!,
    last = line[line.length - 1]!;
  const path = straightened(line);
  const main = mainWay(path) ?? sub2(last, first),
    l = Math.hypot(...main);
  if (l < LEVEL) return undefined;
  const u = scale2(main, 1 / l);
  const lying = Math.abs(u[0]) >= Math.abs(u[1]);
  const side = scale2(usualSide(parent.gaze, u, lying), flip ? -1 : 1);
  const space = (v: Vec2): Vec3 => add3(scale3(parent.gaze.right, v[0]), scale3(upOf(parent.gaze), v[1]));
  const toViewer = unit3(space(side));
  const along = space(u[lying ? 0 : 1] < 0 ? scale2(u, -1) : u);
  const right = lying ? along : cross3(along, toViewer);
  const gaze: Gaze = { toViewer, right: unit3(right) };
  const reach = far(model);
  const cutter = pathCutter(parent.gaze, path, u, side, reach);
  const read = lying ? gaze.right : upOf(gaze);
  const steps = { axis: lying ? (0 as const) : (1 as const), at: path.slice(1, -1).map((p) => dot3(space(p), read)) };
  return {
    key,
    name: "section",
    gaze,
    hidden: false,
    cutters: [cutter],
    of: parent.key,
    path,
    ...(steps.at.length > 0 && { steps }),
    ...(slice && { isSlice: true }),
  };
}

/** Which side a section is looked at from: a level line from above, in a plan from the front, others from the left. */
function usualSide(parent: Gaze, u: Vec2, lying: boolean): Vec2 {
  const square: Vec2 = [-u[1], u[0]];
  const isPlan = parent.toViewer[2] > 0.5;
  const wanted: Vec2 = lying ? [0, isPlan ? -1 : 1] : [-1, 0];
  return dot2(square, wanted) < 0 ? scale2(square, -1) : square;
}

/** Nearly level and nearly upright pieces are just that. */
function straightened(line: readonly Vec2[]): Vec2[] {
  const out: Vec2[] = [line[0]!];
  for (const p of line.slice(1)) {
    const q = out[out.length - 1]!,
      d = sub2(p, q);
    if (Math.abs(d[1]) < NEARLY * Math.abs(d[0])) out.push([p[0], q[1]]);
    else if (Math.abs(d[0]) < NEARLY * Math.abs(d[1])) out.push([q[0], p[1]]);
    else out.push(p);
  }
  return out;
}
const NEARLY = 0.02;

/** The way of the longest piece: what is cut square to it is only a step. */
function mainWay(path: readonly Vec2[]): Vec2 | undefined {
  const pieces = path.slice(1).map((p, i) => sub2(p, path[i]!));
  return pieces.reduce<Vec2 | undefined>(
    (best, d) => (best && Math.hypot(...best) >= Math.hypot(...d) ? best : d),
    undefined,
  );
}

/** All that lies between a line that may step and its viewer. */
function pathCutter(parent: Gaze, path: readonly Vec2[], u: Vec2, side: Vec2, reach: number): Cutter {
  const first = path[0]!,
    last = path[path.length - 1]!;
  const away = (p: Vec2, way: Vec2) => add2(p, scale2(way, reach));
  const startsAlong = Math.abs(dot2(unit2(sub2(path[1]!, first)), u)) > ALONG_VIEW,
    endsAlong = Math.abs(dot2(unit2(sub2(last, path[path.length - 2]!)), u)) > ALONG_VIEW;
  const forwards = dot2(sub2(last, first), u) >= 0 ? u : scale2(u, -1);
  // a piece that runs along goes on past the part; one that runs to the viewer ends the cut: a half section
  const start = startsAlong ? away(first, scale2(forwards, -1)) : away(first, side),
    end = endsAlong ? away(last, forwards) : away(last, side);
  const cut = [start, ...path.slice(1, -1), end];
  const outer = [away(end, side), away(start, side)];
  let outline = [...cut, ...outer];
  const isAlong = (i: number) =>
    i < cut.length - 1 && Math.abs(dot2(unit2(sub2(outline[i + 1]!, outline[i]!)), u)) > ALONG_VIEW;
  let opens = cut.flatMap((_, i) => (isAlong(i) ? [i] : []));
  // an outline runs counter-clockwise
  if (areaOf(outline) < 0) {
    const n = outline.length;
    outline = [...outline].reverse();
    opens = opens.map((i) => (n - 2 - i + n) % n);
  }
  const frame = { origin: [0, 0, 0] as const, x: parent.right, y: upOf(parent) };
  return { frame, outline, from: -reach, to: reach, opens };
}
const unit2 = (v: Vec2): Vec2 => scale2(v, 1 / (Math.hypot(...v) || 1));

const areaOf = (outline: readonly Vec2[]): number =>
  outline.reduce((s, p, i) => s + cross2(p, outline[(i + 1) % outline.length]!), 0) / 2;

/** A local section: an outline in the view, laid open down to a depth below what is nearest to the viewer. */
function localCutter(model: SheetModel, gaze: Gaze, outline: readonly Vec2[], depth: number | undefined): Cutter {
  const { min, max } = model.properties.box;
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i): Vec3 => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ]);
  const heights = corners.map((p) => dot3(p, gaze.toViewer)),
    nearest = Math.max(...heights);
  const level = depth === undefined ? (nearest + Math.min(...heights)) / 2 : nearest - depth;
  const frame = { origin: scale3(gaze.toViewer, level), x: gaze.right, y: upOf(gaze) };
  return {
    frame,
    outline: areaOf(outline) < 0 ? [...outline].reverse() : outline,
    from: 0,
    to: far(model),
    opens: "start",
  };
}

/** What a view is called. */
export const titleOf = ({ name, letter }: Pick<ViewPlan, "name" | "letter">): string =>
  letter ? `${TITLES[name]} ${letter}` : TITLES[name];

const TITLES: Record<ViewName, string> = {
  front: "Front view",
  top: "Top view",
  left: "View from the left",
  right: "View from the right",
  bottom: "View from below",
  rear: "View from behind",
  long: "Long view",
  start: "View along the axis",
  end: "View along the axis",
  pictorial: "Pictorial view",
  section: "Section",
  detail: "Detail",
  auxiliary: "Auxiliary view",
};

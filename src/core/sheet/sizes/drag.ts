import { add2, distance2, sub2, type Vec2 } from "@/core/geometry/vector";
import { angularTowards } from "./angular";
import type { Composition } from "../layout/compose";
import type { Place, Remark } from "../layout/layout";
import { touching } from "./leader";
import { paperOf, type Placed } from "./placed";
import { boxAround, grown, type Box } from "../plane";
import type { Presentation } from "./presentation";
import { sizeOf } from "../views/seen";
import { middleOf, onSheet, type Standing } from "../layout/standing";
import { straightTowards } from "./straight";
import { isParallel } from "@/core/sizes/anchor";
import { upOf } from "../views/views";

/** So far around a view a size that is pulled there belongs to it, mm. */
const AROUND = 14;
/** Views that stand so near to one line are in projection, mm. */
const SAME_LINE = 0.05;
/** Views pulled so near into line go there, mm. */
const IN_LINE = 4;

const fromSheet = ({ corner }: Standing, [x, y]: Vec2): Vec2 => [x - corner[0], corner[1] - y];
const zoneOf = (s: Standing): Box => {
  const { min, max } = s.view.box;
  const corners = [min, max].map((p) => onSheet(s)(paperOf(s.view, s.scale)(p)));
  return grown(boxAround(corners), AROUND);
};
const holds = ({ min, max }: Box, [x, y]: Vec2): boolean => x > min[0] && x < max[0] && y > min[1] && y < max[1];

/** What stands at a view under the id of one of its lines. */
export function placedOf(c: Composition, id: string): { readonly s: Standing; readonly p: Placed } | undefined {
  for (const s of c.views) {
    const p = s.placed.find((o) => o.item.lines.some((l) => l.id === id));
    if (p) return { s, p };
  }
  return undefined;
}

/**
 * Where a size stands when its number is pulled to a place of the Sheet: at its own view, or at another that shows it.
 * Tidy places draw it in.
 * @param to mm from the upper left corner of the paper, the middle of the number
 */
export function pulledSize(composition: Composition, id: string, to: Vec2): Place | undefined {
  const found = placedOf(composition, id);
  if (!found) return undefined;
  const { s, p } = found,
    { item } = p;
  const shows = (o: Standing) => item.presentations.filter((q) => q.view === o.view);
  const other = composition.views.find((o) => o !== s && holds(zoneOf(o), to) && shows(o).length > 0);
  const isOverOwn = holds(zoneOf(s), to);
  const target = other && !isOverOwn ? other : s;
  const ways = shows(target);
  const own = ways.find((w) => target === s && p.place && isSameWay(w, p.place)) ?? ways[0];
  return own && towards(p, own, target, to, composition.paper.letter);
}

function isSameWay(w: Presentation, place: Place): boolean {
  if (w.form !== place.form) return false;
  if (w.form === "leader" || place.form === "leader") return true;
  return distance2(w.form === "straight" ? w.a.at : w.vertex, place.of) < sizeOf(w.view) / 1000;
}

function towards(p: Placed, way: Presentation, s: Standing, to: Vec2, letter: number): Place {
  const local = fromSheet(s, to),
    { item } = p,
    view = s.view.key;
  if (way.form === "straight")
    return {
      form: "straight",
      view,
      of: [...way.a.at],
      ...straightTowards(item, way, local, s.scale, letter),
      ...(p.place?.form === "straight" && p.place.ordinate && { ordinate: true }),
    };
  if (way.form === "angular")
    return { form: "angular", view, of: [...way.vertex], ...angularTowards(item, way, local, s.scale, letter) };
  const before = p.place?.form === "leader" && p.view === s.view ? p.place.tip : way.tips[0]!.at;
  const tip = paperOf(s.view, s.scale)(before);
  // the number is pulled: the elbow is at its nearer end
  const half = (p.box.max[0] - p.box.min[0]) / 4;
  const elbow = sub2(local, tip);
  const at = touching(
    way,
    { tip: before, elbow: [elbow[0] + (elbow[0] < 0 ? half : -half), elbow[1]] },
    s.scale,
    sizeOf(s.view),
  );
  const [t, e] = at ? [at.tip, at.elbow] : [before, elbow];
  return { form: "leader", view, tip: [...t], elbow: [...e] };
}

/** A remark whose words are pulled to a place of the Sheet. */
export function pulledRemark(c: Composition, remark: Remark, to: Vec2): Remark {
  const s = c.views.find((o) => o.view.key === remark.view);
  if (!s) return remark;
  const elbow = sub2(fromSheet(s, to), paperOf(s.view, s.scale)(remark.tip));
  return { ...remark, elbow: [...elbow] };
}

/** The middle of a view that is pulled: drawn into line with views that share a direction with it. */
export function pulledView(c: Composition, key: string, to: Vec2): Vec2 {
  const own = c.views.find((s) => s.view.key === key);
  if (!own) return to;
  let [x, y] = to;
  for (const o of c.views) {
    if (o === own || o.scale !== own.scale) continue;
    const [ox, oy] = inLine(own, o);
    if (isParallel(o.view.gaze.right, own.view.gaze.right) && Math.abs(ox - to[0]) < IN_LINE) x = ox;
    if (isParallel(upOf(o.view.gaze), upOf(own.view.gaze)) && Math.abs(oy - to[1]) < IN_LINE) y = oy;
  }
  return [x, y];
}

/**
 * A view that is pulled, and the views in projection with it: what stands over or under it goes along across, what
 * stands beside it upwards and downwards, so that all stay in line. @returns the middle of each, the pulled one's first
 */
export function pulledTogether(
  composition: Composition,
  key: string,
  to: Vec2,
): { readonly key: string; readonly middle: Vec2 }[] {
  const own = composition.views.find((s) => s.view.key === key);
  if (!own) return [];
  const before = middleOf(own);
  const along = composition.views.flatMap((o) => {
    if (o === own || o.scale !== own.scale) return [];
    const [ox, oy] = inLine(own, o);
    const isOver = isParallel(o.view.gaze.right, own.view.gaze.right) && Math.abs(ox - before[0]) < SAME_LINE;
    const isBeside = isParallel(upOf(o.view.gaze), upOf(own.view.gaze)) && Math.abs(oy - before[1]) < SAME_LINE;
    return isOver || isBeside ? [{ o, isOver, isBeside }] : [];
  });
  if (!along.length) return [{ key, middle: pulledView(composition, key, to) }];
  const [dx, dy] = sub2(to, before);
  const moved = along.map(({ o, isOver, isBeside }) => ({
    key: o.view.key,
    middle: add2(middleOf(o), [isOver ? dx : 0, isBeside ? dy : 0]),
  }));
  return [{ key, middle: to }, ...moved];
}

/** Where the middle of a view is in line with another, across and upwards: the same point stands at the same level. */
function inLine(own: Standing, o: Standing): Vec2 {
  const zero = onSheet(o)(paperOf(o.view, o.scale)([0, 0])),
    mine = onSheet(own)(paperOf(own.view, own.scale)([0, 0]));
  return add2(middleOf(own), sub2(zero, mine));
}

/** A place of the Sheet in a view's own coordinates, mm of the part; undefined where no view is near. */
export function placeInView(c: Composition, at: Vec2): { readonly view: string; readonly at: Vec2 } | undefined {
  const s = c.views.find((o) => o.view.name !== "pictorial" && holds(zoneOf(o), at));
  if (!s) return undefined;
  const [x, y] = fromSheet(s, at),
    { min } = s.view.box;
  return { view: s.view.key, at: [x / s.scale + min[0], y / s.scale + min[1]] };
}

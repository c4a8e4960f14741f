import { add2, dot3, scale2, sub2, type Vec2 } from "@/core/geometry/vector";
import { onCut } from "@/core/kernel/section";
import { seenWay } from "./direction";
import { paperOf, type Placed, type PlacedText } from "../sizes/placed";
import { boxAround, joinedBoxes, type Box, type Segment } from "../plane";
import { ALONG_VIEW } from "../tolerance";
import { project, upOf, type View } from "./views";

/** A cutting line or a circle around a detail, as something that sizes keep clear of. */
export interface Fixture extends Placed {
  /** Drawn as a chain, between the ends. */
  readonly chain: readonly Segment[];
}

/** Where a section runs, seen edge on in another view. */
interface CuttingLine {
  readonly letter: string;
  /** Level along the view's own x or y, mm of the part. */
  readonly along: "x" | "y";
  readonly level: number;
  /** Which way the section is looked at: towards more or less across. */
  readonly sense: 1 | -1;
}

/** How far its ends stand off the outline, their length, and that of the arrows; mm of paper. */
const OFF = 8;
const LONG = 5;
const ARM = 7;

/**
 * What other views draw into this one: the ends of cutting lines with arrows and letters, circles around details; paper
 * mm from the view's lower left corner. A plain section's line stands in the first view that sees its plane edge on.
 */
export function fixtures(view: View, views: readonly View[], scale: number, letter: number): Fixture[] {
  return views.flatMap((o) => {
    if (!o.letter) return [];
    if (o.round && o.of === view.key) return [circle(o, view, scale, letter)];
    if (o.path) return o.of === view.key ? along(o, view, scale, letter) : [];
    if (!o.cutters || o.round || views.find((v) => lineIn(v, o)) !== view) return [];
    return ends(lineIn(view, o)!, view, scale, letter);
  });
}

function lineIn(view: View, o: View): CuttingLine | undefined {
  const [cutter] = o.cutters ?? [];
  if (view === o || view.name === "pictorial" || view.round || !cutter || !o.letter) return undefined;
  const at = project(view, onCut(cutter));
  const [right, up] = [dot3(o.gaze.toViewer, view.gaze.right), dot3(o.gaze.toViewer, upOf(view.gaze))];
  // arrows show the way one looks: against where the viewer stands
  if (Math.abs(up) > ALONG_VIEW) return { letter: o.letter, along: "x", level: at[1], sense: up > 0 ? -1 : 1 };
  if (Math.abs(right) > ALONG_VIEW) return { letter: o.letter, along: "y", level: at[0], sense: right > 0 ? -1 : 1 };
  return undefined;
}

function ends({ letter, along, level, sense }: CuttingLine, view: View, scale: number, height: number): Fixture[] {
  const [i, k] = along === "x" ? ([0, 1] as const) : ([1, 0] as const);
  const at = (level - view.box.min[k]) * scale,
    long = paperOf(view, scale)(view.box.max)[i];
  const point = (u: number, v: number): Vec2 => (i === 0 ? [u, v] : [v, u]);
  const looks: Vec2 = point(0, sense);
  return [-OFF, long + OFF].map((u, n) =>
    lineEnd(view, letter, point(u, at), point(n === 0 ? 1 : -1, 0), looks, height),
  );
}

/** An end of a cutting line: a wide piece, an arrow on it that shows the way one looks, and the letter outside. */
function lineEnd(view: View, letter: string, foot: Vec2, inward: Vec2, looks: Vec2, height: number): Fixture {
  const tip = add2(foot, scale2(looks, ARM));
  const extensions: Segment[] = [[foot, add2(foot, scale2(inward, LONG))]],
    lines: Segment[] = [[foot, tip]];
  const text = lettered(letter, add2(add2(foot, scale2(inward, -3)), scale2(looks, 4)), height);
  return fixture(view, { extensions, lines, arrows: [{ tip, way: looks }], texts: [text] });
}

/** A line that may step, in the view it was drawn in. */
function along(o: View, view: View, scale: number, height: number): Fixture[] {
  const toPaper = paperOf(view, scale),
    size = toPaper(view.box.max);
  const path = o.path!.map(toPaper);
  const looksIn = seenWay(view.gaze, o.gaze.toViewer),
    looks = scale2(looksIn, -1);
  const unit = (v: Vec2) => scale2(v, 1 / (Math.hypot(...v) || 1));
  const end = (p: Vec2, next: Vec2): { foot: Vec2; inward: Vec2 } => {
    const inward = unit(sub2(next, p));
    // past the outline, however short it was drawn
    const out = Math.max(0, OFF + beyond(p, scale2(inward, -1), size));
    return { foot: add2(p, scale2(inward, -out)), inward };
  };
  const [first, last] = [end(path[0]!, path[1]!), end(path[path.length - 1]!, path[path.length - 2]!)];
  const corners = [first.foot, ...path.slice(1, -1), last.foot];
  const chain = corners.slice(1).map((p, i): Segment => [corners[i]!, p]);
  const bends = path
    .slice(1, -1)
    .flatMap((p, i): Segment[] =>
      [corners[i]!, corners[i + 2]!].map((q): Segment => [p, add2(p, scale2(unit(sub2(q, p)), BEND))]),
    );
  const [a, b] = [first, last].map((e) => {
    // a piece that runs towards the viewer ends without an arrow
    const isAlong = Math.abs(e.inward[0] * looks[0] + e.inward[1] * looks[1]) < 0.5;
    if (isAlong) return lineEnd(view, o.letter!, e.foot, e.inward, looks, height);
    return fixture(view, { extensions: [[e.foot, add2(e.foot, scale2(e.inward, LONG))]] });
  }) as [Fixture, Fixture];
  return [{ ...a, chain, extensions: [...a.extensions, ...bends] }, b];
}
const BEND = 3;

/** How far a point still is from the edge of the view along a direction; less than nothing where it is past it. */
function beyond(p: Vec2, way: Vec2, size: Vec2): number {
  const to = ([0, 1] as const).flatMap((i) => {
    if (Math.abs(way[i]) < 1 - ALONG_VIEW) return [];
    return [way[i] > 0 ? (size[i] - p[i]) / way[i] : -p[i] / way[i]];
  });
  return Math.min(...to);
}

/** The circle around what a detail enlarges, its letter at the upper right. */
function circle(o: View, view: View, scale: number, height: number): Fixture {
  const { centre: c, radius } = o.round!;
  const centre = paperOf(view, scale)(c),
    r = radius * scale;
  const at = add2(centre, scale2([Math.SQRT1_2, Math.SQRT1_2], r + height));
  const arc = { centre, radius: r, from: 0, to: 2 * Math.PI };
  const lines = Array.from({ length: ROUND }, (_, i): Segment => [
    onRing(centre, r, (i / ROUND) * 2 * Math.PI),
    onRing(centre, r, ((i + 1) / ROUND) * 2 * Math.PI),
  ]);
  return { ...fixture(view, { lines, texts: [lettered(o.letter!, at, height)] }), arc };
}
const ROUND = 24;
const onRing = (c: Vec2, r: number, angle: number): Vec2 => [c[0] + r * Math.cos(angle), c[1] + r * Math.sin(angle)];

function lettered(letter: string, middle: Vec2, height: number): PlacedText {
  const tall = height * 1.2;
  const box: Box = {
    min: [middle[0] - tall / 2, middle[1] - tall / 2],
    max: [middle[0] + tall / 2, middle[1] + tall / 2],
  };
  const line = { id: "", kind: "letter" as const, text: letter, values: [] };
  return { line, at: [middle[0], box.min[1]], anchor: "middle", turn: 0, box };
}

function fixture(view: View, own: Partial<Pick<Placed, "lines" | "extensions" | "arrows" | "texts">>): Fixture {
  const { lines = [], extensions = [], arrows = [], texts = [] } = own;
  const around = boxAround([...lines, ...extensions].flat());
  return {
    item: { lines: [], presentations: [] },
    view,
    texts,
    lines,
    extensions,
    arrows,
    chain: [],
    box: joinedBoxes([...texts.map((t) => t.box), around]),
    own: 0,
  };
}

import type { Group, Mark, Measured, Pen } from "@/core/formats/drawing";
import type { Vec2 } from "@/core/geometry/vector";
import { ARROW } from "../sizes/straight";
import { paperOf, type Placed, type PlacedText } from "../sizes/placed";
import { centresOf } from "../views/centres";
import { clippedSegment } from "../views/clip";
import { hatched } from "../views/hatch";
import type { SheetModel } from "../views/model";
import type { Stroke } from "../views/outline";
import { scaleText, type Paper } from "../layout/paper";
import { heightOf, widthOf, type Box, type Segment } from "../plane";
import type { Size } from "@/core/sizes/size";
import { LENGTHS, type LengthUnit } from "@/core/units/expression";
import { fixtures, type Fixture } from "../views/cutting";
import { titleOf } from "../views/plans";
import { onSheet, type Standing } from "../layout/standing";
import { threadMarks } from "../views/threads";
import { drawnGaps, isWithin, type View } from "../views/views";

/** A view's lines, hatch, centre lines and letters. */
export function viewGroup(
  s: Standing,
  model: SheetModel,
  sizes: readonly Size[],
  paper: Paper,
  views: readonly View[],
): Group {
  const { view, scale } = s;
  const put = onSheet(s),
    local = paperOf(view, scale),
    place = (p: Vec2) => put(local(p));
  const strokes = [...view.strokes].sort((a, b) => Number(b.hidden) - Number(a.hidden));
  const { lines, arcs } = centresOf(model, sizes, view, scale);
  const open = s.placed.flatMap((p) => p.texts.map((t) => t.box));
  const largest = (body: number) => Math.max(...view.cuts.flatMap((f) => (f.body === body ? [f.area] : [])));
  const hatch = view.cuts.flatMap((f) => {
    const bounds = f.bounds.map(([a, b]): Segment => [local(a), local(b)]);
    // alike all over one body
    const apart = largest(f.body) * scale ** 2 > WIDE_AREA ? 3.5 : 2.2;
    // each body its own slope
    return hatched(bounds, apart, open, f.body % 2 === 1).flatMap((h) => limitedTo(view, scale, h));
  });
  const marks: Mark[] = [
    ...hatch.map(([a, b]): Mark => ({ mark: "line", pen: "hatch", a: put(a), b: put(b) })),
    ...strokes.map((t) => strokeMark(t, place, scale)),
    ...threadMarks(model, sizes, view, scale, place),
    ...lines.map(([a, b]): Mark => ({ mark: "line", pen: "centre", a: place(a), b: place(b) })),
    ...arcs.map(({ centre, radius, from, to }): Mark => ({
      mark: "arc",
      pen: "centre",
      centre: place(centre),
      radius: radius * scale,
      from,
      to,
    })),
    ...fixtures(view, views, scale, paper.letter).flatMap((f) => fixtureMarks(f, put, paper)),
    ...(view.round ? [rim(view, place, scale)] : []),
    ...breakLines(view, local, put),
    ...(view.letter ? [sectionTitle(view, s, paper, views)] : []),
  ];
  const [x, y] = s.corner,
    [w, h] = [widthOf(view.box) * scale, heightOf(view.box) * scale];
  return { role: "view", name: view.key, title: titleOf(view), patch: [x - 2, y - h - 2, w + 4, h + 4], marks };
}
const WIDE_AREA = 900;

/** What of a hatch line a detail or a partial view shows; paper mm. */
function limitedTo(view: View, scale: number, [a, b]: Segment): readonly Segment[] {
  if (!view.round && !view.only && !view.breaks) return [[a, b]];
  const { min } = view.box;
  const isShown = ([x, y]: Vec2) => isWithin(view, [x / scale + min[0], y / scale + min[1]], 0);
  return clippedSegment(a, b, isShown, 1);
}

/** A stroke of a view on paper. @param place from the view's coordinates to the paper's */
export function strokeMark(s: Stroke, place: (p: Vec2) => Vec2, scale: number): Mark {
  const pen: Pen = s.tangent ? "thin" : s.hidden ? "hidden" : "outline";
  if (s.kind === "line") return { mark: "line", pen, a: place(s.a), b: place(s.b) };
  if (s.kind === "path") return { mark: "path", pen, points: s.points.map(place) };
  return { mark: "arc", pen, centre: place(s.centre), radius: s.radius * scale, from: s.from, to: s.to };
}

/** Thin lines with a bend at both sides of what an interrupted view leaves out (ISO 128-2). */
function breakLines(view: View, local: (p: Vec2) => Vec2, put: (p: Vec2) => Vec2): Mark[] {
  return drawnGaps(view).flatMap((g) => {
    const [i, k] = g.along === "x" ? ([0, 1] as const) : ([1, 0] as const);
    const [low, high] = [view.box.min, view.box.max].map((p) => local(p)[k]) as [number, number];
    return [g.from, g.to].map((v): Mark => {
      const at = local(g.along === "x" ? [v, 0] : [0, v])[i],
        middle = (low + high) / 2;
      const bends = [
        [0, low - BREAK_PAST],
        [0, middle - BEND],
        [BEND, middle - BEND / 2],
        [-BEND, middle + BEND / 2],
        [0, middle + BEND],
        [0, high + BREAK_PAST],
      ] as const;
      const points = bends.map(([off, along]) => put(i === 0 ? [at + off, along] : [along, at + off]));
      return { mark: "path", pen: "thin", points };
    });
  });
}
const BREAK_PAST = 2;
const BEND = 1.5;

/** The circle that ends a detail. */
const rim = ({ round }: View, place: (p: Vec2) => Vec2, scale: number): Mark => ({
  mark: "arc",
  pen: "thin",
  centre: place(round!.centre),
  radius: round!.radius * scale,
  from: 0,
  to: 2 * Math.PI,
});

/** Above the view and its sizes, with its letters, and its scale where that is its own. */
function sectionTitle(view: View, s: Standing, paper: Paper, views: readonly View[]): Mark {
  const boxes: readonly Box[] = [...s.placed, ...fixtures(view, views, s.scale, paper.letter)].map((p) => p.box);
  const top = Math.max(heightOf(view.box) * s.scale, ...boxes.map((b) => b.max[1]));
  const at = onSheet(s)([(widthOf(view.box) * s.scale) / 2, top + 3]);
  const letters = view.round ? view.letter! : `${view.letter}–${view.letter}`;
  const text = view.scale === undefined ? letters : `${letters} (${scaleText(view.scale)})`;
  return { mark: "text", at, text, height: paper.letter * 1.2, anchor: "middle" };
}

function fixtureMarks(fixture: Fixture, put: (p: Vec2) => Vec2, paper: Paper): Mark[] {
  return [
    ...fixture.extensions.map(([a, b]): Mark => ({ mark: "line", pen: "frame", a: put(a), b: put(b) })),
    ...fixture.chain.map(([a, b]): Mark => ({ mark: "line", pen: "centre", a: put(a), b: put(b) })),
    ...thinLines(fixture, put),
    ...fixture.arrows.map(({ tip, way }) => head(put(tip), [way[0], -way[1]], paper)),
    ...fixture.texts.map((t): Mark => ({
      mark: "text",
      at: put(t.at),
      text: t.line.text,
      height: paper.letter * 1.2,
      anchor: "middle",
    })),
  ];
}

/** The lines of all views that belong to what a size measures; mm of the sheet. */
export function lightsOf(views: readonly Standing[], faces: readonly string[]): readonly (readonly Vec2[])[] {
  const own = new Set(faces);
  return views.flatMap((s) => {
    const local = paperOf(s.view, s.scale),
      put = onSheet(s);
    return s.view.byFace.flatMap((l) => (l.faces.some((f) => own.has(f)) ? [l.points.map((p) => put(local(p)))] : []));
  });
}

/** A filled head of 15° that touches at its tip. */
function head(tip: Vec2, way: Vec2, paper: Paper): Mark {
  const l = Math.hypot(...way),
    size = ARROW * (paper.letter > 4 ? 1.4 : 1);
  const u: Vec2 = [way[0] / l, way[1] / l],
    w = size * Math.tan(Math.PI / 24);
  const base: Vec2 = [tip[0] - u[0] * size, tip[1] - u[1] * size];
  return {
    mark: "fill",
    points: [tip, [base[0] - u[1] * w, base[1] + u[0] * w], [base[0] + u[1] * w, base[1] - u[0] * w]],
  };
}

/** A dimension line, a leader, or the arc in their place. */
function thinLines({ arc, lines }: Placed, put: (p: Vec2) => Vec2): Mark[] {
  if (arc) return [{ mark: "arc", pen: "thin", ...arc, centre: put(arc.centre) }];
  return lines.map(([a, b]): Mark => ({ mark: "line", pen: "thin", a: put(a), b: put(b) }));
}

/** What a straight dimension or an angle runs between. */
function measuredBy(p: Placed, put: (p: Vec2) => Vec2, scale: number): { measures?: Measured } {
  const [first, second] = p.arrows,
    [a, b] = p.extensions;
  if (p.tier && a && b && first)
    return {
      measures: {
        kind: "straight",
        from: put(a[0]),
        to: put(b[0]),
        on: put(first.tip),
        turn: p.texts[0]!.turn,
        scale,
      },
    };
  if (!p.arc || !first || !second) return {};
  const { centre, radius, from, to } = p.arc,
    middle = (from + to) / 2;
  const on: Vec2 = [centre[0] + radius * Math.cos(middle), centre[1] + radius * Math.sin(middle)];
  return {
    measures: { kind: "angular", vertex: put(centre), from: put(first.tip), to: put(second.tip), on: put(on) },
  };
}

const lettering = (t: PlacedText, put: (p: Vec2) => Vec2, paper: Paper): Mark => ({
  mark: "text",
  at: put(t.at),
  text: t.line.text,
  height: paper.letter,
  anchor: t.anchor,
  turn: t.turn,
});

/**
 * The groups of a placed item: one for each size it stands for; line and heads go with the first.
 * @param lights the lines of all views that belong to a size, by its id @param unit in which sizes are lettered
 */
export function dimensionGroups(
  p: Placed,
  s: Standing,
  paper: Paper,
  lights: (id: string) => readonly (readonly Vec2[])[],
  unit: LengthUnit,
): Group[] {
  const put = onSheet(s);
  const extensions = p.extensions.map(([a, b]): Mark => ({ mark: "line", pen: "thin", a: put(a), b: put(b) }));
  const lines = [...extensions, ...thinLines(p, put)];
  const heads = p.arrows.map(({ tip, way }) => head(put(tip), [way[0], -way[1]], paper));
  const zeros = p.texts.filter((t) => t.line.kind === "letter").map((t) => lettering(t, put, paper));
  const said = p.texts.filter((t) => t.line.kind !== "letter");
  return said.map((text, i): Group => {
    const { id, kind } = text.line;
    const corner = put([text.box.min[0], text.box.max[1]]);
    return {
      role: kind === "remark" ? "remark" : "dimension",
      name: id,
      title: kind,
      ...(i === 0 && measuredBy(p, put, s.scale * LENGTHS[unit]!)),
      patch: [corner[0] - 1, corner[1] - 1, widthOf(text.box) + 2, heightOf(text.box) + 2],
      marks: [
        { mark: "light", lines: lights(id) },
        ...(i === 0 ? [...lines, ...heads, ...zeros] : []),
        lettering(text, put, paper),
      ],
    };
  });
}

import type { Group, Mark, Pen } from "@/core/formats/drawing";
import type { Vec2 } from "@/core/geometry/vector";
import { ARROW } from "./candidates";
import { paperOf, type Placed } from "./placed";
import { centresOf } from "./centres";
import type { Standing } from "./compose";
import { hatched } from "./hatch";
import type { SheetModel } from "./model";
import type { Stroke } from "./outline";
import type { Paper } from "./paper";
import { heightOf, widthOf, type Box, type Segment } from "./plane";
import type { Size } from "@/core/sizes/size";
import { fixtures } from "./cutting";
import type { View, ViewName } from "./views";

/** From a view's own paper coordinates (mm from its lower left corner, y upwards) to those of the sheet. */
const onSheet =
  ({ corner }: Standing) =>
  ([x, y]: Vec2): Vec2 => [corner[0] + x, corner[1] - y];

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
  const { lines, circles } = centresOf(model, sizes, view, scale);
  const open = s.placed.flatMap((p) => p.texts.map((t) => t.box));
  const hatch = view.cuts.flatMap((f) => {
    const bounds = f.bounds.map(([a, b]): Segment => [local(a), local(b)]);
    const apart = f.area * scale ** 2 > WIDE_AREA ? 3.5 : 2.2;
    return hatched(bounds, apart, open);
  });
  const marks: Mark[] = [
    ...hatch.map(([a, b]): Mark => ({ mark: "line", pen: "hatch", a: put(a), b: put(b) })),
    ...strokes.map((t) => strokeMark(t, place, scale)),
    ...lines.map(([a, b]): Mark => ({ mark: "line", pen: "centre", a: place(a), b: place(b) })),
    ...circles.map((c): Mark => ({
      mark: "arc",
      pen: "centre",
      centre: place(c.centre),
      radius: c.radius * scale,
      from: 0,
      to: 2 * Math.PI,
    })),
    ...fixtures(view, views, scale, paper.letter).flatMap((f) => fixtureMarks(f, put, paper)),
    ...(view.letter ? [sectionTitle(view, s, paper)] : []),
  ];
  const [x, y] = s.corner,
    [w, h] = [widthOf(view.box) * scale, heightOf(view.box) * scale];
  return { role: "view", name: view.name, title: TITLES[view.name], patch: [x - 2, y - h - 2, w + 4, h + 4], marks };
}
const WIDE_AREA = 900;

const TITLES: Record<ViewName, string> = {
  front: "Front view",
  top: "Top view",
  left: "View from the left",
  right: "View from the right",
  long: "Long view",
  start: "View along the axis",
  end: "View along the axis",
  pictorial: "Pictorial view",
};

/** A stroke of a view on paper. @param place from the view's coordinates to the paper's */
export function strokeMark(s: Stroke, place: (p: Vec2) => Vec2, scale: number): Mark {
  const pen: Pen = s.tangent ? "thin" : s.hidden ? "hidden" : "outline";
  if (s.kind === "line") return { mark: "line", pen, a: place(s.a), b: place(s.b) };
  if (s.kind === "path") return { mark: "path", pen, points: s.points.map(place) };
  return { mark: "arc", pen, centre: place(s.centre), radius: s.radius * scale, from: s.from, to: s.to };
}

/** Above the view and its sizes, with its letters. */
function sectionTitle(view: View, s: Standing, paper: Paper): Mark {
  const boxes: readonly Box[] = s.placed.map((p) => p.box);
  const top = Math.max(heightOf(view.box) * s.scale, ...boxes.map((b) => b.max[1]));
  const at = onSheet(s)([(widthOf(view.box) * s.scale) / 2, top + 3]);
  const text = `${view.letter}–${view.letter}`;
  return { mark: "text", at, text, height: paper.letter * 1.2, anchor: "middle" };
}

function fixtureMarks(f: Placed, put: (p: Vec2) => Vec2, paper: Paper): Mark[] {
  return [
    ...f.extensions.map(([a, b]): Mark => ({ mark: "line", pen: "frame", a: put(a), b: put(b) })),
    ...f.lines.map(([a, b]): Mark => ({ mark: "line", pen: "thin", a: put(a), b: put(b) })),
    ...f.arrows.map(({ tip, way }) => head(put(tip), [way[0], -way[1]], paper)),
    ...f.texts.map((t): Mark => ({
      mark: "text",
      at: put(t.at),
      text: t.line.text,
      height: paper.letter * 1.2,
      anchor: "middle",
    })),
  ];
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

/** The groups of a placed item: one for each size it stands for; line and heads go with the first. */
export function dimensionGroups(p: Placed, s: Standing, paper: Paper): Group[] {
  const put = onSheet(s);
  const lines = [...p.extensions, ...p.lines].map(([a, b]): Mark => ({
    mark: "line",
    pen: "thin",
    a: put(a),
    b: put(b),
  }));
  const heads = p.arrows.map(({ tip, way }) => head(put(tip), [way[0], -way[1]], paper));
  return p.texts.map((t, i): Group => {
    const { text, id, kind } = t.line;
    const corner = put([t.box.min[0], t.box.max[1]]);
    return {
      role: "dimension",
      name: id,
      title: kind,
      patch: [corner[0] - 1, corner[1] - 1, widthOf(t.box) + 2, heightOf(t.box) + 2],
      marks: [
        ...(i === 0 ? [...lines, ...heads] : []),
        { mark: "text", at: put(t.at), text, height: paper.letter, anchor: t.anchor, isTurned: t.isTurned },
      ],
    };
  });
}

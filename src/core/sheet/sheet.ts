import { COINCIDENT } from "@/core/geometry/tolerance";
import { LEAST_SCALE, WHOLE_TURN } from "./tolerance";
import type { SheetSubject } from "./subject";
import type { Vec2 } from "@/core/geometry/vector";
import { massAsLettered, massText, volumeText } from "@/core/units/amounts";
import { projectedEdges } from "@/core/kernel/hidden-lines";
import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { sizesOf } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { dimensionRoom, drawDimensions, THIN, type Box } from "./dimensioning";
import { placeSize, type DrawnDimension } from "./placing";
import { sheetModel, type SheetModel } from "./model";
import { cleanStrokes, type Stroke } from "./outline";
import { element, escaped, figure } from "./svg";
import { TITLE_HEIGHT, titleBlock } from "./title-block";
import { GAZES, project, type ViewName } from "./views";

/** A finished Sheet. Nothing in it but what is printed. */
export interface Sheet {
  readonly svg: string;
  readonly scale: string;
  readonly projection: SheetSubject["sheet"]["projection"];
  /** Targets the title block prints: mass in g with its tolerance as a share. */
  readonly printedMass?: { readonly target: number; readonly tolerance: number };
  readonly dimensions: readonly {
    readonly id: string;
    readonly text: string;
    /** Its numbers as lettered, mm and radians; left out in Sheets of before, which are ticked by hand. */
    readonly values?: readonly number[] | undefined;
    readonly kind: Size["kind"];
  }[];
}

/** A4 upright, mm. */
const PAPER = { width: 210, height: 297, margin: 8 };
/** Scales of ISO 5455, largest first. */
const SCALES = [20, 10, 5, 2, 1, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01];
const scaleText = (s: number) => (s >= 1 ? `${s}:1` : `1:${Math.round(1 / s)}`);

interface View {
  readonly name: ViewName;
  readonly strokes: readonly Stroke[];
  readonly box: Box;
  readonly dimensions: readonly DrawnDimension[];
}

function extent(strokes: readonly Stroke[]): Box {
  const points = strokes.flatMap((s): Vec2[] =>
    s.kind === "line"
      ? [s.a, s.b]
      : s.kind === "path"
        ? [...s.points]
        : [
            [s.centre[0] - s.radius, s.centre[1] - s.radius],
            [s.centre[0] + s.radius, s.centre[1] + s.radius],
          ],
  );
  const xs = points.map((p) => p[0]),
    ys = points.map((p) => p[1]);
  return { min: [Math.min(...xs), Math.min(...ys)], max: [Math.max(...xs), Math.max(...ys)] };
}

/** Builds the Sheet of an exercise from its reference: views, measured dimensions, frame and title block, as SVG. */
export function makeSheet(
  kernel: Kernel,
  subject: SheetSubject,
  school = "Saltmarsh Technical College",
): Outcome<Sheet> {
  const built = rebuild(kernel, subject.reference);
  const trouble = built.steps.find((s) => s.refusal);
  if (!built.body || trouble) {
    kernel.release(built.body?.shape);
    return refuse(
      "bad-reference",
      `The reference part cannot be drawn: ${trouble?.refusal?.sentence ?? "it has no solid."}`,
    );
  }
  const model = sheetModel(kernel, built.body);
  const sizes = subject.sizes ?? proposedFor(kernel, subject.reference);
  const lettering = { unit: subject.units };
  const gazes = GAZES(subject.sheet.projection);
  const drawn = sizes.filter((s) => s.free !== true).flatMap((s) => placeSize(model, s, gazes, lettering) ?? []);
  const views = (["front", "top", "side", "pictorial"] as const).map((name): View => {
    const strokes = cleanStrokes(projectedEdges(kernel, built.body!, gazes[name], name !== "pictorial"));
    const dimensions = drawn.filter((d) => d.view === name);
    return { name, strokes, box: extent(strokes), dimensions };
  });
  const centres = centreLines(model, subject.sheet.projection);
  const sheet = compose(subject, model, views, centres, school);
  kernel.release(built.body.shape);
  return done(sheet);
}

function proposedFor(kernel: Kernel, reference: SheetSubject["reference"]): readonly Size[] {
  const r = sizesOf(kernel, reference);
  return r.ok ? r.value.sizes : [];
}

/** Axes of round faces in each view: where they are seen end on, and their size. */
function centreLines(model: SheetModel, projection: SheetSubject["sheet"]["projection"]) {
  const gazes = GAZES(projection);
  return (view: ViewName) =>
    view === "pictorial"
      ? []
      : model.body.surfaces.flatMap(({ carrier: c }) =>
          c.kind === "cylinder" &&
          Math.abs(
            c.axis[0] * gazes[view].toViewer[0] +
              c.axis[1] * gazes[view].toViewer[1] +
              c.axis[2] * gazes[view].toViewer[2],
          ) > 0.999
            ? [{ at: project(gazes[view], c.at), radius: c.radius }]
            : [],
        );
}

function compose(
  subject: SheetSubject,
  model: SheetModel,
  views: readonly View[],
  centres: (v: ViewName) => { at: Vec2; radius: number }[],
  school: string,
): Sheet {
  const by = Object.fromEntries(views.map((v) => [v.name, v])) as Record<ViewName, View>;
  const room = Object.fromEntries(views.map((v) => [v.name, dimensionRoom(v.dimensions)])) as Record<
    ViewName,
    ReturnType<typeof dimensionRoom>
  >;
  const size = (v: View, s: number): Vec2 => [(v.box.max[0] - v.box.min[0]) * s, (v.box.max[1] - v.box.min[1]) * s];
  const GAP = 6;
  const third = subject.sheet.projection === "third-angle";
  const [upper, lower] = third ? [by.top, by.front] : [by.front, by.top];
  const inner = {
    width: PAPER.width - 2 * PAPER.margin - 8,
    height: PAPER.height - 2 * PAPER.margin - TITLE_HEIGHT - 26,
  };
  const left = Math.max(room.front.left, room.top.left),
    middle = room.front.right + room.side.left + GAP;
  const sideHead = Math.max(room.front.above, room.side.above);
  const head = (v: View) => (v === by.front ? sideHead : room.top.above);
  const rows = (s: number) => head(upper) + size(upper, s)[1] + GAP + head(lower) + size(lower, s)[1];
  const fits = (s: number) => {
    const f = size(by.front, s)[0],
      width = Math.max(f + middle + size(by.side, s)[0] + room.side.right, size(by.top, s)[0] + room.top.right);
    return left + width <= inner.width && rows(s) <= inner.height;
  };
  const scale = SCALES.find(fits) ?? SCALES[SCALES.length - 1]!;
  const slack = Math.max(0, Math.min(30, (inner.height - rows(scale)) / 3));
  const x0 = PAPER.margin + 4 + left;
  const y1 = PAPER.margin + 4 + slack / 2 + head(upper);
  const y2 = y1 + size(upper, scale)[1] + GAP + slack + head(lower);
  const frontTop = third ? y2 : y1,
    topTop = third ? y1 : y2;
  const sideX = x0 + size(by.front, scale)[0] + middle + slack / 4;
  // the pictorial view takes the larger free place: beside the top view, or below everything
  const right = PAPER.width - PAPER.margin - 4,
    foot = PAPER.height - PAPER.margin - TITLE_HEIGHT - 16;
  const beside = {
    x: x0 + size(by.top, scale)[0] + room.top.right + GAP,
    y: third ? PAPER.margin + 6 : Math.max(topTop - room.top.above, frontTop + size(by.side, scale)[1] + GAP),
    bottom: third ? frontTop - sideHead : foot,
  };
  const below = { x: PAPER.margin + 8, y: y2 + size(lower, scale)[1] + 10, bottom: foot };
  const picture = size(by.pictorial, 1);
  const scaleIn = (b: typeof below) =>
    Math.max(0, Math.min((right - b.x) / picture[0], (b.bottom - b.y) / picture[1], scale));
  const place = scaleIn(beside) >= scaleIn(below) ? beside : below;
  const pScale = Math.max(scaleIn(place) * 0.92, LEAST_SCALE);
  const corner: Record<ViewName, Vec2> = {
    front: [x0, frontTop],
    top: [x0, topTop],
    side: [sideX, frontTop],
    pictorial: [
      place.x + (right - place.x - picture[0] * pScale) / 2,
      place.y + (place.bottom - place.y - picture[1] * pScale) / 2,
    ],
  };

  const drawn = views
    .map((v) => drawView(v, corner[v.name], v.name === "pictorial" ? pScale : scale, centres(v.name)))
    .join("");
  const W = PAPER.width - 2 * PAPER.margin,
    bottom = PAPER.height - PAPER.margin;
  const target = model.properties.volume * densityOf(subject.material);
  const mass = subject.sheet.printMass ? `Mass ${massText(target, subject.massUnit)}` : undefined;
  const notes = [
    subject.sheet.notes,
    subject.sheet.printVolume ? `Volume ${volumeText(model.properties.volume, subject.units)}` : "",
  ].filter(Boolean);
  const svg = element(
    "svg",
    {
      xmlns: "http://www.w3.org/2000/svg",
      viewBox: `0 0 ${PAPER.width} ${PAPER.height}`,
      "font-family": "'B612 Mono', monospace",
      class: "sheet",
    },
    element("style", {}, STYLE),
    element("rect", { x: 0, y: 0, width: PAPER.width, height: PAPER.height, class: "paper" }),
    element("rect", {
      x: PAPER.margin,
      y: PAPER.margin,
      width: W,
      height: PAPER.height - 2 * PAPER.margin,
      class: "frame",
      fill: "none",
    }),
    drawn,
    ...notes.map((n, i) =>
      element(
        "text",
        { x: PAPER.margin + 4, y: bottom - TITLE_HEIGHT - 5 - (notes.length - 1 - i) * 7, "font-size": 4.2 },
        escaped(n),
      ),
    ),
    titleBlock(subject, PAPER.margin, bottom - TITLE_HEIGHT, W, scaleText(scale), mass, school),
  );
  // the Sheet goes to students: nothing behind the last digit printed goes with it
  const printedMass = { target: massAsLettered(target, subject.massUnit), tolerance: subject.tolerances.mass };
  const printed = subject.sheet.printMass ? { printedMass } : {};
  return {
    svg,
    scale: scaleText(scale),
    projection: subject.sheet.projection,
    ...printed,
    dimensions: views.flatMap((v) => v.dimensions.map(({ id, text, values, kind }) => ({ id, text, values, kind }))),
  };
}

/** Line widths of ISO 128-2, group 0.7: wide outlines, narrow for the rest. Colours may be set from outside. */
const INK_COLOUR = "var(--sheet-ink,#22292f)";
const STEEL_COLOUR = "var(--sheet-steel,#3e5c70)";
const PAPER_COLOUR = "var(--sheet-paper,#fff)";
const STYLE = [
  `.paper{fill:${PAPER_COLOUR}}`,
  `.sheet text{fill:${INK_COLOUR}}`,
  `.frame,.frame line{stroke:${INK_COLOUR};stroke-width:.5}`,
  `.shown{stroke:${INK_COLOUR};stroke-width:.7;fill:none;stroke-linecap:round;stroke-linejoin:round}`,
  `.unseen{stroke:${INK_COLOUR};stroke-width:.35;fill:none;stroke-dasharray:3 1.2}`,
  `.centre,.thin{stroke:${STEEL_COLOUR};stroke-width:.25;fill:none}`,
  ".centre{stroke-dasharray:5 1 1 1}",
  `.dimension text{paint-order:stroke;stroke:${PAPER_COLOUR};stroke-width:1.2}`,
  `.dimension line{stroke:${STEEL_COLOUR};stroke-width:${THIN}}`,
  `.dimension .arrow{fill:${STEEL_COLOUR}}`,
].join("");

function drawView(v: View, corner: Vec2, scale: number, centres: readonly { at: Vec2; radius: number }[]): string {
  const toPaper = (p: Vec2): Vec2 => [
    corner[0] + (p[0] - v.box.min[0]) * scale,
    corner[1] + (v.box.max[1] - p[1]) * scale,
  ];
  const box: Box = {
    min: corner,
    max: [corner[0] + (v.box.max[0] - v.box.min[0]) * scale, corner[1] + (v.box.max[1] - v.box.min[1]) * scale],
  };
  const strokes = [...v.strokes]
    .sort((a, b) => Number(b.hidden) - Number(a.hidden))
    .map((s) => {
      const d = strokePath(s, toPaper, scale);
      return element("path", { d, class: s.hidden ? "unseen" : "shown" });
    });
  const seen = new Set<string>();
  const crosses = centres.flatMap(({ at, radius }) => {
    const p = toPaper(at),
      key = p.map((n) => n.toFixed(2)).join();
    const biggest = Math.max(
      ...centres.filter((c) => Math.hypot(c.at[0] - at[0], c.at[1] - at[1]) < COINCIDENT).map((c) => c.radius),
      radius,
    );
    if (seen.has(key)) return [];
    seen.add(key);
    const l = biggest * scale + 2.5;
    const level = `M${figure(p[0] - l)} ${figure(p[1])}H${figure(p[0] + l)}`;
    const upright = `M${figure(p[0])} ${figure(p[1] - l)}V${figure(p[1] + l)}`;
    return [element("path", { d: level + upright, class: "centre" })];
  });
  // a filled patch under the view takes the pointer
  const patch = element("rect", {
    x: box.min[0] - 2,
    y: box.min[1] - 2,
    width: box.max[0] - box.min[0] + 4,
    height: box.max[1] - box.min[1] + 4,
    fill: "transparent",
  });
  return (
    element("g", { class: "view", "data-view": v.name }, patch, ...crosses, ...strokes) +
    drawDimensions(v.dimensions, toPaper, box)
  );
}

function strokePath(s: Stroke, toPaper: (p: Vec2) => Vec2, scale: number): string {
  const at = (p: Vec2) => toPaper(p).map(figure).join(" ");
  if (s.kind === "line") return `M${at(s.a)}L${at(s.b)}`;
  if (s.kind === "path") return `M${s.points.map(at).join("L")}`;
  const r = figure(s.radius * scale);
  const on = (t: number): Vec2 => [s.centre[0] + s.radius * Math.cos(t), s.centre[1] + s.radius * Math.sin(t)];
  if (s.to - s.from > 2 * Math.PI - WHOLE_TURN)
    return `M${at(on(0))}A${r} ${r} 0 1 0 ${at(on(Math.PI))}A${r} ${r} 0 1 0 ${at(on(0))}Z`;
  return `M${at(on(s.from))}A${r} ${r} 0 ${s.to - s.from > Math.PI ? 1 : 0} 0 ${at(on(s.to))}`;
}

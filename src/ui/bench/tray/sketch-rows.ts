import { frameOf } from "@/core/part/steps/sketch/schema";
import { curveOf } from "@/core/sketch/sketch";
import { sketchOf, type BenchStore } from "../store";
import { straightAt } from "../view/camera";
import { panel, type TrayRow } from "./tool";

const sketchNow = (store: BenchStore) => {
  const { mode, history } = store.getState();
  return mode.kind === "sketch" ? sketchOf(history.present, mode.step) : undefined;
};
const look = (store: BenchStore) => {
  const sketch = sketchNow(store),
    { camera, fit } = store.getState();
  if (sketch) camera.turnTo(straightAt(frameOf(sketch.plane)), fit);
};
/** Removes what is picked. */
export const removeSelected = (store: BenchStore) => {
  const { selection, draw, select } = store.getState();
  const ids = [...new Set(selection.map(curveOf))].filter((r) => r !== "origin" && !r.endsWith("-axis"));
  if (ids.length && draw({ do: "delete", ids })) select([]);
};
/** Real, then construction, then centre line, then real again. */
const construction = (store: BenchStore) => {
  const { selection, draw, say } = store.getState();
  const curves = sketchNow(store)?.curves.filter((c) => selection.includes(c.id)) ?? [];
  if (!curves.length)
    return say({
      kind: "notice",
      text: "Pick the curves first: the key makes them construction, once more a centre line, once more real.",
      about: [],
    });
  const all = (v: unknown) => curves.every((c) => (c.construction ?? false) === v);
  draw({
    do: "construction",
    ids: curves.map((c) => c.id),
    on: all(true) ? "centre-line" : all("centre-line") ? false : true,
  });
};
const sees = ["faded", "cut", "solid"] as const;
const seeInto = (store: BenchStore) => {
  const { see } = store.getState();
  store.setState({ see: sees[(sees.indexOf(see) + 1) % 3]! });
};

export const SKETCH_ROWS: readonly TrayRow[] = [
  {
    name: "Do",
    slim: true,
    tools: [
      {
        label: "Done",
        key: "1",
        help: "leaves the sketch",
        act: (s) => {
          s.getState().setTool("pick");
          s.getState().select([]);
          s.getState().leave();
        },
      },
      {
        label: "Define the rest",
        key: "2",
        help: "proposes what is still missing",
        act: (s) => s.getState().defineRest(),
      },
      { label: "Sizes", key: "3", help: "all sizes in one table", act: panel("sizes") },
      {
        label: "Swing",
        key: "4",
        help: "lets what is loose swing gently",
        act: (s) => s.setState({ swinging: !s.getState().swinging }),
      },
      { label: "Straight", key: "5", help: "looks straight at the sketch", act: look },
      { label: "See into", key: "6", help: "the part faded, cut at the sketch, or whole", act: seeInto },
      { label: "Find", key: "7", help: "what is found while drawing", act: panel("finding") },
      { label: "Files", key: "8", help: "DXF and SVG files, another plane", act: panel("files") },
      { label: "Fit", key: "9", help: "shows everything", act: (s) => s.getState().fit() },
      {
        label: "Project",
        key: "0",
        help: "edges of the part as reference geometry",
        tool: "project",
        variants: [
          { label: "edges", tool: "project" },
          { label: "outline of a face", tool: "project:face" },
          { label: "section", tool: "project:section" },
        ],
      },
      { label: "Keys", key: "?", help: "this sheet", act: panel("help") },
    ],
  },
  {
    name: "Draw",
    tools: [
      { label: "Pick", icon: "pick", key: "q", tool: "pick", help: "picks, drags, picks by a box" },
      { label: "Line", icon: "line", key: "w", tool: "line", help: "chain of lines; again: tangent arc and back" },
      {
        label: "Rectangle",
        icon: "rectangle",
        key: "e",
        tool: "rectangle",
        help: "by corners, middle, or slanting",
        variants: [
          { label: "corners", tool: "rectangle" },
          { label: "about its middle", tool: "rectangle:centre" },
          { label: "slanting", tool: "rectangle:slanting" },
        ],
      },
      {
        label: "Circle",
        icon: "circle",
        key: "r",
        tool: "circle",
        help: "by centre, two or three points",
        variants: [
          { label: "centre", tool: "circle" },
          { label: "two points", tool: "circle:two" },
          { label: "three points", tool: "circle:three" },
        ],
      },
      {
        label: "Arc",
        icon: "arc",
        key: "t",
        tool: "arc",
        help: "by three points, centre, or tangent",
        variants: [
          { label: "three points", tool: "arc" },
          { label: "centre", tool: "arc:centre" },
          { label: "tangent", tool: "arc:tangent" },
        ],
      },
      {
        label: "Ellipse",
        icon: "ellipse",
        key: "y",
        tool: "ellipse",
        help: "whole or an arc of one",
        variants: [
          { label: "whole", tool: "ellipse" },
          { label: "arc", tool: "ellipse:arc" },
        ],
      },
      {
        label: "Polygon",
        icon: "polygon",
        key: "u",
        tool: "polygon",
        help: "in or about a circle",
        variants: [
          { label: "in a circle", tool: "polygon" },
          { label: "about a circle", tool: "polygon:outer" },
        ],
      },
      {
        label: "Slot",
        icon: "slot",
        key: "i",
        tool: "slot",
        help: "straight or bent",
        variants: [
          { label: "straight", tool: "slot" },
          { label: "bent", tool: "slot:bent" },
        ],
      },
      {
        label: "Spline",
        icon: "spline",
        key: "o",
        tool: "spline",
        help: "through points; with end directions",
        variants: [
          { label: "free ends", tool: "spline" },
          { label: "end directions", tool: "spline:handles" },
        ],
      },
      { label: "Point", icon: "point", key: "p", tool: "point", help: "a point" },
      {
        label: "Construct",
        icon: "construction",
        key: "[",
        help: "construction, centre line, real",
        act: construction,
      },
    ],
  },
  {
    name: "Pin",
    tools: [
      { label: "Dimension", icon: "dimension", key: "a", tool: "dimension", help: "a size over one or two things" },
      {
        label: "Coincide",
        glyph: "coincident",
        key: "s",
        tool: "constrain:coincident",
        help: "points, point on curve, concentric",
      },
      { label: "Level", glyph: "horizontal", key: "d", tool: "constrain:horizontal", help: "a line or two points" },
      { label: "Upright", glyph: "vertical", key: "f", tool: "constrain:vertical", help: "a line or two points" },
      {
        label: "Parallel",
        glyph: "parallel",
        key: "g",
        tool: "constrain:parallel",
        help: "two lines; again: in one line",
        variants: [
          { label: "parallel", tool: "constrain:parallel" },
          { label: "in one line", tool: "constrain:collinear" },
        ],
      },
      { label: "Square", glyph: "perpendicular", key: "h", tool: "constrain:perpendicular", help: "two lines" },
      {
        label: "Tangent",
        glyph: "tangent",
        key: "j",
        tool: "constrain:tangent",
        help: "two curves; again: same curvature",
        variants: [
          { label: "tangent", tool: "constrain:tangent" },
          { label: "same curvature", tool: "constrain:curvature" },
        ],
      },
      { label: "Equal", glyph: "equal", key: "k", tool: "constrain:equal", help: "lengths or radii" },
      {
        label: "Midpoint",
        glyph: "midpoint",
        key: "l",
        tool: "constrain:midpoint",
        help: "a point midway on a line or arc",
      },
      { label: "Symmetric", glyph: "symmetric", key: ";", tool: "constrain:symmetric", help: "two alike about a line" },
      { label: "Fix", glyph: "fixed", key: "'", tool: "constrain:fixed", help: "where it stands" },
    ],
  },
  {
    name: "Trim",
    tools: [
      { label: "Trim", icon: "trim", key: "z", tool: "trim", help: "takes a stretch away" },
      { label: "Extend", icon: "extend", key: "x", tool: "extend", help: "goes on to the next curve" },
      { label: "Split", icon: "split", key: "c", tool: "split", help: "parts a curve" },
      {
        label: "Corner",
        icon: "corner",
        key: "v",
        tool: "corner",
        help: "fillet; again: chamfer",
        variants: [
          { label: "fillet", tool: "corner" },
          { label: "chamfer", tool: "corner:chamfer" },
        ],
      },
      { label: "Offset", icon: "offset", key: "b", tool: "offset", help: "a chain at a distance" },
      { label: "Mirror", icon: "mirror", key: "n", tool: "mirror", help: "images in a line" },
      {
        label: "Pattern",
        icon: "pattern",
        key: "m",
        tool: "pattern",
        help: "a row; again: a ring",
        variants: [
          { label: "row", tool: "pattern" },
          { label: "ring", tool: "pattern:ring" },
        ],
      },
      {
        label: "Move",
        icon: "transform",
        key: ",",
        tool: "transform",
        help: "moves, copies, turns, scales",
        variants: [
          { label: "move", tool: "transform" },
          { label: "copy", tool: "transform:copy" },
          { label: "turn", tool: "transform:turn" },
          { label: "scale", tool: "transform:scale" },
        ],
      },
      { label: "Delete", icon: "delete", key: ".", help: "what is picked", act: removeSelected },
    ],
  },
];

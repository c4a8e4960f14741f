import { curveOf } from "@/core/sketch/sketch";
import { DATUM_FRAMES, normalOf } from "@/core/geometry/frame";
import { add3, dot3, scale3 } from "@/core/geometry/vector";
import type { Thing } from "@/core/measure/measure";
import type { Step } from "@/core/part/steps/kinds";
import { frameOf } from "@/core/part/steps/sketch/schema";
import type { Constraint } from "@/core/sketch/sketch";
import type { PanelName } from "./state";
import { asPlane } from "./steps/options";
import { sketchOf, type BenchStore } from "./store";
import { straightAt } from "./view/camera";

export interface TrayTool {
  readonly label: string;
  /** Its drawing in the tray. */
  readonly icon?: string;
  /** The mark the constraint carries in the sketch. */
  readonly glyph?: Constraint["kind"];
  /** Its place in the tray is its key on the keyboard. */
  readonly key: string;
  readonly tool?: string;
  /** Other ways of the same tool; its key pressed again goes on to the next. */
  readonly variants?: readonly { readonly label: string; readonly tool: string }[];
  readonly act?: (store: BenchStore) => void;
  /** What it does, for the help sheet. */
  readonly help: string;
}
export interface TrayRow {
  readonly name: string;
  readonly tools: readonly TrayTool[];
  /** Words in a slim row, above the drawings. */
  readonly slim?: boolean;
}

const sketchNow = (store: BenchStore) => {
  const { mode, history } = store.getState();
  return mode.kind === "sketch" ? sketchOf(history.present, mode.step) : undefined;
};
const look = (store: BenchStore) => {
  const sketch = sketchNow(store),
    { camera, fit } = store.getState();
  if (sketch) camera.turnTo(straightAt(frameOf(sketch.plane)), fit);
};
const remove = (store: BenchStore) => {
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
const panel = (name: PanelName) => (store: BenchStore) => store.getState().openPanel(name);
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
      { label: "Delete", icon: "delete", key: ".", help: "what is picked", act: remove },
    ],
  },
];

const step = (kind: Step["kind"], preset?: Partial<Step>) => (store: BenchStore) =>
  store.getState().openStep(kind, preset);
/** The one flat face that is picked, to begin an extrude with. */
const facePicked = (store: BenchStore): Partial<Step> => {
  const { things, built } = store.getState(),
    [only] = things,
    face = built?.model && things.length === 1 && only ? asPlane(built.model, only) : undefined;
  return face ? ({ face } as Partial<Step>) : {};
};
const DISPLAYS = ["both", "faces", "visible", "all"] as const,
  TANGENTS = ["shown", "thin", "off"] as const;
const nextOf = <T>(list: readonly T[], now: T): T => list[(list.indexOf(now) + 1) % list.length]!;
/** Bodies of what is picked. */
const bodiesPicked = (store: BenchStore): string[] => {
  const { things, built } = store.getState(),
    ends: number[] = [];
  built?.bodies.reduce((n, b, i) => (ends[i] = n + b.faces), 0);
  const faceOf = (t: Thing) =>
    t.kind === "face"
      ? t.index
      : t.kind === "edge"
        ? built!.model!.edges[t.index]!.faces[0]
        : built!.model!.vertices[t.index]!.faces[0]!;
  return built?.model ? [...new Set(things.map((t) => built.bodies[ends.findIndex((e) => faceOf(t) < e)]!.id))] : [];
};
const hide = (only: boolean) => (store: BenchStore) => {
  const { built, looking, look, say } = store.getState(),
    picked = bodiesPicked(store);
  if (!picked.length)
    return looking.hidden.length
      ? look({ hidden: [] })
      : say({ kind: "notice", text: "Pick a face of the body first; the key again shows everything.", about: [] });
  look({
    hidden: only ? built!.bodies.map((b) => b.id).filter((id) => !picked.includes(id)) : [...looking.hidden, ...picked],
  });
};
const section = (store: BenchStore) => {
  const { looking, look, built } = store.getState(),
    order = [undefined, "front", "top", "right"] as const,
    base = nextOf(order, looking.section?.base as (typeof order)[number]);
  const box = built?.properties?.box,
    middle = box && scale3(add3(box.min, box.max), 0.5);
  look({
    section: base && {
      base,
      flip: false,
      offset: middle ? Math.round(dot3(normalOf(DATUM_FRAMES[base]), middle) * 10) / 10 : 0,
    },
  });
};

export const SOLID_ROWS: readonly TrayRow[] = [
  {
    name: "See",
    slim: true,
    tools: [
      {
        label: "Display",
        key: "1",
        help: "faces and edges, faces, visible edges, all edges",
        act: (s) => s.getState().look({ faces: nextOf(DISPLAYS, s.getState().looking.faces) }),
      },
      {
        label: "Tangents",
        key: "2",
        help: "smooth edges shown, thin or off",
        act: (s) => s.getState().look({ tangent: nextOf(TANGENTS, s.getState().looking.tangent) }),
      },
      { label: "Section", key: "3", help: "cut open by a plane that can be dragged", act: section },
      {
        label: "Depth",
        key: "4",
        help: "parallel or in perspective",
        act: (s) => {
          const { camera, look } = s.getState();
          camera.setPerspective(!camera.perspective);
          look({});
        },
      },
      { label: "Hide", key: "5", help: "hides the body picked; again: shows all", act: hide(false) },
      { label: "Show only this", key: "6", help: "hides all other bodies; again: shows all", act: hide(true) },
      { label: "Look", key: "7", help: "everything about how it is looked at", act: panel("look") },
      { label: "Numbers", key: "8", help: "parameters and all numbers of the part", act: panel("numbers") },
      { label: "Strays", key: "9", help: "what nothing uses", act: panel("strays") },
      { label: "Files", key: "0", help: "STEP, STL and 3MF files, units", act: panel("out") },
      { label: "Keys", key: "?", help: "this sheet", act: panel("help") },
    ],
  },
  {
    name: "Build",
    tools: [
      {
        label: "Sketch",
        icon: "line",
        key: "q",
        help: "a new sketch on a plane or face",
        act: (s) => s.getState().choosePlane(),
      },
      {
        label: "Add material",
        icon: "add",
        key: "w",
        help: "extrudes a sketch, or the flat face picked",
        act: (s) => step("extrude", facePicked(s))(s),
      },
      {
        label: "Cut material",
        icon: "cut",
        key: "e",
        help: "cuts with a sketch, or the flat face picked",
        act: (s) => step("extrude", { operation: "cut", ...facePicked(s) } as Partial<Step>)(s),
      },
      { label: "Revolve", icon: "revolve", key: "r", help: "turns a sketch about an axis", act: step("revolve") },
      { label: "Hole", icon: "hole", key: "t", help: "plain, counterbored, countersunk, threaded", act: step("hole") },
      { label: "Pattern", icon: "pattern", key: "y", help: "in rows or a ring", act: step("pattern") },
      { label: "Mirror", icon: "mirror", key: "u", help: "steps or the whole part", act: step("mirror") },
      { label: "Point", icon: "point", key: "i", help: "a datum point", act: step("point") },
    ],
  },
  {
    name: "Refine",
    tools: [
      { label: "Fillet", icon: "corner", key: "a", help: "rounds edges", act: step("fillet") },
      { label: "Chamfer", icon: "chamfer", key: "s", help: "cuts edges off", act: step("chamfer") },
      { label: "Shell", icon: "shell", key: "d", help: "hollows the part out", act: step("shell") },
      { label: "Plane", icon: "plane", key: "f", help: "a datum plane", act: step("plane") },
      { label: "Axis", icon: "axis", key: "g", help: "a datum axis", act: step("axis") },
      { label: "Colour", icon: "colour", key: "h", help: "of the body or of the faces picked", act: panel("colour") },
      { label: "Mass", icon: "mass", key: "j", help: "mass properties and material", act: panel("mass") },
      { label: "Fit", icon: "fit", key: "k", help: "shows everything", act: (s) => s.getState().fit() },
    ],
  },
];

export const trayRows = (isSketch: boolean): readonly TrayRow[] => (isSketch ? SKETCH_ROWS : SOLID_ROWS);
export const removeSelected = remove;

/** Whether a tool of the tray is the one at work, in one of its ways. */
export const isTaken = (t: TrayTool, toolName: string): boolean =>
  t.tool === toolName || (t.variants?.some((v) => v.tool === toolName) ?? false);

export function takeTool(store: BenchStore, t: TrayTool): void {
  const { toolName, hand, setTool } = store.getState();
  if (t.act) return t.act(store);
  if (!t.tool) return;
  if (!isTaken(t, toolName)) return setTool(t.tool);
  // its key once more: the tool's own other way, or the next variant
  if (hand.again()) return;
  const ways = t.variants;
  if (ways) setTool(ways[(ways.findIndex((v) => v.tool === toolName) + 1) % ways.length]!.tool);
}

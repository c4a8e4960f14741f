import { DATUM_FRAMES, normalOf } from "@/core/geometry/frame";
import { add3, dot3, scale3 } from "@/core/geometry/vector";
import type { Thing } from "@/core/measure/measure";
import type { Step } from "@/core/part/steps/kinds";
import { asPlane } from "../steps/options";
import type { BenchStore } from "../store";
import { panel, type TrayRow } from "./tool";

const step = (kind: Step["kind"], preset?: Partial<Step>) => (store: BenchStore) =>
  store.getState().openStep(kind, preset);
/** The one flat face that is picked, to begin an extrude with. */
const facePicked = (store: BenchStore): Partial<Step> => {
  const { things, built } = store.getState(),
    [only] = things,
    face = built?.model && things.length === 1 && only ? asPlane(built.model, only) : undefined;
  return face ? { face } : {};
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
  const { built, looking, look, say, pickThings } = store.getState(),
    picked = bodiesPicked(store);
  if (!picked.length)
    return looking.hidden.length
      ? look({ hidden: [] })
      : say({ kind: "notice", text: "Pick a face of the body first; the key again shows everything.", about: [] });
  // what is hidden is not picked any more
  if (!only) pickThings([]);
  look({
    hidden: only ? built!.bodies.map((b) => b.id).filter((id) => !picked.includes(id)) : [...looking.hidden, ...picked],
  });
};
const section = (store: BenchStore) => {
  const { looking, look, built } = store.getState(),
    order = [undefined, "front", "top", "right"] as const,
    base = nextOf(order, looking.section?.base);
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
        act: (s) => step("extrude", { operation: "cut", ...facePicked(s) })(s),
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

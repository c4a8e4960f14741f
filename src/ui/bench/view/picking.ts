import { faceFrame, toSpace } from "@/core/geometry/frame";
import type { Vec2, Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import { faceRef } from "@/core/part/reference/make";
import type { Shown } from "../kernel/messages";
import type { BenchState } from "../state";
import type { BenchStore } from "../store";
import type { Camera } from "./camera";
import { cutOf, hiddenFaces } from "./paint";
import { faceAt, thingsAt } from "./pick";
import { planeAt } from "./plane-layer";

export const ALL_KINDS = ["vertex", "edge", "face"] as const;
const same = (a: Thing, b: Thing) => a.kind === b.kind && a.index === b.index;

/** What can be picked now: the part before the step at work, or the part itself. */
export function pickable({
  built,
  mode,
  pickField,
  looking,
}: Pick<BenchState, "built" | "mode" | "pickField" | "looking">): Shown | undefined {
  if (mode.kind === "step" && pickField) return built?.under;
  if (!built?.mesh || !built.model) return undefined;
  return { mesh: built.mesh, model: built.model, hidden: hiddenFaces(built.bodies, looking.hidden) };
}

/** Where a thing of the part is: a face's centre, an edge's middle, a corner. */
export function placeOfThing(m: Model, t: Thing): Vec3 {
  if (t.kind === "face") return m.faces[t.index]!.centre;
  if (t.kind === "vertex") return m.vertices[t.index]!.at;
  const { points } = m.edges[t.index]!;
  return points[points.length >> 1]!;
}

/** The place on a flat face under a pixel. */
function placeOn(camera: Camera, m: Model, t: Thing, at: Vec2): Vec3 | undefined {
  const c = t.kind === "face" ? m.faces[t.index]!.carrier : undefined;
  if (c?.kind !== "plane") return undefined;
  const frame = faceFrame(c.normal, c.offset),
    p = camera.onPlane(frame, at);
  return p && toSpace(frame, p);
}

/** A thing of the part is taken: into the field that asks, or into the selection. */
export function takeThing(
  store: BenchStore,
  shown: Shown,
  thing: Thing | undefined,
  grow: boolean,
  place: Vec3 | undefined,
): void {
  const { pickField, mode, things, pickThings } = store.getState();
  if (pickField) return thing && pickField.give(shown.model, thing, place);
  if (mode.kind !== "solid") return;
  if (!thing) return pickThings([]);
  const known = things.some((t) => same(t, thing));
  if (grow) return pickThings(known ? things.filter((t) => !same(t, thing)) : [...things, thing]);
  pickThings(known && things.length === 1 ? [] : [thing]);
}

/** A click on the solid. */
export function pickAt(store: BenchStore, at: Vec2, grow: boolean, behind: number): void {
  const shown = pickable(store.getState()),
    { camera, pickField, looking } = store.getState();
  if (!shown) return;
  const list = thingsAt(camera, shown, at, pickField?.take ?? ALL_KINDS, cutOf(looking.section)),
    thing = list[behind % Math.max(list.length, 1)];
  takeThing(store, shown, thing, grow, thing && placeOn(camera, shown.model, thing, at));
}

/** A sketch is laid on a flat face of the part; nothing where none is meant. */
export function takePlaneOn(store: BenchStore, face: number | undefined): void {
  const { built, takePlane, say } = store.getState();
  const ref = face === undefined ? undefined : faceRef(built!.model!, face),
    carrier = face === undefined ? undefined : built!.model!.faces[face]!.carrier;
  if (ref && carrier?.kind === "plane") {
    const { origin, x, y } = faceFrame(carrier.normal, carrier.offset),
      { kind: _, ...named } = ref;
    return takePlane({ ...named, frame: { origin: [...origin], x: [...x], y: [...y] } });
  }
  const text = carrier
    ? "A sketch lies on a flat face; this one is round."
    : "Click one of the three planes, or a flat face of the part.";
  say({ kind: "notice", text, about: [] });
}

/** A click while a plane is chosen for a sketch: a face of the part, or one of the three planes. */
export function pickPlaneAt(store: BenchStore, at: Vec2): void {
  const { built, camera, takePlane, planeShift } = store.getState();
  const shown = pickable(store.getState());
  const face = shown && faceAt(camera, shown, at);
  const base = face === undefined ? planeAt(camera, planeShift, built?.properties?.box, at) : undefined;
  if (base) return takePlane({ base, ...planeShift });
  takePlaneOn(store, face);
}

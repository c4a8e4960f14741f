import { dot3 } from "@/core/geometry/vector";
import type { Thing } from "@/core/measure/measure";
import { begun, withStepsCalled } from "@/core/naming/words";
import { edgeRef, faceRef, vertexRef } from "@/core/part/reference/make";
import { refText } from "@/core/part/reference/text";
import type { Shown } from "../kernel/messages";
import type { BenchStore } from "../store";
import { isHidden } from "./pick";
import { placeOfThing, pickable, takePlaneOn, takeThing } from "./picking";

/** What can be gone to with the keys now, faces first, the nearest to the viewer before what lies behind. */
function reachable(store: BenchStore, shown: Shown): Thing[] {
  const { model } = shown;
  const { mode, pickField, camera } = store.getState();
  const kinds: readonly Thing["kind"][] =
    pickField?.take ?? (mode.kind === "plane" ? ["face"] : ["face", "edge", "vertex"]);
  const counts = { face: model.faces.length, edge: model.edges.length, vertex: model.vertices.length };
  const depth = (t: Thing) => dot3(placeOfThing(model, t), camera.toViewer);
  return (["face", "edge", "vertex"] as const)
    .filter((kind) => kinds.includes(kind))
    .flatMap((kind) =>
      Array.from({ length: counts[kind] }, (_, index): Thing => ({ kind, index }))
        .filter((t) => !isHidden(shown, t))
        .sort((a, b) => depth(b) - depth(a)),
    );
}

/** How a thing of the part is called. */
function thingCalled(store: BenchStore, { model }: Shown, t: Thing): string {
  const { units, steps } = store.getState().history.present;
  const make = { face: faceRef, edge: edgeRef, vertex: vertexRef }[t.kind];
  const ref = make(model, t.index);
  return ref ? begun(withStepsCalled(refText(ref, units), steps).replace(/^the /, "")) : t.kind;
}

/** Goes on to the next thing of the part, or back, and says what it is. */
export function reachOn(store: BenchStore, by: 1 | -1): void {
  const shown = pickable(store.getState());
  const list = shown ? reachable(store, shown) : [];
  if (!shown || !list.length) return;
  const { reached, say } = store.getState();
  const at = reached ? list.findIndex((t) => t.kind === reached.kind && t.index === reached.index) : -1;
  const first = by > 0 ? 0 : list.length - 1;
  const next = list[at < 0 ? first : (at + by + list.length) % list.length]!;
  store.setState({ reached: next });
  say({ kind: "notice", text: `${thingCalled(store, shown, next)}: Space takes it.`, about: [] });
}

/** Takes what was gone to with the keys. @returns whether there was something */
export function takeReached(store: BenchStore, grow: boolean): boolean {
  const { reached, mode } = store.getState();
  const shown = pickable(store.getState());
  if (!reached || !shown) return false;
  store.getState().say(undefined);
  if (mode.kind === "plane") takePlaneOn(store, reached.kind === "face" ? reached.index : undefined);
  else takeThing(store, shown, reached, grow, placeOfThing(shown.model, reached));
  return true;
}

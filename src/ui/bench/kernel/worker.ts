import { distance3 } from "@/core/geometry/vector";
import { displayMesh } from "@/core/check/check";
import { Kernel } from "@/core/kernel/opencascade";
import { faceFrame } from "@/core/geometry/frame";
import { edgesOf } from "@/core/kernel/edges";
import { facesOf } from "@/core/kernel/faces";
import { propertiesOf } from "@/core/kernel/properties";
import { picturables } from "@/core/part/steps/sketch/sketch";
import { rebuild } from "@/core/part/rebuild";
import type { FromWorker, ModelFace, ToWorker } from "./messages";

const opening = Kernel.open({ locateFile: () => "/kernel/kernel-1.1.0.wasm" });
const send = (m: FromWorker, transfer: Transferable[] = []) => (self as unknown as { postMessage(m: unknown, t: Transferable[]): void }).postMessage(m, transfer);

self.addEventListener("message", (event: MessageEvent<ToWorker>) => {
  const { id, document, sketch } = event.data;
  void opening.then((kernel) => {
    const { body, steps, sketches } = rebuild(kernel, document);
    const properties = body && propertiesOf(kernel, body);
    const mesh = body && properties && displayMesh(kernel, body, distance3(properties.box.min, properties.box.max));
    const faces = body ? facesOf(kernel, body).map((f): ModelFace => ({ key: f.key, frame: f.carrier.kind === "plane" ? faceFrame(f.carrier.normal, f.carrier.offset) : undefined })) : [];
    const later = sketch !== undefined && document.steps.slice(sketch.before).some((s) => s.kind !== "sketch");
    const under = later ? rebuild(kernel, document, sketch.before).body : body;
    const edges = under ? (sketch ? picturables(kernel, under, sketch.frame) : edgesOf(kernel, under)) : [];
    if (later) kernel.release(under?.shape);
    const placed = Object.fromEntries([...sketches].flatMap(([step, s]) => ("face" in s.placed.plane || s.placed.curves.some((c) => c.projected) ? [[step, { plane: s.placed.plane, curves: s.placed.curves }]] : [])));
    kernel.release(body?.shape);
    send({ id, built: { mesh, properties, steps, faces, edges, placed }, heapBytes: kernel.heapBytes }, mesh ? [mesh.positions.buffer, mesh.normals.buffer, mesh.triangles.buffer] : []);
  }).catch((e: unknown) => send({ id, failed: e instanceof Error ? e.message : String(e) }));
});

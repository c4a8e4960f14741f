import { distance3 } from "@/core/geometry/vector";
import { displayMesh } from "@/core/check/check";
import { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import { rebuild } from "@/core/part/rebuild";
import type { FromWorker, ToWorker } from "./messages";

const opening = Kernel.open({ locateFile: () => "/kernel/kernel-1.1.0.wasm" });
const send = (m: FromWorker, transfer: Transferable[] = []) => (self as unknown as { postMessage(m: unknown, t: Transferable[]): void }).postMessage(m, transfer);

self.addEventListener("message", (event: MessageEvent<ToWorker>) => {
  const { id, document } = event.data;
  void opening.then((kernel) => {
    const { body, steps } = rebuild(kernel, document);
    const properties = body && propertiesOf(kernel, body);
    const mesh = body && properties && displayMesh(kernel, body, distance3(properties.box.min, properties.box.max));
    kernel.release(body?.shape);
    send({ id, built: { mesh, properties, steps }, heapBytes: kernel.heapBytes }, mesh ? [mesh.positions.buffer, mesh.normals.buffer, mesh.triangles.buffer] : []);
  }).catch((e: unknown) => send({ id, failed: e instanceof Error ? e.message : String(e) }));
});

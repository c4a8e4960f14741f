import { displayMesh } from "@/core/check/check";
import { stlOf } from "@/core/formats/stl";
import { threeMfOf } from "@/core/formats/three-mf";
import { distance3 } from "@/core/geometry/vector";
import { writeStep } from "@/core/kernel/exchange";
import type { Mesh } from "@/core/kernel/mesh";
import { modelOf } from "@/core/kernel/model";
import { Kernel } from "@/core/kernel/opencascade";
import { roughBoxOf, propertiesOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { nearest } from "@/core/measure/nearest";
import { paintOf } from "@/core/part/paint";
import { Rebuilder, type BuiltPart } from "@/core/part/rebuild";
import { picturables } from "@/core/part/steps/sketch/build";
import type { Answer, AtWork, BuildOrder, FromWorker, Question, ToWorker } from "./messages";

const opening = Kernel.open({ locateFile: () => "/kernel/kernel-1.1.0.wasm" });
const send = (m: FromWorker, transfer: Transferable[] = []) =>
  (self as unknown as { postMessage(m: unknown, t: Transferable[]): void }).postMessage(m, transfer);
void opening.then(() => send({ ready: true }));

let rebuilder: Rebuilder | undefined;
let part: BuiltPart | undefined;
let latest = 0;
let fineness = 1;

/** Lets messages in: a later change overtakes this one. */
const breathe = () =>
  new Promise<void>((go) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => (port1.close(), go());
    port2.postMessage(0);
  });

function meshOf(kernel: Kernel, body: Solid): Mesh {
  const box = roughBoxOf(kernel, body.shape);
  return displayMesh(kernel, body, distance3(box.min, box.max) / fineness);
}
const arrays = (m: Mesh | undefined): Transferable[] =>
  m ? [m.positions.buffer, m.normals.buffer, m.triangles.buffer] : [];

async function build(kernel: Kernel, id: number, order: BuildOrder): Promise<void> {
  const { document, at } = order;
  rebuilder ??= new Rebuilder(kernel);
  for (const _ of rebuilder.going(document)) {
    await breathe();
    if (latest !== id) return send({ id, overtaken: true });
  }
  part = rebuilder.after(document.steps.length, document);
  const { body, bodies, steps, sketches } = part;
  if (fineness !== order.fineness) {
    fineness = order.fineness;
    if (body) kernel.library.BRepTools.Clean(body.shape, true);
  }
  const mesh = body && meshOf(kernel, body),
    shownBodies = bodies.map((b) => ({ id: b.id, faces: b.solid.names.length }));
  send({ id, picture: { mesh, steps, bodies: shownBodies } }, arrays(mesh));
  await breathe();
  if (latest !== id) return send({ id, overtaken: true });
  const properties = body && propertiesOf(kernel, body),
    model = body && modelOf(kernel, body);
  const placed = Object.fromEntries(
    [...sketches].flatMap(([step, s]) =>
      !("base" in s.placed.plane) || s.placed.curves.some((c) => c.projected)
        ? [[step, { plane: s.placed.plane, curves: s.placed.curves }]]
        : [],
    ),
  );
  const work = atWork(kernel, document, at);
  send(
    {
      id,
      built: {
        model,
        bodies: shownBodies,
        properties,
        steps,
        datums: Object.fromEntries(part.datums),
        placed,
        edges: work.edges ?? [],
        under: work.under,
      },
      heapBytes: kernel.heapBytes,
    },
    arrays(work.under?.mesh),
  );
}

/** What stands before the step at work, to pick from. */
function atWork(kernel: Kernel, document: BuildOrder["document"], at: AtWork | undefined) {
  const before = at && rebuilder!.after(at.before, document).body;
  if (!before) return {};
  if (at.frame) return { edges: picturables(kernel, before, at.frame) };
  return { under: { mesh: meshOf(kernel, before), model: modelOf(kernel, before) } };
}

function answer(kernel: Kernel, q: Question): Answer {
  if (q.ask === "nearest") {
    const { body } = part ?? {};
    if (!body) throw new Error("there is no part to measure");
    return { reading: Topology.over(kernel, body, (t) => nearest(kernel, t, q.a, q.b)) };
  }
  const built = (rebuilder ??= new Rebuilder(kernel)).run(q.document),
    { body } = built,
    { name } = q.document;
  if (!body) throw new Error("there is no part to write");
  const paint = paintOf(kernel, q.document, body);
  if (q.format === "step")
    return { bytes: Uint8Array.from(writeStep(kernel, body, name, paint), (c) => c.charCodeAt(0)) };
  fineness = q.fineness;
  kernel.library.BRepTools.Clean(body.shape, true);
  const mesh = meshOf(kernel, body);
  return { bytes: q.format === "stl" ? stlOf(mesh, name) : threeMfOf(mesh, name, paint.body) };
}

self.addEventListener("message", (event: MessageEvent<ToWorker>) => {
  const m = event.data;
  if ("build" in m) latest = m.id;
  void opening
    .then(async (kernel) => {
      if ("question" in m) return send({ id: m.id, answer: answer(kernel, m.question) });
      if (latest !== m.id) return send({ id: m.id, overtaken: true });
      return build(kernel, m.id, m.build);
    })
    .catch((e: unknown) => send({ id: m.id, failed: e instanceof Error ? e.message : String(e) }));
});

import { displayMesh } from "@/core/check/facets/display-mesh";
import { stlOf } from "@/core/formats/stl";
import { threeMfOf } from "@/core/formats/three-mf";
import { distance3 } from "@/core/geometry/vector";
import { writeStep } from "@/core/kernel/exchange";
import type { Mesh } from "@/core/kernel/mesh";
import { modelOf } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { extentAlong, propertiesOf, roughBoxOf } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { nearest } from "@/core/measure/nearest";
import { paintOf } from "@/core/part/paint";
import { Rebuilder, type BuiltPart } from "@/core/part/rebuild";
import { picturables } from "@/core/part/steps/sketch/build";
import { sizedBody } from "@/core/sizes/body";
import { matchedView } from "@/core/sheet/page/matched";
import { foundOn } from "@/core/sizes/found";
import type { Answer, AtWork, BuildOrder, FromWorker, Question, ToWorker } from "./messages";

type Send = (m: FromWorker, transfer?: Transferable[]) => void;

/**
 * What the Bench's worker does with the messages it gets: one after the other, so that a question is answered on the
 * part it was asked about, never in the middle of another build. Only a later build overtakes an earlier one.
 */
export class Workshop {
  private kernel: Kernel | undefined;
  private rebuilder: Rebuilder | undefined;
  private part: { readonly id: number; readonly built: BuiltPart } | undefined;
  private latest = 0;
  private fineness = 1;
  private work: Promise<unknown> = Promise.resolve();

  /** @param breathe lets later messages in */
  constructor(
    private readonly opening: Promise<Kernel>,
    private readonly send: Send,
    private readonly breathe: () => Promise<void>,
  ) {}

  hear(m: ToWorker): Promise<unknown> {
    if ("build" in m) this.latest = m.id;
    this.work = this.work
      .then(() => this.handle(m))
      .catch((e: unknown) => this.send({ id: m.id, failed: e instanceof Error ? e.message : String(e) }));
    return this.work;
  }

  private async handle(m: ToWorker): Promise<void> {
    const kernel = (this.kernel ??= await this.opening);
    this.rebuilder ??= new Rebuilder(kernel);
    if ("question" in m) return this.send({ id: m.id, answer: this.answer(kernel, m.question) });
    if (this.latest !== m.id) return this.send({ id: m.id, overtaken: true });
    return this.build(kernel, this.rebuilder, m.id, m.build);
  }

  private meshOf(kernel: Kernel, body: Solid): Mesh {
    const box = roughBoxOf(kernel, body.shape);
    return displayMesh(kernel, body, distance3(box.min, box.max) / this.fineness);
  }

  private async build(kernel: Kernel, rebuilder: Rebuilder, id: number, order: BuildOrder): Promise<void> {
    const { document, at } = order;
    this.send({ id, begun: true });
    this.part = undefined;
    for (const _ of rebuilder.going(document)) {
      await this.breathe();
      if (this.latest !== id) return this.send({ id, overtaken: true });
    }
    const built = rebuilder.after(document.steps.length, document);
    this.part = { id, built };
    const { body, bodies, steps, sketches, datums } = built;
    if (this.fineness !== order.fineness) {
      this.fineness = order.fineness;
      if (body) kernel.library.BRepTools.Clean(body.shape, true);
    }
    const mesh = body && this.meshOf(kernel, body);
    const shownBodies = bodies.map((b) => ({ id: b.id, faces: b.solid.names.length }));
    this.send({ id, picture: { mesh, steps, bodies: shownBodies } }, arrays(mesh));
    await this.breathe();
    if (this.latest !== id) return this.send({ id, overtaken: true });
    const properties = body && propertiesOf(kernel, body);
    const model = body && modelOf(kernel, body);
    const placed = Object.fromEntries(
      [...sketches].flatMap(([step, s]) =>
        !("base" in s.placed.plane) || s.placed.curves.some((c) => c.projected)
          ? [[step, { plane: s.placed.plane, curves: s.placed.curves }]]
          : [],
      ),
    );
    const work = this.atWork(kernel, rebuilder, document, at);
    const measured = { model, bodies: shownBodies, properties, steps, datums: Object.fromEntries(datums), placed };
    this.send(
      { id, built: { ...measured, edges: work.edges ?? [], under: work.under }, heapBytes: kernel.heapBytes },
      arrays(work.under?.mesh),
    );
  }

  /** What stands before the step at work, to pick from. */
  private atWork(kernel: Kernel, rebuilder: Rebuilder, document: BuildOrder["document"], at: AtWork | undefined) {
    const before = at && rebuilder.after(at.before, document).body;
    if (!before) return {};
    if (at.frame) return { edges: picturables(kernel, before, at.frame) };
    return { under: { mesh: this.meshOf(kernel, before), model: modelOf(kernel, before) } };
  }

  private answer(kernel: Kernel, q: Question): Answer {
    if (q.ask === "file") return this.file(kernel, q);
    if (this.part?.id !== q.of) throw new Error("the part has changed since");
    const { body } = this.part.built;
    if (!body) throw new Error("there is no part to measure");
    if (q.ask === "printed") return { found: foundOn(sizedBody(kernel, body), q.sizes, q.unit) };
    if (q.ask === "match") return { lines: matchedView(kernel, body, q.view) ?? "" };
    if (q.ask === "extent") return { extent: extentAlong(kernel, body, q.along) };
    return { reading: Topology.over(kernel, body, (t) => nearest(kernel, t, q.a, q.b)) };
  }

  private file(kernel: Kernel, q: Extract<Question, { ask: "file" }>): Answer {
    const { name, steps } = q.document;
    const rebuilder = this.rebuilder!;
    // another document than the one built last: what was handed out of that is gone
    for (const _ of rebuilder.going(q.document)) this.part = undefined;
    const { body } = rebuilder.after(steps.length, q.document);
    if (!body) throw new Error("there is no part to write");
    const paint = paintOf(kernel, q.document, body);
    if (q.format === "step")
      return { bytes: Uint8Array.from(writeStep(kernel, body, name, paint), (c) => c.charCodeAt(0)) };
    this.fineness = q.fineness;
    kernel.library.BRepTools.Clean(body.shape, true);
    const mesh = this.meshOf(kernel, body);
    return { bytes: q.format === "stl" ? stlOf(mesh, name) : threeMfOf(mesh, name, paint.body) };
  }
}

const arrays = (m: Mesh | undefined): Transferable[] =>
  m ? [m.positions.buffer, m.normals.buffer, m.triangles.buffer] : [];

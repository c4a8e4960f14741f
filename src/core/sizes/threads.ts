import { stepOf } from "@/core/naming/names";
import type { PartDocument } from "@/core/part/document";
import { readQuantity } from "@/core/units/quantity";
import type { SizedBody } from "./body";
import type { Size } from "./size";

/** Notes of threads, from the hole steps that carry them, on the bores they are cut into. */
export function threadNotes(document: PartDocument, body: SizedBody): Size[] {
  return document.steps.flatMap((step, i): Size[] => {
    if (step.kind !== "hole" || step.suppressed || !step.thread) return [];
    const bores = body.surfaces.flatMap((s) => {
      const key = s.keys.find((k) => stepOf(k) === step.id);
      return key !== undefined && s.carrier.kind === "cylinder" && s.carrier.hollow ? [{ key, c: s.carrier }] : [];
    });
    // a counterbore is wider than what the thread is cut into
    const core = Math.min(...bores.map((b) => b.c.radius));
    const of = bores.filter((b) => b.c.radius < core * WIDER).map((b) => b.key);
    if (!of.length) return [];
    const { name, depth } = step.thread;
    const r = depth === undefined ? undefined : readQuantity(String(depth), "length", document.units);
    return [{ id: `t${i + 1}`, kind: "thread", of, name, ...(r?.ok && { depth: r.value }) }];
  });
}
/** Bores of one step that are wider by so much are another part of the hole. */
const WIDER = 1.001;

import type { Kernel } from "@/core/kernel/opencascade";
import { KernelFault } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { refuse, type Refusal } from "@/core/units/refusal";
import type { PartDocument } from "./document";
import { kindOf } from "./steps/registry";
import type { BuiltSketch } from "./steps/step";

export interface BuiltStep {
  readonly id: string;
  readonly refusal?: Refusal;
}

export interface BuiltPart {
  readonly body: Solid | undefined;
  readonly sketches: ReadonlyMap<string, BuiltSketch>;
  readonly steps: readonly BuiltStep[];
}

/**
 * Builds a part step by step. A step in trouble is marked and left out; the rest still builds.
 * The caller releases the body.
 * @param count build only so many steps
 */
export function rebuild(kernel: Kernel, document: PartDocument, count = document.steps.length): BuiltPart {
  const sketches = new Map<string, BuiltSketch>();
  const steps: BuiltStep[] = [];
  let body: Solid | undefined;
  for (const step of document.steps.slice(0, count)) {
    if (step.suppressed) {
      steps.push({ id: step.id });
      continue;
    }
    let refusal: Refusal | undefined;
    try {
      const r = kindOf(step).build({ kernel, unit: document.units, body, sketches }, step);
      if (!r.ok) refusal = r.refusal;
      else if ("sketch" in r.value) sketches.set(step.id, r.value.sketch);
      else {
        if (body && body !== r.value.body) kernel.release(body.shape);
        body = r.value.body;
      }
    } catch (e) {
      if (!(e instanceof KernelFault)) throw e;
      refusal = refuse("kernel", `This step could not be built: ${e.message}.`, [step.id]).refusal;
    }
    steps.push(refusal ? { id: step.id, refusal } : { id: step.id });
  }
  return { body, sketches, steps };
}

/** Sketches that a step of the part stands on. */
export function usedSketches(document: PartDocument): string[] {
  const used = new Set(document.steps.filter((s) => !s.suppressed).flatMap((s) => kindOf(s).uses(s)));
  return document.steps.filter((s) => s.kind === "sketch" && used.has(s.id)).map((s) => s.id);
}

import type { CheckContext } from "@/core/check/kinds/context";
import { SAME_SIZE } from "@/core/check/tolerance";
import { propertiesOf } from "@/core/kernel/properties";
import { stepOf } from "@/core/naming/names";
import type { PartDocument } from "@/core/part/document";
import { withStep } from "@/core/part/commands";
import type { Rebuilder } from "@/core/part/rebuild";
import { isSolidStep, titleOf, type Step } from "@/core/part/steps/kinds";
import { namesOfFaces } from "@/core/sizes/names";
import { without } from "./turns";

/** The reference with something of it left away, and what that is called. */
interface Variant {
  readonly called: string;
  readonly document: PartDocument;
  /** mm³; undefined: not built yet; null: it does not build. */
  volume?: number | null;
}

/** So many references are remembered. */
const MOST_KEPT = 6;

/**
 * What references would be without one of their steps or edges. Their volumes are found once and kept: a class of
 * thirty asks the same of one exercise.
 */
export class Lacking {
  private readonly kept = new Map<string, Variant[]>();

  /**
   * Variants of a reference that have a volume.
   * @param volume mm³
   * @param goesOn asked before each is built
   */
  alike(context: CheckContext, rebuilder: Rebuilder, volume: number, goesOn: () => boolean): Variant[] {
    const { kernel } = context;
    return this.of(context).filter((v) => {
      if (v.volume === undefined && goesOn()) {
        // steps that stand on what is left away fall with it
        const { body } = rebuilder.run(v.document);
        v.volume = body ? propertiesOf(kernel, body).volume : null;
      }
      return typeof v.volume === "number" && Math.abs(v.volume / volume - 1) <= SAME_SIZE;
    });
  }

  private of(context: CheckContext): Variant[] {
    const { reference } = context.exercise;
    const key = JSON.stringify(reference);
    const found = this.kept.get(key) ?? variantsOf(context, reference);
    this.kept.delete(key);
    this.kept.set(key, found);
    const [oldest] = this.kept.keys();
    if (this.kept.size > MOST_KEPT && oldest !== undefined) this.kept.delete(oldest);
    return found;
  }
}

function variantsOf(context: CheckContext, d: PartDocument): Variant[] {
  const list: Variant[] = [];
  const first = d.steps.findIndex((s) => isSolidStep(s) && !s.suppressed);
  d.steps.forEach((step, at) => {
    if (step.suppressed || !isSolidStep(step) || at === first) return;
    const called = calledThing(context, step);
    list.push({ called, document: without(d, step) });
    for (const other of withEdgeLess(step))
      list.push({
        called: `an edge of ${called}`,
        document: withStep(d, other),
      });
  });
  return list.reverse();
}

/** So many faces of a step are called by their names; what makes more is called by its kind. */
const MOST_NAMED = 6;

/** What a step makes, as the drawing calls it; one that made no face that is left is called by its kind. */
function calledThing({ named }: CheckContext, step: Step): string {
  const keys = named.body.surfaces.flatMap((s) => s.keys.filter((k) => stepOf(k) === step.id).slice(0, 1));
  const text = namesOfFaces(named.body, named.features).all(keys);
  const isShort = keys.length > 0 && keys.length <= MOST_NAMED && !/ others?$/.test(text);
  return isShort ? text : `what the step “${titleOf(step)}” of the reference makes`;
}

/** A rounding or chamfer with each of its edges forgotten. */
function withEdgeLess(step: Step): Step[] {
  if (step.kind !== "fillet" && step.kind !== "chamfer") return [];
  const groups = step.groups as readonly { edges: readonly unknown[] }[];
  return groups.flatMap((g, i) =>
    g.edges.length < 2
      ? []
      : g.edges.map((_, k): Step => {
          const rest = g.edges.filter((__, e) => e !== k);
          return { ...step, groups: groups.map((h, n) => (n === i ? { ...h, edges: rest } : h)) } as Step;
        }),
  );
}

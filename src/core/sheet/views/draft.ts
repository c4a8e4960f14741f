import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { featuresOf, type Feature } from "@/core/sizes/features";
import type { LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { sheetModel, type SheetModel } from "./model";
import { detailView, drawnView, type View, type ViewPlan } from "./views";

/**
 * A reference on the drawing board: built once, and every view of it drawn once, so that what is moved on the paper
 * wants no geometry. It holds shapes of the kernel until it is closed.
 */
export interface Draft {
  readonly reference: PartDocument;
  readonly model: SheetModel;
  readonly features: readonly Feature[];
  /** Views by their plans, in the same order. @param unhatched steps that stay plain where they are cut */
  views(plans: readonly ViewPlan[], unhatched?: readonly string[]): View[];
  close(): void;
}

/** Builds a reference to be drawn; refused where it has no solid. */
export function openDraft(kernel: Kernel, reference: PartDocument, unit: LengthUnit): Outcome<Draft> {
  const built = rebuild(kernel, reference);
  const trouble = built.steps.find((s) => s.refusal);
  if (!built.body || trouble) {
    kernel.release(built.body?.shape);
    const why = trouble?.refusal?.sentence ?? "it has no solid.";
    return refuse("bad-reference", `The reference part cannot be drawn: ${why}`);
  }
  const { body, bodies } = built;
  const model = sheetModel(kernel, body),
    features = featuresOf(model.body, { unit });
  const drawn = new Map<string, View>();
  const hatched = new Map<string, readonly Solid[]>();
  const whole = bodies.map((b) => b.solid);
  const hatchedOf = (unhatched: readonly string[]): readonly Solid[] => {
    if (!unhatched.length) return whole;
    const key = unhatched.join();
    let list = hatched.get(key);
    if (!list) hatched.set(key, (list = without(kernel, reference, unhatched) ?? whole));
    return list;
  };
  const draw = (plan: ViewPlan, unhatched: readonly string[], earlier: readonly View[]): View => {
    const parent = plan.round && earlier.find((v) => v.key === plan.of);
    if (parent) return detailView({ ...plan, round: plan.round! }, parent);
    const key = JSON.stringify([plan, plan.cutters?.length ? unhatched : []]);
    let view = drawn.get(key);
    if (!view) drawn.set(key, (view = drawnView(kernel, body, plan, hatchedOf(unhatched))));
    return view;
  };
  return done({
    reference,
    model,
    features,
    views: (plans, unhatched = []) => plans.reduce<View[]>((list, plan) => [...list, draw(plan, unhatched, list)], []),
    close: () => {
      kernel.release(body.shape);
      for (const list of hatched.values()) if (list !== whole) for (const s of list) kernel.release(s.shape);
    },
  });
}

/** The bodies without some steps; undefined where the rest does not stand without them. */
function without(kernel: Kernel, reference: PartDocument, steps: readonly string[]): readonly Solid[] | undefined {
  const left = reference.steps.map((s) => (steps.includes(s.id) ? { ...s, suppressed: true } : s));
  const built = rebuild(kernel, { ...reference, steps: left });
  return built.steps.some((s) => s.refusal) ? undefined : built.bodies.map((b) => b.solid);
}

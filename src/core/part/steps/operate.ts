import type { Operation } from "./fields";
import { shareMaterial } from "@/core/kernel/share";
import { combine, isEmpty, isUnchanged } from "@/core/kernel/boolean";
import type { Solid } from "@/core/kernel/solid";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Body, BuildContext, StepResult } from "./step";

/**
 * Does to the bodies what a step says with its volumes. The volumes stay the caller's.
 * @returns all bodies afterwards; those untouched are the same objects
 */
export function operate(
  context: BuildContext,
  step: { readonly id: string; readonly operation: Operation; readonly bodies?: readonly string[] | undefined },
  tools: readonly Solid[],
): Outcome<readonly Body[]> {
  const { kernel, bodies } = context,
    { operation } = step;
  const missing = step.bodies?.find((id) => !bodies.some((b) => b.id === id));
  if (missing) return refuse("no-body", `The body ${missing} that this step acts on is not there.`, [step.id]);
  const joined = (): Solid => {
    const [first, ...rest] = tools as [Solid, ...Solid[]];
    return rest.length
      ? combine(kernel, "fuse", first, rest)
      : { shape: first.shape.Located(new kernel.library.TopLoc_Location(), false), names: first.names };
  };
  if (operation === "separate" || (operation === "add" && !bodies.length))
    return done([...bodies, { id: step.id, solid: joined() }]);
  const targets = step.bodies
    ? bodies.filter((b) => step.bodies!.includes(b.id))
    : operation === "add"
      ? bodies.slice(0, 1)
      : bodies;
  if (operation === "add") {
    const [first, ...others] = targets as [Body, ...Body[]];
    const solid = combine(kernel, "fuse", first.solid, [...others.map((b) => b.solid), ...tools]);
    return done(bodies.flatMap((b) => (b === first ? [{ id: first.id, solid }] : others.includes(b) ? [] : [b])));
  }
  // what is kept is what lies in any of the volumes
  const volumes = operation === "keep" && tools.length > 1 ? [joined()] : tools;
  let changed = false;
  // the library now and then hands a body back although the volume lies inside it
  const isMissed = () => targets.some((b) => volumes.some((v) => shareMaterial(kernel, b.solid, v)));
  const after = bodies.flatMap((b): Body[] => {
    if (!targets.includes(b)) return [b];
    const solid = combine(kernel, operation === "cut" ? "cut" : "common", b.solid, volumes);
    if (!isUnchanged(kernel, b.solid, solid)) changed = true;
    if (!isEmpty(kernel, solid)) return [{ id: b.id, solid }];
    kernel.release(solid.shape);
    return [];
  });
  const isNothing = operation === "cut" ? !changed : !after.length;
  const missed = isNothing && isMissed();
  if (volumes !== tools) kernel.release(...volumes.map((v) => v.shape));
  const give = (code: string, sentence: string) => {
    kernel.release(...after.filter((b) => !bodies.includes(b)).map((b) => b.solid.shape));
    return refuse(code, sentence, [step.id]);
  };
  if (missed)
    return give(
      "missed",
      "This step could not be computed, though its volume meets the part. Move it a hair's breadth.",
    );
  if (!after.length)
    return give(
      "nothing-left",
      operation === "cut"
        ? "This cut would take away the whole part."
        : "The part and this volume have nothing in common: nothing would be left.",
    );
  if (isNothing) return give("cuts-nothing", "This cut meets no material. Turn its direction round or make it deeper.");
  return done(after);
}

/** A step that makes volumes and does something to the bodies with them; the volumes are kept for patterns. */
export function built(
  context: BuildContext,
  step: Parameters<typeof operate>[1],
  volumes: () => Outcome<readonly Solid[]>,
): Outcome<StepResult> {
  const { operation, bodies } = step;
  if ((operation === "cut" || operation === "keep") && !context.bodies.length)
    return refuse("nothing-to-cut", "There is no material to cut yet. Add material first.", [step.id]);
  const solids = volumes();
  if (!solids.ok) return solids;
  let kept = false;
  try {
    const after = operate(context, step, solids.value);
    kept = after.ok;
    return after.ok ? done({ bodies: after.value, tools: { solids: solids.value, operation, bodies } }) : after;
  } finally {
    if (!kept) context.kernel.release(...solids.value.map((s) => s.shape));
  }
}

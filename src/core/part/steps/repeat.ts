import { stepMark } from "@/core/naming/words";
import { imagePrefix } from "@/core/naming/names";
import type { Of } from "./fields";
import type { Rigid } from "@/core/geometry/rigid";
import { combine } from "@/core/kernel/boolean";
import { placed, renamed } from "@/core/kernel/place";
import type { Solid } from "@/core/kernel/solid";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { operate } from "./operate";
import type { Body, BuildContext, StepResult, Tools } from "./step";

/** One image: how its names begin, and where it goes. */
export interface Image {
  /** Follows the step's id in names: `image`, or `copy/3`. */
  readonly role: string;
  readonly motion: Rigid;
}

function copies(context: BuildContext, solids: readonly Solid[], step: string, images: readonly Image[]): Solid[] {
  return images.flatMap((i) => solids.map((s) => renamed(placed(context.kernel, s, i.motion), step, i.role)));
}

/** Does steps again at other places, or sets images of the bodies beside them. */
export function repeat(
  context: BuildContext,
  step: { readonly id: string; readonly of: Of },
  images: readonly Image[],
): Outcome<StepResult> {
  const { kernel } = context;
  if (!context.bodies.length) return refuse("no-body", "There is no part yet to repeat anything on.", [step.id]);
  if ("body" in step.of) {
    const after = context.bodies.map((b): Body => {
      const made = copies(context, [b.solid], step.id, images),
        solid = combine(kernel, "fuse", b.solid, made);
      kernel.release(...made.map((s) => s.shape));
      return { id: b.id, solid };
    });
    return done({ bodies: after });
  }
  const { steps } = step.of,
    all: Solid[] = [];
  let bodies = context.bodies,
    operation: Tools["operation"] | undefined;
  const drop = (next: readonly Body[]) => {
    // what only stood between two of the steps
    kernel.release(...bodies.filter((b) => !context.bodies.includes(b) && !next.includes(b)).map((b) => b.solid.shape));
    bodies = next;
  };
  const giveUp = <T>(r: T): T => {
    drop(context.bodies);
    kernel.release(...all.map((s) => s.shape));
    return r;
  };
  for (const id of steps) {
    const tools = context.tools.get(id);
    if (tools) {
      if (tools.operation === "keep")
        return giveUp(refuse("cannot-repeat", `${stepMark(id)} keeps an overlap and cannot be repeated.`, [id]));
      const made = copies(context, tools.solids, step.id, images);
      all.push(...made);
      operation ??= tools.operation;
      const r = operate(
        { ...context, bodies },
        { id: step.id, operation: tools.operation, bodies: tools.bodies },
        made,
      );
      if (!r.ok) return giveUp(r);
      drop(r.value);
      continue;
    }
    for (const image of images) {
      const r = context.again(id, bodies, imagePrefix(step.id, image.role), steps);
      if (!r.ok) return giveUp(r);
      drop(r.value);
    }
  }
  // repeated together, the images can be repeated once more
  return done({ bodies, ...(operation && { tools: { solids: all, operation } }) });
}

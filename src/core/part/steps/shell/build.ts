import { KernelFault } from "@/core/kernel/opencascade";
import { pushed } from "@/core/kernel/push";
import { shelled } from "@/core/kernel/shell";
import { formatFace } from "@/core/naming/names";
import { done, refuse } from "@/core/units/refusal";
import { faceOf } from "../../reference/resolve";
import { lengthOf, type Body, refuseLost, type Missing, type Build } from "../step";
import type { ShellStep } from "./schema";

export const buildShell: Build<ShellStep> = (context, step) => {
  const { kernel, bodies } = context,
    t = context.topology();
  if (!t) return refuse("no-body", "There is no part yet to be hollowed out.", [step.id]);
  const thickness = lengthOf(context, step.thickness, "The thickness");
  if (!thickness.ok) return thickness;
  const open: number[] = [],
    lost: Missing[] = [];
  step.open.forEach((ref) => {
    const f = faceOf(context, ref);
    if (f.ok) open.push(f.value);
    else lost.push({ ref, sentence: f.refusal.sentence });
  });
  if (lost.length) return refuseLost("lost-reference", lost, [step.id]);
  const starts: number[] = [];
  bodies.reduce((n, b, i) => ((starts[i] = n), n + b.solid.names.length), 0);
  const bodyOf = (face: number) => starts.findLastIndex((s) => s <= face);
  // a body without an open face is left alone, unless it is the only one
  const touched = new Set(open.map(bodyOf));
  if (!open.length) return refuse("no-faces", "Pick the faces that are to be open.", [step.id]);
  const after: Body[] = [];
  try {
    for (const [i, b] of bodies.entries()) {
      if (!touched.has(i)) {
        after.push(b);
        continue;
      }
      let solid = shelled(
        kernel,
        b.solid,
        open.filter((f) => bodyOf(f) === i).map((f) => f - starts[i]!),
        step.outward ? -thickness.value : thickness.value,
        step.id,
      );
      for (const other of step.others ?? []) {
        const f = faceOf(context, other.face),
          wall = lengthOf(context, other.thickness, "The thickness");
        if (!f.ok) return f;
        if (!wall.ok) return wall;
        if (bodyOf(f.value) !== i) continue;
        // inward the new face is moved; outward it is the one that carries the old name
        const moved = { step: step.id, role: "inner", of: formatFace(b.solid.names[f.value - starts[i]!]![0]!) };
        const next = pushed(kernel, solid, formatFace(moved), wall.value - thickness.value);
        if (!next) {
          kernel.release(solid.shape);
          return refuse("not-flat", "Only flat faces can have a wall of their own.", [step.id]);
        }
        kernel.release(solid.shape);
        solid = next;
      }
      after.push({ id: b.id, solid });
    }
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    kernel.release(...after.filter((b) => !bodies.includes(b)).map((b) => b.solid.shape));
    return refuse(
      "no-wall",
      "A wall of this thickness cannot be made: make it thinner, or shell before the finest roundings.",
      [step.id],
    );
  }
  return done({ bodies: after });
};

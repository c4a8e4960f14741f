import type { SketchCommand } from "@/core/sketch/command-schema";
import type { Constraint } from "@/core/sketch/sketch";
import { idSource } from "@/core/sketch/shapes";
import type { Hands } from "./tool";

type Draw = Extract<SketchCommand, { do: "draw" }>;
export type Tie = Pick<Constraint, "kind" | "of">;

/** Draws with the ties found on the way; ties that cannot be met are left out rather than the drawing. */
export function drawTied(hands: Hands, command: Draw, ties: readonly Tie[], id: ReturnType<typeof idSource>): boolean {
  const tied = ties.map((t) => ({ id: id("k"), ...t }));
  if (!tied.length) return hands.draw(command);
  if (hands.draw({ ...command, constraints: [...command.constraints, ...tied] })) return true;
  // of what was found, points matter more than directions
  const points = tied.filter((t) => t.kind === "coincident");
  return points.length &&
    points.length < tied.length &&
    hands.draw({ ...command, constraints: [...command.constraints, ...points] })
    ? true
    : hands.draw(command);
}

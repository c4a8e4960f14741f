import { readAmount } from "@/core/units/amounts";
import { readQuantity } from "@/core/units/quantity";
import type { Outcome } from "@/core/units/refusal";
import type { AskedFigures, FigureQuantity } from "../../exercise/question";

/** Reads a typed figure; a plain number counts in the unit of the exercise. */
export function readFigure(
  typed: string,
  quantity: FigureQuantity,
  { units, massUnit }: Omit<AskedFigures, "questions">,
): Outcome<number> {
  if (quantity === "length" || quantity === "angle") return readQuantity(typed, quantity, units);
  const plain = { mass: massUnit ?? "g", volume: units, area: units } as const;
  return readAmount(typed, quantity, plain[quantity]);
}

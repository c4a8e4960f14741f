import { volumeText } from "@/core/units/amounts";
import { amountEvidence, amountToInstructor, amountToStudent, type AmountEvidence } from "../amount";
import type { Asked, CheckKind } from "../kind";

const text = (asked: Asked) => (v: number) => volumeText(v, asked.units);

export const volumeKind: CheckKind<AmountEvidence<"volume">> = {
  evidence: amountEvidence("volume"),
  toInstructor: (e, asked) => amountToInstructor(e, text(asked)),
  toStudent: (e, asked) => amountToStudent(e, text(asked), asked.sheet.printVolume),
  limit: { unit: "% off", isShare: true },
  start: { title: "Volume", points: 3, limit: 0.05 },
};

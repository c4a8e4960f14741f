import { massText } from "@/core/units/amounts";
import { amountEvidence, amountToInstructor, amountToStudent, type AmountEvidence } from "../amount";
import type { Asked, CheckKind } from "../kind";

const text = (asked: Asked) => (v: number) => massText(v, asked.massUnit);

export const massKind: CheckKind<AmountEvidence<"mass">> = {
  evidence: amountEvidence("mass"),
  toInstructor: (e, asked) => amountToInstructor(e, text(asked)),
  toStudent: (e, asked) => amountToStudent(e, text(asked), asked.sheet.printMass),
  limit: { unit: "% off", isShare: true },
  start: { title: "Mass", points: 4, limit: 0.05 },
};

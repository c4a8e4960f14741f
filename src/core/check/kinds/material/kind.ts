import { z } from "zod";
import { plainNumber } from "@/core/units/quantity";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

interface Made {
  readonly name: string;
  /** g/cm³ */
  readonly density: number;
}
export interface MaterialEvidence {
  readonly check: "material";
  readonly verdict: Verdict;
  /** 0 or 1. */
  readonly off: number;
  readonly asked: Made;
  /** None of what came as a file. */
  readonly given?: Made | undefined;
}

const Material = z.strictObject({ name: plainText(), density: z.number() });
export const materialKind: CheckKind<MaterialEvidence> = {
  evidence: z.strictObject({
    check: z.literal("material"),
    verdict: VerdictSchema,
    off: z.number(),
    asked: Material,
    given: Material.optional(),
  }),
  toInstructor: told,
  // the Sheet prints its material
  toStudent: told,
  start: { title: "Material", points: 0 },
};

const text = (m: Made): string => `${m.name} (${plainNumber(m.density, 3)} g/cm³)`;
function told({ given, asked, verdict }: MaterialEvidence): string {
  if (!given) return "What was handed in names no material.";
  return verdict === "met" ? `${text(given)}, as asked for.` : `${text(given)}, the Sheet asks for ${text(asked)}.`;
}

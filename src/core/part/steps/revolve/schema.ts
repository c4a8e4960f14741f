import {
  angleField,
  operationFields,
  OPERATION_TEXT,
  regionsField,
  sketchField,
  stepFields,
  stepKind,
  ThinSchema,
} from "../fields";
import { z } from "zod";
import { angleText, readQuantity } from "@/core/units/quantity";
import { AxisRefSchema } from "@/core/naming/reference";

const RevolveStepSchema = z.strictObject({
  ...stepFields,
  kind: z.literal("revolve"),
  ...operationFields,
  sketch: sketchField(),
  regions: regionsField().optional(),
  /** What it turns about; left out: the sketch's only centre line. */
  about: AxisRefSchema.optional(),
  turn: z.discriminatedUnion("kind", [
    z.strictObject({ kind: z.literal("whole") }),
    z.strictObject({ kind: z.literal("angle"), angle: angleField("angle") }),
    /** The whole angle, half to each side of the sketch. */
    z.strictObject({ kind: z.literal("both"), angle: angleField("angle") }),
    z.strictObject({ kind: z.literal("two"), angle: angleField("angle"), back: angleField("angle back") }),
  ]),
  reverse: z.boolean().optional(),
  thin: ThinSchema.optional(),
});
export type RevolveStep = z.infer<typeof RevolveStepSchema>;

export const revolveKind = stepKind({
  schema: RevolveStepSchema,
  read(step) {
    const { turn } = step,
      text = (a: number | string) => {
        const r = readQuantity(a, "angle", "mm");
        return r.ok ? angleText(r.value) : String(a);
      };
    const how =
      turn.kind === "whole"
        ? "whole turn"
        : turn.kind === "angle"
          ? text(turn.angle)
          : turn.kind === "both"
            ? `both ways · ${text(turn.angle)}`
            : `${text(turn.angle)} and ${text(turn.back)}`;
    return { title: "Revolve", detail: `${OPERATION_TEXT[step.operation]} · ${how}` };
  },
});

import { z } from "zod";
import { supportAt } from "../anchor";
import { letteredLength } from "../lettering";
import { distanceKind } from "./distance";
import { sizeFields, type SizeKind, type SizeReading } from "./kind";
import { plainText } from "@/core/units/text";

const schema = z.strictObject({
  ...sizeFields,
  kind: z.literal("pitch"),
  /** Faces one after the other in a row. */
  of: z.array(plainText()).min(2).max(500),
});
type Pitch = z.infer<typeof schema>;

/** The spacing of a row, and how many stand in it. */
export const pitchKind: SizeKind<Pitch> = {
  schema,
  faces: (s) => s.of,
  read: (s, on) =>
    s.of.slice(1).map((face, i): SizeReading | undefined => {
      if (!supportAt([face], on)) return undefined;
      const [gap] = distanceKind.read({ id: "", kind: "distance", from: [s.of[i]!], to: [face] }, on);
      return (
        gap && [
          { what: "spacing", quantity: "length", value: gap[0]!.value },
          { what: "count", quantity: "count", value: s.of.length },
        ]
      );
    }),
  text(s, [gap], _, l) {
    const n = s.of.length - 1,
      step = letteredLength(gap!.value, l);
    return n > 1 ? `${n} × ${step} (${letteredLength(n * gap!.value, l)})` : step;
  },
  noun: "the spacing",
};

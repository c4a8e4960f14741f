import { z } from "zod";
import type { Vec3 } from "@/core/geometry/vector";
import { begun } from "@/core/naming/words";
import { letteredAngle, letteredLength } from "@/core/sizes/lettering";
import type { LengthUnit } from "@/core/units/quantity";
import { isAsPrinted } from "@/core/sizes/printed";
import { VerdictSchema, type CheckKind, type Verdict } from "../kind";
import { plainText } from "@/core/units/text";

/** One number of a printed size. mm, radians. */
export interface CheckedValue {
  readonly what: string;
  readonly quantity: "length" | "angle" | "count";
  /** As lettered on the drawing. */
  readonly printed: number;
  /** That number, as it is lettered; left out in reports of before. */
  readonly text?: string | undefined;
  /** Of a count: what is counted, "holes ⌀9". */
  readonly things?: string | undefined;
  /** On the part: one for each place that differs; none where it was not found. */
  readonly measured: readonly number[];
  readonly plus: number;
  readonly minus: number;
}

/** A printed size, and what the part has there. */
export interface CheckedSize {
  readonly id: string;
  /** As it stands on the drawing. */
  readonly text: string;
  /** "the diameter of the hole ⌀9 at the left". */
  readonly name: string;
  readonly state: "met" | "missed" | "lost" | "free";
  readonly values: readonly CheckedValue[];
  /** What is wrong with where its bores begin and end, in sentences: "the hole ⌀9 at the left does not go through". */
  readonly ends?: readonly string[] | undefined;
  /** In how many of its places it was not found, where it was in some. */
  readonly lacking?: { readonly places: number; readonly of: number } | undefined;
  /** Where to look: the middle of a face it stands on, in the reference's coordinates, mm; of one that is not met. */
  readonly at?: Vec3 | undefined;
}

export interface SizesEvidence {
  readonly check: "sizes";
  readonly verdict: Verdict;
  /** How many sizes are not met. */
  readonly off: number;
  readonly sizes: readonly CheckedSize[];
  /** The whole part is so many times too large: its sizes are not told one by one. */
  readonly scale?: number | undefined;
  /** How many of the sizes that a line asks for the drawing prints no more. */
  readonly gone?: number | undefined;
}

export const sizesKind: CheckKind<SizesEvidence> = {
  evidence: z.strictObject({
    check: z.literal("sizes"),
    verdict: VerdictSchema,
    off: z.number(),
    sizes: z.array(
      z.strictObject({
        id: plainText(),
        text: plainText(),
        name: plainText(),
        state: z.enum(["met", "missed", "lost", "free"]),
        at: z.tuple([z.number(), z.number(), z.number()]).optional(),
        ends: z.array(plainText()).optional(),
        lacking: z.strictObject({ places: z.number(), of: z.number() }).optional(),
        values: z.array(
          z.strictObject({
            what: plainText(),
            quantity: z.enum(["length", "angle", "count"]),
            printed: z.number(),
            text: plainText().optional(),
            things: plainText().optional(),
            measured: z.array(z.number()),
            plus: z.number(),
            minus: z.number(),
          }),
        ),
      }),
    ),
    scale: z.number().optional(),
    gone: z.number().optional(),
  }),
  toInstructor: (e, { units }) => told(e, units, 12),
  toStudent: (e, { units }) => told(e, units, 6),
  forLine(e, { only }) {
    if (!only || e.verdict === "unknown") return e;
    const chosen = new Set(only),
      sizes = e.sizes.filter((s) => chosen.has(s.id));
    const asked = sizes.filter((s) => s.state !== "free");
    const off = e.scale === undefined ? asked.filter((s) => s.state !== "met").length : asked.length;
    const gone = only.length - sizes.filter((s) => s.values.length > 0).length;
    if (!gone) return { ...e, sizes, off, verdict: off ? "missed" : "met" };
    // nobody can say of a size that is not there whether it is met
    return { ...e, sizes, off, gone, verdict: off ? "missed" : "unknown" };
  },
  items(e) {
    const of = e.sizes.filter((s) => s.state !== "free").length;
    return { right: of - Math.min(e.off, of), of };
  },
  limit: { unit: "sizes wrong", isShare: false },
  start: { title: "Printed sizes", points: 5, limit: 5 },
};

function told(e: SizesEvidence, unit: LengthUnit, most: number): string {
  if (e.scale !== undefined) return "No size is as printed, since the whole part is of another size.";
  if (e.gone && e.verdict === "unknown")
    return e.gone === 1
      ? "One size that this line asks for is not on the drawing any more, so it could not be judged."
      : `${e.gone} sizes that this line asks for are not on the drawing any more, so it could not be judged.`;
  if (e.verdict === "unknown") return "The part came as a mesh: its facets show no faces to measure sizes on.";
  const asked = e.sizes.filter((s) => s.state !== "free");
  const bad = asked.filter((s) => s.state !== "met");
  if (!asked.length) return "The drawing prints no sizes.";
  if (!bad.length) return `All ${asked.length} printed sizes are right.`;
  const head = `${asked.length - bad.length} of ${asked.length} printed sizes are right`;
  const list = bad.slice(0, most).map((s) => sizeSentence(s, unit));
  const more = bad.length > most ? ` And ${bad.length - most} more.` : "";
  return `${head}. ${list.map(begun).join(". ")}.${more}`;
}

/** One size in words: what was measured, what is printed, where. */
export function sizeSentence(checked: CheckedSize, unit: LengthUnit): string {
  if (checked.state === "lost") return `${checked.name}, printed ${checked.text}, was not found`;
  const text = (v: CheckedValue, value: number) => {
    if (v.quantity === "count") return String(value);
    if (v.quantity === "angle") return letteredAngle(value, 3);
    const plain = `${letteredLength(Math.abs(value), { unit })} ${unit}`;
    return value < 0 ? `${plain} the other way` : plain;
  };
  const asPrinted = (v: CheckedValue) => {
    if (v.text === undefined) return text(v, v.printed);
    return v.quantity === "length" ? `${v.text} ${unit}` : v.text;
  };
  const wrong = checked.values.filter((v) => v.measured.some((m) => !isWithin(v, m)));
  const counts = wrong.filter((v) => v.quantity === "count" && v.things !== undefined),
    ends = checked.ends ?? [];
  const { lacking } = checked;
  const whole = [
    ...counts.map((v) => `${v.measured[0]} ${v.things}, printed ${v.printed}`),
    // what is counted is told by its number
    ...(lacking && !counts.length
      ? [`${checked.name}, printed ${checked.text}, was not found in ${lacking.places} of ${lacking.of} places`]
      : []),
    ...ends,
  ];
  const measures = wrong.filter((v) => !counts.includes(v));
  if (!measures.length && whole.length) return whole.join("; ");
  if (!wrong.length) return `${checked.name} is ${checked.text}`;
  const many = checked.values.length - counts.length > 1;
  const parts = measures.map((v) => {
    const measured = [...new Set(v.measured.map((m) => text(v, m)))].join(" and ");
    return `${many ? `its ${v.what} ` : ""}is ${measured}, printed ${asPrinted(v)}`;
  });
  return [`${checked.name}${many ? ":" : ""} ${parts.join(", ")}`, ...whole].join("; ");
}

/** Whether a measured number lies within what is printed. */
export const isWithin = ({ printed, ...limits }: Pick<CheckedValue, "printed" | "plus" | "minus">, measured: number) =>
  isAsPrinted({ nominal: printed, ...limits }, measured);

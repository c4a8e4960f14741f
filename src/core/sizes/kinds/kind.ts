import { z } from "zod";
import { means } from "@/core/naming/field";
import type { Carriers } from "../anchor";
import type { Lettering } from "../lettering";
import { plainText } from "@/core/units/text";

/** One number of a size. Lengths in mm, angles in radians. */
export interface SizeValue {
  /** What it is, in the trade's word: "diameter", "depth". */
  readonly what: string;
  readonly quantity: "length" | "angle" | "count";
  readonly value: number;
  /** On which side of its first end the second lies, as a flat face looks; where one gives the direction. */
  readonly side?: 1 | -1 | undefined;
}
/** All numbers of a size, in the order they are lettered. */
export type SizeReading = readonly SizeValue[];

/** What every size has. */
export const sizeFields = {
  id: means(plainText().min(1).max(40), "id"),
  /** How many things it stands for, where several of its faces are one. */
  things: means(z.number().int().min(1).max(2000), "count").optional(),
  /** Its own tolerance, mm or radians; left out: the general one. */
  tolerance: z.strictObject({ plus: z.number().min(0), minus: z.number().min(0) }).optional(),
  /** How it is lettered where it is not as the drawing's other numbers. */
  lettering: z
    .strictObject({
      /** Texts around the number. */
      before: plainText().max(30).optional(),
      after: plainText().max(60).optional(),
      /** It follows from others and stands in parentheses. */
      reference: z.boolean().optional(),
      digits: z.number().int().min(0).max(5).optional(),
      fractions: z.boolean().optional(),
      /** Its tolerance as the two limits. */
      limits: z.boolean().optional(),
      /** A tolerance class of ISO 286. */
      fit: z
        .string()
        .regex(/^[A-Za-z]{1,2}\d{1,2}$/)
        .optional(),
    })
    .optional(),
  /** Left to the student's judgement: nothing is asked of it, or only that it lies within the band (mm or radians). */
  free: z.union([z.literal(true), z.strictObject({ from: z.number(), to: z.number() })]).optional(),
};

/** All that is known of a kind of size. */
export interface SizeKind<S> {
  readonly schema: z.ZodType<S>;
  /** Every face it stands on. */
  faces(size: S): readonly string[];
  /**
   * What it measures on a part, from carriers: one reading for each place it stands for, undefined where a face is
   * missing or does not lie as the size needs it.
   */
  read(size: S, on: Carriers): readonly (SizeReading | undefined)[];
  /** As it is lettered on the drawing. @param often how many places have it */
  text(size: S, reading: SizeReading, often: number, lettering: Lettering): string;
  /** What it is, for a sentence: "the diameter". */
  readonly noun: string;
}

/** The number of places in front of a text. */
export const times = (often: number, text: string): string => (often > 1 ? `${often}× ${text}` : text);

/** Reads one face after the other. */
export const each = (
  faces: readonly string[],
  on: Carriers,
  read: (face: string) => SizeReading | undefined,
): (SizeReading | undefined)[] => faces.map((f) => (on(f) ? read(f) : undefined));

import { z } from "zod";

/** What the Bench shows of a version: a small picture as a data address, and numbers to tell it by. */
export const Shown = z.object({
  picture: z
    .string()
    .max(60_000)
    .regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/=]+$/)
    .optional(),
  numbers: z
    .object({
      steps: z.number().int().min(0).max(10_000),
      volume: z.number().finite().optional(),
      mass: z.number().finite().optional(),
      loose: z.number().int().min(0).max(1_000_000).optional(),
      sketches: z.number().int().min(0).max(10_000).optional(),
      defined: z.number().int().min(0).max(10_000).optional(),
    })
    .optional(),
});

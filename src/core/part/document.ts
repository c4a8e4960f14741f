import { z } from "zod";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { ParameterSchema, readParameters } from "./parameters";
import { FaceRefSchema } from "@/core/naming/reference";
import type { KnownStep, KnownSteps } from "./known-steps";
import { StepSchema, usesOf } from "./steps/kinds";
import { plainText } from "@/core/units/text";

export const MaterialSchema = z.strictObject({
  name: plainText().min(1).max(80),
  /** g/cm³ */
  density: z.number().positive().max(30),
});

const ColourSchema = plainText().regex(/^#[0-9a-f]{6}$/);

/** A part: plain data, the only truth. Written down in docs/part-format.md. */
export const PartSchema = z.strictObject({
  format: z.literal("caliper-part"),
  version: z.literal(1),
  name: plainText().max(120),
  units: z.enum(["mm", "in"]),
  material: MaterialSchema,
  parameters: z.array(ParameterSchema).max(200).optional(),
  /** How it looks; plays no part in any number. */
  colours: z
    .strictObject({
      body: ColourSchema.optional(),
      faces: z
        .array(z.strictObject({ on: FaceRefSchema, colour: ColourSchema }))
        .max(300)
        .optional(),
    })
    .optional(),
  steps: z.array(StepSchema).max(300),
});

/** A part whose steps have not been looked at. */
const Shell = PartSchema.extend({ steps: z.array(z.unknown()).max(300) });

export type Material = z.infer<typeof MaterialSchema>;
export type PartDocument = z.infer<typeof PartSchema>;

/** g/cm³ to g/mm³. */
export const densityOf = (m: Material): number => m.density / 1000;

export const emptyPart = (name: string, units: "mm" | "in", material: Material): PartDocument => ({
  format: "caliper-part",
  version: 1,
  name,
  units,
  material,
  steps: [],
});

/** Largest document taken, in characters of JSON. */
export const MAX_DOCUMENT = 2_000_000;

/**
 * Reads JSON text or parsed data by a schema. @param what begins the sentence of a refusal @param code of one that
 * does not fit
 */
export function readDocument<T>(source: unknown, schema: z.ZodType<T>, what: string, code: string): Outcome<T> {
  let data = source;
  if (typeof source === "string") {
    try {
      data = JSON.parse(source);
    } catch {
      return refuse("not-json", `${what} is not JSON.`);
    }
  }
  const r = schema.safeParse(data);
  return r.success ? done(r.data) : refuse(code, issueSentence(what, r.error));
}

/**
 * Reads a part from anything: JSON text or parsed data. Says in one sentence what is wrong and where. @param known
 * steps read before, which need not be read again
 */
export function readPart(source: unknown, known?: KnownSteps): Outcome<PartDocument> {
  if (typeof source === "string" && source.length > MAX_DOCUMENT)
    return refuse("too-large", "The part document is larger than 2 MB.");
  const r = (known && readByKnown(source, known)) ?? readAnew(source);
  if (!r.ok) return r;
  const { part, steps } = r.value;
  const parameters = readParameters(part.parameters ?? [], part.units);
  if (!parameters.ok) return refuse("bad-parameters", parameters.refusal.sentence, parameters.refusal.about);
  const seen = new Set<string>();
  for (const { step, uses } of steps) {
    if (seen.has(step.id)) return refuse("bad-document", `The step id ${step.id} is used twice.`, [step.id]);
    for (const used of uses)
      if (!seen.has(used))
        return refuse("bad-document", `Step ${step.id} stands on ${used}, which is not an earlier step.`, [step.id]);
    seen.add(step.id);
  }
  return done(part);
}

interface Read {
  readonly part: PartDocument;
  readonly steps: readonly KnownStep[];
}

function readAnew(source: unknown): Outcome<Read> {
  const r = readDocument(source, PartSchema, "The part document", "bad-document");
  return r.ok ? done({ part: r.value, steps: r.value.steps.map((step) => ({ step, uses: usesOf(step) })) }) : r;
}

/** The same by steps read before; undefined where anything is wrong, which is told best by reading it anew. */
function readByKnown(source: unknown, known: KnownSteps): Outcome<Read> | undefined {
  const shell = Shell.safeParse(source);
  if (!shell.success) return undefined;
  const steps: KnownStep[] = [];
  for (const data of shell.data.steps) {
    const read = known.read(data);
    if (!read) return undefined;
    steps.push(read);
  }
  return done({ part: { ...shell.data, steps: steps.map((s) => s.step) }, steps });
}

/** The first thing wrong, with its place. */
export function issueSentence(what: string, error: z.ZodError): string {
  const issue = error.issues[0]!;
  const place = issue.path.length ? ` at ${issue.path.join(".")}` : "";
  return `${what} cannot be read${place}: ${issue.message.replace(/\.$/, "")}.`;
}

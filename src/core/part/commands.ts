import { z } from "zod";
import { applyToSketch } from "@/core/sketch/commands";
import { SketchCommandSchema } from "@/core/sketch/command-schema";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { issueSentence, MaterialSchema, PartSchema, readPart, type PartDocument } from "./document";
import { givenBy, ParameterSchema, readParameters } from "./parameters";
import { inOtherUnits } from "./unit-change";
import { StepSchema, titleOf, usesOf, type Step } from "./steps/kinds";
import { plainText } from "@/core/units/text";

/** Every change a part can undergo. */
const PartCommandSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("add-step"), step: StepSchema, at: z.number().int().nonnegative().optional() }),
  z.strictObject({ do: z.literal("change-step"), step: StepSchema }),
  z.strictObject({ do: z.literal("delete-step"), id: plainText() }),
  z.strictObject({ do: z.literal("suppress-step"), id: plainText(), on: z.boolean() }),
  /** To another place in the order; it must stay after all it stands on. */
  z.strictObject({ do: z.literal("move-step"), id: plainText(), to: z.number().int().nonnegative() }),
  z.strictObject({ do: z.literal("name-step"), id: plainText(), name: plainText().max(80) }),
  z.strictObject({ do: z.literal("parameters"), parameters: z.array(ParameterSchema).max(200) }),
  z.strictObject({ do: z.literal("colours"), colours: PartSchema.shape.colours }),
  /**
   * Another unit for the document: sizes that were plain numbers get the old unit written out, so that nothing
   * changes.
   */
  z.strictObject({ do: z.literal("units"), units: PartSchema.shape.units }),
  z.strictObject({
    do: z.literal("sketch"),
    step: plainText(),
    command: SketchCommandSchema,
    /** What can be met, but not from how the sketch is drawn, is drawn so. */
    redraw: z.boolean().optional(),
  }),
  z.strictObject({
    do: z.literal("describe"),
    name: PartSchema.shape.name.optional(),
    material: MaterialSchema.optional(),
  }),
]);
export type PartCommand = z.infer<typeof PartCommandSchema>;

/** The first free id of a kind of step: sketch1, extrude2 … */
export function freeStepId(document: PartDocument, kind: Step["kind"]): string {
  let n = 1;
  while (document.steps.some((s) => s.id === `${kind}${n}`)) n++;
  return `${kind}${n}`;
}

/** Applies one command. Undo is the earlier document. */
export function apply(document: PartDocument, command: PartCommand): Outcome<PartDocument> {
  const r = change(document, command);
  if (!r.ok) return r;
  const given = withParameters(r.value);
  if (!given.ok) return given;
  const checked = readPart(given.value);
  return checked.ok ? done(given.value, r.notice) : checked;
}

/** Every sketch is told the part's parameters, so that it can be solved by itself. */
export function withParameters(document: PartDocument): Outcome<PartDocument> {
  const { parameters } = document;
  if (!parameters?.length && !document.steps.some((s) => s.kind === "sketch" && s.sketch.given)) return done(document);
  const values = readParameters(parameters ?? [], document.units);
  if (!values.ok) return values;
  const given = givenBy(document);
  const text = JSON.stringify(given);
  return done({
    ...document,
    steps: document.steps.map((s) => {
      if (s.kind !== "sketch" || JSON.stringify(s.sketch.given ?? []) === text) return s;
      const { given: _, ...rest } = s.sketch;
      return { ...s, sketch: given.length ? { ...rest, given } : rest };
    }),
  });
}

type Of<K extends PartCommand["do"]> = Extract<PartCommand, { do: K }>;
/** What each command makes of a part. */
type Changes = {
  readonly [K in PartCommand["do"]]: (document: PartDocument, command: Of<K>) => Outcome<PartDocument>;
};

const found = ({ steps }: PartDocument, id: string): Step | undefined => steps.find((s) => s.id === id);
const titled = (document: PartDocument, id: string): string => titleOf(found(document, id)!);
const noStep = (id: string) => refuse("not-found", `There is no step ${id}.`);
/** A part with another step in the place of the one of its id. */
export const withStep = (document: PartDocument, step: Step): PartDocument => ({
  ...document,
  steps: document.steps.map((s) => (s.id === step.id ? step : s)),
});

const CHANGES: Changes = {
  "add-step": (document, { step, at }) => {
    const { steps } = document,
      place = Math.min(at ?? steps.length, steps.length);
    return done({ ...document, steps: [...steps.slice(0, place), step, ...steps.slice(place)] });
  },
  "change-step": (document, { step }) => (found(document, step.id) ? done(withStep(document, step)) : noStep(step.id)),
  "suppress-step": (document, { id, on }) => {
    const step = found(document, id);
    if (!step) return noStep(id);
    const { suppressed: _, ...rest } = step;
    return done(withStep(document, (on ? { ...rest, suppressed: true } : rest) as Step));
  },
  "delete-step": deleteStep,
  "move-step": moveStep,
  "name-step": (document, { id, name: typed }) => {
    const step = found(document, id);
    if (!step) return noStep(id);
    const { name: _, ...rest } = step,
      name = typed.trim();
    return done(withStep(document, (name ? { ...rest, name } : rest) as Step));
  },
  parameters: (document, { parameters }) => {
    const { parameters: _, ...rest } = document;
    return done(parameters.length ? { ...rest, parameters } : rest);
  },
  colours: (document, { colours }) => {
    const { colours: _, ...rest } = document;
    return done(colours ? { ...rest, colours } : rest);
  },
  units: (document, { units }) => inOtherUnits(document, units),
  sketch: (document, { step: id, command, redraw }) => {
    const step = found(document, id);
    if (step?.kind !== "sketch") return refuse("not-found", `There is no sketch ${id}.`);
    const r = applyToSketch(step.sketch, command, document.units, redraw);
    return r.ok ? done(withStep(document, { ...step, sketch: r.value }), r.notice) : r;
  },
  describe: (document, { name, material }) =>
    done({ ...document, ...(name !== undefined && { name }), ...(material && { material }) }),
};

function change<K extends PartCommand["do"]>(document: PartDocument, command: Of<K>): Outcome<PartDocument> {
  return (CHANGES[command.do as K] as Changes[K])(document, command);
}

function deleteStep(document: PartDocument, { id }: Of<"delete-step">): Outcome<PartDocument> {
  const needing = document.steps.filter((s) => usesOf(s).includes(id));
  const [are, them] = needing.length > 1 ? ["stand", "them"] : ["stands", "that"];
  if (needing.length)
    return refuse(
      "in-use",
      `${needing.map((s) => titled(document, s.id)).join(" and ")} ${are} on this step. Delete ${them} first.`,
      needing.map((s) => s.id),
    );
  return done({ ...document, steps: document.steps.filter((s) => s.id !== id) });
}

function moveStep(document: PartDocument, { id, to }: Of<"move-step">): Outcome<PartDocument> {
  const step = found(document, id);
  if (!step) return noStep(id);
  const rest = document.steps.filter((s) => s !== step),
    at = Math.min(to, rest.length);
  const after = (upper: string, lower: string) => `${titled(document, upper)} stands on ${titled(document, lower)}`;
  const before = new Set(rest.slice(0, at).map((s) => s.id));
  const missing = usesOf(step).find((used) => !before.has(used));
  if (missing) return refuse("order", `${after(id, missing)} and must come after it.`, [missing]);
  const needing = rest.slice(0, at).find((s) => usesOf(s).includes(id));
  if (needing) return refuse("order", `${after(needing.id, id)} and must come after it.`, [needing.id]);
  return done({ ...document, steps: [...rest.slice(0, at), step, ...rest.slice(at)] });
}

/** Reads a command from untrusted data. */
export function readCommand(data: unknown): Outcome<PartCommand> {
  const r = PartCommandSchema.safeParse(data);
  return r.success ? done(r.data) : refuse("bad-command", issueSentence("The command", r.error));
}

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

function change(document: PartDocument, command: PartCommand): Outcome<PartDocument> {
  const { steps } = document;
  const find = (id: string) => steps.find((s) => s.id === id);
  const titled = (id: string) => titleOf(find(id)!);
  const replace = (step: Step): PartDocument => ({
    ...document,
    steps: steps.map((s) => (s.id === step.id ? step : s)),
  });
  switch (command.do) {
    case "add-step": {
      const at = Math.min(command.at ?? steps.length, steps.length);
      return done({ ...document, steps: [...steps.slice(0, at), command.step, ...steps.slice(at)] });
    }
    case "change-step":
      return find(command.step.id)
        ? done(replace(command.step))
        : refuse("not-found", `There is no step ${command.step.id}.`);
    case "suppress-step": {
      const step = find(command.id);
      if (!step) return refuse("not-found", `There is no step ${command.id}.`);
      const { suppressed: _, ...rest } = step;
      return done(replace((command.on ? { ...rest, suppressed: true } : rest) as Step));
    }
    case "delete-step": {
      const needing = steps.filter((s) => usesOf(s).includes(command.id));
      if (needing.length)
        return refuse(
          "in-use",
          `${needing.map((s) => titled(s.id)).join(" and ")} stand${needing.length > 1 ? "" : "s"} on this ` +
            `step. Delete ${needing.length > 1 ? "them" : "that"} first.`,
          needing.map((s) => s.id),
        );
      return done({ ...document, steps: steps.filter((s) => s.id !== command.id) });
    }
    case "move-step": {
      const step = find(command.id);
      if (!step) return refuse("not-found", `There is no step ${command.id}.`);
      const rest = steps.filter((s) => s !== step),
        at = Math.min(command.to, rest.length);
      const before = new Set(rest.slice(0, at).map((s) => s.id));
      const missing = usesOf(step).find((id) => !before.has(id));
      if (missing)
        return refuse("order", `${titled(step.id)} stands on ${titled(missing)} and must come after it.`, [missing]);
      const needing = rest.slice(0, at).find((s) => usesOf(s).includes(step.id));
      if (needing)
        return refuse("order", `${titled(needing.id)} stands on ${titled(step.id)} and must come after it.`, [
          needing.id,
        ]);
      return done({ ...document, steps: [...rest.slice(0, at), step, ...rest.slice(at)] });
    }
    case "name-step": {
      const step = find(command.id);
      if (!step) return refuse("not-found", `There is no step ${command.id}.`);
      const { name: _, ...rest } = step,
        name = command.name.trim();
      return done(replace((name ? { ...rest, name } : rest) as Step));
    }
    case "parameters": {
      const { parameters: _, ...rest } = document;
      return done(command.parameters.length ? { ...rest, parameters: command.parameters } : rest);
    }
    case "colours": {
      const { colours: _, ...rest } = document;
      return done(command.colours ? { ...rest, colours: command.colours } : rest);
    }
    case "units":
      return inOtherUnits(document, command.units);
    case "sketch": {
      const step = find(command.step);
      if (step?.kind !== "sketch") return refuse("not-found", `There is no sketch ${command.step}.`);
      const r = applyToSketch(step.sketch, command.command, document.units, command.redraw);
      return r.ok ? done(replace({ ...step, sketch: r.value }), r.notice) : r;
    }
    case "describe":
      return done({
        ...document,
        ...(command.name !== undefined && { name: command.name }),
        ...(command.material && { material: command.material }),
      });
  }
}

/** Reads a command from untrusted data. */
export function readCommand(data: unknown): Outcome<PartCommand> {
  const r = PartCommandSchema.safeParse(data);
  return r.success ? done(r.data) : refuse("bad-command", issueSentence("The command", r.error));
}

/** The documents before and after; without limit. */
export interface History {
  readonly past: readonly PartDocument[];
  readonly present: PartDocument;
  readonly future: readonly PartDocument[];
}

export const startHistory = (present: PartDocument): History => ({ past: [], present, future: [] });
export const record = (h: History, present: PartDocument): History =>
  present === h.present ? h : { past: [...h.past, h.present], present, future: [] };
export const undo = (h: History): History =>
  h.past.length
    ? { past: h.past.slice(0, -1), present: h.past[h.past.length - 1]!, future: [h.present, ...h.future] }
    : h;
export const redo = (h: History): History =>
  h.future.length ? { past: [...h.past, h.present], present: h.future[0]!, future: h.future.slice(1) } : h;

import { z } from "zod";
import { applyToSketch, SketchCommandSchema } from "@/core/sketch/commands";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { issueSentence, MaterialSchema, PartSchema, readPart, type PartDocument } from "./document";
import { kindOf, StepSchema, type Step } from "./steps/registry";

/** Every change a part can undergo. */
export const PartCommandSchema = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("add-step"), step: StepSchema, at: z.number().int().nonnegative().optional() }),
  z.strictObject({ do: z.literal("change-step"), step: StepSchema }),
  z.strictObject({ do: z.literal("delete-step"), id: z.string() }),
  z.strictObject({ do: z.literal("suppress-step"), id: z.string(), on: z.boolean() }),
  z.strictObject({ do: z.literal("sketch"), step: z.string(), command: SketchCommandSchema }),
  z.strictObject({ do: z.literal("describe"), name: PartSchema.shape.name.optional(), material: MaterialSchema.optional() }),
]);
export type PartCommand = z.infer<typeof PartCommandSchema>;

/** The first free id of a kind of step: sketch1, extrude2 … */
export function freeStepId(document: PartDocument, kind: Step["kind"]): string {
  let n = 1;
  while (document.steps.some((s) => s.id === `${kind}${n}`)) n++;
  return `${kind}${n}`;
}

const titleOf = (document: PartDocument, id: string) => {
  const step = document.steps.find((s) => s.id === id)!;
  return step.name ?? kindOf(step).read(step, document.units).title;
};

/** Applies one command. Undo is the earlier document. */
export function apply(document: PartDocument, command: PartCommand): Outcome<PartDocument> {
  const r = change(document, command);
  if (!r.ok) return r;
  const checked = readPart(r.value);
  return checked.ok ? done(r.value, r.notice) : checked;
}

function change(document: PartDocument, command: PartCommand): Outcome<PartDocument> {
  const { steps } = document;
  const find = (id: string) => steps.find((s) => s.id === id);
  const replace = (step: Step): PartDocument => ({ ...document, steps: steps.map((s) => (s.id === step.id ? step : s)) });
  switch (command.do) {
    case "add-step": {
      const at = Math.min(command.at ?? steps.length, steps.length);
      return done({ ...document, steps: [...steps.slice(0, at), command.step, ...steps.slice(at)] });
    }
    case "change-step":
      return find(command.step.id) ? done(replace(command.step)) : refuse("not-found", `There is no step ${command.step.id}.`);
    case "suppress-step": {
      const step = find(command.id);
      if (!step) return refuse("not-found", `There is no step ${command.id}.`);
      const { suppressed: _, ...rest } = step;
      return done(replace((command.on ? { ...rest, suppressed: true } : rest) as Step));
    }
    case "delete-step": {
      const needing = steps.filter((s) => kindOf(s).uses(s).includes(command.id));
      if (needing.length) return refuse("in-use", `${needing.map((s) => titleOf(document, s.id)).join(" and ")} stand${needing.length > 1 ? "" : "s"} on this step. Delete ${needing.length > 1 ? "them" : "that"} first.`, needing.map((s) => s.id));
      return done({ ...document, steps: steps.filter((s) => s.id !== command.id) });
    }
    case "sketch": {
      const step = find(command.step);
      if (step?.kind !== "sketch") return refuse("not-found", `There is no sketch ${command.step}.`);
      const r = applyToSketch(step.sketch, command.command, document.units);
      return r.ok ? done(replace({ ...step, sketch: r.value }), r.notice) : r;
    }
    case "describe":
      return done({ ...document, ...(command.name !== undefined && { name: command.name }), ...(command.material && { material: command.material }) });
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
export const record = (h: History, present: PartDocument): History => (present === h.present ? h : { past: [...h.past, h.present], present, future: [] });
export const undo = (h: History): History => (h.past.length ? { past: h.past.slice(0, -1), present: h.past[h.past.length - 1]!, future: [h.present, ...h.future] } : h);
export const redo = (h: History): History => (h.future.length ? { past: [...h.past, h.present], present: h.future[0]!, future: h.future.slice(1) } : h);

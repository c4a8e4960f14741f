import { freeStepId } from "@/core/part/commands";
import type { PartDocument } from "@/core/part/document";
import type { Step } from "@/core/part/steps/kinds";
import { frameOf } from "@/core/part/steps/sketch/schema";
import type { AtWork } from "../kernel/messages";
import type { BenchState, Mode } from "../state";
import { freshStep } from "../steps/fresh";
import type { Room } from "./room";

/** The document as the view should show it: with the step being edited as it would be, and only so many steps. */
export function shownDocument(document: PartDocument, mode: Mode, upTo: number | undefined): PartDocument {
  let { steps } = document;
  if (mode.kind === "step")
    steps = mode.fresh
      ? [...steps.slice(0, mode.at), mode.draft, ...steps.slice(mode.at)]
      : steps.map((s) => (s.id === mode.draft.id ? mode.draft : s));
  if (upTo !== undefined) steps = steps.slice(0, upTo + (mode.kind === "step" && mode.fresh ? 1 : 0));
  return steps === document.steps ? document : { ...document, steps };
}

/** What stands before what is at work. */
export function atWork(document: PartDocument, mode: Mode): AtWork | undefined {
  if (mode.kind === "step") return { before: mode.at };
  if (mode.kind !== "sketch") return undefined;
  const before = document.steps.findIndex((s) => s.id === mode.step),
    step = document.steps[before];
  return step?.kind === "sketch" ? { before, frame: frameOf(step.sketch.plane) } : undefined;
}

/** What the Bench does with steps other than sketches, and how the solid is looked at. */
export function stepMode({ get, set, document, rebuild, openCard, closeCard, ask }: Room) {
  return {
    openStep(kind: Step["kind"], preset: Partial<Step> = {}) {
      const { mayUse } = get();
      if (mayUse && kind !== "sketch" && !mayUse.includes(kind)) {
        const text = `This handout is built without that step. It offers: ${mayUse.join(", ")}.`;
        return set({ message: { kind: "notice", text, about: [] } });
      }
      const { steps, units } = document(),
        at = get().upTo ?? steps.length;
      const draft = freshStep(kind, freeStepId(document(), kind), steps.slice(0, at), units, preset);
      if (!draft.ok) return set({ message: { kind: "trouble", text: draft.refusal.sentence, about: [] } });
      set({
        mode: { kind: "step", fresh: true, draft: draft.value, at },
        selection: [],
        things: [],
        message: undefined,
        panel: undefined,
      });
      openCard();
    },
    editStep(step: Step) {
      if (step.kind === "sketch") return get().openSketch(step.id);
      set({
        mode: { kind: "step", draft: step, fresh: false, at: document().steps.findIndex((s) => s.id === step.id) },
        selection: [],
        things: [],
        message: undefined,
        panel: undefined,
        pickField: undefined,
      });
      openCard();
    },
    changeDraft(change: (draft: Step) => Step) {
      const { mode } = get();
      if (mode.kind !== "step") return;
      set({ mode: { ...mode, draft: change(mode.draft) } });
      rebuild();
    },
    acceptDraft() {
      const { mode, run, built, upTo } = get();
      if (mode.kind !== "step") return;
      const trouble = built?.steps.find((s) => s.id === mode.draft.id)?.refusal;
      if (trouble && !get().building)
        return set({ message: { kind: "trouble", text: trouble.sentence, about: trouble.about ?? [] } });
      if (
        !run(mode.fresh ? { do: "add-step", step: mode.draft, at: mode.at } : { do: "change-step", step: mode.draft })
      )
        return;
      set({ mode: { kind: "solid" }, ...(mode.fresh && upTo !== undefined && { upTo: upTo + 1 }) });
      closeCard();
      rebuild();
      get().fit();
    },
    buildUpTo(count: number | undefined) {
      set({ upTo: count !== undefined && count < document().steps.length ? count : undefined, things: [] });
      rebuild();
    },
    look(change: Partial<BenchState["looking"]>) {
      const before = get().looking.fineness;
      set({ looking: { ...get().looking, ...change } });
      if (get().looking.fineness !== before) rebuild();
    },
    pickThings: (things: BenchState["things"]) => set({ things }),
    setPickField: (pickField: BenchState["pickField"]) => set({ pickField }),
    ask,
  };
}

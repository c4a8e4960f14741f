import type { PartDocument } from "@/core/part/document";
import { frameOf } from "@/core/part/steps/sketch/schema";
import type { AtWork } from "../kernel/messages";
import type { BenchState, Mode } from "../state";
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

/** How the solid is looked at, and what is picked on it. */
export function lookingAt({ get, set, rebuild, ask }: Room) {
  return {
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

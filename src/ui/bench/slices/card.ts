import { freeStepId } from "@/core/part/commands";
import { titleOf, type Step } from "@/core/part/steps/kinds";
import type { BenchState, PickField, StepMode } from "../state";
import { freshStep } from "../steps/fresh";
import type { KeptCard } from "./kept-card";
import type { Room } from "./room";
import { redo, undo } from "@/core/units/history";

type Card = Pick<
  BenchState,
  | "openStep"
  | "editStep"
  | "changeDraft"
  | "holdDraft"
  | "acceptDraft"
  | "endCard"
  | "answerLeaving"
  | "tellWrong"
  | "buildUpTo"
> & {
  /** Takes back, or does again, a change within the card. @returns whether a card was open to do it in */
  stepDraft(way: "back" | "again"): boolean;
  /** The card that stood open when its page was closed. */
  openKept(): void;
};

/** Changes within one card that can be taken back. */
const MOST_CHANGES = 200;

/** The card of a step: opened, changed, taken back, accepted, and never lost to another. */
export function stepCard(
  { get, set, document, rebuild, whenBuilt, mayChange, openCard, closeCard }: Room,
  kept: KeptCard,
): Card {
  let openings = 0;
  // a spell of typing or dragging: its first change is what undo goes back to
  let isHeld = false,
    hasChanged = false;
  const show = (draft: Step, fresh: boolean, at: number, wanted?: PickField) => {
    isHeld = hasChanged = false;
    set({
      mode: { kind: "step", draft, fresh, at, opening: ++openings, past: [], future: [] },
      selection: [],
      things: [],
      reached: undefined,
      message: undefined,
      panel: undefined,
      pickField: wanted,
      leaving: undefined,
      wrong: new Map(),
    });
    openCard();
  };
  /** The draft as it now is, in place of what stood; kept for a page that is closed. */
  const put = (mode: StepMode, change: Partial<StepMode>) => {
    const next = { ...mode, ...change };
    set({ mode: next, leaving: undefined });
    kept.write(next);
    rebuild();
  };
  const refusalOf = (mode: StepMode) => get().built?.steps.find((s) => s.id === mode.draft.id)?.refusal;
  const quit = () => {
    kept.forget();
    set({ mode: { kind: "solid" }, leaving: undefined, wrong: new Map() });
    closeCard();
    rebuild();
  };
  const open = (kind: Step["kind"], preset: Partial<Step>) => {
    const { mayUse } = get();
    if (mayUse && kind !== "sketch" && !mayUse.includes(kind)) {
      const text = `This handout is built without that step. It offers: ${mayUse.join(", ")}.`;
      return set({ message: { kind: "notice", text, about: [] } });
    }
    const { steps, units } = document(),
      at = get().upTo ?? steps.length;
    const draft = freshStep(kind, freeStepId(document(), kind), steps.slice(0, at), units, preset);
    if (!draft.ok) return set({ message: { kind: "trouble", text: draft.refusal.sentence, about: [] } });
    show(draft.value, true, at);
  };
  return {
    openStep: (kind, preset = {}) => get().endCard(() => mayChange() && open(kind, preset)),
    editStep(step, wanted) {
      const { mode } = get();
      // a second click on the step whose card stands open
      if (mode.kind === "step" && mode.draft.id === step.id) return;
      get().endCard(() => {
        const now = document().steps.find((s) => s.id === step.id) ?? step;
        if (now.kind === "sketch") return get().openSketch(now.id);
        if (!mayChange()) return;
        show(
          now,
          false,
          document().steps.findIndex((s) => s.id === now.id),
          wanted,
        );
      });
    },
    openKept() {
      const card = kept.read(document());
      if (!card) return;
      show(card.draft, card.fresh, card.at);
      set({ message: { kind: "notice", text: "This card stood open when the page was closed.", about: [] } });
    },
    changeDraft(change) {
      const { mode } = get();
      if (mode.kind !== "step") return;
      const draft = change(mode.draft);
      if (draft === mode.draft) return;
      const past = isHeld && hasChanged ? mode.past : [...mode.past, mode.draft].slice(-MOST_CHANGES);
      hasChanged = true;
      put(mode, { draft, past, future: [] });
    },
    holdDraft(on) {
      isHeld = on;
      hasChanged = false;
    },
    stepDraft(way) {
      const { mode } = get();
      if (mode.kind !== "step") return false;
      const { past, future, draft } = mode;
      hasChanged = false;
      const next = (way === "back" ? undo : redo)({ past, present: draft, future });
      if (next.present !== draft) put(mode, { draft: next.present, past: next.past, future: next.future });
      else {
        const text =
          way === "back"
            ? "Nothing is changed in this card; Escape leaves it."
            : "Nothing was taken back in this card.";
        set({ message: { kind: "notice", text, about: [] } });
      }
      return true;
    },
    acceptDraft() {
      const { mode, run, upTo, wrong } = get();
      if (mode.kind !== "step") return false;
      const [unread] = wrong.values();
      const trouble = get().building ? undefined : refusalOf(mode);
      const text = unread ?? trouble?.sentence;
      if (text) {
        set({ message: { kind: "trouble", text, about: trouble?.about ?? [] } });
        return false;
      }
      const command = mode.fresh
        ? ({ do: "add-step", step: mode.draft, at: mode.at } as const)
        : ({ do: "change-step", step: mode.draft } as const);
      const isChanged = mode.fresh || mode.past.length > 0;
      if (isChanged && !run(command)) return false;
      if (mode.fresh && upTo !== undefined) set({ upTo: upTo + 1 });
      quit();
      get().fit();
      return true;
    },
    endCard(next) {
      const { mode, building, wrong, acceptDraft } = get();
      if (mode.kind !== "step") return next();
      if (building) return whenBuilt(() => get().endCard(next));
      const refusal = refusalOf(mode);
      const isUntouched = mode.past.length === 0 && wrong.size === 0;
      // nothing is lost by leaving what was not changed, or not even begun
      if (isUntouched && (!mode.fresh || refusal)) {
        quit();
        return next();
      }
      const [unread] = wrong.values();
      const why = unread ?? refusal?.sentence;
      if (why) return set({ leaving: { why, next } });
      const title = titleOf(mode.draft);
      if (!acceptDraft()) return;
      next();
      if (!get().message)
        set({ message: { kind: "notice", text: `${title}: accepted. Undo takes it back.`, about: [] } });
    },
    answerLeaving(leaves) {
      const { leaving } = get();
      if (!leaving) return;
      set({ leaving: undefined });
      if (!leaves) return;
      quit();
      leaving.next();
    },
    tellWrong(field, sentence) {
      const { wrong } = get();
      if (wrong.get(field) === sentence) return;
      const next = new Map(wrong);
      if (sentence === undefined) next.delete(field);
      else next.set(field, sentence);
      set({ wrong: next });
    },
    buildUpTo(count) {
      set({ upTo: count !== undefined && count < document().steps.length ? count : undefined, things: [] });
      rebuild();
    },
  };
}

import { isSolidStep } from "@/core/part/steps/kinds";
import type { PartDocument } from "@/core/part/document";
import type { Sketch } from "@/core/sketch/sketch";
import type { BenchKernel } from "../kernel/client";
import type { Built } from "../kernel/messages";
import type { Saver } from "../../parts/saver";
import type { BenchState } from "../state";
import { atWork, shownDocument } from "./steps";

export const NOTHING: Built = {
  id: 0,
  mesh: undefined,
  model: undefined,
  bodies: [],
  properties: undefined,
  steps: [],
  datums: {},
  placed: {},
  edges: [],
  under: undefined,
};

const pictures = (s: Pick<Sketch, "curves">) => s.curves.filter((c) => c.projected);

interface Site {
  get(): BenchState;
  set(s: Partial<BenchState> | ((now: BenchState) => Partial<BenchState>)): void;
  document(): PartDocument;
  readonly kernel: BenchKernel;
  readonly saver: Saver;
  /** Keeps how the whole part looks, for when it is opened again. */
  remember(of: PartDocument, built: Built): void;
}

/** Has the part built in its worker whenever it changes. @returns what asks for it anew */
export function building({ get, set, document, kernel, saver, remember }: Site): (first?: boolean) => void {
  const rebuild = (first = false) => {
    const s = get(),
      asked = document(),
      shown = shownDocument(asked, s.mode, s.upTo);
    // what a card has not been accepted with moves nothing that is saved
    const isAsKept = shown.steps.every((step) => asked.steps.includes(step));
    set({ building: true });
    const hasSolid = () => shown.steps.some((x) => !x.suppressed && isSolidStep(x));
    kernel.request(
      { document: shown, at: atWork(document(), s.mode), fineness: s.looking.fineness },
      {
        picture: (p) =>
          set((now) => ({
            things: [],
            reached: undefined,
            built: {
              ...(now.built ?? NOTHING),
              ...p,
              mesh: p.mesh ?? (hasSolid() ? now.built?.mesh : undefined),
              model: p.mesh ? undefined : now.built?.model,
            },
          })),
        settle(built, trouble) {
          set({ building: false, isAsItWas: false });
          if (trouble) set({ message: { kind: "trouble", text: trouble, about: [] } });
          if (built && isAsKept) follow(built);
          // the last good picture stays
          if (built)
            set((now) => ({
              built: built.mesh || !hasSolid() ? built : { ...built, mesh: now.built?.mesh, model: now.built?.model },
            }));
          if (first && built) get().fit();
          // looked at as a whole: with nothing at work, nothing left out, and after it has gone where its faces went
          if (built?.mesh && shown === document()) remember(shown, built);
        },
      },
    );
  };
  /** Sketches on the part, and their pictures of its edges, go where it has gone; this is no change to undo. */
  const follow = (built: Built) => {
    const moved = document().steps.map((step) => {
      const at = step.kind === "sketch" ? built.placed[step.id] : undefined;
      if (
        step.kind !== "sketch" ||
        !at ||
        JSON.stringify([at.plane, pictures(at)]) === JSON.stringify([step.sketch.plane, pictures(step.sketch)])
      )
        return step;
      const fresh = new Map(at.curves.map((c) => [c.id, c]));
      return {
        ...step,
        sketch: {
          ...step.sketch,
          plane: at.plane,
          curves: step.sketch.curves.map((c) => (c.projected ? (fresh.get(c.id) ?? c) : c)),
        },
      };
    });
    if (moved.every((s, i) => s === document().steps[i])) return;
    set((s) => ({ history: { ...s.history, present: { ...document(), steps: moved } } }));
    saver.save(document());
  };
  return rebuild;
}

import { create } from "zustand";
import { persist } from "zustand/middleware";
import { AnswersSchema, type Answers } from "@/core/check/exercise/question";

interface AnswersState {
  readonly answers: Answers;
  readonly type: (id: string, text: string) => void;
}

/** The figures that a student has typed so far, kept in the browser. @param key of whom, and for what */
export const createAnswers = (key: string) =>
  create<AnswersState>()(
    persist(
      (set) => ({
        answers: {},
        type: (id, text) => set((s) => ({ answers: { ...s.answers, [id]: text } })),
      }),
      {
        name: `figures:${key}`,
        partialize: ({ answers }) => ({ answers }),
        // what another version left behind is not believed
        merge: (kept, now) => {
          const r = AnswersSchema.safeParse((kept as { answers?: unknown } | undefined)?.answers);
          return r.success ? { ...now, answers: r.data } : now;
        },
      },
    ),
  );
export type AnswersStore = ReturnType<typeof createAnswers>;

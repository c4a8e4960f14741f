import { useCallback, useEffect, useState } from "react";
import type { RubricLine } from "@/core/check/exercise/rubric";
import type { Tried } from "@/server/exercises/rubrics";
import { costsOf } from "./costs";
import { Fold } from "./fields";
import { RubricEditor } from "./rubric-editor";
import { Templates, type RubricTemplate } from "./rubric-templates";
import { RubricTrial } from "./rubric-trial";
import type { ExerciseStore } from "./store";

/** A rubric that has not changed for so long is tried. */
const REST_MS = 1000;

export interface Trial {
  readonly tried: Tried | undefined;
}

/**
 * What the rubric gives for the reference and for typical mistakes: tried by itself whenever the exercise has rested
 * and its reference is measured.
 */
export function useTrial(store: ExerciseStore, id: string): Trial {
  const [tried, setTried] = useState<Tried>();
  const version = store((s) => s.version),
    isMeasured = store((s) => s.measuring === undefined && s.measures !== undefined),
    saved = store((s) => s.saved.kind);
  const ask = useCallback(
    async (signal: AbortSignal): Promise<void> => {
      const r = await fetch(`/api/exercises/${id}/trial`, { method: "POST", signal }).catch(() => undefined);
      if (!r?.ok || signal.aborted) return;
      const now = (await r.json()) as Tried;
      if (signal.aborted) return;
      setTried(now);
      // the worker is at it: how far it is shows until it is done
      if (now.trying) setTimeout(() => void ask(signal), REST_MS);
    },
    [id],
  );
  useEffect(() => {
    if (!isMeasured || saved !== "saved") return;
    const end = new AbortController();
    const timer = setTimeout(() => void ask(end.signal), REST_MS);
    return () => {
      clearTimeout(timer);
      end.abort();
    };
  }, [version, isMeasured, saved, ask]);
  return { tried };
}

/** The rubric: lines, their points, how those are given, and what typical mistakes would cost. */
export function PointsStation({
  store,
  trial,
  templates,
  keep,
}: {
  store: ExerciseStore;
  trial: Trial;
  templates: readonly RubricTemplate[];
  keep: (name: string, rubric: readonly RubricLine[]) => Promise<string>;
}) {
  const e = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const { apply } = store.getState();
  const { tried } = trial;
  return (
    <>
      <RubricEditor
        rubric={e.rubric}
        sizes={measures?.sheet.dimensions.map(({ id, text }) => ({ id, text })) ?? []}
        apply={apply}
        costs={(line) => costsOf(tried?.preview, line)}
        isTried={tried?.preview !== undefined}
        trying={tried?.trying ?? ""}
        isBuilt={measures !== undefined}
      />
      <div className="mt-3">
        <Templates
          templates={templates}
          keep={keep}
          lines={e.rubric}
          take={(t) => apply({ do: "rubric", lines: t.rubric })}
        />
      </div>
      {tried && (
        <div className="mt-5">
          <Fold title="Every mistake that was tried" holds={triedText(tried)}>
            <RubricTrial tried={tried} />
          </Fold>
        </div>
      )}
    </>
  );
}

function triedText({ preview, trying, trouble }: Tried): string {
  if (trying) return trying;
  if (trouble) return "could not be tried";
  return preview ? `${preview.mistakes.length} mistakes` : "none";
}

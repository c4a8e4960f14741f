import { Check, CircleHelp, X } from "lucide-react";
import { spanText } from "@/core/grade/late";
import { LocalTime } from "../parts/local-time";
import type { Verdict } from "@/core/check/kinds/kind";

export interface Heading {
  readonly number: string;
  readonly title: string;
  readonly course: string;
  readonly handout: string;
}
export interface SubmissionHead {
  readonly id: string;
  readonly person: string;
  readonly attempt: number;
  readonly state: "queued" | "checking" | "checked" | "failed" | "replaced";
  readonly progress: string;
  readonly trouble: string | null;
  readonly handedInAt: string;
  /** By the rules of the handout, at that moment; 0 is in time. */
  readonly lateSeconds: number;
  /** How many of the handout's hints had been opened. */
  readonly hintsOpened: number;
}

/** Met, missed or not known: by shape as well as colour. */
export function Sign({ verdict }: { verdict: Verdict }) {
  if (verdict === "met") return <Check size={17} className="mt-0.5 shrink-0 text-success" aria-label="met" />;
  if (verdict === "missed") return <X size={17} className="mt-0.5 shrink-0 text-accent" aria-label="missed" />;
  return <CircleHelp size={17} className="mt-0.5 shrink-0 text-warning" aria-label="not known" />;
}

export function Progress({ state }: { state: Pick<SubmissionHead, "state" | "progress"> }) {
  return (
    <div role="status" className="mt-6 flex items-center gap-3">
      <span className="loading loading-bars loading-sm text-accent" />
      {state.state === "queued"
        ? `Waiting for its check${state.progress ? `: ${state.progress}` : ""} …`
        : `Being checked: ${state.progress} …`}
    </div>
  );
}

/** "handed in Tue 18:20, 20 min late". */
export function HandedIn({ state }: { state: Pick<SubmissionHead, "handedInAt" | "lateSeconds" | "hintsOpened"> }) {
  return (
    <>
      handed in <LocalTime iso={state.handedInAt} />
      {state.lateSeconds > 0 && <span className="text-accent">, {spanText(state.lateSeconds)} late</span>}
      {state.hintsOpened > 0 && `, ${state.hintsOpened} ${state.hintsOpened === 1 ? "hint" : "hints"} opened`}
    </>
  );
}

import Link from "next/link";
import { useEffect, useState } from "react";
import type { ExerciseFormState } from "@/app/exercise-actions";
import type { RubricLine } from "@/core/check/exercise/rubric";
import { useKeptForm } from "../parts/kept-form";
import type { ExerciseStore } from "./store";
import { StepChoice } from "./step-choice";
import { ACCEPTED, type Accepted } from "@/core/check/given/part-file";
import { USUAL_TERMS, type GivenTerms } from "@/core/check/exercise/terms";
import { Tick } from "./fields";
import { LateFields, TermsFields } from "./terms-fields";
import { TimesFields, timesIn, type Choices, type TimesShown } from "./times-fields";

export type Act = (state: ExerciseFormState, form: FormData) => Promise<ExerciseFormState>;

/** What giving an exercise out needs to know. */
export interface Issued {
  readonly timeZone: string;
  /** Whom it can be given to. */
  readonly choices: Choices;
  /** The times one begins with. */
  readonly times: TimesShown;
  /** What it was given out as, the newest first. */
  readonly handouts: readonly { readonly id: string; readonly due: string }[];
  readonly issue: Act;
  readonly followOn: Act;
  readonly keepRubric: (name: string, rubric: readonly RubricLine[]) => Promise<string>;
}

const TAKES: Readonly<Record<Accepted, string>> = {
  part: "a part built on the Bench",
  step: "a STEP file",
  mesh: "a mesh file (STL, 3MF)",
  figures: "the figures alone",
};
const NO_TERMS: GivenTerms = {};

/** Gives the exercise out as it was measured. */
export function GiveStation({
  store,
  id,
  keepTimes,
  ...made
}: {
  store: ExerciseStore;
  id: string;
  /** Times typed here stay typed when another station is looked at. */
  keepTimes: (times: TimesShown) => void;
} & Issued) {
  const isMeasured = store((s) => s.measures !== undefined),
    isCurrent = store((s) => s.measuring === undefined),
    terms = store((s) => s.exercise.terms ?? NO_TERMS),
    open = store((s) => s.measures?.proof?.points.length ?? 0),
    hasQuestions = store((s) => (s.exercise.questions?.length ?? 0) > 0);
  const [asks, setAsks] = useState(false);
  // pressed twice, or sent again after a lost answer, it is one handout
  const [issue, setIssue] = useState("");
  useEffect(() => setIssue(crypto.randomUUID()), []);
  const { apply, settled } = store.getState();
  const said = { terms, say: (to: GivenTerms) => apply({ do: "terms", to }) };
  const accepts: readonly Accepted[] = terms.accepts ?? USUAL_TERMS.accepts;
  const [refused, setRefused] = useState<string>();
  const take = (kind: Accepted, on: boolean) => {
    const r = said.say({ accepts: ACCEPTED.filter((a) => (a === kind ? on : accepts.includes(a))) });
    setRefused(r.ok ? undefined : r.refusal.sentence);
  };
  // what was said a moment ago is part of what is given out
  const settle = async (form: FormData) => {
    await settled();
    form.set("version", String(store.getState().version));
  };
  const { said: issued, busy: issuing, onSubmit } = useKeptForm(made.issue, {}, settle);
  return (
    <>
      <form
        onSubmit={onSubmit}
        onChange={(e) => keepTimes(timesIn(new FormData(e.currentTarget)))}
        className="flex flex-wrap items-end gap-x-4 gap-y-3"
        aria-label="Give out"
      >
        <input type="hidden" name="id" value={id} />
        <input type="hidden" name="issue" value={issue} />
        <TimesFields timeZone={made.timeZone} choices={made.choices} start={made.times}>
          <LateFields {...said} />
        </TimesFields>
        <fieldset className="flex w-full flex-wrap items-center gap-x-4 gap-y-1 text-sm">
          <legend className="quiet text-xs">Takes</legend>
          {ACCEPTED.filter((name) => name !== "figures" || hasQuestions).map((name) => (
            <Tick key={name} label={TAKES[name]} on={accepts.includes(name)} set={(on) => take(name, on)} />
          ))}
          {refused && (
            <span role="alert" className="text-error">
              {refused}
            </span>
          )}
        </fieldset>
        <div className="w-full">
          <Tick
            label="Students may let the Bench define the rest of a sketch"
            on={terms.mayDefine ?? USUAL_TERMS.mayDefine}
            set={(mayDefine) => apply({ do: "terms", to: { mayDefine } })}
          />
        </div>
        <StepChoice {...said} />
        <TermsFields {...said} />
        {asks && (
          <p role="alert" className="w-full text-sm text-accent">
            The Sheet leaves {open === 1 ? "a point" : `${open} points`} open (Sheet proof, at the right): students may
            not be able to build the part from it. Issue it all the same?
          </p>
        )}
        <button
          className="btn btn-primary"
          disabled={issuing || !isMeasured || !isCurrent}
          onClick={(ev) => {
            // asked once: what is open is looked at before a class stumbles over it
            if (!open || asks || !ev.currentTarget.form?.checkValidity()) return;
            ev.preventDefault();
            setAsks(true);
          }}
        >
          {asks ? "Issue it all the same" : "Make a handout"}
        </button>
        {issued.sentence && (
          <p role="alert" className="text-error">
            {issued.sentence}
          </p>
        )}
        {!isMeasured && isCurrent && <p className="quiet">There is no part yet: it comes first.</p>}
        {!isCurrent && <p className="quiet">It can be given out as soon as it is measured.</p>}
      </form>
      {made.handouts.length > 0 && (
        <section className="mt-6" aria-label="Given out">
          <h3 className="font-semibold">Given out</h3>
          <ul className="mt-1 divide-y divide-base-300 border-y border-base-300 text-sm">
            {made.handouts.map((h) => (
              <li key={h.id}>
                <Link className="block px-2 py-1.5 hover:bg-base-200" href={`/handouts/${h.id}`} prefetch={false}>
                  due {h.due}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

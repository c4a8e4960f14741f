import { useEffect, useState } from "react";
import type { ExerciseFormState } from "@/app/exercise-actions";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Accepted } from "@/core/check/given/part-file";
import type { RubricLine } from "@/core/check/exercise/rubric";
import type { Prepared } from "@/server/exercises/exercises";
import type { Tried } from "@/server/exercises/rubrics";
import { useKeptForm } from "../parts/kept-form";
import { StepChoice } from "./step-choice";
import { TermsFields, type MarkingTerms } from "./terms-fields";
import { TimesFields, type Choices, type TimesShown } from "./times-fields";

export type Act = (state: ExerciseFormState, form: FormData) => Promise<ExerciseFormState>;

/** An exercise that has been saved, and what can be done with it. */
export interface Issued {
  readonly id: string;
  readonly version: number;
  readonly prepared: Prepared | null;
  /** How far the measuring is, in a few words. */
  readonly preparing: string;
  readonly isCurrent: boolean;
  readonly timeZone: string;
  /** Whom it can be given to. */
  readonly choices: Choices;
  /** The times and rules it was given with last; left out: never. */
  readonly times?: TimesShown | undefined;
  readonly terms?: MarkingTerms | undefined;
  readonly issue: Act;
  readonly followOn: Act;
  readonly takeFromReference: Act;
  /** What the rubric gives for typical mistakes, and has it tried. */
  readonly tried: Tried;
  readonly tryRubric: () => Promise<void>;
  readonly keepRubric: (name: string, rubric: readonly RubricLine[]) => Promise<string>;
}
/** What is asked and what the reference says may differ; which is meant is asked. */
export function Difference({ made, exercise: e }: { made: Issued; exercise: Exercise }) {
  const { said, busy, onSubmit } = useKeptForm(made.takeFromReference, {});
  const { material, units, steps } = e.reference;
  const differs = material.name !== e.material.name || material.density !== e.material.density || units !== e.units;
  if (!differs || !steps.length) return null;
  const text = (m: Exercise["material"], u: string) => `${m.name} (${m.density} g/cm³), ${u}`;
  return (
    <form onSubmit={onSubmit} className="alert mt-4 items-start text-sm" aria-label="Difference">
      <input type="hidden" name="id" value={made.id} />
      <div>
        <p>
          The reference part is in <b>{text(material, units)}</b>; this exercise asks for{" "}
          <b>{text(e.material, e.units)}</b>. The Sheet and the check go by the exercise.
        </p>
        {said.sentence && <p role="alert">{said.sentence}</p>}
      </div>
      <button className="btn btn-sm" disabled={busy}>
        Ask for what the part says
      </button>
    </form>
  );
}

const TAKES: readonly (readonly [Accepted, string])[] = [
  ["part", "a part built on the Bench"],
  ["step", "a STEP file"],
  ["mesh", "a mesh file (STL, 3MF)"],
  ["figures", "the figures alone"],
];

/** Makes a handout of what was measured. */
export function IssueForm({
  made,
  hasTargets,
  hasQuestions,
  open,
}: {
  made: Issued;
  hasTargets: boolean;
  hasQuestions: boolean;
  /** Points that the Sheet's proof leaves open. */
  open: number;
}) {
  const [asks, setAsks] = useState(false);
  // pressed twice, or sent again after a lost answer, it is one handout
  const [issue, setIssue] = useState("");
  useEffect(() => setIssue(crypto.randomUUID()), []);
  const { said: issued, busy: issuing, onSubmit } = useKeptForm(made.issue, {});
  return (
    <form onSubmit={onSubmit} className="mt-8 flex flex-wrap items-end gap-4 border-t border-base-300 pt-5">
      <input type="hidden" name="id" value={made.id} />
      <input type="hidden" name="version" value={made.version} />
      <input type="hidden" name="issue" value={issue} />
      <TimesFields timeZone={made.timeZone} choices={made.choices} start={made.times} />
      <label className="flex items-center gap-2 py-2 text-sm">
        <input type="checkbox" name="define" className="checkbox checkbox-sm" defaultChecked />
        Students may let the Bench define the rest of a sketch
      </label>
      <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        <legend className="quiet text-xs">Takes</legend>
        {TAKES.filter(([name]) => name !== "figures" || hasQuestions).map(([name, text]) => (
          <label key={name} className="flex items-center gap-2">
            <input
              type="checkbox"
              name={`accepts-${name}`}
              className="checkbox checkbox-sm"
              defaultChecked={name === "part"}
            />
            {text}
          </label>
        ))}
      </fieldset>
      <StepChoice start={undefined} />
      <TermsFields {...(made.terms && { start: made.terms })} />
      {asks && (
        <p role="alert" className="w-full text-sm text-accent">
          The Sheet leaves {open === 1 ? "a point" : `${open} points`} open (Sheet proof, at the right): students may
          not be able to build the part from it. Issue it all the same?
        </p>
      )}
      <button
        className="btn"
        disabled={issuing || !hasTargets || !made.isCurrent}
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
      {!hasTargets && made.isCurrent && <p className="quiet">Build the reference part first.</p>}
    </form>
  );
}

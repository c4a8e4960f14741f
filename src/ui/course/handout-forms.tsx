"use client";

import type { ExerciseFormState } from "@/app/exercise-actions";
import type { GivenTerms } from "@/core/check/exercise/terms";
import type { ClassRow } from "@/server/handouts/handouts";
import { useKeptForm } from "../parts/kept-form";
import { LateFields, TermsFields, useSaidTerms } from "../exercise/terms-fields";
import { TimesFields, type Choices, type TimesShown } from "../exercise/times-fields";

export type Row = Omit<ClassRow, "handed_in_at" | "seen_at" | "extended_to"> & {
  handedInAt: string | null;
  seenAt: string | null;
  extendedTo: string | null;
  /** Their own numbers, where the handout has such. */
  own?:
    | {
        readonly text: string;
        readonly state: string;
        readonly trouble: string | null;
        /** Whose Sheet the part was built from, where that is another's. */
        readonly builtFrom: string | undefined;
      }
    | undefined;
};
export interface HandoutHead {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly course: string;
  readonly dueAt: string;
  readonly sheet: string | null;
  readonly trouble: string | null;
  readonly revision: number;
  readonly rules: string;
  readonly opensAt: string | null;
  readonly closesAt: string | null;
  readonly isWithdrawn: boolean;
  readonly timeZone: string;
}
/** What an instructor can do on the page. */
export interface ClassActs {
  readonly again: (form: FormData) => Promise<void>;
  readonly giveTime: (state: ExerciseFormState, form: FormData) => Promise<ExerciseFormState>;
  readonly changeMarking: ClassActs["giveTime"];
  readonly changeWhen: ClassActs["giveTime"];
  readonly withdraw: ClassActs["again"];
}

/** When it is given and to whom, changed after it was issued. */
export function WhenForm({
  handout,
  times,
  terms: start,
  choices,
  act,
}: {
  handout: HandoutHead;
  times: TimesShown;
  terms: GivenTerms;
  choices: Choices;
  act: ClassActs["giveTime"];
}) {
  const { said, busy, onSubmit } = useKeptForm(act, {});
  const { hidden, ...late } = useSaidTerms(start);
  return (
    <form onSubmit={onSubmit} className="w-full" aria-label="When and for whom">
      <input type="hidden" name="handout" value={handout.id} />
      {hidden}
      <details className="w-full">
        <summary className="cursor-pointer text-sm text-accent">When it is given, and to whom</summary>
        <div className="mt-3 flex flex-wrap items-end gap-4" key={JSON.stringify(times)}>
          <TimesFields start={times} timeZone={handout.timeZone} choices={choices}>
            <LateFields {...late} />
          </TimesFields>
          <button className="btn btn-sm" disabled={busy}>
            Change it
          </button>
        </div>
      </details>
      <Said said={said} />
    </form>
  );
}

const Said = ({ said }: { said: ExerciseFormState }) =>
  (said.sentence ?? said.done) ? (
    <p role="status" className={said.sentence ? "text-error" : "quiet"}>
      {said.sentence ?? said.done}
    </p>
  ) : null;

/** How it is marked, changed after it was issued. */
export function MarkingForm({
  handout,
  terms: start,
  act,
}: {
  handout: string;
  terms: GivenTerms;
  act: ClassActs["giveTime"];
}) {
  const { said, busy, onSubmit } = useKeptForm(act, {});
  const { hidden, ...marking } = useSaidTerms(start);
  return (
    <form onSubmit={onSubmit} className="w-full" aria-label="How it is marked">
      <input type="hidden" name="handout" value={handout} />
      {hidden}
      <TermsFields {...marking}>
        <button className="btn btn-sm" disabled={busy}>
          Change it
        </button>
      </TermsFields>
      <Said said={said} />
    </form>
  );
}

/** More time for one student, by the course's clock. */
export function MoreTime({
  handout,
  rows,
  act,
}: {
  handout: HandoutHead;
  rows: readonly Row[];
  act: ClassActs["giveTime"];
}) {
  const { said, busy, onSubmit } = useKeptForm(act, {});
  return (
    <form onSubmit={onSubmit} className="flex flex-wrap items-end gap-2" aria-label="More time">
      <input type="hidden" name="handout" value={handout.id} />
      <span className="py-1 text-sm">More time for</span>
      <select name="person" className="select select-sm w-44" aria-label="Student" defaultValue="" required>
        <option value="" disabled>
          a student …
        </option>
        {rows.map((r) => (
          <option key={r.person_id} value={r.person_id}>
            {r.name}
          </option>
        ))}
      </select>
      <input
        type="datetime-local"
        name="due"
        className="input input-sm w-52"
        aria-label={`Has time until, by the clock of ${handout.timeZone}`}
      />
      <button className="btn btn-sm" disabled={busy}>
        Give
      </button>
      <Said said={said} />
    </form>
  );
}

"use client";

import { useState, type ReactNode } from "react";
import { SHOWS, USUAL_TERMS, type GivenTerms, type Shows } from "@/core/check/exercise/terms";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { Amount, Choice, Tick } from "./fields";

/** Terms that are being said, and what takes a change of them. */
export interface TermsSaid {
  readonly terms: GivenTerms;
  readonly say: (to: GivenTerms) => Outcome<unknown>;
}

const SHOWN = [
  ["points", "points"],
  ["verdicts", "what is met and what is missed"],
  ["sentences", "a sentence for each line"],
  ["numbers", "what was measured on their part"],
  ["places", "places on their part"],
  ["targets", "what was wanted"],
] as const satisfies readonly (readonly [keyof Shows, string])[];

const PRACTICES = [
  ["none", "none"],
  ["fails", "tell which lines fail"],
  ["sentences", "tell why as well"],
  ["all", "tell all, with points"],
] as const;

/** Terms of a form that is sent at the end: kept in it as one hidden field. */
export function useSaidTerms(start: GivenTerms): TermsSaid & { readonly hidden: ReactNode } {
  const [terms, setTerms] = useState(start);
  const stood = JSON.stringify(start);
  const [of, setOf] = useState(stood);
  // changed elsewhere meanwhile: what stands now is begun with
  if (of !== stood) {
    setOf(stood);
    setTerms(start);
  }
  const say = (to: GivenTerms) => {
    setTerms((was) => ({ ...was, ...to }));
    return done(undefined);
  };
  return { terms, say, hidden: <input type="hidden" name="terms" value={JSON.stringify(terms)} /> };
}

/** A whole number from 1 up, or nothing. */
const count =
  (most: number, take: (n: number | undefined) => Outcome<unknown>) =>
  (n: number | undefined): Outcome<unknown> =>
    n === undefined || (Number.isInteger(n) && n >= 1 && n <= most)
      ? take(n)
      : refuse("bad-count", `A whole number from 1 to ${most}, or nothing.`);

/** How often a handout is tried, what counts, and what its students see of a result. */
export function TermsFields({ terms, say, children }: TermsSaid & { children?: ReactNode }) {
  const shows = terms.shows ?? SHOWS;
  const { practice } = terms;
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-sm text-accent">Tries, practice and what students see</summary>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <Amount
          label="Tries, empty: any number"
          value={terms.attemptsMost}
          unit=""
          width="card"
          optional
          take={count(100, (n) => say({ attemptsMost: n }))}
        />
        <Choice
          label="Which counts"
          value={terms.counts ?? USUAL_TERMS.counts}
          options={[
            ["last", "the last"],
            ["best", "the best"],
          ]}
          take={(counts) => say({ counts })}
        />
        <Amount
          label="Weight in the gradebook"
          value={terms.weight ?? USUAL_TERMS.weight}
          unit=""
          width="card"
          take={(n) =>
            n! >= 0 && n! <= 1000 ? say({ weight: n! }) : refuse("bad-weight", "A weight is from 0 to 1000.")
          }
        />
        <Choice
          label="Checks before handing in"
          value={practice?.shows ?? "none"}
          options={PRACTICES}
          take={(to) => say({ practice: to === "none" ? undefined : { ...practice, shows: to } })}
        />
        {practice && (
          <Amount
            label="How often, empty: any number"
            value={practice.most}
            unit=""
            width="card"
            optional
            take={count(1000, (most) => say({ practice: { shows: practice.shows, ...(most && { most }) } }))}
          />
        )}
        <Choice
          label="Students see their result"
          value={shows.when}
          options={[
            ["checked", "as soon as it is checked"],
            ["returned", "when it is returned"],
          ]}
          take={(when) => say({ shows: { ...shows, when } })}
        />
        <span className="py-2">
          <Tick
            label="Return nothing before all were looked at"
            on={terms.holdBack ?? USUAL_TERMS.holdBack}
            set={(holdBack) => say({ holdBack })}
          />
        </span>
        <fieldset className="flex w-full flex-wrap items-center gap-x-4 gap-y-1 text-sm">
          <legend className="quiet text-xs">Of it they see</legend>
          {SHOWN.map(([name, text]) => (
            <Tick key={name} label={text} on={shows[name]} set={(on) => say({ shows: { ...shows, [name]: on } })} />
          ))}
        </fieldset>
        {children}
      </div>
    </details>
  );
}

const AFTER = [
  ["late", "taken, and marked late"],
  ["points", "points off each day"],
  ["refuse", "not accepted"],
] as const;
const MOST_GRACE = 10_080;

/** What happens to work that comes late. */
export function LateFields({ terms, say }: TermsSaid) {
  const after = terms.afterDue ?? USUAL_TERMS.afterDue;
  return (
    <>
      <Amount
        label="Grace"
        value={terms.graceMinutes ?? USUAL_TERMS.graceMinutes}
        unit="min"
        width="card"
        take={(n) =>
          Number.isInteger(n) && n! >= 0 && n! <= MOST_GRACE
            ? say({ graceMinutes: n! })
            : refuse("bad-grace", "Whole minutes, a week at most.")
        }
      />
      <Choice label="Afterwards" value={after} options={AFTER} take={(afterDue) => say({ afterDue })} />
      {after === "points" && (
        <Amount
          label="Points a day"
          value={terms.pointsADay ?? USUAL_TERMS.pointsADay}
          unit=""
          width="card"
          take={(n) =>
            n! >= 0 && n! <= 1000 ? say({ pointsADay: n! }) : refuse("bad-points", "Points are from 0 to 1000.")
          }
        />
      )}
    </>
  );
}

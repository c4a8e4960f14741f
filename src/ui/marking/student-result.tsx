import Link from "next/link";
import type { CheckedSize } from "@/core/check/kinds/sizes/kind";
import type { LengthUnit } from "@/core/units/quantity";
import type { GradedLine } from "@/core/grade/grade";
import { Follow } from "../parts/follow";
import { spanText } from "@/core/grade/late";
import { PageFrame } from "../parts/page-frame";
import { SizesTable } from "./sizes-table";
import { HandedIn, Progress, Sign, type Heading, type SubmissionHead } from "./standing";

interface Line extends Pick<GradedLine, "id" | "check" | "title" | "points" | "of" | "verdict"> {
  readonly sentence: string;
}

/** What a student reads: points, and for each line one sentence that says what was measured. */
export function StudentResult({
  person,
  heading,
  state,
  grade,
  sizes,
  units,
}: {
  person: { name: string };
  heading: Heading;
  state: SubmissionHead;
  grade: { points: number; of: number; lines: readonly Line[] } | null;
  sizes: readonly CheckedSize[];
  units: LengthUnit;
}) {
  const busy = state.state === "queued" || state.state === "checking";
  return (
    <PageFrame person={person}>
      <Follow on={`submission:${state.id}`} busy={busy} />
      <h1 className="text-xl font-semibold">
        {heading.number} {heading.title}
      </h1>
      <p className="quiet mt-1">
        {heading.course} · try {state.attempt} · <HandedIn state={state} />
      </p>
      {busy && <Progress state={state} />}
      {state.state === "replaced" && <p className="mt-6">{state.trouble} Its result is under your newest try.</p>}
      {state.state === "failed" && (
        <p role="alert" className="alert alert-warning mt-6 max-w-2xl">
          {state.trouble} Your instructor sees this too; nothing is lost.
        </p>
      )}
      {grade && (
        <>
          <p className="figures mt-6 text-4xl" data-testid="points">
            {state.points ?? grade.points} / {grade.of}
          </p>
          {state.points !== null && state.points < grade.points && (
            <p className="text-accent">
              {grade.points} by what was built; the rest was lost by being {spanText(state.lateSeconds)} late.
            </p>
          )}
          <ul className="mt-5 max-w-3xl divide-y divide-base-300 border-y border-base-300">
            {grade.lines.map((l) => (
              <li key={l.id} className="flex gap-4 py-3">
                <Sign verdict={l.verdict} />
                <div className="flex-1">
                  <h2 className="font-semibold">{l.title}</h2>
                  <p>{l.sentence}</p>
                  {l.check === "sizes" && sizes.length > 0 && (
                    <details className="mt-1">
                      <summary className="cursor-pointer text-accent">All {sizes.length} sizes</summary>
                      <SizesTable sizes={sizes} unit={units} />
                    </details>
                  )}
                </div>
                <span className="figures whitespace-nowrap">
                  {l.points} / {l.of}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Link className="btn btn-primary mt-8" href={`/bench/${heading.handout}`}>
        {grade && grade.points === grade.of ? "Back to the Bench" : "Go on in the Bench and hand in again"}
      </Link>
    </PageFrame>
  );
}

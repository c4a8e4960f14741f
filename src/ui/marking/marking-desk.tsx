"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo } from "react";
import type { CheckedSize } from "@/core/check/kinds/sizes/kind";
import type { ShapeEvidence } from "@/core/check/kinds/shape/kind";
import type { Grade } from "@/core/grade/grade";
import type { LengthUnit } from "@/core/units/quantity";
import { Follow } from "../parts/follow";
import { LocalTime } from "../parts/local-time";
import { HandedIn, Progress, Sign, type Heading, type SubmissionHead } from "./standing";
import { ComparisonView } from "./comparison-view";
import { SizesTable } from "./sizes-table";

interface QueueRow {
  readonly id: string;
  readonly name: string;
  readonly state: SubmissionHead["state"];
  readonly points: number | null;
  readonly of: number | null;
  readonly trouble: string | null;
}
interface DeskReport {
  readonly grade: Grade;
  readonly kernel: string;
  readonly createdAt: string;
  readonly shape: ShapeEvidence | null;
  readonly sizes: readonly CheckedSize[];
}
const CHOSEN = "border-accent bg-[var(--rust-wash)]";
/** The queue at the left, the part against the reference in the middle, the rubric with its evidence at the right. */
export function MarkingDesk({
  heading,
  units,
  state,
  queue,
  report,
  again,
}: {
  person: { name: string };
  heading: Heading;
  units: LengthUnit;
  state: SubmissionHead;
  queue: readonly QueueRow[];
  report: DeskReport | null;
  again: (form: FormData) => Promise<void>;
}) {
  const router = useRouter();
  const busy = state.state === "queued" || state.state === "checking";
  const groups = useMemo(() => {
    const needs = (r: QueueRow) => r.state === "failed" || (r.points !== null && r.points < r.of!);
    return [
      ["Needs you", queue.filter(needs)],
      ["Being checked", queue.filter((r) => r.state === "queued" || r.state === "checking")],
      ["Checked, nothing open", queue.filter((r) => r.state === "checked" && !needs(r))],
    ] as const;
  }, [queue]);
  useEffect(() => {
    const order = groups.flatMap(([, rows]) => rows.map((r) => r.id));
    const key = (e: KeyboardEvent) => {
      const step = e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
      const next = order[order.indexOf(state.id) + step];
      if (!step || !next) return;
      e.preventDefault();
      router.push(`/submissions/${next}`);
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  }, [groups, router, state.id]);
  return (
    <div className="flex h-screen flex-col overflow-hidden">
      <Follow on={`submission:${state.id},class:${heading.handout}`} busy={busy} />
      <header className="flex items-center gap-3 border-b border-base-300 px-3.5 py-2">
        <Link href={`/handouts/${heading.handout}`} className="text-sm text-accent hover:underline">
          Back
        </Link>
        <h1 className="font-semibold">
          {heading.number} {heading.title}
        </h1>
        <span className="quiet">
          {heading.course} · {queue.length} handed in
        </span>
        <span className="quiet ml-auto flex items-center gap-1">
          <kbd className="kbd kbd-xs">↓</kbd> next <kbd className="kbd kbd-xs ml-2">↑</kbd> back
        </span>
      </header>
      <div className="flex min-h-0 flex-1">
        <nav aria-label="Submissions" className="w-60 shrink-0 overflow-y-auto border-r border-base-300">
          {groups
            .filter(([, rows]) => rows.length)
            .map(([title, rows]) => (
              <section key={title}>
                <h2 className="quiet px-3.5 pb-1 pt-3 text-xs font-semibold">{title}</h2>
                {rows.map((r) => (
                  <Link
                    key={r.id}
                    href={`/submissions/${r.id}`}
                    aria-current={r.id === state.id}
                    className={`flex justify-between gap-2 border-l-3 px-3 py-1.5
                      ${r.id === state.id ? CHOSEN : "border-transparent hover:bg-base-200"}`}
                  >
                    <span>{r.name}</span>
                    <span className="figures">{r.points === null ? "–" : `${r.points} / ${r.of}`}</span>
                  </Link>
                ))}
              </section>
            ))}
        </nav>
        <section className="min-w-0 flex-1">
          {busy ? (
            <div className="p-8">
              <Progress state={state} />
            </div>
          ) : report ? (
            <ComparisonView key={state.id} submission={state.id} shape={report.shape} units={units} />
          ) : null}
          {state.state === "failed" && (
            <div role="alert" className="alert alert-warning m-6">
              <p>{state.trouble}</p>
              <Again submission={state.id} act={again} busy={busy} />
            </div>
          )}
        </section>
        <aside aria-label="Rubric" className="flex w-88 shrink-0 flex-col border-l border-base-300">
          <div className="min-h-0 flex-1 overflow-y-auto">
            <h2 className="quiet px-3.5 pb-2 pt-3 text-xs font-semibold">Rubric · {state.person}</h2>
            {report?.grade.lines.map((l) => (
              <div key={l.id} className="flex gap-2.5 border-t border-base-300 px-3.5 py-2.5" data-line={l.id}>
                <Sign verdict={l.verdict} />
                <div className="min-w-0 flex-1">
                  <div className="flex justify-between">
                    <h3 className="font-semibold">{l.title}</h3>
                    <span className="figures">
                      {l.points} / {l.of}
                    </span>
                  </div>
                  <p className="quiet mt-0.5 text-sm">{l.sentence}</p>
                  {l.check === "sizes" && report.sizes.length > 0 && (
                    <details className="text-sm">
                      <summary className="cursor-pointer text-accent">All {report.sizes.length} sizes</summary>
                      <SizesTable sizes={report.sizes} unit={units} />
                    </details>
                  )}
                </div>
              </div>
            ))}
          </div>
          {report && (
            <footer className="border-t border-base-300 px-3.5 py-3">
              <p className="flex items-baseline justify-between">
                <span className="figures text-2xl" data-testid="points">
                  {state.points ?? report.grade.points} / {report.grade.of}
                </span>
                <span className="quiet">try {state.attempt}</span>
              </p>
              <p className="quiet text-xs first-letter:uppercase">
                <HandedIn state={state} />, checked <LocalTime iso={report.createdAt} short /> with {report.kernel}
              </p>
              <Again submission={state.id} act={again} busy={busy} />
            </footer>
          )}
        </aside>
      </div>
    </div>
  );
}

/** A second check; what was reported stays. */
function Again({
  submission,
  act,
  busy,
}: {
  submission: string;
  act: (form: FormData) => Promise<void>;
  busy: boolean;
}) {
  return (
    <form action={act} className="mt-2">
      <input type="hidden" name="submission" value={submission} />
      <button className="btn btn-sm" disabled={busy}>
        Check again
      </button>
    </form>
  );
}

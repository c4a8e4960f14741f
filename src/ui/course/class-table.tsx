"use client";

import Link from "next/link";
import { useActionState } from "react";
import type { ExerciseFormState } from "@/app/exercise-actions";
import { spanText } from "@/core/grade/late";
import type { ClassRow } from "@/server/handouts";
import { Follow } from "../parts/follow";
import { HandoutTabs } from "./handout-tabs";
import { NEED_WORDS, urgencyOf } from "../marking/desk-order";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { TermsFields, type MarkingTerms } from "../exercise/terms-fields";
import { SheetFigure } from "../sheet/sheet-figure";
import { SheetFiles } from "../sheet/sheet-files";

type Row = Omit<ClassRow, "handed_in_at" | "seen_at" | "extended_to"> & {
  handedInAt: string | null;
  seenAt: string | null;
  extendedTo: string | null;
};
interface HandoutHead {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly course: string;
  readonly dueAt: string;
  readonly sheet: string | null;
  readonly trouble: string | null;
  readonly revision: number;
  readonly rules: string;
  readonly timeZone: string;
}
/** What an instructor can do on the page. */
export interface ClassActs {
  readonly again: (form: FormData) => Promise<void>;
  readonly giveTime: (state: ExerciseFormState, form: FormData) => Promise<ExerciseFormState>;
  readonly changeMarking: ClassActs["giveTime"];
}

const pointsOf = (r: Row): number => r.points ?? r.grade?.points ?? 0;

/** What needs the instructor first, then what was not looked at, then the rest, then those not handed in. */
function rank(r: Row): number {
  if (!r.submission) return 4;
  if (r.needs?.length) return 0;
  if (r.state === "queued" || r.state === "checking") return 1;
  return isSeen(r) ? 3 : 2;
}
const isSeen = (r: Row): boolean => r.accepted_at !== null || r.returned_at !== null;
const firstOf = (rows: readonly Row[]): string | undefined => rows.find((r) => r.submission)?.submission ?? undefined;

function Standing({ row }: { row: Row }) {
  if (!row.submission)
    return (
      <span className="quiet">
        {row.seenAt ? (
          <>
            not handed in, last seen <LocalTime iso={row.seenAt} short />
          </>
        ) : (
          "not opened"
        )}
      </span>
    );
  if (row.state === "failed") return <span className="text-error">{row.trouble}</span>;
  if (!row.grade)
    return (
      <span className="quiet">
        <span className="loading loading-dots loading-xs mr-1" />
        {row.progress || "waiting for its check"}
      </span>
    );
  const short = row.grade.lines.filter((l) => l.points < l.of);
  const why = (row.needs ?? []).map((n) => NEED_WORDS[n]).join(", ");
  return (
    <span className="quiet">
      {why && <span className="text-accent">{why} · </span>}
      {short.length ? short.map((l) => l.title).join(", ") : "nothing open"}
      {row.returned_at ? " · returned" : row.accepted_at ? " · looked at" : ""}
    </span>
  );
}

export function ClassTable({
  person,
  handout,
  rows,
  terms,
  acts,
}: {
  person: { name: string };
  handout: HandoutHead;
  rows: readonly Row[];
  /** How it is marked, and what its students see. */
  terms: MarkingTerms;
  /** None for who only marks. */
  acts: ClassActs | undefined;
}) {
  const sorted = [...rows].sort(
    (a, b) => rank(a) - rank(b) || urgencyOf(a.needs) - urgencyOf(b.needs) || a.name.localeCompare(b.name),
  );
  const busy = (!handout.sheet && !handout.trouble) || rows.some((r) => r.state === "queued" || r.state === "checking");
  const handedIn = rows.filter((r) => r.submission).length;
  const open = rows.filter((r) => r.submission && rank(r) < 3).length;
  return (
    <PageFrame person={person}>
      <Follow on={`class:${handout.id},handout:${handout.id}`} busy={busy} />
      <div className="flex items-start gap-8">
        <div className="min-w-0 flex-1">
          <h1 className="text-xl font-semibold">
            {handout.number} {handout.title}
          </h1>
          <p className="quiet mt-1">
            {handout.course} · due <LocalTime iso={handout.dueAt} /> · {handedIn} of {rows.length} handed in · {open} to
            look at
          </p>
          <p className="quiet">{handout.rules}</p>
          <HandoutTabs handout={handout.id} here="" mayTeach={acts !== undefined} />
          {firstOf(sorted) && (
            <p className="no-print mt-3">
              <Link className="btn btn-primary btn-sm" href={`/submissions/${firstOf(sorted)}`}>
                To the Marking desk
              </Link>
            </p>
          )}
          {handout.trouble && (
            <p role="alert" className="alert alert-error mt-3">
              {handout.trouble}
            </p>
          )}
          {rows.length === 0 && <p className="mt-6">No students are in this course yet.</p>}
          <table className="table mt-4">
            <thead>
              <tr>
                <th>Student</th>
                <th>Handed in</th>
                <th>Open</th>
                <th className="text-right">Try</th>
                <th className="text-right">Points</th>
              </tr>
            </thead>
            <tbody>
              {sorted.map((r) => (
                <tr
                  key={r.person_id}
                  className={
                    rank(r) < 3 && r.submission ? "border-l-2 border-accent hover:bg-base-200" : "hover:bg-base-200"
                  }
                >
                  <td className="whitespace-nowrap font-medium">
                    {r.submission ? (
                      <Link className="hover:underline" href={`/submissions/${r.submission}`}>
                        {r.name}
                      </Link>
                    ) : (
                      r.name
                    )}
                  </td>
                  <td className="whitespace-nowrap">
                    {r.handedInAt ? <LocalTime iso={r.handedInAt} /> : "–"}
                    {(r.late_seconds ?? 0) > 0 && (
                      <span className="block text-xs text-accent">{spanText(r.late_seconds ?? 0)} late</span>
                    )}
                    {r.extendedTo && (
                      <span className="quiet block text-xs">
                        has time until <LocalTime iso={r.extendedTo} />
                      </span>
                    )}
                  </td>
                  <td>
                    <Standing row={r} />
                  </td>
                  <td className="figures text-right">{r.attempt ?? ""}</td>
                  <td className="figures whitespace-nowrap text-right">
                    {r.grade ? `${pointsOf(r)} / ${r.grade.of}` : "–"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {acts && (
            <div className="no-print mt-6 flex flex-wrap items-end gap-6">
              <form action={acts.again} className="flex gap-2">
                <input type="hidden" name="handout" value={handout.id} />
                <button className="btn btn-sm" disabled={!handedIn}>
                  Check all again
                </button>
                <button
                  className="btn btn-sm"
                  name="only"
                  value="failed"
                  disabled={!rows.some((r) => r.state === "failed")}
                >
                  Check those that failed again
                </button>
              </form>
              <MarkingForm handout={handout.id} terms={terms} act={acts.changeMarking} />
              {rows.length > 0 && <MoreTime handout={handout} rows={rows} act={acts.giveTime} />}
            </div>
          )}
        </div>
        <aside className="no-print w-72 shrink-0">
          {handout.sheet ? (
            <>
              <SheetFigure svg={handout.sheet} />
              <SheetFiles of={`/api/handouts/${handout.id}/sheet`} />
            </>
          ) : (
            !handout.trouble && (
              <p className="quiet">
                <span className="loading loading-dots loading-xs mr-1" />
                The Sheet is being drawn.
              </p>
            )
          )}
        </aside>
      </div>
    </PageFrame>
  );
}

/** How it is marked, changed after it was issued. */
function MarkingForm({ handout, terms, act }: { handout: string; terms: MarkingTerms; act: ClassActs["giveTime"] }) {
  const [said, change, busy] = useActionState(act, {});
  return (
    <form action={change} className="w-full" aria-label="How it is marked">
      <input type="hidden" name="handout" value={handout} />
      <TermsFields start={terms} key={JSON.stringify(terms)}>
        <button className="btn btn-sm" disabled={busy}>
          Change it
        </button>
      </TermsFields>
      {(said.sentence ?? said.done) && (
        <p role="status" className={said.sentence ? "text-error" : "quiet"}>
          {said.sentence ?? said.done}
        </p>
      )}
    </form>
  );
}

/** More time for one student, by the course's clock. */
function MoreTime({ handout, rows, act }: { handout: HandoutHead; rows: readonly Row[]; act: ClassActs["giveTime"] }) {
  const [said, give, busy] = useActionState(act, {});
  return (
    <form action={give} className="flex flex-wrap items-end gap-2" aria-label="More time">
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
      {(said.sentence ?? said.done) && (
        <p role="status" className={said.sentence ? "text-error" : "quiet"}>
          {said.sentence ?? said.done}
        </p>
      )}
    </form>
  );
}

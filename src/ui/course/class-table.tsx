"use client";

import Link from "next/link";
import { spanText } from "@/core/grade/late";
import { Follow } from "../parts/follow";
import type { Choices, TimesShown } from "../exercise/times-fields";
import type { GivenTerms } from "@/core/check/exercise/terms";
import { MarkingForm, MoreTime, WhenForm, type ClassActs, type HandoutHead, type Row } from "./handout-forms";
import { HandoutTabs } from "./handout-tabs";
import { NEED_WORDS, urgencyOf } from "../marking/desk-order";
import { LocalTime } from "../parts/local-time";
import { PartPicture } from "../parts/part-picture";
import { PageFrame } from "../parts/page-frame";
import { SheetFigure } from "../sheet/sheet-figure";
import { SheetFiles } from "../sheet/sheet-files";

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

interface About {
  readonly person: { name: string };
  readonly handout: HandoutHead;
  readonly rows: readonly Row[];
  /** What differs from student to student, as lists of numbers call it; none: all have the same. */
  readonly varying: readonly string[];
  /** When it is given, and to whom. */
  readonly times: TimesShown;
  readonly choices: Choices;
  /** How it is marked, and what its students see. */
  readonly terms: GivenTerms;
  /** None for who only marks. */
  readonly acts: ClassActs | undefined;
}

/** A handout with its class: who handed in, what is open, and what can be done with it. */
export function ClassTable({ person, handout, rows, varying, terms, times, choices, acts }: About) {
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
          <Dates handout={handout} handedIn={handedIn} students={rows.length} open={open} />
          <p className="quiet">{handout.rules}</p>
          <HandoutTabs handout={handout.id} here="" mayTeach={acts !== undefined} />
          {firstOf(sorted) && (
            <p className="no-print mt-3">
              <Link className="btn btn-primary btn-sm" href={`/submissions/${firstOf(sorted)}`}>
                To the Marking desk
              </Link>
            </p>
          )}
          {handout.isWithdrawn && (
            <p role="status" className="alert mt-3">
              This handout is withdrawn: students do not see it, and it does not count in the gradebook.
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
                <th className="w-20">
                  <span className="sr-only">Part</span>
                </th>
                <th>Student</th>
                <th>Handed in</th>
                <th>Open</th>
                {varying.length > 0 && <th>Own numbers</th>}
                <th className="text-right">Try</th>
                <th className="text-right">Points</th>
              </tr>
            </thead>
            <tbody>
              {sorted.map((r) => (
                <StudentLine key={r.person_id} row={r} hasOwn={varying.length > 0} />
              ))}
            </tbody>
          </table>
          {varying.length > 0 && (
            <p className="quiet mt-2 text-sm">Own numbers, in this order: {varying.join("; ")}.</p>
          )}
          {acts && <HandoutActs {...{ handout, rows, terms, times, choices, acts }} />}
        </div>
        <HandoutSheet handout={handout} />
      </div>
    </PageFrame>
  );
}

/** Its course, its times, and how far the class is. */
function Dates({
  handout,
  handedIn,
  students,
  open,
}: {
  handout: HandoutHead;
  handedIn: number;
  students: number;
  open: number;
}) {
  return (
    <p className="quiet mt-1">
      {handout.course}
      {handout.opensAt && (
        <>
          {" "}
          · opens <LocalTime iso={handout.opensAt} />
        </>
      )}{" "}
      · due <LocalTime iso={handout.dueAt} />
      {handout.closesAt && (
        <>
          , closes <LocalTime iso={handout.closesAt} />
        </>
      )}{" "}
      · {handedIn} of {students} handed in · {open} to look at
    </p>
  );
}

function StudentLine({ row: r, hasOwn }: { row: Row; hasOwn: boolean }) {
  return (
    <tr className={rank(r) < 3 && r.submission ? "border-l-2 border-accent hover:bg-base-200" : "hover:bg-base-200"}>
      <td className="py-1">{r.submission && <PartPicture hash={r.picture} alt={`The part of ${r.name}`} />}</td>
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
      {hasOwn && (
        <td className="figures whitespace-nowrap">
          <OwnNumbers own={r.own} />
        </td>
      )}
      <td className="figures text-right">{r.attempt ?? ""}</td>
      <td className="figures whitespace-nowrap text-right">{r.grade ? `${pointsOf(r)} / ${r.grade.of}` : "–"}</td>
    </tr>
  );
}

/** What an instructor does with a handout as a whole. */
function HandoutActs({
  handout,
  rows,
  terms,
  times,
  choices,
  acts,
}: Pick<About, "handout" | "rows" | "terms" | "times" | "choices"> & { acts: ClassActs }) {
  const isHandedIn = rows.some((r) => r.submission);
  return (
    <div className="no-print mt-6 flex flex-wrap items-end gap-6">
      <form action={acts.again} className="flex gap-2">
        <input type="hidden" name="handout" value={handout.id} />
        <button className="btn btn-sm" disabled={!isHandedIn}>
          Check all again
        </button>
        <button className="btn btn-sm" name="only" value="failed" disabled={!rows.some((r) => r.state === "failed")}>
          Check those that failed again
        </button>
      </form>
      <form action={acts.withdraw}>
        <input type="hidden" name="handout" value={handout.id} />
        {!handout.isWithdrawn && <input type="hidden" name="back" value="on" />}
        <button className="btn btn-sm">{handout.isWithdrawn ? "Give it out again" : "Withdraw it"}</button>
      </form>
      <WhenForm handout={handout} times={times} terms={terms} choices={choices} act={acts.changeWhen} />
      <MarkingForm handout={handout.id} terms={terms} act={acts.changeMarking} />
      {rows.length > 0 && <MoreTime handout={handout} rows={rows} act={acts.giveTime} />}
    </div>
  );
}

function HandoutSheet({ handout }: { handout: HandoutHead }) {
  return (
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
  );
}

/** One student's own numbers, or how far they are. */
function OwnNumbers({ own }: { own: Row["own"] }) {
  if (!own) return <span className="quiet">when they open it</span>;
  if (own.state === "ready")
    return (
      <>
        {own.text}
        {own.builtFrom && (
          <span className="block font-sans text-xs text-accent">built to those of {own.builtFrom}</span>
        )}
      </>
    );
  if (own.state === "trouble") return <span className="whitespace-normal text-error">{own.trouble}</span>;
  return <span className="quiet">being made</span>;
}

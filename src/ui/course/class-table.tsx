import Link from "next/link";
import type { ClassRow } from "@/server/handouts";
import { Follow } from "../parts/follow";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { SheetFigure } from "../sheet/sheet-figure";

type Row = Omit<ClassRow, "handed_in_at" | "seen_at"> & { handedInAt: string | null; seenAt: string | null };
interface HandoutHead {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly course: string;
  readonly dueAt: string;
  readonly sheet: string | null;
  readonly trouble: string | null;
  readonly revision: number;
}

/** What needs the instructor first: not checked, then points missing, then the rest, then those not handed in. */
const rank = (r: Row) =>
  !r.submission ? 4 : r.state === "failed" ? 0 : !r.grade ? 1 : r.grade.points < r.grade.of ? 2 : 3;

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
  return <span className="quiet">{short.length ? short.map((l) => l.title).join(", ") : "nothing open"}</span>;
}

export function ClassTable({
  person,
  handout,
  rows,
}: {
  person: { name: string };
  handout: HandoutHead;
  rows: readonly Row[];
}) {
  const sorted = [...rows].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  const busy = (!handout.sheet && !handout.trouble) || rows.some((r) => r.state === "queued" || r.state === "checking");
  const handedIn = rows.filter((r) => r.submission).length;
  const open = rows.filter((r) => rank(r) === 0 || rank(r) === 2).length;
  return (
    <PageFrame person={person}>
      <Follow url={`/api/handouts/${handout.id}/state`} busy={busy} />
      <div className="flex items-start gap-8">
        <div className="min-w-0 flex-1">
          <h1 className="text-xl font-semibold">
            {handout.number} {handout.title}
          </h1>
          <p className="quiet mt-1">
            {handout.course} · due <LocalTime iso={handout.dueAt} /> · {handedIn} of {rows.length} handed in · {open} to
            look at
          </p>
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
                  <td className="whitespace-nowrap">{r.handedInAt ? <LocalTime iso={r.handedInAt} /> : "–"}</td>
                  <td>
                    <Standing row={r} />
                  </td>
                  <td className="figures text-right">{r.attempt ?? ""}</td>
                  <td className="figures whitespace-nowrap text-right">
                    {r.grade ? `${r.grade.points} / ${r.grade.of}` : "–"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <aside className="no-print w-72 shrink-0">
          {handout.sheet ? (
            <SheetFigure svg={handout.sheet} />
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

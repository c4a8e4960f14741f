"use client";

import Link from "next/link";
import { begun } from "@/core/naming/words";
import type { LengthUnit } from "@/core/units/quantity";
import type { ShownLine, ShownMark } from "@/core/grade/shows";
import type { StudentView } from "@/server/marking/results";
import { Follow } from "../parts/follow";
import { PartPicture } from "../parts/part-picture";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { OwnPart } from "./own-part";
import { SizesTable } from "./sizes-table";
import { HandedIn, Progress, Sign, type Heading, type SubmissionHead } from "./standing";
import { SheetView } from "./views/sheet-view";
import { StudentTalk } from "./student-talk";

/** What a student reads: points and what to do next first, then each line, places on their own part, and the talk. */
export function StudentResult({
  person,
  heading,
  state,
  view,
  units,
  sheet,
  isWithdrawn,
}: {
  person: { name: string };
  heading: Heading;
  state: SubmissionHead;
  view: StudentView;
  units: LengthUnit;
  /** The handout's Sheet, for remarks pinned to it. */
  sheet: string | undefined;
  /** The handout was taken back: nothing is asked or handed in any more. */
  isWithdrawn: boolean;
}) {
  const busy = state.state === "queued" || state.state === "checking";
  const { mark } = view;
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
      {state.state === "failed" && !mark && (
        <p role="alert" className="alert alert-warning mt-6 max-w-2xl">
          {state.trouble} Your instructor sees this too; nothing is lost.
        </p>
      )}
      {!mark && state.state === "checked" && (
        <p className="alert mt-6 max-w-2xl">Checked. Your result is here when your instructor returns it.</p>
      )}
      {view.isAnothers && (
        <p role="alert" className="alert alert-warning mt-6 max-w-2xl">
          This part is built to the numbers of another Sheet of your class. Build it to the numbers on your own.
        </p>
      )}
      {mark && (
        <div className="mt-6 flex flex-wrap gap-8">
          <div className="min-w-0 flex-[3_1_30rem]">
            <Summary mark={mark} view={view} />
            <ul className="mt-5 divide-y divide-base-300 border-y border-base-300">
              {mark.lines.map((l) => (
                <Line key={l.id} line={l} view={view} units={units} />
              ))}
              {mark.deductions.map((d) => (
                <li key={d.why} className="flex gap-4 py-3" data-deduction={d.why}>
                  <span className="w-4" />
                  <div className="flex-1">
                    <h2 className="font-semibold">{d.title}</h2>
                    <p>{d.sentence}</p>
                  </div>
                  <span className="figures whitespace-nowrap text-accent">−{Math.abs(d.points)}</span>
                </li>
              ))}
            </ul>
          </div>
          {(view.places.length > 0 || isPinned(mark, "part")) && (
            <div className="min-w-80 flex-[2_1_22rem]">
              <OwnPart submission={state.id} places={view.places} comments={mark.comments} />
            </div>
          )}
        </div>
      )}
      {mark && isPinned(mark, "sheet") && <OnTheSheet mark={mark} sheet={sheet} />}
      <StudentTalk submission={state.id} talk={view.talk} turn={view.turn} isOver={isWithdrawn} />
      <Tries view={view} at={state.id} />
      {isWithdrawn ? (
        <p className="quiet mt-8">This handout was taken back by your instructor. Your result stays readable here.</p>
      ) : (
        <Link className="btn btn-primary mt-8" href={`/bench/${heading.handout}`}>
          {isWhole(mark) ? "Back to the Bench" : "Go on in the Bench and hand in again"}
        </Link>
      )}
    </PageFrame>
  );
}

const isWhole = (mark: ShownMark | undefined): boolean => mark?.points !== undefined && mark.points >= (mark.of ?? 0);

const isPinned = (mark: ShownMark, on: "part" | "sheet"): boolean => mark.comments.some((c) => c.pin?.on === on);

/** Remarks that are pinned to places of the Sheet, with the Sheet. */
function OnTheSheet({ mark, sheet }: { mark: ShownMark; sheet: string | undefined }) {
  const pinned = mark.comments.filter((c) => c.pin?.on === "sheet");
  return (
    <section className="mt-8 max-w-3xl" aria-label="On the Sheet">
      <h2 className="font-semibold">On the Sheet</h2>
      <ol className="mt-1 list-decimal pl-5">
        {pinned.map((c, i) => (
          <li key={i} className="whitespace-pre-wrap">
            {c.text}
          </li>
        ))}
      </ol>
      {sheet && (
        <div className="mt-2 h-96 border border-base-300">
          <SheetView
            svg={sheet}
            sizes={undefined}
            pins={pinned}
            onPlace={undefined}
            note="The numbers stand where they are meant."
          />
        </div>
      )}
    </section>
  );
}

/** Points, and the one thing to do first. */
function Summary({ mark, view }: { mark: ShownMark; view: StudentView }) {
  const next = nextThing(mark, view);
  const general = mark.comments.filter((c) => !c.pin);
  return (
    <>
      {mark.points !== undefined && (
        <p className="figures text-4xl" data-testid="points">
          {mark.points} / {mark.of}
        </p>
      )}
      <p className="quiet text-sm">
        {view.returnedAt ? (
          <>
            returned <LocalTime iso={view.returnedAt} />
          </>
        ) : (
          "checked by the program; your instructor has not returned it yet"
        )}
      </p>
      {next && (
        <p className="mt-3 border-l-3 border-accent bg-[var(--rust-wash)] px-3 py-2" data-testid="next">
          <b>Do this next:</b> {next}
        </p>
      )}
      {general.map((c, i) => (
        <p key={i} className="mt-3 whitespace-pre-wrap border-l-3 border-primary px-3">
          {c.text}
        </p>
      ))}
    </>
  );
}

/** What costs most comes first; a question back before all. */
function nextThing(mark: ShownMark, { turn, places }: StudentView): string | undefined {
  if (turn === "student") return "answer your instructor's question below.";
  const missed = mark.lines.filter((l) => l.verdict === "missed" && (l.points ?? 0) < (l.of ?? 1));
  const worst = [...missed].sort((a, b) => lost(b) - lost(a))[0];
  if (!worst) return undefined;
  const place = places.find((p) => p.check === worst.check)?.text;
  return place ? `${begun(place)}.` : (worst.sentence ?? `look at “${worst.title}” again.`);
}
const lost = (l: ShownLine): number => (l.of ?? 0) - (l.points ?? 0);

function Line({ line, view, units }: { line: ShownLine; view: StudentView; units: LengthUnit }) {
  return (
    <li className="flex gap-4 py-3" data-line={line.id}>
      {line.verdict ? <Sign verdict={line.verdict} /> : <span className="w-4" />}
      <div className="flex-1">
        <h2 className="font-semibold">
          {line.title}
          {line.bonus && <span className="quiet font-normal"> · bonus</span>}
        </h2>
        {line.sentence && <p>{line.sentence}</p>}
        {line.reason && <p className="quiet">Your instructor: {line.reason}</p>}
        {line.comments.map((c, i) => (
          <p key={i} className="mt-1 whitespace-pre-wrap border-l-2 border-primary pl-2">
            {c}
          </p>
        ))}
        {line.check === "sizes" && view.sizes.length > 0 && (
          <details className="mt-1">
            <summary className="cursor-pointer text-accent">All {view.sizes.length} sizes</summary>
            <SizesTable sizes={view.sizes} unit={units} />
          </details>
        )}
      </div>
      {line.points !== undefined && (
        <span className="figures whitespace-nowrap">
          {line.points} / {line.of}
        </span>
      )}
    </li>
  );
}

/** All tries, the newest first. */
function Tries({ view, at }: { view: StudentView; at: string }) {
  if (view.tries.length < 2) return null;
  return (
    <section className="mt-8 max-w-xl" aria-label="Tries">
      <h2 className="font-semibold">Your tries</h2>
      <ul className="mt-1 divide-y divide-base-300 border-y border-base-300">
        {view.tries.map((t) => (
          <li key={t.id} className="flex items-center gap-4 py-1.5">
            <PartPicture hash={t.picture} alt={`Your part as it was at try ${t.attempt}`} />
            <Link
              className={`w-16 hover:underline ${t.id === at ? "font-semibold" : "text-accent"}`}
              href={`/submissions/${t.id}`}
              aria-current={t.id === at}
            >
              Try {t.attempt}
            </Link>
            <span className="quiet flex-1">
              <LocalTime iso={t.handedInAt} />
            </span>
            {t.points !== null && t.of !== null && (
              <>
                <progress className="progress h-2 w-32" value={t.points} max={t.of} aria-label={`Try ${t.attempt}`} />
                <span className="figures w-20 text-right">
                  {t.points} / {t.of}
                </span>
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

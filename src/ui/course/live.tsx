"use client";

import Link from "next/link";
import { useEffect, useState, useTransition } from "react";
import { spanText } from "@/core/grade/late";
import type { LiveRow } from "@/server/marking/live";
import { PageFrame } from "../parts/page-frame";
import { HandoutTabs } from "./handout-tabs";

/** The page looks again so often while it is in sight. */
const LOOK_MS = 4_000;
/** Who has not moved for so long may be stuck, seconds. */
const STILL_S = 5 * 60;
const STILL = "border-accent bg-[var(--rust-wash)]";

/** How the class is now, asked for again and again while the page is looked at. */
function useLive(handout: string, start: { now: string; rows: readonly LiveRow[] }) {
  const [shown, setShown] = useState(start);
  const [isAway, setAway] = useState(false);
  const look = async () => {
    try {
      const r = await fetch(`/api/handouts/${handout}/live`, {
        cache: "no-store",
        signal: AbortSignal.timeout(10_000),
      });
      if (!r.ok) throw new Error();
      setShown((await r.json()) as typeof start);
      setAway(false);
    } catch {
      setAway(true);
    }
  };
  useEffect(() => {
    const timer = setInterval(() => document.visibilityState === "visible" && void look(), LOOK_MS);
    return () => clearInterval(timer);
    // the page is of one handout
  }, []);
  return { shown, isAway, look };
}

/** The class during a lesson: who has opened the handout, how far each is, who has not moved. */
export function LivePage({
  person,
  handout,
  start,
  mayTeach,
  signOff,
}: {
  person: { name: string };
  handout: { id: string; number: string; title: string; course: string };
  start: { now: string; rows: readonly LiveRow[] };
  mayTeach: boolean;
  signOff: (student: string, on: boolean) => Promise<void>;
}) {
  const { shown, isAway, look } = useLive(handout.id, start);
  const now = Date.parse(shown.now);
  const idle = (r: LiveRow) => (r.changedAt ? (now - Date.parse(r.changedAt)) / 1000 : 0);
  const rank = (r: LiveRow): number => {
    if (r.handedIn) return 2;
    if (!r.openedAt) return 3;
    return idle(r) > STILL_S ? 0 : 1;
  };
  const rows = [...shown.rows].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  const count = (f: (r: LiveRow) => boolean) => shown.rows.filter(f).length;
  const still = count((r) => rank(r) === 0);
  return (
    <PageFrame person={person}>
      <h1 className="text-xl font-semibold">
        {handout.number} {handout.title}
      </h1>
      <p className="quiet mt-1" role="status" data-testid="live-count">
        {handout.course} · {count((r) => r.openedAt !== null)} of {shown.rows.length} have opened it ·{" "}
        {count((r) => r.handedIn !== null)} handed in · {count((r) => r.signedOff !== null)} signed off
        {still > 0 && <span className="text-accent"> · {still} not moving</span>}
        {isAway && <span className="text-error"> · no connection: what is shown may be old</span>}
      </p>
      <HandoutTabs handout={handout.id} here="/live" mayTeach={mayTeach} />
      {!shown.rows.length && <p className="mt-6">No students are in this course yet.</p>}
      <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-3">
        {rows.map((r) => (
          <Seat key={r.id} row={r} idle={idle(r)} isStill={rank(r) === 0}>
            <SignOff row={r} sign={(on) => signOff(r.id, on).then(look)} />
          </Seat>
        ))}
      </ul>
    </PageFrame>
  );
}

/** One student's part and how it goes. */
function Seat({
  row: r,
  idle,
  isStill,
  children,
}: {
  row: LiveRow;
  idle: number;
  isStill: boolean;
  children: React.ReactNode;
}) {
  return (
    <li data-student={r.name} className={`flex gap-3 border p-2.5 ${isStill ? STILL : "border-base-300"}`}>
      <div className="h-20 w-28 shrink-0 overflow-hidden border border-base-300 bg-base-200">
        {r.picture ? (
          <img src={r.picture} alt={`Part of ${r.name}`} className="h-full w-full object-cover" />
        ) : (
          <span className="quiet grid h-full place-items-center text-xs">
            {r.openedAt ? "no picture yet" : "not opened"}
          </span>
        )}
      </div>
      <div className="min-w-0 flex-1 text-sm">
        <p className="truncate font-semibold">{r.name}</p>
        <Progress row={r} idle={idle} isStill={isStill} />
        {children}
      </div>
    </li>
  );
}

/** What is ticked shows at once. */
function SignOff({ row: r, sign }: { row: LiveRow; sign: (on: boolean) => Promise<void> }) {
  const [busy, begin] = useTransition();
  const [asked, setAsked] = useState<boolean>();
  return (
    <label className="mt-0.5 flex items-center gap-1.5 text-xs">
      <input
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={asked ?? r.signedOff !== null}
        disabled={busy}
        onChange={(e) => {
          const on = e.target.checked;
          setAsked(on);
          begin(async () => {
            await sign(on);
            setAsked(undefined);
          });
        }}
      />
      {r.signedOff ? `signed off by ${r.signedOff.by}` : "sign off at the desk"}
    </label>
  );
}

function Progress({ row: r, idle, isStill }: { row: LiveRow; idle: number; isStill: boolean }) {
  if (!r.openedAt) return <p className="quiet">has not opened it</p>;
  return (
    <>
      <p className="quiet">
        {r.steps} {r.steps === 1 ? "step" : "steps"}
        {r.sketches !== null && ` · ${r.defined} of ${r.sketches} sketches defined`}
        {r.gauges && ` · ${r.gauges.inside} of ${r.gauges.of} gauges inside`}
      </p>
      {r.handedIn ? (
        <p>
          <Link className="text-accent hover:underline" href={`/submissions/${r.handedIn.id}`}>
            handed in
          </Link>
          {r.handedIn.points !== null && (
            <span className="figures">
              {" "}
              {r.handedIn.points} / {r.handedIn.of}
            </span>
          )}
        </p>
      ) : (
        <p className={isStill ? "text-accent" : "quiet"}>
          {idle < 60 ? "at work now" : `last change ${spanText(idle)} ago`}
        </p>
      )}
    </>
  );
}

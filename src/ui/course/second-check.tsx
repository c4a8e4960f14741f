"use client";

import Link from "next/link";
import { useState, useTransition } from "react";
import type { Change } from "@/server/marking/rechecks";
import { Follow } from "../parts/follow";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { HandoutTabs } from "./handout-tabs";

interface Trial {
  readonly why: string;
  readonly by: string;
  readonly madeAt: string;
  readonly revision: number;
  readonly done: number;
  readonly of: number;
  readonly changes: readonly Change[];
}
interface Acts {
  readonly begin: (why: string, givesSheet: boolean) => Promise<string>;
  readonly apply: () => Promise<string>;
  readonly drop: () => Promise<string>;
}

/** Who would change by how much, before a changed exercise is applied to a handout. */
export function SecondCheckPage({
  person,
  handout,
  revisions,
  trial,
  applied,
  acts,
}: {
  person: { name: string };
  handout: { id: string; number: string; title: string; course: string };
  revisions: Revisions;
  trial: Trial | undefined;
  applied: readonly { id: string; why: string; by: string; at: string; revision: number }[];
  acts: Acts;
}) {
  const [busy, start] = useTransition();
  const [said, setSaid] = useState("");
  const act = (what: () => Promise<string>) => start(async () => setSaid(await what()));
  const isReady = trial !== undefined && trial.done >= trial.of;
  return (
    <PageFrame person={person}>
      <Follow on={`class:${handout.id},handout:${handout.id}`} busy={trial !== undefined && !isReady} />
      <h1 className="text-xl font-semibold">
        {handout.number} {handout.title}
      </h1>
      <p className="quiet mt-1">{handout.course}</p>
      <HandoutTabs handout={handout.id} here="/second-check" mayTeach />
      {!trial && <Beginning revisions={revisions} busy={busy} begin={(...by) => act(() => acts.begin(...by))} />}
      {trial && <Tried trial={trial} busy={busy} apply={() => act(acts.apply)} drop={() => act(acts.drop)} />}
      {said && (
        <p role="status" className="mt-3">
          {said}
        </p>
      )}
      {applied.length > 0 && (
        <section className="mt-8">
          <h2 className="font-semibold">Applied before</h2>
          <ul className="mt-1">
            {applied.map((a) => (
              <li key={a.id}>
                {a.why}{" "}
                <span className="quiet">
                  {a.by}, <LocalTime iso={a.at} />, by revision {a.revision}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </PageFrame>
  );
}

interface Revisions {
  readonly markedBy: number;
  readonly now: number;
  readonly isMeasured: boolean;
  readonly exercise: string;
}

/** Why it is checked anew, and by what. */
function Beginning({
  revisions,
  busy,
  begin,
}: {
  revisions: Revisions;
  busy: boolean;
  begin: (why: string, givesSheet: boolean) => void;
}) {
  const [why, setWhy] = useState("");
  const [givesSheet, setGivesSheet] = useState(false);
  return (
    <section className="mt-5 max-w-2xl">
      <p>
        This handout is marked by revision {revisions.markedBy} of{" "}
        <Link className="text-accent underline" href={`/exercises/${revisions.exercise}`}>
          its exercise
        </Link>
        , which stands at revision {revisions.now}.{" "}
        {revisions.now === revisions.markedBy
          ? "Change the rubric, a tolerance or the reference there first; then see here what that would change."
          : "See what a second check by it would change, before anything does."}
      </p>
      <label className="mt-3 block">
        <span className="quiet text-sm">Why: it stands in the history of every submission</span>
        <input className="input w-full" maxLength={300} value={why} onChange={(e) => setWhy(e.target.value)} />
      </label>
      <label className="mt-2 flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={givesSheet}
          onChange={(e) => setGivesSheet(e.target.checked)}
        />
        A corrected revision: students get its Sheet as well when it is applied
      </label>
      <button
        className="btn btn-primary mt-2"
        disabled={busy || !why.trim() || !revisions.isMeasured || revisions.now === revisions.markedBy}
        onClick={() => begin(why, givesSheet)}
      >
        See what would change
      </button>
      {!revisions.isMeasured && <span className="quiet ml-3">The exercise is being measured.</span>}
    </section>
  );
}

/** What a second check has found so far; nothing has changed by it yet. */
function Tried({ trial, busy, apply, drop }: { trial: Trial; busy: boolean; apply: () => void; drop: () => void }) {
  const isReady = trial.done >= trial.of;
  return (
    <section className="mt-5" aria-label="What would change">
      <p>
        {trial.why}{" "}
        <span className="quiet">
          {trial.by}, <LocalTime iso={trial.madeAt} />, by revision {trial.revision}
        </span>
      </p>
      {!isReady && (
        <p role="status" className="mt-2 flex items-center gap-3">
          <progress className="progress w-56" value={trial.done} max={trial.of} />
          {trial.done} of {trial.of} checked anew. Nothing has changed yet.
        </p>
      )}
      {isReady && <Summary changes={trial.changes} />}
      <Changes changes={trial.changes.filter((c) => c.isDone)} />
      <p className="mt-4 flex items-center gap-3">
        <button className="btn btn-primary" disabled={busy || !isReady} onClick={apply}>
          Apply it
        </button>
        <button className="btn" disabled={busy} onClick={drop}>
          Leave everything as it is
        </button>
      </p>
    </section>
  );
}

const delta = (c: Change): number => (c.after ?? 0) - (c.before ?? 0);

function Summary({ changes }: { changes: readonly Change[] }) {
  const up = changes.filter((c) => delta(c) > 0).length,
    down = changes.filter((c) => delta(c) < 0).length;
  const failed = changes.filter((c) => c.trouble).length;
  return (
    <p className="mt-2 font-semibold" data-testid="summary">
      {up} would have more points, {down} fewer, {changes.length - up - down} the same
      {failed > 0 && `; ${failed} could not be checked and would stay as they are`}.
    </p>
  );
}

function Changes({ changes }: { changes: readonly Change[] }) {
  if (!changes.length) return null;
  return (
    <table className="table table-sm mt-3" aria-label="Changes">
      <thead>
        <tr>
          <th>Student</th>
          <th className="text-right">Now</th>
          <th className="text-right">Then</th>
          <th className="text-right">Change</th>
          <th>Lines</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((change) => (
          <tr key={change.submission} className="align-top">
            <td className="whitespace-nowrap">
              <Link className="hover:underline" href={`/submissions/${change.submission}`}>
                {change.person}
              </Link>
            </td>
            <td className="figures text-right">
              {change.before === null ? "–" : `${change.before} / ${change.ofBefore}`}
            </td>
            <td className="figures text-right">
              {change.after === null ? "–" : `${change.after} / ${change.ofAfter}`}
            </td>
            <td className={`figures text-right ${delta(change) < 0 ? "text-accent" : ""}`}>
              {change.trouble ? "" : delta(change) > 0 ? `+${delta(change)}` : String(delta(change)).replace("-", "−")}
            </td>
            <td className="text-sm">
              {change.trouble}
              {change.lines.map((l) => (
                <span key={l.title} className="block">
                  {l.title}:{" "}
                  <span className="figures">
                    {l.before ?? "–"} → {l.after ?? "–"}
                  </span>{" "}
                  <span className="quiet">{l.why}</span>
                </span>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

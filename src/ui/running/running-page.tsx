"use client";

import { spanText } from "@/core/grade/late";
import type { Queued, RunningCheck, TableSize, WorkerRow } from "@/server/upkeep/running";
import { plainNumber } from "@/core/units/quantity";
import { bytesText, isNearlyFull } from "../parts/bytes";
import { Follow } from "../parts/follow";
import { PageFrame } from "../parts/page-frame";

type Told<T> = { readonly [K in keyof T]: Date extends T[K] ? string | (null extends T[K] ? null : never) : T[K] };
type Act = (form: FormData) => Promise<void>;

const TASKS: Record<string, string> = {
  check: "Checks",
  "check-long": "Checks that take longer",
  "prepare-exercise": "References to measure",
};
const SAID = { queued: "waits", checking: "runs", failed: "failed" };

/** What the histories of all parts fill and may fill, bytes. */
interface Room {
  readonly bytes: number;
  readonly most: number;
}

function HistoriesRoom({ room: { bytes, most } }: { room: Room }) {
  const filled = `Versions of all parts fill ${bytesText(bytes)} of ${bytesText(most)}.`;
  return (
    <>
      <h2 className="mt-8 font-semibold">Room for histories</h2>
      {!isNearlyFull(bytes, most) ? (
        <p className="quiet mt-1">{filled}</p>
      ) : (
        <p role="alert" className="alert alert-warning mt-1">
          {filled} When all is filled no version can be named, and fewer are kept. Set CALIPER_HISTORY_GB higher, or
          take away courses that are over.
        </p>
      )}
    </>
  );
}

/** What waits, what runs where, what failed and why; for whoever looks after the server. */
export function RunningPage({
  person,
  now,
  queue,
  workers,
  checks,
  tables,
  room,
  stop,
  retry,
}: {
  person: { name: string };
  now: string;
  queue: readonly Told<Queued>[];
  workers: readonly Told<WorkerRow>[];
  checks: readonly Told<RunningCheck>[];
  tables: readonly TableSize[];
  room: Room;
  stop: Act;
  retry: Act;
}) {
  const ago = (iso: string | null) => (iso ? spanText((Date.parse(now) - Date.parse(iso)) / 1000) : "–");
  return (
    <PageFrame person={person}>
      <Follow on="server" busy={false} />
      <h1 className="text-xl font-semibold">What runs on this server</h1>
      <div className="mt-4 grid gap-8 lg:grid-cols-2">
        <section>
          <h2 className="font-semibold">Waiting</h2>
          {queue.length ? (
            <table className="table mt-1" aria-label="Waiting">
              <thead>
                <tr>
                  <th>What</th>
                  <th className="text-right">waits</th>
                  <th className="text-right">oldest</th>
                  <th className="text-right">runs</th>
                </tr>
              </thead>
              <tbody>
                {queue.map((q) => (
                  <tr key={q.task}>
                    <td>{TASKS[q.task] ?? q.task}</td>
                    <td className="figures text-right">{q.waiting}</td>
                    <td className="figures text-right">{ago(q.oldest)}</td>
                    <td className="figures text-right">{q.running}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p className="quiet mt-1">Nothing waits.</p>
          )}
        </section>
        <section>
          <h2 className="font-semibold">Grading processes</h2>
          {workers.length ? (
            <table className="table mt-1" aria-label="Grading processes">
              <thead>
                <tr>
                  <th>Lane</th>
                  <th>does</th>
                  <th className="text-right">for</th>
                  <th className="text-right">last heard of</th>
                </tr>
              </thead>
              <tbody>
                {workers.map((told) => (
                  <tr key={told.lane}>
                    <td className="figures">{told.lane.replace(/^pool-/, "").slice(0, 8)}</td>
                    <td>{told.holds ? (TASKS[told.holds] ?? told.holds) : <span className="quiet">nothing</span>}</td>
                    <td className="figures text-right">{ago(told.held_since)}</td>
                    <td className="figures text-right">
                      {Math.max(0, Math.round((Date.parse(now) - Date.parse(told.seen_at)) / 1000))} s ago
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p role="alert" className="alert alert-warning mt-1">
              No grading process has been heard of for ten minutes. Nothing is checked until one is started.
            </p>
          )}
        </section>
      </div>
      <h2 className="mt-8 font-semibold">Checks that wait, run or failed</h2>
      {checks.length ? (
        <table className="table mt-1" aria-label="Checks">
          <thead>
            <tr>
              <th>Student</th>
              <th>Handout</th>
              <th className="text-right">Try</th>
              <th />
              <th className="text-right">since</th>
              <th>What is said</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {checks.map((c) => (
              <tr key={c.id} className="hover:bg-base-200">
                <td className="whitespace-nowrap">{c.person}</td>
                <td className="figures">{c.number}</td>
                <td className="figures text-right">{c.attempt}</td>
                <td className={c.state === "failed" ? "text-error" : ""}>{SAID[c.state]}</td>
                <td className="figures whitespace-nowrap text-right">{ago(c.since)}</td>
                <td className="quiet">{c.said}</td>
                <td className="text-right">
                  <form action={c.state === "failed" ? retry : stop}>
                    <input type="hidden" name="submission" value={c.id} />
                    <button className="btn btn-xs">{c.state === "failed" ? "Try again" : "Stop"}</button>
                  </form>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="quiet mt-1">Every check has ended well.</p>
      )}
      <HistoriesRoom room={room} />
      <h2 className="mt-8 font-semibold">Tables</h2>
      <table className="table mt-1 max-w-md" aria-label="Tables">
        <tbody>
          {tables.map((t) => (
            <tr key={t.name}>
              <td>{t.name.replaceAll("_", " ")}</td>
              <td className="figures text-right">{plainNumber(t.rows, 0)} rows</td>
              <td className="figures text-right">{bytesText(t.bytes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </PageFrame>
  );
}

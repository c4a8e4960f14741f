"use client";

import { useTransition } from "react";
import type { Preview } from "@/core/grade/preview";

/** What the rubric gives for the reference and for typical mistakes, before anybody hands in. */
export function RubricTrial({
  preview,
  isCurrent,
  trying,
  start,
}: {
  preview: Preview | undefined;
  /** Whether it was tried on what stands now. */
  isCurrent: boolean;
  /** How far it is; empty while nothing is done. */
  trying: string;
  start: () => Promise<void>;
}) {
  const [busy, begin] = useTransition();
  const lines = preview?.reference.lines ?? [];
  const isWhole = preview && lines.every((l) => l.points === l.of || l.check === "hand");
  return (
    <section className="mt-8 border-t border-base-300 pt-5" aria-label="The rubric tried">
      <div className="flex items-center gap-4">
        <h2 className="font-semibold">The rubric tried</h2>
        <button className="btn btn-sm" disabled={busy || trying !== ""} onClick={() => begin(() => start())}>
          {preview ? "Try again" : "Try it on the reference and on typical mistakes"}
        </button>
        {trying && (
          <span role="status" className="quiet text-sm">
            <span className="loading loading-dots loading-xs mr-1" />
            {trying}
          </span>
        )}
        {preview && !isCurrent && !trying && <span className="text-sm text-accent">of before the last change</span>}
      </div>
      {!preview && !trying && (
        <p className="quiet mt-1 text-sm">
          Shows what each typical mistake would cost: a size misread, a step left out, a mirror image, a loose sketch,
          the wrong unit. Save first.
        </p>
      )}
      {preview && !isWhole && (
        <p role="alert" className="mt-2 text-error">
          The reference itself does not get all points: look at the lines in rust.
        </p>
      )}
      {preview && (
        <div className="mt-3 overflow-x-auto">
          <table className="table table-xs" aria-label="What mistakes cost">
            <thead>
              <tr>
                <th />
                {lines.map((l) => (
                  <th key={l.id} className="max-w-24 whitespace-normal text-right align-bottom">
                    {l.title}
                  </th>
                ))}
                <th className="text-right align-bottom">All</th>
              </tr>
            </thead>
            <tbody>
              {[{ label: "The reference itself", grade: preview.reference }, ...preview.mistakes].map((m) => (
                <tr key={m.label}>
                  <td className="max-w-md whitespace-normal">{m.label}</td>
                  {m.grade.lines.map((l) => (
                    <td key={l.id} className={`figures text-right ${l.points < l.of ? "text-accent" : "quiet"}`}>
                      {l.check === "hand" ? "by hand" : l.points}
                    </td>
                  ))}
                  <td className="figures whitespace-nowrap text-right font-semibold">
                    {m.grade.points} / {m.grade.of}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

"use client";

import { useMemo } from "react";
import { idsFor } from "@/core/sketch/edit/rewire";
import { closings, missingAxisSegment, turningFault } from "@/core/sketch/profile";
import { findRegions } from "@/core/sketch/regions";
import { pointAt, type Sketch } from "@/core/sketch/sketch";
import { wordsFor } from "@/core/sketch/words";
import { lengthText } from "@/core/units/quantity";
import { diagnosisOf, type BenchStore } from "../store";
import { Part } from "./part";

/** Ends within this share of the sketch's size are offered to be closed, and at least this many mm. */
const CLOSE_SHARE = 0.05;

/** Open ends and curves drawn twice, with one click to mend each. */
export function Open({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const solved = diagnosisOf(sketch, unit)?.sketch ?? sketch;
  const { gaps, overlaps } = useMemo(() => findRegions(solved), [solved]);
  const size = Math.max(1, ...gaps.flatMap((g) => g.at.map(Math.abs)));
  const near = closings(solved, gaps, Math.max(CLOSE_SHARE * size, 0.01)),
    axis = missingAxisSegment(solved, gaps);
  const { draw } = store.getState(),
    call = wordsFor(solved, unit);
  if (!gaps.length && !overlaps.length) return null;
  return (
    <Part title={gaps.length ? `Open ends: ${gaps.length}` : "Drawn twice"}>
      {near.map((c) => (
        <div key={c.ends.join()} className="flex items-center gap-2 py-0.5">
          <span className="flex-1">
            {call(c.ends[0])} and {call(c.ends[1])} lie {lengthText(c.distance, unit)} apart
          </span>
          <button className="btn btn-xs" onClick={() => draw({ do: "constrain", kind: "coincident", of: [...c.ends] })}>
            Close it
          </button>
        </div>
      ))}
      {axis && (
        <div className="flex items-center gap-2 py-0.5">
          <span className="flex-1">The profile is open only along {call(axis.axis)}</span>
          <button className="btn btn-xs" onClick={() => draw(segmentBetween(solved, axis.ends))}>
            Draw the segment
          </button>
        </div>
      )}
      {overlaps.map((o, i) => (
        <div key={i} className="flex items-center gap-2 py-0.5">
          <span className="flex-1">
            {call(o.curves[0])} and {call(o.curves[1])} lie on each other
          </span>
          <button className="btn btn-xs" onClick={() => draw({ do: "delete", ids: [o.curves[1]] })}>
            Remove the second
          </button>
        </div>
      ))}
      {gaps.length > 0 && !near.length && !axis && <p className="quiet">Marked in the drawing by a dashed ring.</p>}
    </Part>
  );
}

/** With a centre line drawn: what would stand in the way of turning the profile about it. */
export function Turning({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const solved = diagnosisOf(sketch, unit)?.sketch ?? sketch;
  const axis = solved.curves.find((c) => c.kind === "line" && c.construction === "centre-line");
  const faults = useMemo(() => {
    if (!axis) return [];
    const all = findRegions(solved).regions.flatMap((r) => turningFault(solved, r, axis.id, unit) ?? []);
    return [...new Set(all)];
  }, [solved, axis, unit]);
  if (!axis || !faults.length) return null;
  return (
    <Part title={`If turned about ${wordsFor(solved, unit)(axis.id)}`}>
      {faults.map((f) => (
        <p key={f} role="status">
          {f}
        </p>
      ))}
    </Part>
  );
}

/** The line between two loose ends. */
function segmentBetween(sketch: Sketch, [a, b]: readonly [string, string]) {
  const id = idsFor(sketch),
    line = id("l"),
    own = (ref: string): [number, number] => [...pointAt(sketch, ref)] as [number, number];
  return {
    do: "draw" as const,
    curves: [{ id: line, kind: "line" as const, start: own(a), end: own(b) }],
    constraints: [
      { id: id("k"), kind: "coincident" as const, of: [`${line}.start`, a] },
      { id: id("k"), kind: "coincident" as const, of: [`${line}.end`, b] },
    ],
  };
}

"use client";

import { useMemo, type ReactNode } from "react";
import { closings, missingAxisSegment, turningFault } from "@/core/sketch/profile";
import { findRegions } from "@/core/sketch/regions";
import { idsFor } from "@/core/sketch/edit/rewire";
import { relationText } from "@/core/sketch/sentences";
import { curveOf, isDimension, pointAt, type Relation, type Sketch } from "@/core/sketch/sketch";
import { lengthText } from "@/core/units/quantity";
import { GLYPHS } from "../sketch/marks";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { Proposals } from "./proposals";
import { SizeRow } from "./size-row";

/** Ends within this share of the sketch's size are offered to be closed, and at least this many mm. */
const CLOSE_SHARE = 0.05;

/** What the sketch says about itself: what disagrees, what is proposed, what is picked, what is open. */
export function SketchPanel({ store, step }: { store: BenchStore; step: string }) {
  const part = store((s) => s.history.present);
  const selection = store((s) => s.selection);
  const dispute = store((s) => s.dispute);
  const proposals = store((s) => s.proposals);
  const sketch = sketchOf(part, step);
  if (!sketch) return null;
  return (
    <section aria-label="Sketch" className="min-h-0 flex-1 overflow-y-auto border-t border-base-300 pb-2 text-[13px]">
      {dispute?.elsewhere && <ElsewhereCard store={store} />}
      {dispute && !dispute.elsewhere && <DisputeCard store={store} sketch={sketch} ids={dispute.ids} />}
      {proposals && <Proposals store={store} proposals={proposals} />}
      {!dispute && !proposals && <Picked store={store} sketch={sketch} selection={selection} />}
      <Groups store={store} sketch={sketch} />
      <Open store={store} sketch={sketch} />
      <Turning store={store} sketch={sketch} />
      <Everything store={store} sketch={sketch} />
    </section>
  );
}

function Part({ title, children, warm }: { title: string; children: ReactNode; warm?: boolean }) {
  return (
    <div className={`px-3.5 py-2 ${warm ? "border-l-3 border-accent bg-[var(--rust-wash)]" : ""}`}>
      <h3 className={`pb-1 text-xs font-semibold ${warm ? "" : "quiet"}`}>{title}</h3>
      {children}
    </div>
  );
}

/** One relation: what it says, picked at a click, removed at another. */
export function RelationRow({
  store,
  sketch,
  r,
  agreeing,
}: {
  store: BenchStore;
  sketch: Sketch;
  r: Relation;
  agreeing?: boolean;
}) {
  const unit = store((s) => s.history.present.units);
  const chosen = store((s) => s.selection.includes(r.id));
  return (
    <div
      data-relation={r.id}
      className={`group flex items-center gap-1.5 rounded-field px-1 ${chosen ? "bg-[var(--rust-wash)]" : "hover:bg-base-200"}`}
    >
      <button
        className="flex min-w-0 flex-1 items-baseline gap-1.5 py-0.5 text-left"
        onClick={() => store.getState().select([r.id, ...r.of.filter((o) => !o.includes("."))])}
      >
        <span className="figures w-4 shrink-0 text-center" aria-hidden>
          {isDimension(r) ? "↔" : GLYPHS[r.kind]}
        </span>
        <span className="min-w-0">
          {relationText(r, unit, sketch)}
          {agreeing && <span className="quiet"> · adds nothing</span>}
        </span>
      </button>
      <button
        className="btn btn-ghost btn-xs opacity-40 group-hover:opacity-100 focus:opacity-100"
        aria-label={`Remove ${r.id}`}
        onClick={() => store.getState().draw({ do: "delete", ids: [r.id] })}
      >
        ×
      </button>
    </div>
  );
}

/** What was asked for can be met, but from another drawing. */
function ElsewhereCard({ store }: { store: BenchStore }) {
  const { settleDispute, leave } = store.getState();
  return (
    <Part title="Not from how it is drawn" warm>
      <p>Everything you asked for can hold at once, but the lines would have to lie elsewhere.</p>
      <div className="mt-1.5 flex gap-1.5">
        <button className="btn btn-xs" onClick={() => settleDispute({ redraw: true })}>
          Draw it so
        </button>
        <button className="btn btn-ghost btn-xs" onClick={leave}>
          Leave it as it was
        </button>
      </div>
    </Part>
  );
}

function DisputeCard({ store, sketch, ids }: { store: BenchStore; sketch: Sketch; ids: readonly string[] }) {
  const unit = store.getState().history.present.units;
  // joined ends are rarely the mistake and come last
  const list = ids
    .flatMap((id) => [...sketch.constraints, ...sketch.dimensions].filter((r) => r.id === id))
    .sort((a, b) => Number(a.kind === "coincident") - Number(b.kind === "coincident"));
  const { settleDispute, leave } = store.getState();
  return (
    <Part title="These disagree with what you asked for" warm>
      <ul aria-label="What disagrees" className="space-y-1.5">
        {list.slice(0, 12).map((r) => (
          <li key={r.id} data-disagrees={r.id}>
            <button className="block text-left" onClick={() => store.getState().select([r.id])}>
              {relationText(r, unit, sketch)}
            </button>
            <span className="flex gap-1.5">
              <button className="btn btn-xs" onClick={() => settleDispute({ remove: r.id })}>
                Remove it and go on
              </button>
              {isDimension(r) && (
                <button className="btn btn-xs" onClick={() => settleDispute({ measure: r.id })}>
                  Let it only measure
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
      <button className="btn btn-ghost btn-xs mt-1.5" onClick={leave}>
        Leave it as it was
      </button>
    </Part>
  );
}

const ROLE = { real: "real", construction: "construction", "centre-line": "centre line" } as const;

/** The sizes and constraints of what is picked, editable in place. */
function Picked({ store, sketch, selection }: { store: BenchStore; sketch: Sketch; selection: readonly string[] }) {
  const unit = store((s) => s.history.present.units);
  const ids = new Set(selection.map(curveOf));
  const curves = sketch.curves.filter((c) => ids.has(c.id));
  const relations = [...sketch.constraints, ...sketch.dimensions].filter((r) => selection.includes(r.id));
  const about = (list: readonly Relation[]) => list.filter((r) => r.of.some((ref) => ids.has(curveOf(ref))));
  const d = diagnosisOf(sketch, unit),
    agreeing = new Set([...(d?.agreeing ?? []), ...(d?.surplus ?? [])]);
  if (!curves.length && !relations.length) {
    const left = d?.freedoms ?? 0;
    return (
      <Part title="Sketch">
        <p>
          {!sketch.curves.length
            ? "Empty. Take a drawing tool below."
            : left
              ? `${left} freedom${left > 1 ? "s" : ""} left in ${d!.loose.length} curve${d!.loose.length > 1 ? "s" : ""}. Key 2 proposes the rest, 4 shows what swings.`
              : "Fully defined: nothing can move."}
        </p>
      </Part>
    );
  }
  const dimensions = [...new Set([...about(sketch.dimensions), ...relations])].filter(isDimension),
    constraints = [...new Set([...about(sketch.constraints), ...relations])].filter((r) => !isDimension(r));
  const role = curves.length
    ? ((v) => (v === true ? "construction" : v === "centre-line" ? v : "real"))(curves[0]!.construction)
    : undefined;
  return (
    <Part
      title={
        curves.length
          ? curves
              .map((c) => `${c.kind.replace("-", " ")} ${c.id}`)
              .slice(0, 4)
              .join(", ")
          : "Relation"
      }
    >
      {role && (
        <div className="join mb-1.5" role="group" aria-label="Kind of curve">
          {(Object.keys(ROLE) as (keyof typeof ROLE)[]).map((k) => (
            <button
              key={k}
              aria-pressed={role === k}
              className={`btn btn-xs join-item ${role === k ? "btn-primary" : ""}`}
              onClick={() =>
                store.getState().draw({
                  do: "construction",
                  ids: curves.map((c) => c.id),
                  on: k === "real" ? false : k === "construction" ? true : k,
                })
              }
            >
              {ROLE[k]}
            </button>
          ))}
        </div>
      )}
      {dimensions.map((r) => (
        <SizeRow key={r.id} store={store} sketch={sketch} d={r} />
      ))}
      {constraints.map((r) => (
        <RelationRow key={r.id} store={store} sketch={sketch} r={r} agreeing={agreeing.has(r.id)} />
      ))}
      {!dimensions.length && !constraints.length && <p className="quiet">Nothing holds it yet.</p>}
    </Part>
  );
}

/** Patterns and polygons: their counts can be changed. */
function Groups({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  if (!sketch.groups?.length) return null;
  const name = { polygon: "Polygon", "linear-pattern": "Row", "circular-pattern": "Ring" };
  return (
    <Part title="Patterns">
      {sketch.groups.map((g) => (
        <form
          key={`${g.id}:${g.count}:${g.angle}`}
          className="flex items-center gap-1.5 py-0.5"
          aria-label={`${name[g.kind]} ${g.id}`}
          onSubmit={(e) => {
            e.preventDefault();
            const data = new FormData(e.currentTarget),
              count = Math.round(Number(data.get("count"))),
              angle = data.get("angle");
            if (count >= 2 && count <= 60)
              store.getState().draw({
                do: "regroup",
                id: g.id,
                count,
                ...(angle !== null && Number.isFinite(Number(angle)) && { angle: Number(angle) }),
              });
            else
              store.getState().say({ kind: "trouble", text: "The count is a whole number from 2 to 60.", about: [] });
          }}
        >
          <button type="button" className="flex-1 text-left" onClick={() => store.getState().select(g.made)}>
            {name[g.kind]} of {g.source.join(", ")}
          </button>
          <input
            name="count"
            aria-label={g.kind === "polygon" ? "sides" : "count"}
            defaultValue={g.count}
            className="figures w-10 rounded-field border border-base-content/40 bg-base-100 px-1 text-right"
          />
          {g.kind === "circular-pattern" && (
            <span className="flex items-center">
              <input
                name="angle"
                aria-label="angle"
                defaultValue={g.angle}
                className="figures w-12 rounded-field border border-base-content/40 bg-base-100 px-1 text-right"
              />
              °
            </span>
          )}
          <button className="btn btn-xs">Set</button>
        </form>
      ))}
    </Part>
  );
}

/** Open ends and curves drawn twice, with one click to mend each. */
function Open({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const solved = diagnosisOf(sketch, unit)?.sketch ?? sketch;
  const { gaps, overlaps } = useMemo(() => findRegions(solved), [solved]);
  const size = Math.max(1, ...gaps.flatMap((g) => g.at.map(Math.abs)));
  const near = closings(solved, gaps, Math.max(CLOSE_SHARE * size, 0.01)),
    axis = missingAxisSegment(solved, gaps);
  const { draw } = store.getState();
  if (!gaps.length && !overlaps.length) return null;
  return (
    <Part title={gaps.length ? `Open ends: ${gaps.length}` : "Drawn twice"}>
      {near.map((c) => (
        <div key={c.ends.join()} className="flex items-center gap-2 py-0.5">
          <span className="flex-1">
            {curveOf(c.ends[0])} and {curveOf(c.ends[1])} end {lengthText(c.distance, unit)} apart
          </span>
          <button className="btn btn-xs" onClick={() => draw({ do: "constrain", kind: "coincident", of: [...c.ends] })}>
            Close it
          </button>
        </div>
      ))}
      {axis && (
        <div className="flex items-center gap-2 py-0.5">
          <span className="flex-1">
            The profile is open only along {axis.axis.endsWith("-axis") ? "an axis" : axis.axis}
          </span>
          <button className="btn btn-xs" onClick={() => draw(segmentBetween(solved, axis.ends))}>
            Draw the segment
          </button>
        </div>
      )}
      {overlaps.map((o, i) => (
        <div key={i} className="flex items-center gap-2 py-0.5">
          <span className="flex-1">
            {o.curves[0]} and {o.curves[1]} lie on each other
          </span>
          <button className="btn btn-xs" onClick={() => draw({ do: "delete", ids: [o.curves[1]] })}>
            Remove {o.curves[1]}
          </button>
        </div>
      ))}
      {gaps.length > 0 && !near.length && !axis && <p className="quiet">Marked in the drawing by a dashed ring.</p>}
    </Part>
  );
}

/** With a centre line drawn: what would stand in the way of turning the profile about it. */
function Turning({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const solved = diagnosisOf(sketch, unit)?.sketch ?? sketch;
  const axis = solved.curves.find((c) => c.kind === "line" && c.construction === "centre-line");
  const faults = useMemo(
    () =>
      axis ? [...new Set(findRegions(solved).regions.flatMap((r) => turningFault(solved, r, axis.id) ?? []))] : [],
    [solved, axis],
  );
  if (!axis || !faults.length) return null;
  return (
    <Part title={`If turned about ${axis.id}`}>
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

/** Every constraint, folded away until it is wanted. */
function Everything({ store, sketch }: { store: BenchStore; sketch: Sketch }) {
  const unit = store((s) => s.history.present.units);
  const d = diagnosisOf(sketch, unit),
    agreeing = new Set(d?.agreeing);
  if (!sketch.constraints.length) return null;
  return (
    <details className="px-3.5 py-1">
      <summary className="quiet cursor-pointer text-xs font-semibold">
        All constraints ({sketch.constraints.length})
      </summary>
      {sketch.constraints.map((r) => (
        <RelationRow key={r.id} store={store} sketch={sketch} r={r} agreeing={agreeing.has(r.id)} />
      ))}
    </details>
  );
}

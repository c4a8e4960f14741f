"use client";

import { relationText } from "@/core/sketch/sentences";
import { wordsFor } from "@/core/sketch/words";
import { curveOf, isDimension, type Relation, type Sketch } from "@/core/sketch/sketch";
import { diagnosisOf, sketchOf, type BenchStore } from "../store";
import { Open, Turning } from "./open-ends";
import { Part } from "./part";
import { Proposals } from "./proposals";
import { RelationRow } from "./relation-row";
import { SizeRow } from "./size-row";

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
  const diagnosis = diagnosisOf(sketch, unit),
    agreeing = new Set([...(diagnosis?.agreeing ?? []), ...(diagnosis?.surplus ?? [])]);
  if (!curves.length && !relations.length) {
    const left = diagnosis?.freedoms ?? 0;
    return (
      <Part title="Sketch">
        <p>
          {!sketch.curves.length
            ? "Empty. Take a drawing tool below."
            : left
              ? `${left} freedom${left > 1 ? "s" : ""} left in ${diagnosis!.loose.length} ` +
                `curve${diagnosis!.loose.length > 1 ? "s" : ""}. Key 2 proposes the rest, 4 shows what swings.`
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
              .map((c) => wordsFor(sketch, unit)(c.id).replace(/^the /, ""))
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
  const unit = store.getState().history.present.units;
  const name = { polygon: "Polygon", "linear-pattern": "Row", "circular-pattern": "Ring" };
  return (
    <Part title="Patterns">
      {sketch.groups.map((g, i) => (
        <form
          key={`${g.id}:${g.count}:${g.angle}`}
          className="flex items-center gap-1.5 py-0.5"
          aria-label={`${name[g.kind]}, pattern ${i + 1} of this sketch`}
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
            {name[g.kind]} of {g.source.map(wordsFor(sketch, unit)).join(", ")}
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

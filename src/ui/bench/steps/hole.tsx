"use client";

import { faceFrame, toPlane } from "@/core/geometry/frame";
import type { Vec3 } from "@/core/geometry/vector";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import { edgeRef, faceRef } from "@/core/part/reference/make";
import { carriesHoles, type HoleStep } from "@/core/part/steps/hole/schema";
import { fromTable, HOLE_TABLES, type Fit } from "@/core/part/steps/hole/tables";
import { CardFrame, Choice, RefField, SizeInput, Tick, usePicking, type CardProps } from "./card";
import { HolePoints } from "./hole-points";
import { asPlane, freeId, planeOptions, stepCalled } from "./options";

/** Points placed by hand stand on whole steps of this, mm. */
const GRID = 0.5;

function placing(isActive: boolean, hasSketch: boolean): string {
  if (hasSketch) return "Place by clicks instead";
  return isActive ? "Click a flat face, or a round edge for its middle" : "Place holes";
}

/** The card of a hole: where, which sizes (typed or from a table), how deep, and how it opens. */
export function HoleCard({ store, draft, change }: CardProps<HoleStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode);
  const before = document.steps.slice(0, mode.kind === "step" ? mode.at : undefined),
    unit = document.units;
  const sketches = before.filter((s) => s.kind === "sketch" && s.sketch.curves.some((c) => c.kind === "point"));
  const say = (text: string) => store.getState().say({ kind: "notice", text, about: [] });
  // what was placed by clicks, or comes of a sketch: one or the other, and changing over is said
  const takeSketch = (sketch: string) => {
    if (sketch && draft.points.length)
      say(`What was placed by clicks (${draft.points.length}) is left out now. Undo brings it back.`);
    picking.end();
    change((d) => {
      const { sketch: _, on: __, ...rest } = d;
      return sketch ? { ...rest, points: [], sketch } : rest;
    });
    if (!sketch) picking.begin();
  };
  const place = (m: Model, thing: Thing, at?: Vec3) => {
    if (thing.kind === "edge" && m.edges[thing.index]!.shape.kind === "circle") {
      // the middle of a round edge
      const on = edgeRef(m, thing.index),
        flat = m.edges[thing.index]!.faces.find((f) => m.faces[f]!.carrier.kind === "plane");
      if (on)
        change((d) => ({
          ...d,
          ...(!d.on && flat !== undefined && { on: faceRef(m, flat) }),
          points: [...d.points, { id: freeId("p", d.points), on }],
        }));
      return;
    }
    if (draft.sketch)
      return say("The holes stand at the points of a sketch. Choose “no sketch” to place them by clicks.");
    const face = asPlane(m, thing),
      carrier = thing.kind === "face" ? m.faces[thing.index]!.carrier : undefined;
    if (!face || carrier?.kind !== "plane" || !at) return say("A hole starts on a flat face: click where it shall be.");
    const [x, y] = toPlane(faceFrame(carrier.normal, carrier.offset), at).map((v) => Math.round(v / GRID) * GRID) as [
      number,
      number,
    ];
    change((d) => {
      // all points of a step lie on one face
      const keep = d.on && "face" in d.on && d.on.face === face.face ? d.points : d.points.filter((p) => !("at" in p));
      return { ...d, on: face, points: [...keep, { id: freeId("p", keep), at: [x, y] }] };
    });
  };
  const picking = usePicking(store, {
      id: "places",
      name: "Places",
      take: ["edge", "face"],
      give: place,
      first: !draft.sketch,
    }),
    active = picking.isActive;
  const table = HOLE_TABLES.find((t) => t.id === draft.from?.table),
    row = table?.rows.find((r) => r.name === draft.from?.row),
    fit = (draft.from?.fit ?? "medium") as Fit;
  const typed = (next: Partial<HoleStep>) =>
    change((d) => {
      const { from: _, ...rest } = d;
      return { ...rest, ...next };
    });
  const { head, extent } = draft;
  return (
    <CardFrame store={store} draft={draft} title="Hole">
      <button
        type="button"
        aria-pressed={active}
        className={`btn btn-xs w-full ${active ? "btn-primary" : ""}`}
        onClick={draft.sketch ? () => takeSketch("") : picking.toggle}
      >
        {placing(active, draft.sketch !== undefined)}
      </button>
      {sketches.length > 0 && (
        <label className="flex items-center justify-between gap-2">
          <span className="quiet text-xs">Points of</span>
          <select
            className="select select-xs w-44"
            value={draft.sketch ?? ""}
            onChange={(e) => takeSketch(e.target.value)}
          >
            <option value="">no sketch</option>
            {sketches.map((s) => (
              <option key={s.id} value={s.id} disabled={!carriesHoles(s)}>
                {stepCalled(document.steps, s)}
                {carriesHoles(s) ? "" : " (construction points only)"}
              </option>
            ))}
          </select>
        </label>
      )}
      <HolePoints store={store} draft={draft} change={change} />
      <div className="flex gap-1">
        <select
          aria-label="Table"
          className="select select-xs min-w-0 flex-1"
          value={table?.id ?? ""}
          onChange={(e) => {
            const t = HOLE_TABLES.find((x) => x.id === e.target.value);
            if (t)
              change((d) =>
                fromTable(
                  d,
                  t,
                  t.rows.find((r) => r.name === (unit === "mm" ? "M6" : "1/4 in")) ?? t.rows[0]!,
                  "medium",
                ),
              );
            else typed({});
          }}
        >
          <option value="">typed sizes</option>
          {HOLE_TABLES.map((t) => (
            <option key={t.id} value={t.id}>
              {t.label}
            </option>
          ))}
        </select>
        {table && (
          <select
            aria-label="Size"
            className="select select-xs w-24"
            value={row?.name}
            onChange={(e) =>
              change((d) =>
                fromTable(
                  d,
                  table,
                  table.rows.find((r) => r.name === e.target.value)!,
                  fit,
                ),
              )
            }
          >
            {table.rows.map((r) => (
              <option key={r.name}>{r.name}</option>
            ))}
          </select>
        )}
      </div>
      {table && row?.fine && (
        <Choice
          small
          label="Fit"
          value={fit}
          of={[
            ["fine", "fine"],
            ["medium", "medium"],
            ["coarse", "coarse"],
          ]}
          onChange={(f) => change((d) => fromTable(d, table, row, f))}
        />
      )}
      <SizeInput
        store={store}
        autoFocus
        label="Diameter"
        value={draft.diameter}
        onChange={(diameter) => typed({ diameter })}
      />
      <Choice
        small
        label="Opening"
        value={head.kind}
        of={[
          ["plain", "Plain"],
          ["counterbore", "Counterbore"],
          ["countersink", "Countersink"],
        ]}
        onChange={(kind) => {
          const d = `=${String(draft.diameter).replace(/^=/, "")}*2`;
          typed({
            head:
              kind === "plain"
                ? { kind }
                : kind === "counterbore"
                  ? { kind, diameter: d, depth: draft.diameter }
                  : { kind, diameter: d, angle: 90 },
          });
        }}
      />
      {head.kind !== "plain" && (
        <div className="flex gap-2">
          <SizeInput
            store={store}
            label="Its diameter"
            value={head.diameter}
            onChange={(diameter) => typed({ head: { ...head, diameter } })}
          />
          {head.kind === "counterbore" ? (
            <SizeInput
              store={store}
              label="Its depth"
              value={head.depth}
              onChange={(depth) => typed({ head: { ...head, depth } })}
            />
          ) : (
            <SizeInput
              store={store}
              angle
              label="Its angle"
              value={head.angle}
              onChange={(angle) => typed({ head: { ...head, angle } })}
            />
          )}
        </div>
      )}
      <Choice
        small
        label="How deep"
        value={extent.kind}
        of={[
          ["through", "Through"],
          ["depth", "To depth"],
          ["face", "As far as a face"],
        ]}
        onChange={(kind) =>
          change((d) => ({
            ...d,
            extent:
              kind === "depth"
                ? { kind, depth: unit === "mm" ? "10" : "1/2" }
                : kind === "face"
                  ? { kind, face: { datum: "top" } }
                  : { kind },
          }))
        }
      />
      {extent.kind === "depth" && (
        <SizeInput
          store={store}
          label="Depth of the full diameter"
          value={extent.depth}
          onChange={(depth) => change((d) => ({ ...d, extent: { kind: "depth", depth } }))}
        />
      )}
      {extent.kind === "face" && (
        <RefField
          store={store}
          name="As far as"
          hint="click a face"
          take={["face"]}
          value={extent.face}
          options={planeOptions(before)}
          onChoose={(face) => change((d) => ({ ...d, extent: { kind: "face", face } }))}
          onPick={(m, t) => {
            const face = asPlane(m, t);
            if (face) change((d) => ({ ...d, extent: { kind: "face", face } }));
          }}
        />
      )}
      {extent.kind !== "through" && (
        <Tick
          label="coned bottom"
          on={draft.tip !== undefined}
          onChange={(on) =>
            change((d) => {
              const { tip: _, ...rest } = d;
              return on ? { ...rest, tip: 118 } : rest;
            })
          }
        />
      )}
      {draft.tip !== undefined && extent.kind !== "through" && (
        <SizeInput
          store={store}
          angle
          label="Angle of the cone"
          value={draft.tip}
          onChange={(tip) => change((d) => ({ ...d, tip }))}
        />
      )}
      <Tick
        label="threaded (a note on the hole; the thread is not cut)"
        on={draft.thread !== undefined}
        onChange={(on) =>
          change((d) => {
            const { thread: _, ...rest } = d;
            return on ? { ...rest, thread: { name: row?.thread ?? "M6" } } : rest;
          })
        }
      />
      {draft.thread && (
        <div className="flex flex-wrap items-end gap-x-3 gap-y-1.5">
          <label className="text-xs">
            <span className="quiet block">Thread</span>
            <input
              aria-label="Thread"
              className="input input-sm w-24"
              maxLength={40}
              value={draft.thread.name}
              onChange={(e) => change((d) => (d.thread ? { ...d, thread: { ...d.thread, name: e.target.value } } : d))}
            />
          </label>
          <span className="whitespace-nowrap pb-2">
            <Tick
              label="all the way"
              on={draft.thread.depth === undefined}
              onChange={(on) =>
                change((d) => {
                  if (!d.thread) return d;
                  const { depth: _, ...rest } = d.thread;
                  return { ...d, thread: on ? rest : { ...rest, depth: unit === "mm" ? "8" : "3/8" } };
                })
              }
            />
          </span>
          {draft.thread.depth !== undefined && (
            <SizeInput
              store={store}
              label="Depth of thread"
              value={draft.thread.depth}
              onChange={(depth) => change((d) => (d.thread ? { ...d, thread: { ...d.thread, depth } } : d))}
            />
          )}
        </div>
      )}
    </CardFrame>
  );
}

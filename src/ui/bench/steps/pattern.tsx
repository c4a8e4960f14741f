"use client";

import type { PatternStep } from "@/core/part/steps/pattern/schema";
import type { AxisRef } from "@/core/naming/reference";
import { readCount } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import { CardFrame, Choice, RefField, SizeInput, Tick, type CardProps } from "./card";
import { OfField } from "./of-field";
import { asAxis, axisOptions } from "./options";

/** Places of one row or ring, as many as the step's schema takes. */
const MOST = 500;

type Rows = Extract<PatternStep["way"], { kind: "rows" }>;
type Ring = Extract<PatternStep["way"], { kind: "ring" }>;

/** The card of a pattern: rows in one or two directions, or a ring; places that are left empty. */
export function PatternCard({ store, draft, change }: CardProps<PatternStep>) {
  const document = store((s) => s.history.present),
    mode = store((s) => s.mode),
    at = mode.kind === "step" ? mode.at : document.steps.length;
  const options = axisOptions(document.steps.slice(0, at), document.units),
    { way } = draft,
    unit = document.units;
  const set = (w: PatternStep["way"]) => change((d) => ({ ...d, way: w }));
  const count = (label: string, value: number, put: (n: number) => void, isFirst = false) => (
    <NumberField
      label={label}
      value={String(value)}
      unit="×"
      autoFocus={isFirst}
      read={(t) => readCount(t, 2, MOST)}
      onChange={(t) => {
        const n = readCount(t, 2, MOST);
        if (n.ok) put(n.value);
      }}
      onEnter={() => store.getState().acceptDraft()}
      onEscape={() => store.getState().leave()}
    />
  );
  const axis = (name: string, value: AxisRef, put: (r: AxisRef) => void) => (
    <RefField
      store={store}
      name={name}
      hint="click an edge or face"
      take={["edge", "face"]}
      value={value}
      options={options}
      onChoose={put}
      onPick={(m, t) => {
        const r = asAxis(m, t);
        if (r) put(r);
      }}
    />
  );
  const row = (name: string, r: Rows["first"], put: (r: Rows["first"]) => void) => (
    <div className="space-y-1.5 border-b border-base-300 pb-2">
      {axis(name, r.along, (along) => put({ ...r, along }))}
      <div className="flex gap-2">
        {count("How many", r.count, (n) => put({ ...r, count: n }), name === "Along")}
        <SizeInput
          store={store}
          label={r.by === "step" ? "Spacing" : "First to last"}
          value={r.distance}
          onChange={(distance) => put({ ...r, distance })}
        />
      </div>
      <div className="flex items-center gap-2">
        <Choice
          small
          label="Distance is"
          value={r.by}
          of={[
            ["step", "spacing"],
            ["total", "in all"],
          ]}
          onChange={(by) => put({ ...r, by })}
        />
        <button
          type="button"
          aria-pressed={r.reverse === true}
          className="btn btn-xs"
          onClick={() => put({ ...r, reverse: !r.reverse })}
        >
          Turn round
        </button>
      </div>
    </div>
  );
  const ring = (w: Ring) => (
    <>
      {axis("About", w.about, (about) => set({ ...w, about }))}
      <div className="flex gap-2">
        {count("How many", w.count, (n) => set({ ...w, count: n }), true)}
        <SizeInput
          store={store}
          angle
          label={w.by === "step" ? "Spacing" : "In all"}
          value={w.angle}
          onChange={(angle) => set({ ...w, angle })}
        />
      </div>
      <Choice
        small
        label="Angle is"
        value={w.by}
        of={[
          ["total", "in all"],
          ["step", "spacing"],
        ]}
        onChange={(by) => set({ ...w, by })}
      />
    </>
  );
  const places =
    way.kind === "ring"
      ? Array.from({ length: way.count - 1 }, (_, i) => `${i + 2}`)
      : Array.from({ length: way.second?.count ?? 1 }, (_, j) =>
          Array.from({ length: way.first.count }, (_, i) => (j ? `${i + 1}.${j + 1}` : `${i + 1}`)),
        )
          .flat()
          .filter((p) => p !== "1");
  const skip = draft.skip ?? [];
  return (
    <CardFrame store={store} draft={draft} title="Pattern">
      <OfField store={store} of={draft.of} at={at} onChange={(of) => change((d) => ({ ...d, of }))} />
      <Choice
        small
        label="Way"
        value={way.kind}
        of={[
          ["rows", "Rows"],
          ["ring", "Ring"],
        ]}
        onChange={(kind) =>
          set(
            kind === "ring"
              ? { kind, about: { axis: "z" }, count: 6, by: "total", angle: 360 }
              : { kind, first: { along: { axis: "x" }, count: 3, by: "step", distance: unit === "mm" ? "20" : "1" } },
          )
        }
      />
      {way.kind === "rows" ? (
        <>
          {row("Along", way.first, (first) => set({ ...way, first }))}
          {way.second && row("And along", way.second, (second) => set({ ...way, second }))}
          <Tick
            label="a second direction"
            on={way.second !== undefined}
            onChange={(on) =>
              set(on ? { ...way, second: { ...way.first, along: { axis: "y" } } } : { kind: "rows", first: way.first })
            }
          />
        </>
      ) : (
        ring(way)
      )}
      {places.length <= 60 && (
        <details className="text-xs" open={skip.length > 0}>
          <summary className="quiet cursor-pointer">Places left empty</summary>
          <div className="flex flex-wrap gap-x-2 pt-1">
            {places.map((p) => (
              <Tick
                key={p}
                label={p}
                on={skip.includes(p)}
                onChange={(on) =>
                  change((d) => {
                    const { skip: _, ...rest } = d,
                      next = on ? [...skip, p] : skip.filter((x) => x !== p);
                    return next.length ? { ...rest, skip: next } : rest;
                  })
                }
              />
            ))}
          </div>
        </details>
      )}
    </CardFrame>
  );
}

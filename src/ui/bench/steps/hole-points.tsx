"use client";

import { useState } from "react";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import type { EdgeRef, FaceRef } from "@/core/naming/reference";
import { edgeRef, faceRef } from "@/core/part/reference/make";
import type { HoleDistance, HoleStep } from "@/core/part/steps/hole/schema";
import { parameterNames } from "@/core/part/parameters";
import { inUnit, readQuantity } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import { calledIn, SizeInput, usePicking, type CardProps } from "./card";
import { freeId } from "./options";

type Point = HoleStep["points"][number];

/** The places of a hole step, each by coordinates, by something of the part, or by its distances from two things. */
export function HolePoints({ store, draft, change }: CardProps<HoleStep>) {
  const put = (i: number, next: Point | undefined) =>
    change((d) => ({ ...d, points: d.points.flatMap((q, k) => (k === i ? (next ?? []) : q)) }));
  return (
    <>
      {draft.points.length > 0 && (
        <ul className="max-h-40 space-y-1 overflow-y-auto" aria-label="Places of the hole">
          {draft.points.map((p, i) => (
            <li key={p.id} className="flex items-center gap-1 text-xs">
              <PointFields store={store} point={p} nth={i + 1} put={(next) => put(i, next)} />
              <button
                type="button"
                className="btn btn-ghost btn-xs btn-square"
                aria-label={`Take out place ${i + 1}`}
                onClick={() => put(i, undefined)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      <FromTwo store={store} draft={draft} change={change} />
    </>
  );
}

function PointFields({
  store,
  point,
  nth,
  put,
}: {
  store: CardProps<HoleStep>["store"];
  point: Point;
  nth: number;
  put: (next: Point) => void;
}) {
  const document = store((s) => s.history.present),
    unit = document.units,
    names = parameterNames(document);
  if ("on" in point) return <span className="flex-1 truncate">{calledIn(store, point.on)}</span>;
  if ("from" in point)
    return (
      <div className="flex-1 space-y-0.5">
        {point.from.map((g, k) => (
          <SizeInput
            key={k}
            store={store}
            label={`from ${calledIn(store, g.of)}`}
            value={g.distance}
            onChange={(distance) => {
              const [a, b] = point.from;
              put({ ...point, from: k ? [a, { ...b, distance }] : [{ ...a, distance }, b] });
            }}
          />
        ))}
      </div>
    );
  return point.at.map((v, k) => (
    <NumberField
      key={k}
      width="whole"
      ariaLabel={`place ${nth} ${"xy"[k]}`}
      value={String(Number(inUnit(v, unit).toFixed(4)))}
      unit={unit}
      read={(text) => readQuantity(text, "length", unit, names)}
      onChange={(text) => {
        const r = readQuantity(text, "length", unit, names);
        if (!r.ok) return;
        const [x, y] = point.at;
        put({ ...point, at: k ? [x, r.value] : [r.value, y] });
      }}
      onEnter={() => store.getState().acceptDraft()}
      onEscape={() => store.getState().leave()}
    />
  ));
}

/** Two edges or faces are picked one after the other; then the hole stands by its distances from them. */
function FromTwo({ store, draft, change }: CardProps<HoleStep>) {
  const [first, setFirst] = useState<EdgeRef | FaceRef>();
  const name = first ? "The second edge or face" : "The first edge or face";
  const start = draft.on ? undefined : "Click the face the hole starts from first.";
  const give = (m: Model, t: Thing) => {
    const of = t.kind === "face" ? faceRef(m, t.index) : edgeRef(m, t.index);
    if (!of) return;
    if (!first) return setFirst(of);
    setFirst(undefined);
    picking.end();
    const distance = store.getState().history.present.units === "mm" ? "10 mm" : "1/2 in";
    const from: [HoleDistance, HoleDistance] = [
      { of: first, distance },
      { of, distance },
    ];
    change((d) => ({ ...d, points: [...d.points, { id: freeId("p", d.points), from }] }));
  };
  const picking = usePicking(store, { id: "distances", name, take: ["edge", "face"], give }),
    active = picking.isActive;
  return (
    <button
      type="button"
      className={`btn btn-xs w-full ${active ? "btn-primary" : ""}`}
      aria-pressed={active}
      disabled={start !== undefined}
      title={start}
      onClick={() => {
        setFirst(undefined);
        picking.toggle();
      }}
    >
      {active ? `Click ${name.toLowerCase()}` : "Place by distances from two edges or faces"}
    </button>
  );
}

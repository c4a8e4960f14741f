"use client";

import { useEffect, useState } from "react";
import { readingsBetween, readingsOf, type Reading, type Thing } from "@/core/measure/measure";
import type { Model } from "@/core/kernel/model";
import { edgeRef, faceRef, vertexRef } from "@/core/part/reference/make";
import { refText } from "@/core/part/reference/text";
import { begun, withStepsCalled } from "@/core/naming/words";
import { angleText, inUnit, lengthText, plainNumber, type LengthUnit } from "@/core/units/quantity";
import type { Question } from "../kernel/messages";
import type { BenchStore } from "../store";

const textOf = (r: Reading, unit: LengthUnit): string =>
  r.quantity === "angle"
    ? angleText(r.value)
    : r.quantity === "area"
      ? `${plainNumber(r.value / (unit === "mm" ? 1 : 645.16), unit === "mm" ? 2 : 4)} ${unit}²`
      : lengthText(r.value, unit);

function nameOf(store: BenchStore, m: Model, t: Thing): string {
  const { units, steps } = store.getState().history.present;
  const ref = { face: faceRef, edge: edgeRef, vertex: vertexRef }[t.kind](m, t.index);
  return ref ? withStepsCalled(begun(refText(ref, units)), steps) : `A ${t.kind}`;
}

/** Readings of what is picked on the part: one thing by itself, two by what lies between them. */
export function MeasurePanel({ store }: { store: BenchStore }) {
  const things = store((s) => s.things),
    built = store((s) => s.built),
    unit = store((s) => s.history.present.units);
  const [asked, setAsked] = useState<{ for: readonly Thing[]; what: string; value: string }>();
  const model = built?.model,
    of = built?.id,
    [a, b] = things;
  useEffect(() => {
    if (!a || !model || of === undefined || things.length > 2) return;
    const flat = a.kind === "face" ? model.faces[a.index]?.carrier : undefined;
    if (!b && flat?.kind !== "plane") return;
    let stale = false;
    // the kernel numbers seams too
    const own = (t: Thing): Thing => (t.kind === "edge" ? { kind: "edge", index: model.edges[t.index]!.index } : t);
    const question: Question =
      !b && flat?.kind === "plane"
        ? { ask: "extent", of, along: flat.normal }
        : { ask: "nearest", of, a: own(a), b: own(b ?? a) };
    store
      .getState()
      .ask(question)
      .then(
        (r) => {
          if (stale) return;
          if ("reading" in r) setAsked({ for: things, what: "smallest distance", value: textOf(r.reading, unit) });
          if ("extent" in r) setAsked({ for: things, what: "part, square to it", value: lengthText(r.extent, unit) });
        },
        () => undefined,
      );
    return () => void (stale = true);
  }, [things, a, b, model, of, unit, store]);
  if (
    !model ||
    !things.length ||
    things.some(
      (t) =>
        (t.kind === "face" ? model.faces : t.kind === "edge" ? model.edges : model.vertices)[t.index] === undefined,
    )
  )
    return null;
  const rows: (readonly [string, string])[] =
    things.length === 1
      ? readingsOf(model, a!).map((r) => [r.what, textOf(r, unit)] as const)
      : things.length === 2
        ? readingsBetween(model, a!, b!).map((r) => [r.what, textOf(r, unit)] as const)
        : [["picked", `${things.length} things`], ...totals(model, things, unit)];
  return (
    <section
      aria-label="Measured"
      className="max-h-[38%] shrink-0 overflow-y-auto border-t border-base-300 px-3.5 py-2 text-sm"
    >
      <h2 className="quiet flex justify-between pb-1 text-xs font-semibold">
        Measured{" "}
        <button className="btn btn-ghost btn-xs" onClick={() => store.getState().pickThings([])}>
          Let go
        </button>
      </h2>
      {things.slice(0, 2).map((t, i) => (
        <p key={i} className="text-xs">
          {nameOf(store, model, t)}
        </p>
      ))}
      <dl>
        {rows.map(([what, text], i) => (
          <div key={i} className="flex items-baseline justify-between py-0.5">
            <dt>{what}</dt>
            <dd className="figures" data-reading={what}>
              {text}
            </dd>
          </div>
        ))}
        {asked && asked.for === things && (
          <div className="flex items-baseline justify-between py-0.5">
            <dt>{asked.what}</dt>
            <dd className="figures" data-reading={asked.what}>
              {asked.value}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}

function totals(m: Model, things: readonly Thing[], unit: LengthUnit): (readonly [string, string])[] {
  const faces = things.filter((t) => t.kind === "face"),
    edges = things.filter((t) => t.kind === "edge");
  const area = faces.reduce((s, t) => s + m.faces[t.index]!.area, 0),
    length = edges.reduce((s, t) => s + m.edges[t.index]!.length, 0);
  return [
    ...(faces.length
      ? [["area in all", `${plainNumber(area / (unit === "mm" ? 1 : 645.16), 2)} ${unit}²`] as const]
      : []),
    ...(edges.length ? [["length in all", `${plainNumber(inUnit(length, unit), 3)} ${unit}`] as const] : []),
  ];
}

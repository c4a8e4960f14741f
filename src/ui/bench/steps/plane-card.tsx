"use client";

import { useEffect, useState } from "react";
import { readQuantity } from "@/core/units/quantity";
import { NumberField } from "../../parts/number-field";
import { DATUM_PLANES } from "../view/datum-planes";
import type { BenchStore } from "../store";

/** Where a sketch is to lie: a datum plane, moved and tilted, or a flat face that is clicked. */
export function PlaneCard({ store }: { store: BenchStore }) {
  const unit = store((s) => s.history.present.units);
  const mode = store((s) => s.mode);
  const solid = store((s) => s.built?.mesh !== undefined);
  const [offset, setOffset] = useState("0");
  const [angle, setAngle] = useState("0");
  const [about, setAbout] = useState<"x" | "y">("x");
  const moved = readQuantity(offset || "0", "length", unit),
    turned = readQuantity(angle || "0", "angle", unit);
  const { takePlane, leave } = store.getState();
  const offsetBy = moved.ok ? moved.value : 0,
    tiltBy = turned.ok ? (turned.value * 180) / Math.PI : 0;
  // the planes in the view go along with what is typed
  useEffect(() => {
    const planeShift = {
      ...(offsetBy && { offset: offsetBy }),
      ...(tiltBy && { tilt: { about, angle: tiltBy } }),
    };
    store.setState({ planeShift });
  }, [store, offsetBy, tiltBy, about]);
  const take = (base: (typeof DATUM_PLANES)[number][0]) =>
    moved.ok && turned.ok && takePlane({ base, ...store.getState().planeShift });
  const moving = mode.kind === "plane" && mode.move;
  return (
    <div
      className={`max-h-[calc(100vh-9rem)] w-60 space-y-2 overflow-y-auto rounded-box border border-accent
        bg-base-100 p-3 shadow-lg`}
      aria-label="New sketch"
      onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), leave())}
    >
      <h2 className="font-semibold">{moving ? "Move the sketch to…" : "New sketch on…"}</h2>
      {DATUM_PLANES.map(([base, text], i) => (
        <button
          key={base}
          autoFocus={i === 0}
          className="btn btn-sm w-full justify-between"
          disabled={!moved.ok || !turned.ok}
          onClick={() => take(base)}
        >
          <span className="font-semibold">{base}</span>
          <span className="quiet font-normal">{text}</span>
        </button>
      ))}
      <NumberField
        label="moved towards you by"
        value={offset}
        unit={unit}
        onChange={setOffset}
        onEscape={leave}
        trouble={moved.ok ? undefined : moved.refusal.sentence}
      />
      <div>
        <NumberField
          label="tilted by"
          value={angle}
          unit="°"
          onChange={setAngle}
          onEscape={leave}
          trouble={turned.ok ? undefined : turned.refusal.sentence}
        />
        <span className="join pt-1">
          {(["x", "y"] as const).map((a) => (
            <button
              key={a}
              type="button"
              aria-pressed={about === a}
              className={`btn btn-xs join-item ${about === a ? "btn-primary" : ""}`}
              onClick={() => setAbout(a)}
            >
              about {a}
            </button>
          ))}
        </span>
      </div>
      {solid && <p className="quiet text-xs">…or click a flat face of the part.</p>}
      <div className="flex justify-end">
        <button className="btn btn-sm btn-ghost" onClick={leave}>
          Leave
        </button>
      </div>
    </div>
  );
}

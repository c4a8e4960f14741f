"use client";

import { densityOf } from "@/core/part/document";
import type { Sheet } from "@/core/sheet/sheet";
import { massText, volumeText } from "@/core/units/amounts";
import { Vernier } from "../parts/vernier";
import { diagnosisOf, type BenchStore } from "./store";

function Reading({ name, value, warm }: { name: string; value: string; warm?: boolean }) {
  return (
    <div className="flex items-baseline justify-between py-1">
      <dt>{name}</dt>
      <dd className={`figures ${warm ? "text-accent" : ""}`} data-gauge={name}>
        {value}
      </dd>
    </div>
  );
}

function gaugesState(isBuilding: boolean, isAsItWas: boolean): string {
  if (!isBuilding) return "live";
  return isAsItWas ? "as it was; measuring …" : "measuring …";
}

/** Live readings of the part. */
export function Gauges({ store, sheet }: { store: BenchStore; sheet: Sheet | null }) {
  const document = store((s) => s.history.present);
  const built = store((s) => s.built);
  const building = store((s) => s.building);
  const isAsItWas = store((s) => s.isAsItWas);
  const ticked = store((s) => s.ticked);
  const massUnit = store((s) => s.massUnit);
  const p = built?.properties;
  const sketches = document.steps.flatMap((s) => (s.kind === "sketch" ? [s.sketch] : []));
  const defined = sketches.filter(
    (s) =>
      s.curves.length > 0 && diagnosisOf(s, document.units)?.solved && diagnosisOf(s, document.units)!.freedoms === 0,
  ).length;
  const mass = p && p.volume * densityOf(document.material);
  return (
    <section aria-label="Gauges" className="border-t border-base-300 px-3.5 py-3">
      <h2 className="quiet flex justify-between pb-1 text-xs font-semibold">
        Gauges <span className="font-normal">{gaugesState(building, isAsItWas)}</span>
      </h2>
      <dl>
        <Reading
          name="Sketches fully defined"
          value={sketches.length ? `${defined} of ${sketches.length}` : "–"}
          warm={defined < sketches.length}
        />
        <Reading
          name="Body"
          value={p ? `${p.bodies}, ${p.closed && p.valid ? "closed" : "not closed"}` : "none"}
          warm={p !== undefined && (p.bodies !== 1 || !p.closed)}
        />
        <Reading name="Volume" value={p ? volumeText(p.volume, document.units) : "–"} />
        <Reading name="Mass" value={mass === undefined ? "–" : massText(mass, massUnit)} />
        {sheet?.printedMass && mass !== undefined && (
          <div>
            <dt className="sr-only">Mass against its band</dt>
            <dd>
              <Vernier value={mass} {...sheet.printedMass} unit={massUnit} />
            </dd>
          </div>
        )}
        {sheet && <Reading name="Printed sizes used" value={`${ticked.size} of ${sheet.dimensions.length}`} />}
      </dl>
      <p className="quiet pt-1 text-xs">
        {document.material.name}, {document.material.density} g/cm³
      </p>
    </section>
  );
}

"use client";

import { densityOf } from "@/core/part/document";
import { MATERIALS } from "@/core/part/materials";
import { massText, momentText, volumeText } from "@/core/units/amounts";
import { inUnit, plainNumber } from "@/core/units/quantity";
import type { BenchStore } from "../store";
import { Card } from "./card";

/** Mass properties, exact on the surfaces; the axes are drawn at the centre of mass while this is open. */
export function MassCard({ store }: { store: BenchStore }) {
  const document = store((s) => s.history.present),
    p = store((s) => s.built?.properties),
    unit = document.units;
  const density = densityOf(document.material),
    at = (v: readonly number[]) => v.map((x) => plainNumber(inUnit(x, unit), 3)).join(", ");
  const listed = MATERIALS.findIndex(
    (m) => m.name === document.material.name && m.density === document.material.density,
  );
  return (
    <Card store={store} title="Mass properties" aside>
      <label className="flex items-center justify-between gap-2 pb-1.5">
        <span>Material</span>
        <select
          aria-label="Material"
          className="select select-xs w-52"
          value={listed}
          onChange={(e) =>
            Number(e.target.value) >= 0 &&
            store.getState().run({ do: "describe", material: { ...MATERIALS[Number(e.target.value)]! } })
          }
        >
          {listed < 0 && (
            <option value={-1}>
              {document.material.name} · {document.material.density} g/cm³
            </option>
          )}
          {MATERIALS.map((m, i) => (
            <option key={m.name} value={i}>
              {m.name} · {m.density} g/cm³
            </option>
          ))}
        </select>
      </label>
      {!p ? (
        <p className="quiet">There is no material yet.</p>
      ) : (
        <dl>
          {(
            [
              ["Volume", volumeText(p.volume, unit)],
              ["Area", `${plainNumber(p.area / (unit === "mm" ? 1 : 645.16), unit === "mm" ? 1 : 4)} ${unit}²`],
              ["Mass", massText(p.volume * density, store.getState().massUnit)],
              ["Centre of mass", `${at(p.centre)} ${unit}`],
              [
                "Extent",
                `${p.box.max.map((v, i) => plainNumber(inUnit(v - p.box.min[i]!, unit), 3)).join(" × ")} ${unit}`,
              ],
              ...p.moments.map((m, i) => [`Principal moment ${i + 1}`, momentText(m, density)]),
            ] as const
          ).map(([what, text]) => (
            <div key={what} className="flex items-baseline justify-between gap-3 py-0.5">
              <dt>{what}</dt>
              <dd className="figures text-right" data-mass={what}>
                {text}
              </dd>
            </div>
          ))}
        </dl>
      )}
      <p className="quiet pt-1 text-xs">1, 2 and 3 mark the principal axes. Facets play no part in these numbers.</p>
    </Card>
  );
}

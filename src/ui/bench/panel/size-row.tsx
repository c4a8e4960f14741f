"use client";

import { relationText, sizeText } from "@/core/sketch/sentences";
import { typeOf, type Dimension, type Sketch } from "@/core/sketch/sketch";
import { quantityOf } from "@/core/sketch/sketch";
import { NumberField } from "../../parts/number-field";
import type { BenchStore } from "../store";

/** Kinds a placed dimension can be turned into over the same things. */
function turns(
  sketch: Sketch,
  dimension: Dimension,
): { label: string; kind: Dimension["kind"]; sides?: ("near" | "far")[] }[] {
  const [a, b] = dimension.of.map((r) => typeOf(sketch, r));
  if (b === undefined && (a === "circle" || a === "arc"))
    return [
      { label: "R", kind: "radius" },
      { label: "⌀", kind: "diameter" },
      ...(a === "arc" ? [{ label: "⌒", kind: "arc-length" as const }] : []),
    ];
  if (a === "point" && b === "line")
    return [
      { label: "distance", kind: "point-line" },
      { label: "across", kind: "across" },
    ];
  if (a === "line" && b === "line")
    return quantityOf(dimension) === "angle"
      ? [
          { label: "angle", kind: "angle" },
          { label: "full angle", kind: "full-angle" },
        ]
      : [{ label: "across", kind: "across" }];
  if (a === "point" && b === "point")
    return [
      { label: "aligned", kind: "distance" },
      { label: "level", kind: "horizontal-distance" },
      { label: "upright", kind: "vertical-distance" },
    ];
  if (dimension.kind === "to-side")
    return [
      { label: "near side", kind: "to-side", sides: dimension.sides!.map(() => "near") },
      { label: "far side", kind: "to-side", sides: dimension.sides!.map(() => "far") },
    ];
  return [];
}

/** One size: what it is of, its value and name to be typed over, whether it drives, what it can turn into. */
export function SizeRow({ store, sketch, d }: { store: BenchStore; sketch: Sketch; d: Dimension }) {
  const unit = store((s) => s.history.present.units);
  const { draw } = store.getState();
  const said = relationText(d, unit, sketch);
  const ways = turns(sketch, d);
  const isNow = (w: (typeof ways)[number]) => w.kind === d.kind && (!w.sides || w.sides.join() === d.sides?.join());
  return (
    <div className="py-1" data-size={d.id}>
      <button className="block w-full text-left" onClick={() => store.getState().select([d.id])}>
        {said}
      </button>
      <div className="flex flex-wrap items-center gap-1 pt-0.5">
        <NumberField
          width="row"
          ariaLabel={`value of ${d.id}`}
          value={d.reference ? sizeText(d, unit, sketch) : String(d.value)}
          unit={quantityOf(d) === "angle" ? "°" : unit}
          disabled={d.reference ?? false}
          onDone={(value) => draw({ do: "resize", id: d.id, value })}
        />
        <NumberField
          width="row"
          ariaLabel={`name of ${d.id}`}
          value={d.name ?? ""}
          unit=""
          placeholder={d.id}
          onDone={(name) => draw({ do: "name", id: d.id, name })}
        />
        <button
          aria-pressed={d.reference === true}
          className={`btn btn-xs ${d.reference ? "btn-primary" : ""}`}
          title="A reference dimension only measures"
          onClick={() => draw({ do: "drive", id: d.id, reference: !d.reference })}
        >
          (…)
        </button>
        {ways.length > 1 && (
          <span className="join">
            {ways.map((w) => (
              <button
                key={w.label}
                aria-pressed={isNow(w)}
                className={`btn btn-xs join-item ${isNow(w) ? "btn-primary" : ""}`}
                onClick={() => draw({ do: "retype", id: d.id, kind: w.kind, ...(w.sides && { sides: w.sides }) })}
              >
                {w.label}
              </button>
            ))}
          </span>
        )}
        <button
          className="btn btn-ghost btn-xs"
          aria-label={`Remove ${d.id}`}
          onClick={() => draw({ do: "delete", ids: [d.id] })}
        >
          ×
        </button>
      </div>
    </div>
  );
}

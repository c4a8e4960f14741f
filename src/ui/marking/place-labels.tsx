import type { Vec3 } from "@/core/geometry/vector";
import type { Camera } from "../bench/view/camera";
import { apart, LABEL } from "./apart";

export interface PlaceLabel {
  readonly at: Vec3;
  readonly word: string;
  readonly text: string;
}

/** So many at most: more are a table's business. */
const MOST = 8;

/** What is at each place, beside it and a line leading there; none covers another. */
export function PlaceLabels({ camera, labels }: { camera: Camera; labels: readonly PlaceLabel[] }) {
  const shown = labels.slice(0, MOST);
  const points = shown.map((l) => camera.toPixels(l.at));
  const places = apart(points);
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content">
        {places.map(([x, y], i) => (
          <path
            key={i}
            d={`M${points[i]!.join(" ")}L${x} ${y + LABEL.height / 2}`}
            stroke="currentColor"
            strokeWidth={0.8}
          />
        ))}
        {points.map(([x, y], i) => (
          <circle key={i} cx={x} cy={y} r={2.2} fill="currentColor" />
        ))}
      </svg>
      {shown.map((label, i) => (
        <span
          key={i}
          data-lump={label.word}
          className="figures pointer-events-none absolute whitespace-nowrap bg-base-100/85 px-1 text-xs"
          style={{ left: places[i]![0], top: places[i]![1] }}
        >
          {label.text}
        </span>
      ))}
    </>
  );
}

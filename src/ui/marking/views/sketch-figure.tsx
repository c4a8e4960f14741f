import { segmentEnd, sampled, isWhole } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import type { Sketch } from "@/core/sketch/sketch";
import { diagnosisOf } from "../../bench/documents";
import type { LengthUnit } from "@/core/units/quantity";

/** Radians between the corners of a round curve as drawn. */
const STEP = 0.12;

/** A sketch as a small picture: loose curves hollow, pinned ones solid, as on the Bench. */
export function SketchFigure({ sketch, unit, size = 132 }: { sketch: Sketch; unit: LengthUnit; size?: number }) {
  const diagnosis = diagnosisOf(sketch, unit);
  const curves = diagnosis?.sketch.curves ?? sketch.curves;
  const loose = new Set(diagnosis?.loose ?? []);
  const drawn = curves.flatMap((c) => {
    const s = segmentOf(c);
    if (!s) return [];
    const points: Vec2[] = [...sampled(s, STEP), ...(isWhole(s) ? [] : [segmentEnd(s)])];
    return [{ id: c.id, points, isWhole: isWhole(s), isConstruction: Boolean(c.construction) }];
  });
  const all = drawn.flatMap((d) => d.points);
  if (!all.length) return <p className="quiet text-xs">nothing drawn</p>;
  const xs = all.map((p) => p[0]),
    ys = all.map((p) => p[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const span = Math.max(x1 - x0, y1 - y0) || 1,
    pad = span * 0.08,
    px = span / size;
  const path = (points: readonly Vec2[], isClosed: boolean) =>
    `M${points.map((p) => `${p[0]} ${-p[1]}`).join("L")}${isClosed ? "Z" : ""}`;
  return (
    <svg
      width={size}
      height={(size * Math.max(y1 - y0, span * 0.3) + 2 * pad) / span}
      viewBox={`${x0 - pad} ${-y1 - pad} ${x1 - x0 + 2 * pad} ${y1 - y0 + 2 * pad}`}
      role="img"
      aria-label={loose.size ? `Sketch, ${diagnosis?.freedoms} ways to move left` : "Sketch, fully defined"}
      fill="none"
      stroke="currentColor"
    >
      {drawn.map((d) =>
        d.isConstruction ? (
          <path
            key={d.id}
            d={path(d.points, d.isWhole)}
            strokeWidth={0.8 * px}
            strokeDasharray={`${5 * px} ${3 * px}`}
            opacity={0.6}
          />
        ) : (
          <g key={d.id}>
            <path d={path(d.points, d.isWhole)} strokeWidth={(loose.has(d.id) ? 3.6 : 1.8) * px} />
            {loose.has(d.id) && (
              <path d={path(d.points, d.isWhole)} strokeWidth={1.6 * px} stroke="var(--color-base-100)" />
            )}
          </g>
        ),
      )}
    </svg>
  );
}

import { isWhole, segmentAt, segmentEnd, segmentStart, type Segment } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { segmentOf } from "@/core/sketch/curves/registry";
import { extentOf } from "@/core/sketch/profile";
import type { Sketch } from "@/core/sketch/sketch";

const n = (v: number): string => String(Number(v.toFixed(6)));

/** SVG path of a segment, y turned down; exact for every kind. */
function pathOf(s: Segment): string {
  const p = (v: Vec2) => `${n(v[0])} ${n(-v[1])}`;
  if (s.kind === "line") return `M${p(s.a)}L${p(s.b)}`;
  if (s.kind === "spline")
    return `M${p(s.beziers[0]![0])}${s.beziers.map((b) => `C${p(b[1])} ${p(b[2])} ${p(b[3])}`).join("")}`;
  const [a, b, turn] =
    s.kind === "arc"
      ? [s.radius, s.radius, 0]
      : [Math.hypot(...s.major), Math.hypot(...s.minor), (-Math.atan2(s.major[1], s.major[0]) * 180) / Math.PI];
  const handed = s.kind === "ellipse" && s.major[0] * s.minor[1] - s.major[1] * s.minor[0] < 0 ? -1 : 1;
  // y is turned down, so what runs counter-clockwise runs the other way
  const sweep = s.sweep * handed > 0 ? 0 : 1;
  const arc = (to: Vec2, large: number) => `A${n(a)} ${n(b)} ${n(turn)} ${large} ${sweep} ${p(to)}`;
  if (isWhole(s)) return `M${p(segmentStart(s))}${arc(segmentAt(s, 0.5), 0)}${arc(segmentStart(s), 0)}Z`;
  return `M${p(segmentStart(s))}${arc(segmentEnd(s), Math.abs(s.sweep) > Math.PI ? 1 : 0)}`;
}

/** A sketch as an SVG drawing at full size, in mm. */
export function sketchSvg(sketch: Pick<Sketch, "curves">): string {
  const [low, high] = extentOf(sketch) ?? [
    [0, 0],
    [10, 10],
  ];
  const rim = Math.max(high[0] - low[0], high[1] - low[1], 1) * 0.04,
    w = high[0] - low[0] + 2 * rim,
    h = high[1] - low[1] + 2 * rim,
    stroke = Math.max(w, h) / 400;
  const paths = sketch.curves.flatMap((curve) => {
    const s = segmentOf(curve);
    if (!s) return [];
    const dash =
      curve.construction === "centre-line"
        ? ` stroke-dasharray="${n(stroke * 12)} ${n(stroke * 3)} ${n(stroke * 2)} ${n(stroke * 3)}"`
        : curve.construction
          ? ` stroke-dasharray="${n(stroke * 6)} ${n(stroke * 4)}"`
          : "";
    return [
      `<path id="${curve.id}" d="${pathOf(s)}"${dash}${curve.construction ? ` stroke-width="${n(stroke / 2)}"` : ""}/>`,
    ];
  });
  const size = `width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(low[0] - rim)} ${n(-high[1] - rim)} ${n(w)} ${n(h)}"`;
  const ink = `fill="none" stroke="#22292F" stroke-width="${n(stroke)}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size} ${ink}>${paths.join("")}</svg>\n`;
}

import { memo } from "react";
import { toSpace, type Frame } from "@/core/geometry/frame";
import type { Vec2 } from "@/core/geometry/vector";
import { isWhole, sampled, segmentEnd, type Segment } from "@/core/geometry/segment";
import { segmentOf } from "@/core/sketch/curves/registry";
import type { Region } from "@/core/sketch/regions";
import { pointAt, pointsOf, type Curve } from "@/core/sketch/sketch";
import type { Camera } from "../view/camera";

/** What is drawn anew when the camera has moved; `view` is its version. */
interface View {
  readonly camera: Camera;
  readonly view: number;
  readonly frame: Frame;
}

/** Radians between the corners of a round curve as drawn. */
const STEP = 0.06;

/** Sketch coordinates to a polyline on screen. */
export const screenPath = (camera: Camera, frame: Frame, points: readonly Vec2[], closed = false): string =>
  `M${points
    .map((p) =>
      camera
        .toPixels(toSpace(frame, p))
        .map((v) => v.toFixed(1))
        .join(" "),
    )
    .join("L")}${closed ? "Z" : ""}`;

export function segmentPath(camera: Camera, frame: Frame, s: Segment): string {
  const whole = isWhole(s);
  return screenPath(camera, frame, whole ? sampled(s, STEP) : [...sampled(s, STEP), segmentEnd(s)], whole);
}

/** A curve's outline on screen; nothing for a point. */
export function curvePath(camera: Camera, frame: Frame, c: Curve): string {
  const s = segmentOf(c);
  return s ? segmentPath(camera, frame, s) : "";
}

export const regionPath = (camera: Camera, frame: Frame, r: Region): string =>
  [r.outer, ...r.holes]
    .map((loop) =>
      screenPath(
        camera,
        frame,
        loop.flatMap((s: Segment) => sampled(s, STEP)),
        true,
      ),
    )
    .join("");

/** A zigzag along a curve: what disagrees, told by form as well as colour. */
function zigzag(camera: Camera, frame: Frame, c: Curve): string {
  const s = segmentOf(c);
  if (!s) return "";
  const at = [...sampled(s, STEP), segmentEnd(s)];
  const px = at.map((p) => camera.toPixels(toSpace(frame, p)));
  const out: string[] = [];
  let side = 1;
  for (let i = 1; i < px.length; i++) {
    const [a, b] = [px[i - 1]!, px[i]!];
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1,
      n = Math.max(1, Math.round(l / 6));
    for (let k = 0; k < n; k++, side = -side) {
      const t = (k + 0.5) / n;
      out.push(
        `${(a[0] + (b[0] - a[0]) * t - ((b[1] - a[1]) / l) * 5 * side).toFixed(1)} ` +
          `${(a[1] + (b[1] - a[1]) * t + ((b[0] - a[0]) / l) * 5 * side).toFixed(1)}`,
      );
    }
  }
  return `M${out.join("L")}`;
}

/**
 * A sketch curve. What it still lacks is told by how it is drawn: loose is hollow with round open ends, pinned is
 * solid with square ends. Construction and reference geometry is thin and dashed.
 */
export const CurveInk = memo(function CurveInk({
  camera,
  frame,
  curve,
  loose,
  chosen,
  troubled,
}: View & { curve: Curve; loose: boolean; chosen: boolean; troubled: boolean }) {
  const d = curvePath(camera, frame, curve);
  const ink = chosen ? "var(--color-accent)" : "currentColor";
  return (
    <g data-curve={curve.id} data-loose={loose} fill="none">
      <title>{`${curve.id}, ${loose ? "loose" : "pinned"}`}</title>
      {troubled && <path data-conflict d={zigzag(camera, frame, curve)} stroke="var(--conflict)" strokeWidth={1.4} />}
      {chosen && <path d={d} stroke="var(--rust-wash)" strokeWidth={11} />}
      {curve.construction ? (
        <path d={d} stroke={ink} strokeWidth={1.1} strokeDasharray={loose ? "7 4" : "7 4 2 4"} />
      ) : loose ? (
        <>
          <path d={d} stroke={ink} strokeWidth={4.6} strokeLinejoin="round" />
          <path d={d} stroke="var(--color-base-100)" strokeWidth={2.2} strokeLinejoin="round" />
        </>
      ) : (
        <path d={d} stroke={ink} strokeWidth={2.6} strokeLinejoin="miter" />
      )}
    </g>
  );
});

/** The points of a curve. @param loose @param chosen references, joined by commas: text compares by value */
export const CurvePoints = memo(function CurvePoints({
  camera,
  frame,
  curve,
  loose,
  chosen,
}: View & { curve: Curve; loose: string; chosen: string }) {
  const has = (list: string, ref: string) => list.split(",").includes(ref);
  return (
    <>
      {pointsOf(curve).map((ref) => (
        <PointInk
          key={ref}
          name={ref}
          at={camera.toPixels(toSpace(frame, pointAt({ curves: [curve] }, ref)))}
          loose={has(loose, ref)}
          chosen={has(chosen, ref)}
          small={/\.(centre|major|minor|start-handle|end-handle)$/.test(ref) || curve.construction !== undefined}
        />
      ))}
    </>
  );
});

/** All that moves while something is dragged, in as few pieces as can be: every piece costs in every frame. */
export function MovingInk({
  camera,
  frame,
  curves,
  loose,
  chosen,
}: {
  camera: Camera;
  frame: Frame;
  curves: readonly Curve[];
  loose: ReadonlySet<string>;
  chosen: readonly string[];
}) {
  const real = curves.filter((c) => !c.construction),
    path = (list: readonly Curve[]) => list.map((c) => curvePath(camera, frame, c)).join("");
  const hollow = path(real.filter((c) => loose.has(c.id))),
    solid = path(real.filter((c) => !loose.has(c.id)));
  const picked = curves.filter((c) => chosen.includes(c.id));
  const ends = curves
    .flatMap((c) => pointsOf(c).map((ref) => camera.toPixels(toSpace(frame, pointAt({ curves: [c] }, ref)))))
    .map(([x, y]) => `M${(x - 3.5).toFixed(1)} ${y.toFixed(1)}a3.5 3.5 0 1 0 7 0a3.5 3.5 0 1 0 -7 0Z`)
    .join("");
  return (
    <g fill="none" stroke="currentColor">
      <path d={path(curves.filter((c) => c.construction))} strokeWidth={1.1} strokeDasharray="7 4" />
      <path d={hollow} strokeWidth={4.6} strokeLinejoin="round" />
      <path d={hollow} stroke="var(--color-base-100)" strokeWidth={2.2} strokeLinejoin="round" />
      <path d={solid} strokeWidth={2.6} />
      {picked.length > 0 && <path d={path(picked)} stroke="var(--color-accent)" strokeWidth={2} />}
      <path d={ends} fill="var(--color-base-100)" strokeWidth={1.5} />
    </g>
  );
}

/** An end or centre: open and round while it can move, closed and square when pinned. */
function PointInk({
  at,
  loose,
  chosen,
  small,
  name,
}: {
  at: Vec2;
  loose: boolean;
  chosen: boolean;
  small: boolean;
  name: string;
}) {
  const ink = chosen ? "var(--color-accent)" : "currentColor";
  const r = small ? 3 : 4;
  return loose ? (
    <circle
      data-point={name}
      cx={at[0]}
      cy={at[1]}
      r={chosen ? r + 1.5 : r}
      fill="var(--color-base-100)"
      stroke={ink}
      strokeWidth={chosen ? 2.4 : 1.5}
    />
  ) : (
    <rect data-point={name} x={at[0] - r} y={at[1] - r} width={2 * r} height={2 * r} fill={ink} />
  );
}

/** The way a loose point can still go. */
export function WayArrow({
  camera,
  frame,
  at,
  along,
}: {
  camera: Camera;
  frame: Frame;
  at: Vec2;
  along: Vec2 | "any";
}) {
  const dirs: Vec2[] =
    along === "any"
      ? [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ]
      : [along, [-along[0], -along[1]]];
  const o = camera.toPixels(toSpace(frame, at));
  return (
    <g stroke="var(--color-accent)" strokeWidth={1.6} fill="none" strokeLinecap="round">
      {dirs.map((u, i) => {
        const e = camera.toPixels(toSpace(frame, [at[0] + u[0], at[1] + u[1]]));
        const l = Math.hypot(e[0] - o[0], e[1] - o[1]) || 1;
        const v: Vec2 = [(e[0] - o[0]) / l, (e[1] - o[1]) / l];
        const a: Vec2 = [o[0] + v[0] * 8, o[1] + v[1] * 8],
          b: Vec2 = [o[0] + v[0] * 18, o[1] + v[1] * 18];
        const barb = (side: number): Vec2 => [b[0] - v[0] * 4 - v[1] * 3 * side, b[1] - v[1] * 4 + v[0] * 3 * side];
        return (
          <path
            key={i}
            d={`M${a.join(" ")}L${b.join(" ")}M${barb(1).join(" ")}L${b.join(" ")}L${barb(-1).join(" ")}`}
          />
        );
      })}
    </g>
  );
}

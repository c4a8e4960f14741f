import { NO_AREA, UNSEEN } from "../tolerance";
import { dot3, perAxis, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";
import type { Thing } from "@/core/measure/measure";
import type { Shown } from "../kernel/messages";
import type { Camera } from "./camera";

interface Under {
  readonly face: number;
  readonly depth: number;
}

/** A plane that cuts the part open: what lies on the side its normal shows is not there to be picked. */
export interface Cut {
  readonly at: Vec3;
  readonly normal: Vec3;
}
export const isCutAway = (cut: Cut | undefined, p: Vec3): boolean =>
  cut !== undefined && dot3(cut.normal, [p[0] - cut.at[0], p[1] - cut.at[1], p[2] - cut.at[2]]) > UNSEEN;

/** The faces of a mesh under a pixel, the nearest to the viewer first; facets are good enough to point with. */
export function facesAt(camera: Camera, mesh: Mesh, at: Vec2, cut?: Cut, hidden?: ReadonlySet<number>): Under[] {
  const { positions: values, triangles: t } = mesh;
  const n = values.length / 3,
    px = new Float64Array(2 * n),
    depth = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const v: Vec3 = [values[3 * i]!, values[3 * i + 1]!, values[3 * i + 2]!];
    [px[2 * i], px[2 * i + 1]] = camera.toPixels(v);
    depth[i] = dot3(v, camera.toViewer);
  }
  const found = new Map<number, number>();
  mesh.faces.forEach(({ start, count }, face) => {
    if (hidden?.has(face)) return;
    for (let k = start; k < start + count; k += 3) {
      const [a, b, c] = [t[k]!, t[k + 1]!, t[k + 2]!];
      const ax = px[2 * a]!,
        ay = px[2 * a + 1]!,
        ux = px[2 * b]! - ax,
        uy = px[2 * b + 1]! - ay,
        vx = px[2 * c]! - ax,
        vy = px[2 * c + 1]! - ay;
      const area = ux * vy - uy * vx;
      if (Math.abs(area) < NO_AREA) continue;
      const wx = at[0] - ax,
        wy = at[1] - ay,
        u = (wx * vy - wy * vx) / area,
        v = (ux * wy - uy * wx) / area;
      if (u < 0 || v < 0 || u + v > 1) continue;
      if (
        cut &&
        isCutAway(
          cut,
          perAxis(
            (i) =>
              values[3 * a + i]! +
              u * (values[3 * b + i]! - values[3 * a + i]!) +
              v * (values[3 * c + i]! - values[3 * a + i]!),
          ),
        )
      )
        continue;
      const d = depth[a]! + u * (depth[b]! - depth[a]!) + v * (depth[c]! - depth[a]!);
      if (d > (found.get(face) ?? -Infinity)) found.set(face, d);
    }
  });
  return [...found].map(([face, d]) => ({ face, depth: d })).sort((a, b) => b.depth - a.depth);
}

export const faceAt = (camera: Camera, { mesh, hidden }: Pick<Shown, "mesh" | "hidden">, at: Vec2) =>
  facesAt(camera, mesh, at, undefined, hidden)[0]?.face;

/** Whether a thing of the part lies only on faces that are hidden. */
export function isHidden({ model, hidden }: Pick<Shown, "model" | "hidden">, t: Thing): boolean {
  if (!hidden?.size) return false;
  if (t.kind === "face") return hidden.has(t.index);
  return (t.kind === "edge" ? model.edges : model.vertices)[t.index]!.faces.every((f) => hidden.has(f));
}

/** Polylines in space that pass within reach of a pixel: how near, and how deep there. */
function linesAt(
  camera: Camera,
  lines: readonly (readonly Vec3[])[],
  at: Vec2,
  reach: number,
  cut?: Cut,
): { line: number; distance: number; depth: number }[] {
  return lines.flatMap((points, line) => {
    let distance = Infinity,
      depth = 0;
    for (let k = 1; k < points.length; k++) {
      const a = camera.toPixels(points[k - 1]!),
        b = camera.toPixels(points[k]!),
        ux = b[0] - a[0],
        uy = b[1] - a[1];
      const s = Math.max(0, Math.min(1, ((at[0] - a[0]) * ux + (at[1] - a[1]) * uy) / (ux * ux + uy * uy || 1)));
      const d = Math.hypot(a[0] + ux * s - at[0], a[1] + uy * s - at[1]);
      if (
        d >= distance ||
        (cut &&
          isCutAway(
            cut,
            perAxis((i) => points[k - 1]![i] + s * (points[k]![i] - points[k - 1]![i])),
          ))
      )
        continue;
      distance = d;
      const [p, q] = [dot3(points[k - 1]!, camera.toViewer), dot3(points[k]!, camera.toViewer)];
      depth = p + (q - p) * s;
    }
    return distance <= reach ? [{ line, distance, depth }] : [];
  });
}

/** Which of some polylines in space passes nearest to a pixel, within reach; the one in front where several do. */
export function lineAt(
  camera: Camera,
  lines: readonly (readonly Vec3[])[],
  at: Vec2,
  reach: number,
): number | undefined {
  return linesAt(camera, lines, at, reach).sort(
    (a, b) => Math.round(a.distance) - Math.round(b.distance) || b.depth - a.depth,
  )[0]?.line;
}

const EDGE_PIXELS = 6;
const VERTEX_PIXELS = 7;

/**
 * Everything of the kinds wanted under a pixel: first what is seen there (corners before edges before the face),
 * then what lies behind, from front to back.
 */
export function thingsAt(camera: Camera, shown: Shown, at: Vec2, take: readonly Thing["kind"][], cut?: Cut): Thing[] {
  const { mesh, model } = shown;
  const faces = facesAt(camera, mesh, at, cut, shown.hidden),
    front = faces[0]?.depth ?? -Infinity;
  // an edge of the nearest face stands a hair behind its facets
  const slack = 14 / camera.scale;
  const list: { thing: Thing; rank: number; hidden: boolean; depth: number }[] = [];
  if (take.includes("vertex"))
    model.vertices.forEach((v, index) => {
      const p = camera.toPixels(v.at),
        distance = Math.hypot(p[0] - at[0], p[1] - at[1]),
        depth = dot3(v.at, camera.toViewer);
      if (distance <= VERTEX_PIXELS && !isCutAway(cut, v.at))
        list.push({ thing: { kind: "vertex", index }, rank: distance / 100, hidden: depth < front - slack, depth });
    });
  if (take.includes("edge"))
    for (const e of linesAt(
      camera,
      model.edges.map((x) => x.points),
      at,
      EDGE_PIXELS,
      cut,
    ))
      list.push({
        thing: { kind: "edge", index: e.line },
        rank: 1 + e.distance / 100,
        hidden: e.depth < front - slack,
        depth: e.depth,
      });
  if (take.includes("face"))
    faces.forEach((f, i) =>
      list.push({ thing: { kind: "face", index: f.face }, rank: 2, hidden: i > 0, depth: f.depth }),
    );
  return list
    .filter((x) => !isHidden(shown, x.thing))
    .sort(
      (a, b) =>
        Number(a.hidden) - Number(b.hidden) || (a.hidden ? b.depth - a.depth : a.rank - b.rank || b.depth - a.depth),
    )
    .map((x) => x.thing);
}

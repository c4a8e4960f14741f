import { move, type Rigid } from "@/core/geometry/rigid";
import { cross3, dot3, length3, perAxis, scale3, sub3, type Vec3 } from "@/core/geometry/vector";
import type { NearestOn } from "@/core/measure/net";
import type { Sample } from "./deviation";
import { SETTLED, SETTLE_SOFT, UNHELD } from "../tolerance";

/** Rounds of settling. */
const ROUNDS = 25;

/**
 * Settles points on a net by the least sum of distances along the normals: Gauss–Newton with weights 1/distance
 * (Chen & Medioni 1992; Holland & Welsch 1977). Where most of a part is right the rest does not pull it along.
 * @returns the motion, and the weighted mean distance under it, mm
 */
export function settle(nearest: NearestOn, points: readonly Sample[], from: Rigid, size: number) {
  let motion = from,
    best = { motion: from, off: Infinity };
  for (let round = 0; round < ROUNDS; round++) {
    const a = Array.from({ length: 6 }, () => new Float64Array(7));
    let sum = 0,
      all = 0;
    const soft = Math.max(SETTLE_SOFT, 0.01 * 0.5 ** round) * size;
    for (const { at, area } of points) {
      const p = move(motion, at),
        found = nearest.find(p);
      if (!found) continue;
      sum += found.distance * area;
      all += area;
      const n = nearest.normal(found.triangle),
        off = dot3(n, sub3(p, found.at)),
        weight = area / Math.max(found.distance, soft);
      const row = [...cross3(p, n), ...n];
      for (let i = 0; i < 6; i++) {
        for (let j = 0; j < 6; j++) a[i]![j]! += weight * row[i]! * row[j]!;
        a[i]![6]! -= weight * row[i]! * off;
      }
    }
    if (sum / all < best.off) best = { motion, off: sum / all };
    const step = solved(a, size);
    motion = turnedBy(motion, [step[0]!, step[1]!, step[2]!], [step[3]!, step[4]!, step[5]!]);
    const moved = Math.max(...step.map((v, i) => Math.abs(v) * (i < 3 ? size : 1)));
    if (moved < SETTLED * size && soft <= SETTLE_SOFT * size) break;
  }
  return best;
}

/** Solves six equations by elimination with pivots; ways that nothing holds stay where they are. */
function solved(a: Float64Array[], size: number): number[] {
  // turns count by the size, so that they weigh like shifts
  const unit = [size, size, size, 1, 1, 1];
  const trace = a.reduce((s, r, i) => s + r[i]! / unit[i]! ** 2, 0);
  a.forEach((r, i) => (r[i]! += UNHELD * trace * unit[i]! ** 2));
  for (let c = 0; c < 6; c++) {
    let top = c;
    for (let r = c + 1; r < 6; r++) if (Math.abs(a[r]![c]!) > Math.abs(a[top]![c]!)) top = r;
    [a[c], a[top]] = [a[top]!, a[c]!];
    const pivot = a[c]![c]!;
    if (!pivot) continue;
    for (let r = 0; r < 6; r++) {
      if (r === c) continue;
      const k = a[r]![c]! / pivot;
      for (let i = c; i < 7; i++) a[r]![i]! -= k * a[c]![i]!;
    }
  }
  return a.map((r, i) => (r[i] ? r[6]! / r[i]! : 0));
}

/** A motion followed by a small turn about the origin and a shift (Rodrigues). */
function turnedBy({ rows, shift }: Rigid, w: Vec3, t: Vec3): Rigid {
  const angle = length3(w);
  if (angle < Number.EPSILON) return { rows, shift: perAxis((i) => shift[i] + t[i]) };
  const k = scale3(w, 1 / angle),
    s = Math.sin(angle),
    c = Math.cos(angle);
  const spun = (v: Vec3): Vec3 => {
    const kv = cross3(k, v),
      d = dot3(k, v);
    return perAxis((i) => v[i] * c + kv[i] * s + k[i] * d * (1 - c));
  };
  const columns = [0, 1, 2].map((j) => spun(perAxis((i) => rows[i]![j]!)));
  const turnedRows = [0, 1, 2].map((i) => perAxis((j) => columns[j]![i]!)) as unknown as Rigid["rows"];
  const moved = spun(shift);
  return { rows: turnedRows, shift: perAxis((i) => moved[i] + t[i]) };
}

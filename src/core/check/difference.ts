import { combine } from "@/core/kernel/boolean";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { boxOf, volumeOf } from "@/core/kernel/properties";
import { explore, type Solid } from "@/core/kernel/solid";
import type { Lump } from "./kinds/shape/kind";
import { BALANCE, NOISE } from "./tolerance";

export interface Difference {
  readonly missing: readonly Lump[];
  readonly extra: readonly Lump[];
  /** |V(A) − V(B) − (missing − extra)| over V(A): 0 when the booleans can be believed. */
  readonly imbalance: number;
  readonly trusted: boolean;
  /** The pieces themselves, for drawing; the caller releases them. */
  readonly missingSolid?: Solid;
  readonly extraSolid?: Solid;
}

function lumps(kernel: Kernel, solid: Solid, noise: number): Lump[] {
  const pieces = explore(kernel, solid.shape, "SOLID");
  const list = pieces
    .map((p) => ({ ...volumeOf(kernel, p), box: boxOf(kernel, p) }))
    .filter((l) => Math.abs(l.volume) > noise);
  kernel.release(...pieces);
  return list.sort((a, b) => b.volume - a.volume);
}

const total = (list: readonly Lump[]) => list.reduce((s, l) => s + l.volume, 0);

/** Cuts the placed submission from the reference and the other way round, and weighs the result against the volumes. */
export function differenceOf(kernel: Kernel, reference: Solid, placed: Solid): Difference {
  const a = volumeOf(kernel, reference.shape).volume,
    b = volumeOf(kernel, placed.shape).volume;
  let missingSolid: Solid | undefined, extraSolid: Solid | undefined;
  try {
    missingSolid = combine(kernel, "cut", reference, [placed], false);
    extraSolid = combine(kernel, "cut", placed, [reference], false);
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    kernel.release(missingSolid?.shape);
    return { missing: [], extra: [], imbalance: Number.MAX_VALUE, trusted: false };
  }
  const missing = lumps(kernel, missingSolid, NOISE * a),
    extra = lumps(kernel, extraSolid, NOISE * a);
  const imbalance = Math.abs(a - b - (total(missing) - total(extra))) / a;
  return {
    missing,
    extra,
    imbalance,
    trusted: imbalance <= BALANCE && total(missing) <= a * (1 + BALANCE),
    missingSolid,
    extraSolid,
  };
}

import { DATUM_FRAMES } from "@/core/geometry/frame";
import type { Vec3 } from "@/core/geometry/vector";
import { combine } from "@/core/kernel/boolean";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { boxOf, isValid, volumeOf } from "@/core/kernel/properties";
import { explore, type Solid } from "@/core/kernel/solid";
import { prism } from "@/core/kernel/sweep";
import type { Lump } from "../kinds/shape/kind";
import { BALANCE, NOISE, NOTHING_TAKEN } from "../tolerance";

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

interface Box {
  readonly min: Vec3;
  readonly max: Vec3;
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
const NOTHING: Difference = { missing: [], extra: [], imbalance: Number.MAX_VALUE, trusted: false };

/**
 * Cuts the placed submission from the reference and the other way round, and weighs the result against the volumes:
 * in the box around what differs where that is a small part, else as a whole; where one cannot be believed, the other.
 * @param around where the faces differ, mm; undefined: nowhere in particular
 * @param few whether it is but a few faces of many: then the box is tried first
 * @param overlap whether the two bodies are known to share material: faces coincide
 */
export function differenceOf(
  kernel: Kernel,
  reference: Solid,
  placed: Solid,
  around: Box | undefined,
  few: boolean,
  overlap: boolean,
): Difference {
  const volume = volumeOf(kernel, reference.shape).volume,
    other = volumeOf(kernel, placed.shape).volume;
  const inBox = (): Difference | undefined => {
    const d = around && cutInBox(kernel, reference, placed, around, volume, volume - other);
    if (d?.trusted) return d;
    kernel.release(d?.missingSolid?.shape, d?.extraSolid?.shape);
    return undefined;
  };
  const early = few ? inBox() : undefined;
  if (early) return early;
  const whole = cutBoth(kernel, reference, placed, volume, volume - other, overlap);
  if (whole.trusted || few) return whole;
  const late = inBox();
  if (!late) return whole;
  kernel.release(whole.missingSolid?.shape, whole.extraSolid?.shape);
  return late;
}

/** @param excess by how much the first body is larger than the second, mm³ */
function cutBoth(
  kernel: Kernel,
  first: Solid,
  second: Solid,
  volume: number,
  excess: number,
  overlap: boolean,
): Difference {
  let missingSolid: Solid | undefined, extraSolid: Solid | undefined;
  try {
    missingSolid = combine(kernel, "cut", first, [second], false);
    extraSolid = combine(kernel, "cut", second, [first], false);
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    kernel.release(missingSolid?.shape);
    return NOTHING;
  }
  const missing = lumps(kernel, missingSolid, NOISE * volume),
    extra = lumps(kernel, extraSolid, NOISE * volume);
  const imbalance = Math.abs(excess - (total(missing) - total(extra))) / volume;
  // a boolean that hands back what it was given balances as well
  const whole = volumeOf(kernel, first.shape).volume;
  const tookNothing = overlap && total(missing) >= whole * (1 - NOTHING_TAKEN);
  const isSound = [missingSolid, extraSolid].every((s) => !s.names.length || isValid(kernel, s.shape));
  const trusted = imbalance <= BALANCE && total(missing) <= whole * (1 + BALANCE) && !tookNothing && isSound;
  return { missing, extra, imbalance, trusted, missingSolid, extraSolid };
}

/** How far the box reaches past the faces that differ, share of its diagonal. */
const MARGIN = 0.05;

function cutInBox(
  kernel: Kernel,
  reference: Solid,
  placed: Solid,
  around: Box,
  volume: number,
  excess: number,
): Difference | undefined {
  const size = Math.hypot(...[0, 1, 2].map((i) => around.max[i]! - around.min[i]!));
  const by = MARGIN * size;
  const box = boxSolid(kernel, around, by);
  const parts: Solid[] = [];
  try {
    for (const s of [reference, placed]) parts.push(combine(kernel, "common", s, [box], false));
    const [first, second] = parts as [Solid, Solid];
    const inside = volumeOf(kernel, first.shape).volume - volumeOf(kernel, second.shape).volume;
    // outside the box the two must be equal
    if (Math.abs(inside - excess) > BALANCE * volume) return undefined;
    return cutBoth(kernel, first, second, volume, inside, true);
  } catch (e) {
    if (!(e instanceof KernelFault)) throw e;
    return undefined;
  } finally {
    kernel.release(box.shape, ...parts.map((p) => p.shape));
  }
}

function boxSolid(kernel: Kernel, { min, max }: Box, by: number): Solid {
  const corners = [
    [min[0] - by, min[1] - by],
    [max[0] + by, min[1] - by],
    [max[0] + by, max[1] + by],
    [min[0] - by, max[1] + by],
  ] as const;
  const outer = corners.map((a, i) => ({
    kind: "line" as const,
    curve: `side${i}`,
    a,
    b: corners[(i + 1) % corners.length]!,
  }));
  return prism(kernel, DATUM_FRAMES.top, { outer, holes: [] }, min[2] - by, max[2] + by, "box");
}

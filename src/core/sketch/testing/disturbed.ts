import { curveKind } from "../curves/registry";
import { curveOf, type Sketch } from "../sketch";
import { solveSketch } from "../solve";
import { seeded } from "./ladder";

interface Rates {
  /** Share of starts from which every relation was met. */
  readonly met: number;
  /** Share from which the drawn arrangement came back. */
  readonly kept: number;
  /** Names of what was not met, with how often. */
  readonly missed: ReadonlyMap<string, number>;
  readonly turned: ReadonlyMap<string, number>;
  /** Of those not met, which were called a conflict. */
  readonly conflicts: ReadonlySet<string>;
}

/** The size of a sketch: its farthest coordinate, mm. */
export const sizeOf = (s: Sketch): number =>
  Math.max(...s.curves.flatMap((q) => curveKind(q).numbers(q).map(Math.abs)));

/** A solved sketch with every coordinate off by up to a share of its size. */
export function disturbed(s: Sketch, share: number, rnd: () => number): Sketch {
  const off = share * sizeOf(s);
  const fixed = new Set(s.constraints.filter((k) => k.kind === "fixed").map((k) => curveOf(k.of[0]!)));
  return {
    ...s,
    curves: s.curves.map((c) => {
      if (fixed.has(c.id) || c.projected) return c;
      const kind = curveKind(c);
      const moved = kind.numbers(c).map((v, i) => {
        const next = v + (rnd() * 2 - 1) * off;
        return i === kind.radius ? Math.max(next, v / 4) : next;
      });
      return kind.withNumbers(c, moved);
    }),
  };
}

/** How often solved sketches come back from rough starts. */
export function ratesOf(
  list: readonly { readonly name: string; readonly sketch: Sketch; readonly units: "mm" | "in" }[],
  share: number,
  starts: number,
): Rates {
  const rnd = seeded(11);
  let met = 0,
    kept = 0,
    all = 0;
  const missed = new Map<string, number>(),
    turned = new Map<string, number>(),
    conflicts = new Set<string>();
  for (const { name, sketch, units } of list)
    for (let i = 0; i < starts; i++) {
      all++;
      const r = solveSketch(disturbed(sketch, share, rnd), units);
      if (!r.ok || !r.value.solved) {
        missed.set(name, (missed.get(name) ?? 0) + 1);
        if (r.ok && r.value.conflict.length) conflicts.add(name);
        continue;
      }
      met++;
      const size = sizeOf(sketch);
      const isBack = r.value.sketch.curves.every((q, k) => {
        const want = curveKind(sketch.curves[k]!).numbers(sketch.curves[k]!);
        return curveKind(q)
          .numbers(q)
          .every((v, n) => Math.abs(v - want[n]!) < 1e-5 * size);
      });
      if (isBack) kept++;
      else turned.set(name, (turned.get(name) ?? 0) + 1);
    }
  return { met: met / all, kept: kept / all, missed, turned, conflicts };
}

import { COLLAPSED } from "./tolerance";
import { curveKind } from "./curves/registry";
import { curveOf, type Sketch } from "./sketch";

/** A row of numbers between -1 and 1 that spreads evenly and is the same on every machine (Weyl's sequence). */
const spreadOut = (k: number): number => 2 * ((k * 0.618_033_988_749_895) % 1) - 1;

/** A sketch with every coordinate off by up to a share of its size; what is fixed stays. */
export function nudged(sketch: Sketch, share: number, seed: number): Sketch {
  const size = Math.max(...sketch.curves.flatMap((c) => curveKind(c).numbers(c).map(Math.abs)), COLLAPSED);
  const fixed = new Set(sketch.constraints.filter((k) => k.kind === "fixed").map((k) => curveOf(k.of[0]!)));
  let k = seed * 1009;
  return {
    ...sketch,
    curves: sketch.curves.map((curve) => {
      if (fixed.has(curve.id) || curve.projected) return curve;
      const kind = curveKind(curve);
      const moved = kind.numbers(curve).map((v, i) => {
        const off = share * spreadOut(++k);
        return i === kind.radius ? v * (1 + off / 2) : v + size * off;
      });
      return kind.withNumbers(curve, moved);
    }),
  };
}

import { emptySketch, type Sketch } from "../sketch";

/** A seeded generator of numbers in [0, 1): mulberry32, public domain. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * n fully dimensioned rectangles, each standing on a corner of the one before, the first on the origin.
 * @param disturb every coordinate is off by up to this much (mm) @param leaveOut drop the width of this rectangle
 */
export function ladder(n: number, disturb: number, seed = 1, leaveOut = -1): Sketch {
  const rnd = seeded(seed);
  const off = (v: number) => v + (rnd() * 2 - 1) * disturb;
  const s = emptySketch("top");
  let x = 0,
    y = 0;
  for (let k = 0; k < n; k++) {
    const w = 8 + (k % 5) * 1.5,
      h = 6 + (k % 3) * 2;
    const corners: [number, number][] = [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ];
    const id = (i: number) => `r${k}s${i}`;
    for (let i = 0; i < 4; i++) {
      const a = corners[i]!,
        b = corners[(i + 1) % 4]!;
      s.curves.push({ id: id(i), kind: "line", start: [off(a[0]), off(a[1])], end: [off(b[0]), off(b[1])] });
      s.constraints.push({ id: `c${k}_${i}`, kind: "coincident", of: [`${id(i)}.end`, `${id((i + 1) % 4)}.start`] });
      s.constraints.push({ id: `d${k}_${i}`, kind: i % 2 ? "vertical" : "horizontal", of: [id(i)] });
    }
    s.constraints.push({ id: `j${k}`, kind: "coincident", of: [`${id(0)}.start`, k ? `r${k - 1}s1.end` : "origin"] });
    if (k !== leaveOut) s.dimensions.push({ id: `w${k}`, kind: "length", of: [id(0)], value: w });
    s.dimensions.push({ id: `h${k}`, kind: "length", of: [id(1)], value: h });
    x += w;
    y += h;
  }
  return s;
}

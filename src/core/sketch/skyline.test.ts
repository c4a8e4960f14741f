import { describe, expect, it } from "vitest";
import { addEntry, envelope, factor, solveFactored } from "./skyline";
import { seeded } from "./testing/ladder";

/** A random symmetric positive definite matrix with the given share of entries, and its neighbour lists. */
function sample(n: number, share: number, seed: number) {
  const rnd = seeded(seed);
  const m = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < i; j++) {
      if (rnd() < share) m[i]![j] = m[j]![i] = rnd() * 2 - 1;
    }
    m[i]![i] = n;
  }
  const neighbours = m.map((row, i) => row.flatMap((v, j) => (v !== 0 && j !== i ? [j] : [])));
  return { m, neighbours };
}

function filled(m: number[][], neighbours: number[][]) {
  const e = envelope(neighbours);
  m.forEach((row, i) => row.forEach((v, j) => j <= i && v !== 0 && addEntry(e, i, j, v)));
  return e;
}

describe("envelope factorisation", () => {
  it.each([
    [1, 1, 1],
    [6, 0.3, 2],
    [25, 0.1, 3],
    [60, 0.05, 4],
  ])("solves a system of %d exactly", (n, share, seed) => {
    const { m, neighbours } = sample(n, share, seed);
    const rnd = seeded(seed + 100);
    const want = Float64Array.from({ length: n }, () => rnd());
    const b = Float64Array.from(m, (row) => row.reduce((s, v, j) => s + v * want[j]!, 0));
    const e = filled(m, neighbours);
    factor(e, 1e-12);
    solveFactored(e, b);
    b.forEach((v, i) => expect(v).toBeCloseTo(want[i]!, 12));
  });

  it("keeps a chain's envelope narrow in whatever order it comes", () => {
    const n = 40;
    const order = Array.from({ length: n }, (_, i) => (i * 17) % n);
    const neighbours: number[][] = order.map(() => []);
    for (let k = 1; k < n; k++) {
      neighbours[order[k]!]!.push(order[k - 1]!);
      neighbours[order[k - 1]!]!.push(order[k]!);
    }
    expect(envelope(neighbours).values.length).toBeLessThanOrEqual(2 * n);
  });

  it("gives a dependent row no multiplier instead of failing", () => {
    // the third row repeats the first
    const e = envelope([[2], [], [0]]);
    addEntry(e, 0, 0, 4);
    addEntry(e, 1, 1, 9);
    addEntry(e, 2, 2, 4);
    addEntry(e, 2, 0, 4);
    factor(e, 1e-11);
    const b = Float64Array.from([8, 18, 8]);
    solveFactored(e, b);
    expect(b[1]).toBe(2);
    expect(b[0]! + b[2]!).toBeCloseTo(2, 12);
  });
});

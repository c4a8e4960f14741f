import { emptySketch, type Constraint, type Dimension, type Sketch } from "../sketch";
import { seeded } from "./ladder";

type P = readonly [number, number];
/** Curves of one member. */
export const MEMBER = 20;

/**
 * A row of `n` members of 20 curves, fully defined: a rounded plate with tangent corners whose radii are all equal, a
 * slot, two concentric circles, a row of spaced holes, and two slanting lines that are images of each other. Each
 * stands on the one before.
 * @param disturb every coordinate is off by up to this much, mm
 */
export function family(n: number, disturb: number, seed = 1): Sketch {
  const rnd = seeded(seed),
    s = emptySketch("top");
  const at = ([x, y]: P): [number, number] => [x + (rnd() * 2 - 1) * disturb, y + (rnd() * 2 - 1) * disturb];
  const tie = (kind: Constraint["kind"], of: string[], factor?: number) =>
    void s.constraints.push({ id: `k${s.constraints.length}`, kind, of, ...(factor !== undefined && { factor }) });
  const size = (kind: Dimension["kind"], of: string[], value: number) =>
    void s.dimensions.push({ id: `m${s.dimensions.length}`, kind, of, value });
  const line = (id: string, a: P, b: P) => void s.curves.push({ id, kind: "line", start: at(a), end: at(b) });
  const arc = (id: string, c: P, a: P, b: P) =>
    void s.curves.push({ id, kind: "arc", centre: at(c), start: at(a), end: at(b) });
  const circle = (id: string, c: P, r: number) =>
    void s.curves.push({ id, kind: "circle", centre: at(c), radius: r + disturb * (rnd() - 0.5) });
  const chain = (ids: string[]) =>
    ids.forEach((id, i) => tie("coincident", [`${id}.end`, `${ids[(i + 1) % ids.length]!}.start`]));
  for (let k = 0; k < n; k++) {
    const x = 70 * k,
      id = (name: string) => `${name}_${k}`;
    // plate 60 × 40, corners of 8
    const names = ["p0", "q0", "p1", "q1", "p2", "q2", "p3", "q3"].map(id);
    line(id("p0"), [x + 8, 0], [x + 52, 0]);
    arc(id("q0"), [x + 52, 8], [x + 52, 0], [x + 60, 8]);
    line(id("p1"), [x + 60, 8], [x + 60, 32]);
    arc(id("q1"), [x + 52, 32], [x + 60, 32], [x + 52, 40]);
    line(id("p2"), [x + 52, 40], [x + 8, 40]);
    arc(id("q2"), [x + 8, 32], [x + 8, 40], [x, 32]);
    line(id("p3"), [x, 32], [x, 8]);
    arc(id("q3"), [x + 8, 8], [x, 8], [x + 8, 0]);
    chain(names);
    for (let i = 0; i < 4; i++) {
      tie(i % 2 ? "vertical" : "horizontal", [id(`p${i}`)]);
      tie("tangent", [id(`p${i}`), id(`q${i}`)]);
      tie("tangent", [id(`p${(i + 1) % 4}`), id(`q${i}`)]);
      if (i) tie("equal", [id("q0"), id(`q${i}`)]);
    }
    if (k) tie("equal", [`q0_${k - 1}`, id("q0")]);
    else size("radius", [id("q0")], 8);
    size("horizontal-distance", [`p3_${k}.start`, `p1_${k}.start`], 60);
    size("vertical-distance", [`p0_${k}.start`, `p2_${k}.start`], 40);
    if (k) size("horizontal-distance", [`p1_${k - 1}.start`, `p3_${k}.start`], 10);
    else tie("point-on-curve", [`p3_${k}.start`, "y-axis"]);
    if (k) tie("horizontal", [`p0_${k - 1}.start`, `p0_${k}.start`]);
    else tie("point-on-curve", [`p0_${k}.start`, "x-axis"]);
    // a slot
    const slot = ["s0", "t0", "s1", "t1"].map(id);
    line(id("s0"), [x + 20, 6], [x + 40, 6]);
    arc(id("t0"), [x + 40, 9], [x + 40, 6], [x + 40, 12]);
    line(id("s1"), [x + 40, 12], [x + 20, 12]);
    arc(id("t1"), [x + 20, 9], [x + 20, 12], [x + 20, 6]);
    chain(slot);
    for (const [l, a] of [
      ["s0", "t0"],
      ["s1", "t0"],
      ["s1", "t1"],
      ["s0", "t1"],
    ] as const)
      tie("tangent", [id(l), id(a)]);
    tie("horizontal", [id("s0")]);
    tie("equal", [id("t0"), id("t1")]);
    size("radius", [id("t0")], 3);
    size("length", [id("s0")], 20);
    size("horizontal-distance", [`p3_${k}.start`, `t1_${k}.centre`], 20);
    size("vertical-distance", [`p0_${k}.start`, `t1_${k}.centre`], 9);
    // two circles about one centre
    circle(id("c0"), [x + 30, 26], 6);
    circle(id("c1"), [x + 30, 26], 9);
    tie("concentric", [id("c0"), id("c1")]);
    size("diameter", [id("c0")], 12);
    size("ring", [id("c0"), id("c1")], 3);
    size("horizontal-distance", [`p3_${k}.start`, `c0_${k}.centre`], 30);
    size("vertical-distance", [`p0_${k}.start`, `c0_${k}.centre`], 26);
    // four holes in a row
    for (let i = 0; i < 4; i++) {
      circle(id(`h${i}`), [x + 15 + 10 * i, 37], 1);
      if (i) tie("equal", [id("h0"), id(`h${i}`)]);
      if (i > 1) tie("spaced", [`h0_${k}.centre`, `h1_${k}.centre`, `h0_${k}.centre`, `h${i}_${k}.centre`], i);
    }
    tie("horizontal", [`h0_${k}.centre`, `h1_${k}.centre`]);
    size("diameter", [id("h0")], 2);
    size("horizontal-distance", [`h0_${k}.centre`, `h1_${k}.centre`], 10);
    size("horizontal-distance", [`p3_${k}.start`, `h0_${k}.centre`], 15);
    size("vertical-distance", [`p0_${k}.start`, `h0_${k}.centre`], 37);
    // two slanting lines, alike to the left and to the right
    line(id("d0"), [x + 10, 16], [x + 14, 30]);
    line(id("d1"), [x + 50, 16], [x + 46, 30]);
    tie("equal", [id("d0"), id("d1")]);
    size("distance", [`d0_${k}.start`, `d1_${k}.start`], 40);
    tie("horizontal", [`d0_${k}.start`, `d1_${k}.start`]);
    tie("horizontal", [`d0_${k}.end`, `d1_${k}.end`]);
    size("length", [id("d0")], Math.hypot(4, 14));
    size("angle", [id("p0"), id("d0")], (Math.atan2(14, 4) * 180) / Math.PI);
    size("horizontal-distance", [`p3_${k}.start`, `d0_${k}.start`], 10);
    size("vertical-distance", [`p0_${k}.start`, `d0_${k}.start`], 16);
  }
  return s;
}

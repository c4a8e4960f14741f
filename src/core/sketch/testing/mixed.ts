import { emptySketch, type Constraint, type Dimension, type Sketch } from "../sketch";
import { seeded } from "./ladder";

type P = [number, number];

/**
 * A real-looking mixed sketch of 120 curves: a plate with rounded corners symmetric about both axes, slots with
 * tangent ends, a ring and a row of patterned holes, hexagons in circles, all fully defined.
 * @param disturb every coordinate is off by up to this much (mm) @param leaveOut drop this dimension
 */
export function mixed(disturb: number, seed = 1, leaveOut?: string): Sketch {
  const rnd = seeded(seed),
    s = emptySketch("top");
  const off = (v: number) => v + (rnd() * 2 - 1) * disturb;
  const at = ([x, y]: P): P => [off(x), off(y)];
  let n = 0;
  const tie = (kind: Constraint["kind"], of: string[], factor?: number) =>
    void s.constraints.push({ id: `k${n++}`, kind, of, ...(factor !== undefined && { factor }) });
  const size = (id: string, kind: Dimension["kind"], of: string[], value: number | string) =>
    void (id !== leaveOut && s.dimensions.push({ id, kind, of, value }));
  const line = (id: string, a: P, b: P) => void s.curves.push({ id, kind: "line", start: at(a), end: at(b) });
  const arc = (id: string, c: P, a: P, b: P) =>
    void s.curves.push({ id, kind: "arc", centre: at(c), start: at(a), end: at(b) });
  const circle = (id: string, c: P, r: number) =>
    void s.curves.push({ id, kind: "circle", centre: at(c), radius: r + disturb * (rnd() - 0.5) });
  const chain = (ids: string[]) =>
    ids.forEach((id, i) => tie("coincident", [`${id}.end`, `${ids[(i + 1) % ids.length]!}.start`]));

  // plate 200 × 120 with corners of radius 15: 8 curves
  const W = 100,
    H = 60,
    R = 15;
  line("p0", [-W + R, -H], [W - R, -H]);
  arc("q0", [W - R, -H + R], [W - R, -H], [W, -H + R]);
  line("p1", [W, -H + R], [W, H - R]);
  arc("q1", [W - R, H - R], [W, H - R], [W - R, H]);
  line("p2", [W - R, H], [-W + R, H]);
  arc("q2", [-W + R, H - R], [-W + R, H], [-W, H - R]);
  line("p3", [-W, H - R], [-W, -H + R]);
  arc("q3", [-W + R, -H + R], [-W, -H + R], [-W + R, -H]);
  chain(["p0", "q0", "p1", "q1", "p2", "q2", "p3", "q3"]);
  for (let i = 0; i < 4; i++) {
    tie(i % 2 ? "vertical" : "horizontal", [`p${i}`]);
    tie("tangent", [`p${i}`, `q${i}`]);
    tie("tangent", [`p${(i + 1) % 4}`, `q${i}`]);
    if (i) tie("equal", ["q0", `q${i}`]);
  }
  tie("symmetric", ["p1", "p3", "y-axis"]);
  tie("symmetric", ["p0", "p2", "x-axis"]);
  size("width", "horizontal-distance", ["p3.start", "p1.start"], 2 * W);
  size("height", "vertical-distance", ["p0.start", "p2.start"], 2 * H);
  size("corner", "radius", ["q0"], R);

  // six slots of 4 curves: 24
  for (let k = 0; k < 6; k++) {
    const x = -75 + 30 * k,
      y = -44,
      w = 12,
      r = 3,
      id = (i: number) => `s${k}_${i}`;
    line(id(0), [x, y - r], [x + w, y - r]);
    arc(id(1), [x + w, y], [x + w, y - r], [x + w, y + r]);
    line(id(2), [x + w, y + r], [x, y + r]);
    arc(id(3), [x, y], [x, y + r], [x, y - r]);
    chain([0, 1, 2, 3].map(id));
    for (const [l, a] of [
      [0, 1],
      [2, 1],
      [2, 3],
      [0, 3],
    ] as const)
      tie("tangent", [id(l), id(a)]);
    tie("equal", [id(1), id(3)]);
    tie("horizontal", [id(0)]);
    if (k) {
      tie("equal", ["s0_1", id(1)]);
      tie("equal", ["s0_0", id(0)]);
      tie("horizontal", [`s${k - 1}_3.centre`, `${id(3)}.centre`]);
      size(`pitch${k}`, "horizontal-distance", [`s${k - 1}_3.centre`, `${id(3)}.centre`], 30);
    } else {
      size("slot-x", "horizontal-distance", ["origin", `${id(3)}.centre`], 75);
      size("slot-y", "vertical-distance", ["origin", `${id(3)}.centre`], 44);
      size("slot-r", "radius", [id(1)], r);
      size("slot-w", "length", [id(0)], w);
    }
  }

  // a ring of 12 holes and its two circles: 14
  circle("ring", [0, 0], 30);
  circle("bore", [0, 0], 18);
  tie("coincident", ["ring.centre", "origin"]);
  tie("concentric", ["ring", "bore"]);
  size("ring-d", "diameter", ["ring"], 60);
  size("bore-d", "diameter", ["bore"], 36);
  for (let k = 0; k < 12; k++) {
    const t = (k * Math.PI) / 6;
    circle(`h${k}`, [24 * Math.cos(t), 24 * Math.sin(t)], 2);
    if (k) {
      tie("turned", ["h0.centre", `h${k}.centre`, "origin"], 30 * k);
      tie("equal", ["h0", `h${k}`]);
    }
  }
  tie("point-on-curve", ["h0.centre", "x-axis"]);
  size("hole-x", "horizontal-distance", ["origin", "h0.centre"], 24);
  size("hole-d", "diameter", ["h0"], 4);

  // a row of 16 holes along the top: 16
  for (let k = 0; k < 16; k++) {
    circle(`r${k}`, [-75 + 10 * k, 48], 1.5);
    if (k) tie("equal", ["r0", `r${k}`]);
    if (k > 1) tie("spaced", ["r0.centre", "r1.centre", "r0.centre", `r${k}.centre`], k);
  }
  tie("horizontal", ["r0.centre", "r1.centre"]);
  size("row-x", "horizontal-distance", ["origin", "r0.centre"], 75);
  size("row-y", "vertical-distance", ["origin", "r0.centre"], 48);
  size("row-pitch", "horizontal-distance", ["r0.centre", "r1.centre"], 10);
  size("row-d", "diameter", ["r0"], 3);

  // four hexagons in circles: 28
  [
    [-70, 0],
    [-70, 22],
    [70, 0],
    [70, 22],
  ].forEach(([x, y], k) => {
    const c: P = [x!, y!],
      corner = (i: number): P => [x! + 8 * Math.cos((i * Math.PI) / 3), y! + 8 * Math.sin((i * Math.PI) / 3)],
      id = (i: number) => `x${k}_${i}`;
    circle(`xc${k}`, c, 8);
    for (let i = 0; i < 6; i++) line(id(i), corner(i), corner((i + 1) % 6));
    chain([0, 1, 2, 3, 4, 5].map(id));
    for (let i = 0; i < 6; i++) {
      tie("point-on-curve", [`${id(i)}.start`, `xc${k}`]);
      if (i) tie("equal", [id(0), id(i)]);
    }
    tie("horizontal", [`xc${k}.centre`, `${id(0)}.start`]);
    size(`hex-d${k}`, "diameter", [`xc${k}`], 16);
    size(`hex-x${k}`, "horizontal-distance", ["origin", `xc${k}.centre`], Math.abs(x!));
    if (y) size(`hex-y${k}`, "vertical-distance", ["origin", `xc${k}.centre`], y);
    else tie("point-on-curve", [`xc${k}.centre`, "x-axis"]);
  });

  // five rounded notches of 6 curves, mirrored flanks and a tangent floor: 30
  for (let k = 0; k < 5; k++) {
    const x = -40 + 20 * k,
      y = -22,
      id = (i: number) => `n${k}_${i}`;
    line(id(0), [x - 6, y], [x - 5, y - 8]);
    arc(id(1), [x - 3.5, y - 8], [x - 5, y - 8], [x - 3.5, y - 9.5]);
    line(id(2), [x - 3.5, y - 9.5], [x + 3.5, y - 9.5]);
    arc(id(3), [x + 3.5, y - 8], [x + 3.5, y - 9.5], [x + 5, y - 8]);
    line(id(4), [x + 5, y - 8], [x + 6, y]);
    line(id(5), [x + 6, y], [x - 6, y]);
    chain([0, 1, 2, 3, 4, 5].map(id));
    tie("tangent", [id(0), id(1)]);
    tie("tangent", [id(2), id(1)]);
    tie("tangent", [id(2), id(3)]);
    tie("tangent", [id(4), id(3)]);
    tie("equal", [id(1), id(3)]);
    tie("horizontal", [id(2)]);
    tie("horizontal", [id(5)]);
    tie("equal", [id(0), id(4)]);
    size(
      `notch-x${k}`,
      "horizontal-distance",
      k ? [`n${k - 1}_5.start`, `${id(5)}.start`] : ["origin", `${id(5)}.start`],
      k ? 20 : 34,
    );
    size(`notch-w${k}`, "length", [id(5)], 12);
    size(`notch-r${k}`, "radius", [id(1)], 1.5);
    size(`notch-f${k}`, "length", [id(2)], 7);
    size(`notch-d${k}`, "vertical-distance", [`${id(2)}.start`, `${id(5)}.start`], 9.5);
    size(`notch-y${k}`, "vertical-distance", ["origin", `${id(5)}.start`], 22);
  }
  return s;
}

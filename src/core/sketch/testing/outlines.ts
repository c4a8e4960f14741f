import { emptySketch, type Curve, type Dimension, type Sketch } from "../sketch";

type Place = [number, number];
interface Said {
  readonly kind: string;
  readonly of: readonly string[];
  readonly value?: number;
}

const line = (id: string, start: Place, end: Place): Curve => ({ id, kind: "line", start, end });
const arc = (id: string, centre: Place, start: Place, end: Place): Curve => ({ id, kind: "arc", centre, start, end });
const numbered = (letter: string, list: readonly Said[]) =>
  list.map((said, i) => ({ id: `${letter}${i + 1}`, ...said }));
const sketchOf = (curves: Curve[], constraints: readonly Said[], sizes: readonly Said[]): Sketch => ({
  ...emptySketch("top"),
  curves,
  constraints: numbered("k", constraints) as unknown as Sketch["constraints"],
  dimensions: numbered("m", sizes) as unknown as Dimension[],
});

/** Ends of curves in a ring joined, each to the next. */
const ringOf = (ids: readonly string[]): (readonly [string, string])[] =>
  ids.map((id, i) => [id, ids[(i + 1) % ids.length]!] as const);
const joined = (ids: readonly string[]): Said[] =>
  ringOf(ids).map(([a, b]) => ({ kind: "coincident", of: [`${a}.end`, `${b}.start`] }));
/** Lines are named before arcs. */
const smooth = (ids: readonly string[]): Said[] =>
  ringOf(ids).map(([a, b]) => ({ kind: "tangent", of: b.startsWith("l") ? [b, a] : [a, b] }));
const equal = (ids: readonly string[]): Said[] => ids.slice(1).map((id) => ({ kind: "equal", of: [ids[0]!, id] }));

/** A rectangle with four tangent corners of one radius, mm; free to be moved. */
export function roundedOutline(wide: number, high: number, radius: number): Sketch {
  const [r, x, y] = [radius, wide - radius, high - radius];
  const curves = [
    line("l1", [r, 0], [x, 0]),
    arc("a1", [x, r], [x, 0], [wide, r]),
    line("l2", [wide, r], [wide, y]),
    arc("a2", [x, y], [wide, y], [x, high]),
    line("l3", [x, high], [r, high]),
    arc("a3", [r, y], [r, high], [0, y]),
    line("l4", [0, y], [0, r]),
    arc("a4", [r, r], [0, r], [r, 0]),
  ];
  const ids = curves.map((c) => c.id);
  const level: Said[] = [
    { kind: "horizontal", of: ["l1"] },
    { kind: "horizontal", of: ["l3"] },
    { kind: "vertical", of: ["l2"] },
    { kind: "vertical", of: ["l4"] },
  ];
  return sketchOf(
    curves,
    [...joined(ids), ...smooth(ids), ...level, ...equal(["a1", "a2", "a3", "a4"])],
    [
      { kind: "radius", of: ["a1"], value: radius },
      { kind: "vertical-distance", of: ["l1.start", "l3.end"], value: high },
      { kind: "horizontal-distance", of: ["l4.start", "l2.end"], value: wide },
    ],
  );
}

/** Two wide arcs and two narrow ones, all tangent, about the origin; nothing is free. mm. */
export function lidOutline(wide: number, narrow: number, apart: number): Sketch {
  const half = apart / 2,
    down = Math.sqrt((wide - narrow) ** 2 - half * half),
    [u, v] = [half / (wide - narrow), down / (wide - narrow)];
  const at = (x: 1 | -1, y: 1 | -1): Place => [x * (half + narrow * u), y * narrow * v];
  const curves = [
    arc("t", [0, -down], at(1, 1), at(-1, 1)),
    arc("w", [-half, 0], at(-1, 1), at(-1, -1)),
    arc("b", [0, down], at(-1, -1), at(1, -1)),
    arc("e", [half, 0], at(1, -1), at(1, 1)),
  ];
  const ids = curves.map((c) => c.id);
  return sketchOf(
    curves,
    [
      ...joined(ids),
      ...smooth(ids),
      ...equal(["t", "b"]),
      ...equal(["w", "e"]),
      { kind: "point-on-curve", of: ["w.centre", "x-axis"] },
      { kind: "point-on-curve", of: ["e.centre", "x-axis"] },
      { kind: "symmetric", of: ["w.centre", "e.centre", "y-axis"] },
    ],
    [
      { kind: "radius", of: ["t"], value: wide },
      { kind: "radius", of: ["w"], value: narrow },
      { kind: "distance", of: ["w.centre", "e.centre"], value: apart },
    ],
  );
}

/** So many teeth of arcs about the origin and slanting flanks, all alike; where they stand is free. mm. */
export function gearOutline(teeth: number, outer: number, inner: number): Sketch {
  const step = (2 * Math.PI) / teeth,
    at = (radius: number, turns: number): Place => [radius * Math.cos(turns * step), radius * Math.sin(turns * step)];
  const each = Array.from({ length: teeth }, (_, i) => i);
  const curves = each.flatMap((i) => [
    arc(`o${i}`, [0, 0], at(outer, i - 0.2), at(outer, i + 0.2)),
    line(`lf${i}`, at(outer, i + 0.2), at(inner, i + 0.3)),
    arc(`i${i}`, [0, 0], at(inner, i + 0.3), at(inner, i + 0.7)),
    line(`lg${i}`, at(inner, i + 0.7), at(outer, i + 0.8)),
  ]);
  const named = (letter: string) => each.map((i) => `${letter}${i}`);
  const centred = [...named("o"), ...named("i")].map((id): Said => ({
    kind: "coincident",
    of: [`${id}.centre`, "origin"],
  }));
  return sketchOf(
    curves,
    [
      ...joined(curves.map((c) => c.id)),
      ...centred,
      ...equal(named("o")),
      ...equal(named("i")),
      ...equal([...named("lf"), ...named("lg")]),
    ],
    [
      { kind: "radius", of: ["o0"], value: outer },
      { kind: "radius", of: ["i0"], value: inner },
    ],
  );
}

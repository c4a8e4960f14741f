import { emptySketch, type Constraint, type Dimension, type Sketch } from "../sketch";
import { solveSketch, type Diagnosis } from "../solve";

export type Extra = [kind: string, of: string[], value?: number | string][];
/** A rectangle a b c d (bottom, right, top, left) with horizontal and vertical sides, plus what is asked for. */
export function sketchOf(curves: Sketch["curves"], relations: Extra): Sketch {
  const s = emptySketch("top");
  s.curves.push(...curves);
  relations.forEach(([kind, of, value], i) => {
    if (value === undefined) s.constraints.push({ id: `k${i}`, kind: kind as Constraint["kind"], of });
    else s.dimensions.push({ id: `m${i}`, kind: kind as Dimension["kind"], of, value });
  });
  return s;
}
export const line = (id: string, start: [number, number], end: [number, number]) => ({
  id,
  kind: "line" as const,
  start,
  end,
});
export const circle = (id: string, centre: [number, number], radius: number) => ({
  id,
  kind: "circle" as const,
  centre,
  radius,
});
export const box = [
  line("a", [0.3, -0.2], [38, 0.4]),
  line("b", [41, 0.1], [40, 19]),
  line("c", [39, 21], [1, 20]),
  line("d", [0, 22], [0.1, 0.2]),
];
export const boxRelations: Extra = [
  ["coincident", ["a.end", "b.start"]],
  ["coincident", ["b.end", "c.start"]],
  ["coincident", ["c.end", "d.start"]],
  ["coincident", ["d.end", "a.start"]],
  ["horizontal", ["a"]],
  ["vertical", ["b"]],
  ["horizontal", ["c"]],
  ["vertical", ["d"]],
];
export const solve = (s: Sketch): Diagnosis => {
  const r = solveSketch(s, "mm");
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

import { COINCIDENT } from "@/core/geometry/tolerance";
import type { Vec2 } from "@/core/geometry/vector";
import type { DrawnDimension } from "./placing";
import { element } from "./svg";

/** Sizes on paper, mm: lettering of ISO 3098 (5), thin lines of ISO 128. */
export const LETTER = 5;
export const THIN = 0.3;
const TIER = 9;
const FIRST = 8;
const ARROW = 3.4;
const WIDTH = 0.62 * LETTER;

export interface Box {
  readonly min: Vec2;
  readonly max: Vec2;
}

/** Maps view coordinates to paper (y downwards). */
export type ToPaper = (p: Vec2) => Vec2;

const line = (a: Vec2, b: Vec2) => element("line", { x1: a[0], y1: a[1], x2: b[0], y2: b[1] });
const arrow = (tip: Vec2, toward: Vec2) => {
  const l = Math.hypot(toward[0] - tip[0], toward[1] - tip[1]) || 1;
  const u: Vec2 = [(toward[0] - tip[0]) / l, (toward[1] - tip[1]) / l];
  const base: Vec2 = [tip[0] + u[0] * ARROW, tip[1] + u[1] * ARROW];
  const w = ARROW / 6;
  const left: Vec2 = [base[0] - u[1] * w, base[1] + u[0] * w];
  const right: Vec2 = [base[0] + u[1] * w, base[1] - u[0] * w];
  return element("path", { d: `M${[tip, left, right].map((p) => p.map(r).join(" ")).join("L")}Z`, class: "arrow" });
};
const r = (n: number) => Math.round(n * 1000) / 1000;

const group = (d: DrawnDimension, parts: string[]) =>
  element(
    "g",
    { class: "dimension", "data-dimension": d.id, "data-kind": d.kind, tabindex: 0 },
    element("title", {}, d.kind),
    ...parts,
  );
const lettering = (p: Vec2, text: string, anchor: "start" | "middle" | "end", turned = false) =>
  element(
    "text",
    {
      x: p[0],
      y: p[1],
      "text-anchor": anchor,
      "font-size": LETTER,
      transform: turned ? `rotate(-90 ${r(p[0])} ${r(p[1])})` : undefined,
    },
    text.replace(/&/g, "&amp;"),
  );

/**
 * Draws the dimensions of one view around its box: horizontal ones above, upright ones at the left, the smaller nearer
 * to the part; round ones by leaders to the right, below.
 */
export function drawDimensions(list: readonly DrawnDimension[], toPaper: ToPaper, box: Box): string {
  const out: string[] = [];
  const linear = (along: "x" | "y") =>
    list.filter((d) => d.along === along).sort((a, b) => a.values[0]! - b.values[0]!);
  linear("x").forEach((d, tier) => {
    const a = toPaper(d.a),
      b = toPaper(d.b);
    const y = box.min[1] - FIRST - tier * TIER;
    out.push(
      group(d, [
        line([a[0], a[1] - 1], [a[0], y - 1.5]),
        line([b[0], b[1] - 1], [b[0], y - 1.5]),
        ...between([a[0], y], [b[0], y], d.text),
      ]),
    );
  });
  linear("y").forEach((d, tier) => {
    const a = toPaper(d.a),
      b = toPaper(d.b);
    const x = box.min[0] - FIRST - tier * TIER;
    out.push(
      group(d, [
        line([a[0] - 1, a[1]], [x - 1.5, a[1]]),
        line([b[0] - 1, b[1]], [x - 1.5, b[1]]),
        ...between([x, a[1]], [x, b[1]], d.text),
      ]),
    );
  });
  const round = list.filter((d) => !d.along).sort((p, q) => toPaper(p.a)[1] - toPaper(q.a)[1]);
  round.forEach((d, i) => {
    const c = toPaper(d.a),
      rim = toPaper(d.b);
    const radius = Math.hypot(rim[0] - c[0], rim[1] - c[1]);
    const shelf: Vec2 = [box.max[0] + 4, Math.max(box.min[1] + 2 + i * (LETTER + 3.5), 0)];
    const l = Math.hypot(shelf[0] - c[0], shelf[1] - c[1]) || 1;
    const tip: Vec2 = [c[0] + ((shelf[0] - c[0]) / l) * radius, c[1] + ((shelf[1] - c[1]) / l) * radius];
    const end: Vec2 = [shelf[0] + d.text.length * WIDTH + 1, shelf[1]];
    out.push(
      group(d, [
        line(tip, shelf),
        line(shelf, end),
        arrow(tip, shelf),
        lettering([shelf[0] + 0.8, shelf[1] - 1], d.text, "start"),
      ]),
    );
  });
  return out.join("");
}

/** Dimension line with its number above; arrows turn inward when there is no room. */
function between(a: Vec2, b: Vec2, text: string): string[] {
  const upright = Math.abs(a[0] - b[0]) < COINCIDENT;
  const [p, q] = (upright ? a[1] > b[1] : a[0] < b[0]) ? [a, b] : [b, a];
  const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
  const room = length > text.length * WIDTH + 2;
  const arrows = length > 2.6 * ARROW;
  const u: Vec2 = [(q[0] - p[0]) / (length || 1), (q[1] - p[1]) / (length || 1)];
  const out = (t: Vec2, s: number): Vec2 => [t[0] + u[0] * s, t[1] + u[1] * s];
  const mid: Vec2 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
  const at: Vec2 = room ? mid : out(q, ARROW + 1 + (text.length * WIDTH) / 2 + (arrows ? -ARROW : 0));
  const spot: Vec2 = upright ? [at[0] - 1, at[1]] : [at[0], at[1] - 1];
  const ends = arrows ? [arrow(p, q), arrow(q, p)] : [arrow(p, out(p, -9)), arrow(q, out(q, 9)), line(out(p, -6), p)];
  return [
    line(p, room ? q : out(q, (arrows ? 0 : ARROW) + text.length * WIDTH + 1)),
    ...ends,
    lettering(spot, text, "middle", upright),
  ];
}

/** How much paper the dimensions of a view want above, at the left and at the right. */
export function dimensionRoom(list: readonly DrawnDimension[]): { above: number; left: number; right: number } {
  const tiers = (along: "x" | "y") => list.filter((d) => d.along === along).length;
  const widest = Math.max(0, ...list.filter((d) => !d.along).map((d) => d.text.length * WIDTH + 6));
  const need = (n: number) => (n ? FIRST + (n - 1) * TIER + LETTER + 2 : 3);
  return { above: need(tiers("x")), left: need(tiers("y")), right: widest || 3 };
}

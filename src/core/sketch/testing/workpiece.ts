import { expect } from "vitest";
import { applyToSketch } from "../commands";
import type { SketchCommand } from "../command-schema";
import { findRegions } from "../regions";
import { polyline, rectangle } from "../shapes";
import { emptySketch, pointAt, type Sketch } from "../sketch";
import { solveSketch } from "../solve";

/** The sketch that commands are tried on, mm, and what the last one told; `clean` begins anew. */
export let s: Sketch = emptySketch("top");
export let notice: string | undefined;
export const clean = (base: "top" | "front" = "top"): void => void (s = emptySketch(base));
export const run = (command: SketchCommand): void => {
  const r = applyToSketch(s, command, "mm");
  if (!r.ok) throw new Error(r.refusal.sentence);
  s = r.value;
  notice = r.notice;
};
export const refusal = (command: SketchCommand) => {
  const r = applyToSketch(s, command, "mm");
  return r.ok ? "accepted" : r.refusal.code;
};
export const diagnosis = () => {
  const r = solveSketch(s, "mm");
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};
export const area = () => findRegions(s).regions.reduce((sum, r) => sum + r.area, 0);
export const pin = (kind: string, of: string[], value?: number | string) =>
  run(
    value === undefined
      ? ({ do: "constrain", kind, of } as SketchCommand)
      : ({ do: "dimension", kind, of, value } as SketchCommand),
  );
/** 40 × 20 at the origin, fully defined: l1 bottom, l2 right, l3 top, l4 left. */
export const plate = () => {
  run(rectangle(s, [0, 0], [40, 20]));
  pin("coincident", ["l1.start", "origin"]);
  pin("length", ["l1"], 40);
  pin("length", ["l2"], 20);
};
export const line = (a: [number, number], b: [number, number]) => run(polyline(s, [a, b], false));
export const near = (ref: string, [x, y]: [number, number]) => {
  const p = pointAt(s, ref);
  expect(Math.hypot(p[0] - x, p[1] - y), `${ref} at ${p.join()}`).toBeLessThan(1e-7);
};

import { lengthText, type LengthUnit } from "@/core/units/quantity";
import type { Region } from "./regions";
import type { Sketch } from "./sketch";
import { countedOff, wordsFor } from "./words";
import { segmentBox } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";

const curvesOf = (loop: Region["outer"]): string[] => [...new Set(loop.map((s) => s.curve))];

/** The box around a region's outline: its sides and its middle. */
function boxOf(r: Region): { readonly size: Vec2; readonly middle: Vec2 } {
  const corners = r.outer.flatMap(segmentBox);
  const side = (k: 0 | 1) => {
    const values = corners.map((c) => c[k]);
    return [Math.min(...values), Math.max(...values)] as const;
  };
  const [x, y] = [side(0), side(1)];
  return { size: [x[1] - x[0], y[1] - y[0]], middle: [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2] };
}

/**
 * Regions of a sketch as a person would call them, each by words of its own: "inside the circle ⌀20",
 * "outline 40 × 30 mm, less 2 holes".
 */
export function regionCalls(regions: readonly Region[], sketch: Pick<Sketch, "curves">, unit: LengthUnit): string[] {
  const call = wordsFor(sketch, unit);
  const calls = regions.map((r) => {
    const [only, ...more] = curvesOf(r.outer);
    const { size } = boxOf(r);
    const outline = `outline ${lengthText(size[0], unit, false)} × ${lengthText(size[1], unit)}`;
    const holes = r.holes.length > 1 ? `, less ${r.holes.length} holes` : ", less its hole";
    return `${only && !more.length ? `inside ${call(only)}` : outline}${r.holes.length ? holes : ""}`;
  });
  const alike = new Map<string, number[]>();
  calls.forEach((c, i) => alike.set(c, [...(alike.get(c) ?? []), i]));
  for (const list of alike.values()) {
    if (list.length < 2) continue;
    const places = countedOff(list.map((i) => boxOf(regions[i]!).middle));
    list.forEach((i, k) => (calls[i] += places[k]!));
  }
  return calls;
}

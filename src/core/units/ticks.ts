import { TICK } from "./tolerance";

/**
 * Round values between two ends, 1, 2 or 5 times a power of ten apart: for the axis of a chart.
 * @param most so many at most, where there is room for no more
 */
export function roundTicks(from: number, to: number, most = 5): number[] {
  if (!(to > from)) return [from];
  const rough = (to - from) / Math.max(1, most - 1);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough * (1 - TICK))!;
  const first = Math.ceil(from / step - TICK),
    last = Math.floor(to / step + TICK);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => Number(((first + i) * step).toPrecision(12)));
}

/** Whole numbers from 0 to at least as many as there are. */
export function countTicks(most: number): number[] {
  const step = roundTicks(0, Math.max(1, most), 6)[1] ?? 1;
  const whole = Math.max(1, Math.ceil(step));
  return Array.from({ length: Math.ceil(Math.max(1, most) / whole) + 1 }, (_, i) => i * whole);
}

/** How wide each of at most so many classes is: round, 1 at least. */
export function roundWidth(all: number, most: number): number {
  for (let power = 1; ; power *= 10) for (const m of [1, 2, 5]) if (m * power * most >= all) return m * power;
}

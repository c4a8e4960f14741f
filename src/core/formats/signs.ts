import type { Vec2 } from "@/core/geometry/vector";

/**
 * Signs of ISO 129 and ASME Y14.5 that lettering fonts lack, as strokes: in heights of capitals, from the base line,
 * within the width of one sign (0.87).
 */
const ring = (radius: number, x: number, y: number): Vec2[] =>
  Array.from({ length: 25 }, (_, i): Vec2 => {
    const t = (i / 24) * 2 * Math.PI;
    return [x + radius * Math.cos(t), y + radius * Math.sin(t)];
  });

const SIGNS: Readonly<Record<string, readonly (readonly Vec2[])[]>> = {
  "⌀": [
    ring(0.32, 0.43, 0.45),
    [
      [0.12, 0],
      [0.74, 0.9],
    ],
  ],
  "⌴": [
    [
      [0.1, 0.75],
      [0.1, 0.1],
      [0.77, 0.1],
      [0.77, 0.75],
    ],
  ],
  "⌵": [
    [
      [0.08, 0.75],
      [0.43, 0.1],
      [0.79, 0.75],
    ],
  ],
  "↧": [
    [
      [0.15, 0.9],
      [0.72, 0.9],
    ],
    [
      [0.43, 0.9],
      [0.43, 0.05],
    ],
    [
      [0.22, 0.35],
      [0.43, 0.05],
      [0.65, 0.35],
    ],
  ],
  "⌒": [
    Array.from({ length: 13 }, (_, i): Vec2 => [
      0.43 - 0.33 * Math.cos((i / 12) * Math.PI),
      0.3 + 0.4 * Math.sin((i / 12) * Math.PI),
    ]),
  ],
};

/** The strokes of a sign; undefined for what the font has itself. */
export const signStrokes = (c: string): readonly (readonly Vec2[])[] | undefined => SIGNS[c];

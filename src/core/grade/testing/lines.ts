import type { Grade, GradedLine } from "../grade";

/** A line of a grade, as a check would give it. */
export const line = (id: string, points: number, of: number, more: Partial<GradedLine> = {}): GradedLine => ({
  id,
  check: "mass",
  title: id,
  points,
  of,
  verdict: points === of ? "met" : "missed",
  sentence: `${id} 98 g, wanted 100 g`,
  studentSentence: `${id} 98 g`,
  ...more,
});

/** A grade of such lines. */
export const gradeOf = (...lines: GradedLine[]): Grade => ({
  points: lines.reduce((s, l) => s + l.points, 0),
  of: lines.filter((l) => !l.bonus).reduce((s, l) => s + l.of, 0),
  lines,
});

import type { Preview } from "@/core/grade/preview";

/** What a mistake would cost in a line. */
export interface Cost {
  readonly label: string;
  /** Without where the number stands. */
  readonly short: string;
  readonly cost: number;
}

/** So many costs stand beside a line. */
const SHOWN_COSTS = 2;

/** "2 · Extrude: depth: 44 mm instead of 40 mm" begins with where; the number tells it as well. */
const shortOf = (label: string): string =>
  label.includes(" instead of ") ? label.slice(label.lastIndexOf(": ") + (label.includes(": ") ? 2 : 1)) : label;

/** What mistakes would cost in a line, the dearest first; of those with like numbers one. */
export function costsOf(preview: Preview | undefined, line: string): Cost[] {
  return (preview?.mistakes ?? [])
    .flatMap(({ label, grade }) => {
      const found = grade.lines.find((l) => l.id === line);
      const cost = found && found.check !== "hand" ? Number((found.of - found.points).toFixed(2)) : 0;
      return cost > 0 ? [{ label, short: shortOf(label), cost }] : [];
    })
    .sort((a, b) => b.cost - a.cost)
    .filter((c, i, all) => all.findIndex((o) => o.short === c.short) === i)
    .slice(0, SHOWN_COSTS);
}

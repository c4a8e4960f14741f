import { begun } from "@/core/naming/words";
import type { RankTable } from "@/core/sizes/sizes";
import { percentText } from "@/core/units/amounts";

/** One thing that a Sheet leaves open, or says badly. */
interface OpenPoint {
  readonly kind: "missing" | "twice" | "contradicts" | "rounded" | "unplaced" | "one-wall" | "otherwise";
  readonly sentence: string;
  /** Sizes it is about. */
  readonly sizes: readonly string[];
  /** Driving numbers of the reference it is about. */
  readonly numbers: readonly string[];
}

/** Whether a Sheet says enough, and only once. */
export interface Proof {
  readonly points: readonly OpenPoint[];
  /** How many ways the shape can change, and how many the Sheet tells. */
  readonly ways: number;
  readonly told: number;
  /** The least tolerance of volume and mass that somebody who works from the print can always meet; a share. */
  readonly attainable: number;
}

interface Printed {
  readonly table: RankTable;
  /** Printed texts by size. */
  readonly texts: ReadonlyMap<string, string>;
  /** Sizes that no view shows. */
  readonly unplaced: readonly string[];
  /** mm³. */
  readonly volume: number;
  /** What the exercise allows the mass to be off; a share. */
  readonly tolerance: number;
  /** Holes that end in a hollow, as a person calls them. */
  readonly endingInside: readonly string[];
  /** The general tolerance that its words name where sizes are judged by another, and that other. */
  readonly otherwise?: { readonly said: string; readonly judged: string } | undefined;
}

/** Rounded numbers may use up so much of the tolerance before it is said. */
const SHARE_OF_TOLERANCE = 0.5;
const MOST_NAMED = 3;

/** Proves a Sheet by the table of how its sizes follow the numbers that the reference was made with. */
export function proofOf({ table, texts, unplaced, volume, tolerance, endingInside, otherwise }: Printed): Proof {
  const text = (id: string) => texts.get(id) ?? "a size";
  const points: OpenPoint[] = [];
  const give = (p: Omit<OpenPoint, "sizes" | "numbers"> & Partial<OpenPoint>) =>
    points.push({ sizes: [], numbers: [], ...p });
  for (const i of table.hidden) {
    const n = table.numbers[i]!;
    give({ kind: "missing", sentence: `Nobody can find “${n.label}” from this Sheet.`, numbers: [n.id] });
  }
  const lacking = table.ways - table.told;
  if (lacking > 0 && !table.hidden.length)
    give({ kind: "missing", sentence: `${lacking} way${lacking > 1 ? "s" : ""} the shape can change is not told.` });
  const contradicting = new Set(table.contradicting);
  for (const id of table.repeating)
    give(
      contradicting.has(id)
        ? { kind: "contradicts", sentence: `${text(id)} contradicts the others, rounded as they are.`, sizes: [id] }
        : {
            kind: "twice",
            sentence: `${text(id)} follows from the others: leave it out, or put it in parentheses.`,
            sizes: [id],
          },
    );
  const attainable = table.uncertain / volume;
  if (attainable > SHARE_OF_TOLERANCE * tolerance) {
    const worst = (table.rounding ?? []).slice(0, MOST_NAMED);
    const named = worst.map((w) => text(w.id)).join(", ");
    give({
      kind: "rounded",
      sentence:
        `Worked from the print, the mass may be off by ${percentText(attainable)}, and ${percentText(tolerance)} is ` +
        `allowed. Letter ${named || "the sizes"} with another decimal.`,
      sizes: worst.map((w) => w.id),
    });
  }
  for (const id of unplaced) give({ kind: "unplaced", sentence: `${text(id)} is shown in no view.`, sizes: [id] });
  for (const hole of endingInside)
    give({ kind: "one-wall", sentence: `${begun(hole)} ends in a hollow: say that it goes through one wall only.` });
  if (otherwise)
    give({
      kind: "otherwise",
      sentence: `The Sheet says ${otherwise.said}, and sizes are judged by ${otherwise.judged}: let one be the other.`,
    });
  return { points, ways: table.ways, told: table.told, attainable };
}

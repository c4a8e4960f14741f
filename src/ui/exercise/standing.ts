import type { Exercise } from "@/core/check/exercise/exercise";
import type { Preview } from "@/core/grade/preview";
import { generalOf, generalText } from "@/core/sheet/subject";
import { massText } from "@/core/units/amounts";
import type { Measures } from "./store";

/** The five places of making an exercise, in the order of the work. */
export const STATIONS = ["part", "sheet", "check", "points", "give"] as const;
export type Station = (typeof STATIONS)[number];
export const STATION_NAMES: Readonly<Record<Station, string>> = {
  part: "Part",
  sheet: "Sheet",
  check: "Check",
  points: "Points",
  give: "Give out",
};

/** How often an exercise was given out, and when the last was due, as it is shown. */
export interface Given {
  readonly times: number;
  readonly due: string | undefined;
}

/** Where a station stands: whether it is in order, and in one line how. */
export interface Standing {
  readonly isDone: boolean;
  readonly text: string;
}

const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** What a rubric is out of: bonus lines lift the points, and never what they are out of. */
export const pointsOf = ({ rubric }: Pick<Exercise, "rubric">): number =>
  Number(rubric.reduce((sum, l) => sum + (l.bonus ? 0 : l.points), 0).toPrecision(10));

/** What one number misread costs, where it was tried: the middle of those that cost something. */
export function slipCost(preview: Preview | undefined): number | undefined {
  if (!preview) return undefined;
  const costs = preview.mistakes
    .filter((m) => m.label.includes(" instead of "))
    .map((m) => m.grade.of - m.grade.points)
    .filter((c) => c > 0)
    .sort((a, b) => a - b);
  const middle = costs[Math.floor((costs.length - 1) / 2)];
  return middle === undefined ? undefined : Number(middle.toFixed(1));
}

function partStanding(e: Exercise, m: Measures | undefined): Standing {
  const { steps } = e.reference;
  if (!steps.length) return { isDone: false, text: "not built yet" };
  if (!m) return { isDone: false, text: count(steps.length, "step") };
  const defined = m.loose ? `${count(m.loose, "sketch", "sketches")} not fully defined` : "fully defined";
  const isFile = steps.some((s) => s.kind === "imported");
  const how = isFile ? "from a file" : defined;
  return {
    isDone: isFile || !m.loose,
    text: `${how}, ${count(m.bodies ?? 1, "body", "bodies")}, ${massText(m.mass, e.massUnit)}`,
  };
}

function sheetStanding(m: Measures | undefined): Standing {
  if (!m?.proof) return { isDone: false, text: "drawn when there is a part" };
  const open = m.proof.points.length;
  return open
    ? { isDone: false, text: `${count(open, "point")} open` }
    : { isDone: true, text: "says all there is, nothing twice" };
}

function checkStanding(e: Exercise, m: Measures | undefined): Standing {
  const general = generalText(generalOf(e), e);
  if (!m) return { isDone: false, text: general };
  return { isDone: true, text: `${count(m.sheet.dimensions.length, "size")}, ${general}` };
}

function pointsStanding(e: Exercise, slip: number | undefined): Standing {
  const all = pointsOf(e);
  return { isDone: all > 0, text: `${all} points${slip === undefined ? "" : `; one slip costs ${slip}`}` };
}

function givenStanding({ times, due }: Given): Standing {
  const often = times === 1 ? "once" : `${times} times`;
  return times
    ? { isDone: true, text: `issued ${times === 2 ? "twice" : often}${due ? `, due ${due}` : ""}` }
    : { isDone: false, text: "not given out yet" };
}

/** Where each station stands. @param slip what one number misread costs, where it was tried */
export const standings = (
  e: Exercise,
  m: Measures | undefined,
  given: Given,
  slip: number | undefined,
): Readonly<Record<Station, Standing>> => ({
  part: partStanding(e, m),
  sheet: sheetStanding(m),
  check: checkStanding(e, m),
  points: pointsStanding(e, slip),
  give: givenStanding(given),
});

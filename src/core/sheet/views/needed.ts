import type { Item } from "../sizes/items";
import { ALONG_VIEW } from "../tolerance";
import type { View } from "./views";

/** As few views as show every size as well as all would; the main view always, and one more of what is not turned. */
export function neededViews(
  all: readonly View[],
  place: (views: readonly View[]) => { items: Item[] },
): readonly View[] {
  const least = all[0]!.name === "long" ? 1 : 2;
  const faults = (views: readonly View[]) => {
    const { items } = place(views);
    return items.reduce((s, i) => s + i.presentations[0]!.fault, 0) - SHOWN * items.length;
  };
  let views = all;
  const whole = faults(all);
  // the last are the first to go
  for (const v of [...all].reverse()) {
    const fewer = views.filter((o) => o !== v);
    const isNeeded = v === all[0] || showsOwnShape(v, fewer);
    if (!isNeeded && fewer.length >= least && faults(fewer) <= whole + SLIGHT) views = fewer;
  }
  return lettered(views);
}
/** A size that is shown is worth more than any fault; and how much worse is still as good. */
const SHOWN = 1_000;
const SLIGHT = 15;

/** Sections taken from other views get letters in their order. */
function lettered(views: readonly View[]): readonly View[] {
  const cuts = views.filter((v) => v.name === "section");
  return views.map((v) => (cuts.includes(v) ? { ...v, letter: LETTERS[cuts.indexOf(v)]! } : v));
}
const LETTERS = "ABCDEFGH";

/** Whether only this view shows an outline that is more than a rectangle. */
function showsOwnShape(v: View, others: readonly View[]): boolean {
  const isShaped = (o: View) => o.strokes.some((s) => !s.hidden && (s.kind !== "line" || isSlanting(s.a, s.b)));
  if (!isShaped(v)) return outlineCorners(v) > 4 && !others.some((o) => outlineCorners(o) > 4);
  return !others.some(isShaped);
}
const isSlanting = (a: readonly number[], b: readonly number[]) =>
  Math.min(Math.abs(a[0]! - b[0]!), Math.abs(a[1]! - b[1]!)) > ALONG_VIEW / 1000;
const outlineCorners = (v: View): number => v.strokes.filter((s) => !s.hidden && s.kind === "line").length;

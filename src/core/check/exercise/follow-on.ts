import { angleText, lengthText } from "@/core/units/quantity";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Exercise } from "./exercise";
import { numbersThatMayVary, withOwnNumbers } from "./own-numbers";
import { cut } from "@/core/units/text";

/**
 * The next exercise of a series: the same part with one number changed, begun from the student's own part of the
 * exercise before. Whoever has tied sizes to each other well is done soon.
 * @param to mm or radians
 */
export function followOn(before: Exercise, number: string, to: number): Outcome<Exercise> {
  const known = numbersThatMayVary(before).find((n) => n.id === number);
  if (!known) return refuse("no-number", "The reference does not have this number.");
  const changed = withOwnNumbers(before, [{ number, value: to }]);
  if (!changed.ok) return changed;
  const { varies: _, ...rest } = changed.value;
  const text = (v: number) => (known.quantity === "angle" ? angleText(v) : lengthText(v, before.units));
  const place = (before.series?.place ?? 1) + 1;
  return done({
    ...rest,
    number: nextNumber(before.number),
    title: cut(`${before.title}, changed`, 120),
    brief:
      `Go on from your own part of ${before.number || before.title}: one size that was ${text(known.value)} is ` +
      `${text(to)} now. Find it on the Sheet, and change your part so that everything else stays right.`,
    series: { name: before.series?.name ?? cut(before.title, 60), place },
    start: { from: "own", number: before.number },
  });
}

/** "WS-04" goes on as "WS-04b", that as "WS-04c". */
function nextNumber(number: string): string {
  const last = /^(.*\d)([a-y])$/.exec(number);
  const next = last ? `${last[1]}${String.fromCharCode(last[2]!.charCodeAt(0) + 1)}` : `${number}b`;
  return next.slice(0, 20);
}

import type { AFTER_DUE } from "@/core/check/exercise/terms";
import type { Grade } from "./grade";

/** What happens to work that comes after it was due. */
export interface DueRules {
  readonly due_at: Date;
  readonly grace_minutes: number;
  readonly after_due: (typeof AFTER_DUE)[number];
  readonly points_a_day: number;
  /** From then on nothing is taken whatever else holds; left out: it stays open. */
  readonly closes_at?: Date | null;
}

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

/** How late something is at a moment, seconds; 0 within the grace. Beyond it the whole time since it was due counts. */
export function lateSeconds(rules: DueRules, at: Date): number {
  const late = at.getTime() - rules.due_at.getTime();
  return late > rules.grace_minutes * MINUTE ? Math.floor(late / 1000) : 0;
}

/** Once it closes no grace holds; but whoever was given more time than until then has that. */
export const isClosed = (rules: DueRules, at: Date): boolean => {
  const { closes_at: closes, due_at: due } = rules;
  const isShut = closes ? at > (closes > due ? closes : due) : false;
  return isShut || (rules.after_due === "refuse" && lateSeconds(rules, at) > 0);
};

/** Points that are left of a grade by the rules, never below 0. Each day begun counts. */
export function pointsAfter(rules: DueRules, grade: Pick<Grade, "points">, late: number): number {
  if (rules.after_due !== "points" || !late) return grade.points;
  return Math.max(0, grade.points - Math.ceil((late * 1000) / DAY) * rules.points_a_day);
}

/** "2 days 3 h", "5 h 20 min", "12 min": two units at most, rounded down, at least a minute. */
export function spanText(seconds: number): string {
  const minutes = Math.max(1, Math.floor(seconds / 60)),
    hours = Math.floor(minutes / 60),
    days = Math.floor(hours / 24);
  const day = `${days} day${days === 1 ? "" : "s"}`;
  if (days) return hours % 24 ? `${day} ${hours % 24} h` : day;
  if (hours) return minutes % 60 ? `${hours} h ${minutes % 60} min` : `${hours} h`;
  return `${minutes} min`;
}

/** How many tries a student has had, and how many there are; none: any number. */
export interface Tries {
  readonly used: number;
  readonly most: number | null;
}
export const areTriesUsed = ({ used, most }: Tries): boolean => most !== null && used >= most;

/** What is left of the tries, for whoever is about to hand in; empty where there is no limit. */
export function triesLeftText(t: Tries): string {
  if (t.most === null) return "";
  if (areTriesUsed(t)) return triesUsedText(t.most);
  const left = t.most - t.used - 1;
  const after = left === 1 ? "one is left afterwards" : `${left} are left afterwards`;
  return `This is try ${t.used + 1} of ${t.most}: ${left ? after : "none is left afterwards"}.`;
}

/** Why nothing more can be handed in. */
export const triesUsedText = (most: number): string =>
  most === 1
    ? "This handout takes one try, and yours is handed in. Your part stays as it is."
    : `All ${most} tries of this handout are used. Your part stays as it is.`;

/** How many tries there are, and which counts; empty where there is nothing to say. */
export function triesText({
  attempts_most: most,
  counts,
}: {
  attempts_most: number | null;
  counts: "last" | "best";
}): string {
  if (most === 1) return "There is one try.";
  const which = `the ${counts} counts`;
  if (most !== null) return `There are ${most} tries; ${which}.`;
  return counts === "best" ? "Of all tries the best counts." : "";
}

/** What the rules say, for those who read them. */
export function rulesText(rules: Omit<DueRules, "due_at">): string {
  const after = rules.grace_minutes
    ? `more than ${spanText(rules.grace_minutes * 60)} after it was due`
    : "after it was due";
  if (rules.after_due === "refuse") return `Nothing is taken ${after}.`;
  if (rules.after_due === "points") {
    const points = `${rules.points_a_day} point${rules.points_a_day === 1 ? "" : "s"}`;
    return `For what comes ${after}, each day begun costs ${points}.`;
  }
  return `What comes ${after} is marked late.`;
}

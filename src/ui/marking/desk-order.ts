import { NEEDS, type Need } from "@/core/grade/mark";
import type { QueueRow } from "@/server/marking/desk-queue";

/** Under what a submission stands in the queue, what needs a person first. */
export const GROUPS = [
  "Needs you",
  "To look through",
  "Waits for the student",
  "Looked at",
  "Being checked",
  "Returned",
  "Not handed in",
] as const;
export type Group = (typeof GROUPS)[number];

export function groupOf(row: QueueRow): Group {
  if (!row.submission) return "Not handed in";
  if (row.state === "queued" || row.state === "checking") return "Being checked";
  if (row.needs.length) return "Needs you";
  if (row.turn === "student") return "Waits for the student";
  if (row.isReturned) return "Returned";
  return row.isAccepted ? "Looked at" : "To look through";
}

/** How urgent what is open is: 0 before all. */
export const urgencyOf = (needs: readonly Need[] | null): number =>
  Math.min(...(needs ?? []).map((n) => NEEDS.indexOf(n)), NEEDS.length);

/** The queue in the order it is worked through. */
export const inOrder = (rows: readonly QueueRow[]): QueueRow[] =>
  [...rows].sort(
    (a, b) =>
      GROUPS.indexOf(groupOf(a)) - GROUPS.indexOf(groupOf(b)) ||
      urgencyOf(a.needs) - urgencyOf(b.needs) ||
      a.name.localeCompare(b.name),
  );

/** Why a person has to look, in a few words. */
export const NEED_WORDS: Record<Need, string> = {
  failed: "could not be checked",
  unknown: "a line could not be told",
  question: "asks a question",
  hand: "a line to mark by hand",
  near: "near a limit",
  changed: "other points than returned",
};

/** What is shown of the queue. */
export const FILTERS = {
  all: "All",
  needs: "Needs you",
  open: "Not looked at",
  below: "Points missing",
  returned: "Returned",
} as const;
export type Filter = keyof typeof FILTERS;

export function passes(row: QueueRow, filter: Filter, text: string): boolean {
  const isNamed = `${row.name} ${row.group ?? ""}`.toLowerCase().includes(text.trim().toLowerCase());
  if (!isNamed) return false;
  switch (filter) {
    case "all":
      return true;
    case "needs":
      return row.needs.length > 0;
    case "open":
      return row.submission !== null && !row.isAccepted;
    case "below":
      return row.points !== null && row.of !== null && row.points < row.of;
    case "returned":
      return row.isReturned;
  }
}

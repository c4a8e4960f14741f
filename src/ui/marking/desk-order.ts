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

export function groupOf(r: QueueRow): Group {
  if (!r.submission) return "Not handed in";
  if (r.state === "queued" || r.state === "checking") return "Being checked";
  if (r.needs.length) return "Needs you";
  if (r.turn === "student") return "Waits for the student";
  if (r.isReturned) return "Returned";
  return r.isAccepted ? "Looked at" : "To look through";
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

export function passes(r: QueueRow, filter: Filter, text: string): boolean {
  const isNamed = `${r.name} ${r.group ?? ""}`.toLowerCase().includes(text.trim().toLowerCase());
  if (!isNamed) return false;
  switch (filter) {
    case "all":
      return true;
    case "needs":
      return r.needs.length > 0;
    case "open":
      return r.submission !== null && !r.isAccepted;
    case "below":
      return r.points !== null && r.of !== null && r.points < r.of;
    case "returned":
      return r.isReturned;
  }
}

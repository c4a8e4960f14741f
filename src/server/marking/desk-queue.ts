import type { Need } from "@/core/grade/mark";
import { classOn } from "../handouts/handouts";
import type { SubmissionState } from "../tries/life";

/** A student in the desk's queue: the newest submission, or none yet. */
export interface QueueRow {
  readonly personId: string;
  readonly name: string;
  readonly group: string | null;
  readonly submission: string | null;
  readonly attempt: number;
  readonly state: SubmissionState | null;
  readonly points: number | null;
  readonly of: number | null;
  readonly needs: readonly Need[];
  readonly isAccepted: boolean;
  readonly isReturned: boolean;
  readonly turn: "student" | "instructor" | null;
  /** Lines that lost points, by their titles; or why it could not be checked. */
  readonly lacking: string;
  readonly seenAt: string | null;
}

export const deskQueue = async (handoutId: string): Promise<QueueRow[]> =>
  (await classOn(handoutId)).map((r) => ({
    personId: r.person_id,
    name: r.name,
    group: r.group_name,
    submission: r.submission,
    attempt: r.attempt ?? 0,
    state: r.state,
    points: r.points,
    of: r.grade?.of ?? null,
    needs: r.needs ?? [],
    isAccepted: r.accepted_at !== null,
    isReturned: r.returned_at !== null,
    turn: r.turn,
    lacking:
      r.trouble ??
      (r.grade?.lines ?? [])
        .filter((l) => l.points < l.of && l.check !== "hand")
        .map((l) => l.title)
        .join(", "),
    seenAt: r.seen_at?.toISOString() ?? null,
  }));

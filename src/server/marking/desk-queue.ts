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
  readonly picture: string | null;
}

export const deskQueue = async (handoutId: string): Promise<QueueRow[]> =>
  (await classOn(handoutId)).map((row) => ({
    personId: row.person_id,
    name: row.name,
    group: row.group_name,
    submission: row.submission,
    attempt: row.attempt ?? 0,
    state: row.state,
    points: row.points,
    of: row.grade?.of ?? null,
    needs: row.needs ?? [],
    isAccepted: row.accepted_at !== null,
    isReturned: row.returned_at !== null,
    turn: row.turn,
    lacking:
      row.trouble ??
      (row.grade?.lines ?? [])
        .filter((l) => l.points < l.of && l.check !== "hand")
        .map((l) => l.title)
        .join(", "),
    seenAt: row.seen_at?.toISOString() ?? null,
    picture: row.picture,
  }));

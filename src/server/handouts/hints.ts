import { one } from "../database";
import type { Handout } from "./handouts";

/** The hints that are open, in order, and how many there are. */
export interface Hints {
  readonly opened: readonly string[];
  readonly of: number;
}

const opened = (h: Handout, count: number): Hints => {
  const hints = h.exercise.hints ?? [];
  return { opened: hints.slice(0, count), of: hints.length };
};

export async function hintsFor(h: Handout, personId: string): Promise<Hints> {
  const { hints_opened } = await one<{ hints_opened: number }>(
    "select hints_opened from works where handout_id = $1 and person_id = $2",
    [h.id, personId],
  );
  return opened(h, hints_opened);
}

/**
 * Opens hints up to the nth, one at a time. Asked again, as when an answer was lost, it opens no other.
 * @param nth from 1
 */
export async function openHint(handout: Handout, personId: string, nth: number): Promise<Hints> {
  const most = handout.exercise.hints?.length ?? 0;
  const { hints_opened } = await one<{ hints_opened: number }>(
    `update works set hints_opened = greatest(hints_opened, least($3::int, hints_opened + 1, $4::int))
     where handout_id = $1 and person_id = $2 returning hints_opened`,
    [handout.id, personId, nth, most],
  );
  return opened(handout, hints_opened);
}

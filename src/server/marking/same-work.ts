import { sameWork, type Likeness } from "@/core/check/given/same-work";
import type { PartDocument } from "@/core/part/document";
import { rows } from "../database";
import type { Handout } from "../handouts/handouts";

/** One of two parts that were made alike. */
export interface AlikePart {
  readonly submission: string;
  readonly person: string;
  readonly handedInAt: string;
  /** At work on it, minutes; null: not known. */
  readonly minutes: number | null;
  /** How often it was saved: a part that came in one piece was saved once or twice. */
  readonly saves: number | null;
  /** What the Bench showed of it last. */
  readonly picture: string | null;
}
export interface AlikePair {
  readonly parts: readonly [AlikePart, AlikePart];
  readonly shared: number;
  readonly likenesses: readonly Likeness[];
}
export interface SameWorkView {
  readonly pairs: readonly AlikePair[];
  /** How many parts were compared. */
  readonly compared: number;
}

/** Pairs of a class whose parts were made more alike than by themselves. */
export async function sameWorkOn(handout: Handout): Promise<SameWorkView> {
  const list = await rows<{
    id: string;
    person: string;
    document: PartDocument;
    handed_in_at: Date;
    worked: number | null;
    version: number | null;
    picture: string | null;
  }>(
    `select s.id, p.name as person, s.document, s.handed_in_at, w.worked_seconds as worked, s.work_version as version,
       w.live_picture as picture
     from counting_tries k join submissions s on s.id = k.newest join people p on p.id = s.person_id
     left join works w on w.handout_id = s.handout_id and w.person_id = s.person_id
     where k.handout_id = $1 and s.document->>'format' = 'caliper-part' order by p.name`,
    [handout.id],
  );
  const { start } = handout.exercise;
  const pairs = sameWork(
    list.map((r) => r.document),
    start?.from === "starter" ? start.part : undefined,
  );
  const part = (i: number): AlikePart => {
    const r = list[i]!;
    return {
      submission: r.id,
      person: r.person,
      handedInAt: r.handed_in_at.toISOString(),
      minutes: r.worked === null ? null : Math.round(r.worked / 60),
      saves: r.version,
      picture: r.picture,
    };
  };
  return {
    pairs: pairs.map((p) => ({ parts: [part(p.first), part(p.second)], shared: p.shared, likenesses: p.likenesses })),
    compared: list.length,
  };
}

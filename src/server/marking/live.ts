import { rows } from "../database";
import type { Handout } from "../handouts/handouts";
import { markedBy } from "./marking";
import type { Numbers } from "../works/versions";

/** One student during a lesson. */
export interface LiveRow {
  readonly id: string;
  readonly name: string;
  readonly group: string | null;
  /** When the handout was opened first; null: not yet. */
  readonly openedAt: string | null;
  readonly changedAt: string | null;
  readonly picture: string | null;
  readonly steps: number;
  /** Sketches, and how many of them are fully defined; null where the Bench has not told yet. */
  readonly sketches: number | null;
  readonly defined: number | null;
  /** Readings within tolerance, of those that can be read. */
  readonly gauges: { readonly inside: number; readonly of: number } | null;
  readonly handedIn: {
    readonly id: string;
    readonly attempt: number;
    readonly points: number | null;
    readonly of: number | null;
  } | null;
  readonly signedOff: { readonly by: string; readonly at: string } | null;
}

interface Row {
  readonly id: string;
  readonly name: string;
  readonly group_name: string | null;
  readonly opened_at: Date | null;
  readonly changed_at: Date | null;
  readonly live_picture: string | null;
  readonly live_numbers: Numbers | null;
  readonly steps: number | null;
  readonly submission: string | null;
  readonly attempt: number | null;
  readonly points: number | null;
  readonly out_of: number | null;
  readonly signed_by: string | null;
  readonly signed_at: Date | null;
  readonly targets: Targets | null;
}

/** The class while it works: what each Bench told last. */
export async function liveOn(handout: Handout): Promise<LiveRow[]> {
  const list = await rows<Row>(
    `select p.id, p.name, g.name as group_name, coalesce(own.targets, h.targets) as targets,
       w.opened_at, w.changed_at, w.live_picture, w.live_numbers,
       json_array_length(w.document->'steps') as steps, s.id as submission, s.attempt, c.points, c.out_of,
       name_of(o.made_by) as signed_by, o.made_at as signed_at
     from counting_tries k join handouts h on h.id = k.handout_id
     join people p on p.id = k.person_id left join groups g on g.id = k.group_id
     left join own_numbers own on own.handout_id = h.id and own.person_id = p.id
     left join works w on w.handout_id = h.id and w.person_id = p.id
     left join submissions s on s.id = k.newest
     left join checks c on c.submission_id = s.id
     left join sign_offs o on o.handout_id = h.id and o.person_id = p.id
     where k.handout_id = $1 order by p.name`,
    [handout.id],
  );
  return list.map((row) => ({
    id: row.id,
    name: row.name,
    group: row.group_name,
    openedAt: row.opened_at?.toISOString() ?? null,
    changedAt: row.changed_at?.toISOString() ?? null,
    picture: row.live_picture,
    steps: row.steps ?? 0,
    sketches: row.live_numbers?.sketches ?? null,
    defined: row.live_numbers?.defined ?? null,
    gauges: gaugesOf(row.live_numbers, row.targets ?? { volume: null, mass: null }, handout),
    handedIn: row.submission ? { id: row.submission, attempt: row.attempt!, points: row.points, of: row.out_of } : null,
    signedOff: row.signed_by ? { by: row.signed_by, at: row.signed_at!.toISOString() } : null,
  }));
}

interface Targets {
  readonly volume: number | null;
  readonly mass: number | null;
}

function gaugesOf(n: Numbers | null, { volume, mass }: Targets, h: Handout): LiveRow["gauges"] {
  if (n?.volume === undefined || volume === null || mass === null) return null;
  const { tolerances } = markedBy(h);
  const inside = (own: number | undefined, wanted: number, share: number) =>
    own !== undefined && Math.abs(own - wanted) <= wanted * share;
  const readings = [inside(n.volume, volume, tolerances.volume), inside(n.mass, mass, tolerances.mass)];
  return { inside: readings.filter(Boolean).length, of: readings.length };
}

export const signOff = (handoutId: string, personId: string, by: string) =>
  rows(
    `insert into sign_offs (handout_id, person_id, made_by)
     select h.id, e.person_id, $3 from handouts h join enrolments e on e.course_id = h.course_id and e.role = 'student'
     where h.id = $1 and e.person_id = $2 on conflict do nothing`,
    [handoutId, personId, by],
  );
export const takeSignOffBack = (handoutId: string, personId: string) =>
  rows("delete from sign_offs where handout_id = $1 and person_id = $2", [handoutId, personId]);

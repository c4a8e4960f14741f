import type pg from "pg";
import type { PartDocument } from "@/core/part/document";
import { environment } from "../environment";
import { database, one, row, rows, Taken } from "../database";

/** What the Bench showed when a version was made: figures a person tells versions apart by. */
export interface Numbers {
  readonly steps: number;
  readonly volume?: number | undefined;
  readonly mass?: number | undefined;
  readonly loose?: number | undefined;
  /** Sketches that hold something, and how many of them are fully defined. */
  readonly sketches?: number | undefined;
  readonly defined?: number | undefined;
}

/** What the Bench showed of a version: a small picture as a data address, and its numbers. */
export interface Shown {
  readonly picture?: string | null | undefined;
  readonly numbers?: Numbers | null | undefined;
}
type VersionKind = "spell" | "named" | "handed-in" | "parted" | "before";

interface Kept extends Shown {
  readonly kind: VersionKind;
  readonly document: PartDocument;
  readonly version: number;
  readonly variant: string;
  readonly name?: string | undefined;
  readonly saveId?: string | undefined;
}

/** Puts a version into the history, and thins the spells of long ago. */
export async function keepVersion(
  client: pg.PoolClient,
  handoutId: string,
  personId: string,
  kept: Kept,
): Promise<string> {
  const made = await row<{ id: string }>(
    `insert into work_versions
       (handout_id, person_id, variant, version, kind, name, document, picture, numbers, save_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
     on conflict (save_id) do update set save_id = excluded.save_id
     where work_versions.handout_id = excluded.handout_id and work_versions.person_id = excluded.person_id
     returning id`,
    [
      handoutId,
      personId,
      kept.variant,
      kept.version,
      kept.kind,
      kept.name ?? null,
      kept.document,
      kept.picture ?? null,
      kept.numbers ?? { steps: kept.document.steps.length },
      kept.saveId ?? null,
    ],
    client,
  );
  if (!made) throw new Taken("a version under this id is somebody else's");
  await client.query(THIN, [handoutId, personId]);
  for (const [kind, most] of Object.entries(MOST_KEPT)) await client.query(CAP, [handoutId, personId, kind, most]);
  const room = await roomNow(client);
  await keepWithin(client, personId, room.isFull ? SHORT_OF_ROOM * MOST_BYTES : MOST_BYTES);
  return made.id;
}

/** Histories of all parts of one person fill so much at most, bytes as they are stored. */
export const MOST_BYTES = 128e6;
/** The share of it that is left to each where the server has no room. */
const SHORT_OF_ROOM = 0.1;

/** What the histories of all people fill and may fill, bytes. */
export async function roomNow(
  client: pg.Pool | pg.PoolClient = database(),
  most = environment().CALIPER_HISTORY_GB * 1e9,
): Promise<{ bytes: number; most: number; isFull: boolean }> {
  const { bytes } = await one<{ bytes: number }>(
    "select pg_total_relation_size('work_versions')::float as bytes",
    [],
    client,
  );
  return { bytes, most, isFull: bytes >= most };
}

const SIZE = "pg_column_size(document) + coalesce(octet_length(picture), 0)";
/** What was asked for stays: what was named or handed in. */
const ASKED_FOR = "kind in ('named', 'handed-in')";

/** Takes away the oldest that nobody asked for, until all that somebody has fits. @param most bytes */
export const keepWithin = (client: pg.Pool | pg.PoolClient, personId: string, most: number) =>
  client.query(
    `delete from work_versions v using (
       select id, ${ASKED_FOR} as stays, sum(${SIZE}) over (order by ${ASKED_FOR} desc, made_at desc, id) as filled
       from work_versions where person_id = $1
     ) old where v.id = old.id and not old.stays and old.filled > $2`,
    [personId, most],
  );

/** What somebody's named and handed in versions fill, of all their parts; bytes. */
export async function filledBy(personId: string, client: pg.Pool | pg.PoolClient = database()): Promise<number> {
  const { bytes } = await one<{ bytes: number }>(
    `select coalesce(sum(${SIZE}), 0)::float as bytes from work_versions where person_id = $1 and ${ASKED_FOR}`,
    [personId],
    client,
  );
  return bytes;
}

/** A person names so many versions of a part at most; who has as many takes a name away first. */
export const MOST_NAMED = 100;
/** Of what is kept without being asked for, the last so many of a part stay. */
export const MOST_KEPT = { parted: 40, before: 40, spell: 300 } as const satisfies Partial<Record<VersionKind, number>>;
const CAP = `
  delete from work_versions v using (
    select id, row_number() over (order by made_at desc, version desc, id) as place from work_versions
    where handout_id = $1 and person_id = $2 and kind = $3
  ) old where v.id = old.id and old.place > $4`;

/** How many versions somebody has named on a handout, and how many were put aside by another window. */
export const countsOf = (handoutId: string, personId: string, client: pg.Pool | pg.PoolClient = database()) =>
  one<{ named: number; parted: number }>(
    `select (count(*) filter (where kind = 'named'))::int as named,
       (count(*) filter (where kind = 'parted'))::int as parted
     from work_versions where handout_id = $1 and person_id = $2`,
    [handoutId, personId],
    client,
  );

/**
 * Old spells are thinned: all of the last seven days stay, of the weeks before the last of each day, and of what is
 * older than sixty days the last of each week. What was handed in or named stays for good.
 */
const THIN = `
  delete from work_versions v using (
    select id, row_number() over (
      partition by variant,
        case when made_at > now() - interval '60 days' then date_trunc('day', made_at)
             else date_trunc('week', made_at) end
      order by made_at desc, id) as place
    from work_versions
    where handout_id = $1 and person_id = $2 and kind = 'spell' and made_at < now() - interval '7 days'
  ) old where v.id = old.id and old.place > 1`;

/** A line of the history. */
export interface VersionRow {
  readonly id: string;
  readonly variant: string;
  readonly version: number;
  readonly kind: VersionKind;
  readonly name: string | null;
  readonly picture: string | null;
  readonly numbers: Numbers | null;
  readonly made_at: Date;
}

/** A student's history on a handout, the newest first, without the documents. */
export const versionsOf = (handoutId: string, personId: string) =>
  rows<VersionRow>(
    `select id, variant, version, kind, name, picture, numbers, made_at from work_versions
     where handout_id = $1 and person_id = $2 order by made_at desc, version desc limit 200`,
    [handoutId, personId],
  );

export const versionDocument = (
  handoutId: string,
  personId: string,
  id: string,
  client: pg.Pool | pg.PoolClient = database(),
) =>
  row<{ document: PartDocument }>(
    "select document from work_versions where handout_id = $1 and person_id = $2 and id = $3",
    [handoutId, personId, id],
    client,
  );

import type pg from "pg";
import { emptyPart, type PartDocument } from "@/core/part/document";
import { one, prepared, row, rows, transaction } from "../database";
import type { Handout } from "../handouts/handouts";
import { REMEMBERED, remembered, type SaveMark } from "./saves";
import { keepVersion, type Shown } from "./versions";

export interface Work {
  readonly document: PartDocument;
  readonly version: number;
}
interface OpenWork extends Work {
  readonly variant: string;
  readonly changed_at: Date;
}

/** A save as the Bench sends it. `id` is its own: sent again, it is answered with what it made. */
export interface Save {
  readonly id: string;
  readonly document: PartDocument;
  /** The version it stands on. */
  readonly version: number;
  /** The window it comes from. */
  readonly window: string;
}
type Saved =
  | { readonly ok: true; readonly version: number }
  /** Another window has saved since; what was sent stands in the history. Version 0: nobody has opened the part yet. */
  | { readonly ok: false; readonly version: number };

/** A longer pause is not time at work. */
const PAUSE_SECONDS = 300;
/** Work that pauses for so long is a spell; its end stands in the history. */
const SPELL = "15 minutes";
/** Whoever works for hours without a pause has a version in between at least so often. */
const LONG_SPELL = "45 minutes";

/** A student's part on a handout as it stands; undefined where it has not been opened yet. */
export const standingWork = (handoutId: string, personId: string) =>
  row<OpenWork>("select document, version, variant, changed_at from works where handout_id = $1 and person_id = $2", [
    handoutId,
    personId,
  ]);

/** A student's part on a handout; begun empty when opened first. */
export async function openWork(handout: Handout, personId: string): Promise<OpenWork> {
  const found = await standingWork(handout.id, personId);
  if (found) return found;
  // files are named after the part: whose it is shows in a folder of thirty
  const { initials } = await one<{ initials: string }>("select initials from people where id = $1", [personId]);
  const name = `${handout.exercise.title} ${initials}`.trim();
  const empty = emptyPart(name, handout.exercise.units, handout.exercise.material);
  const start = { ...((await startOf(handout, personId)) ?? empty), name };
  await rows("insert into works (handout_id, person_id, document) values ($1, $2, $3) on conflict do nothing", [
    handout.id,
    personId,
    start,
  ]);
  return (await standingWork(handout.id, personId))!;
}

/**
 * What a student starts from: the part given to all, or their own of an earlier exercise of the course, as they handed
 * it in last, or as it stands on their Bench. Undefined where they begin with nothing.
 */
async function startOf(handout: Handout, personId: string): Promise<PartDocument | undefined> {
  const { start } = handout.exercise;
  if (!start) return undefined;
  if (start.from === "starter") return start.part;
  const own = await row<{ document: PartDocument }>(
    `select document from (
       select s.document::jsonb as document, 0 as rank, s.handed_in_at as at
       from handouts e join submissions s on s.handout_id = e.id and s.person_id = $2
       where e.course_id = $1 and e.exercise->>'number' = $3 and s.document->>'format' = 'caliper-part'
       union all
       select w.document::jsonb, 1, w.changed_at
       from handouts e join works w on w.handout_id = e.id and w.person_id = $2
       where e.course_id = $1 and e.exercise->>'number' = $3 and json_array_length(w.document->'steps') > 0
     ) own order by rank, at desc limit 1`,
    [handout.course_id, personId, start.number],
  );
  return own?.document;
}

/** What stands on the server, and how a save finds it. */
export interface Standing extends OpenWork, Shown {
  readonly saves: readonly SaveMark[];
  readonly spell_over: boolean;
}

const SPELL_OVER = `(changed_at < now() - interval '${SPELL}' or spell_began_at < now() - interval '${LONG_SPELL}')`;

/**
 * The save that nearly all are: over the version that stands, within a spell. One statement, and the document that
 * stood is not read.
 */
async function saveOn(handoutId: string, personId: string, save: Save): Promise<number | undefined> {
  const saved = await prepared<{ version: number }>(
    "save",
    `update works set document = $3, version = version + 1, changed_by = $6, changed_at = now(),
       worked_seconds = worked_seconds + least(extract(epoch from now() - changed_at), ${PAUSE_SECONDS}),
       picture = null, numbers = null,
       saves = (select jsonb_agg(mark order by n) from (
         select mark, n from jsonb_array_elements(saves || jsonb_build_object('id', $5::text, 'version', version + 1))
           with ordinality as t (mark, n) order by n desc limit ${REMEMBERED}) last)
     where handout_id = $1 and person_id = $2 and version = $4 and not ${SPELL_OVER} returning version`,
    [handoutId, personId, save.document, save.version, save.id, save.window],
  );
  return saved?.version;
}

/** Takes a save, or keeps it aside in the history where another window has saved since. */
export async function saveWork(handoutId: string, personId: string, save: Save): Promise<Saved> {
  const version = await saveOn(handoutId, personId, save);
  if (version !== undefined) return { ok: true, version };
  return transaction(async (client) => {
    const now = await row<Standing>(
      `select document, version, variant, changed_at, saves, picture, numbers, ${SPELL_OVER} as spell_over
       from works where handout_id = $1 and person_id = $2 for update`,
      [handoutId, personId],
      client,
    );
    if (!now) return { ok: false, version: 0 };
    const known = now.saves.find((s) => s.id === save.id);
    if (known) return { ok: true, version: known.version };
    if (now.version !== save.version) {
      await keepVersion(client, handoutId, personId, {
        ...now,
        document: save.document,
        version: save.version,
        picture: null,
        numbers: null,
        kind: "parted",
        name: "From another window",
        saveId: save.id,
      });
      return { ok: false, version: now.version };
    }
    if (now.spell_over) await keepVersion(client, handoutId, personId, { ...now, kind: "spell" });
    return { ok: true, version: await put(client, handoutId, personId, now, save) };
  });
}

/** Writes the next version. */
export async function put(
  client: pg.PoolClient,
  handoutId: string,
  personId: string,
  now: Pick<Standing, "version" | "saves" | "variant" | "spell_over">,
  next: Pick<Save, "id" | "document" | "window"> & { readonly variant?: string },
): Promise<number> {
  const version = now.version + 1;
  await client.query(
    `update works set document = $3, version = $4, variant = $5, saves = $6, changed_by = $7, changed_at = now(),
       picture = null, numbers = null,
       spell_began_at = case when $8 then now() else spell_began_at end
     where handout_id = $1 and person_id = $2`,
    [
      handoutId,
      personId,
      next.document,
      version,
      next.variant ?? now.variant,
      JSON.stringify(remembered(now.saves, { id: next.id, version })),
      next.window,
      now.spell_over,
    ],
  );
  return version;
}

/** Remembers how a version looked: for the history while it is the newest, and for whoever watches the lesson. */
export const rememberShown = (handoutId: string, personId: string, version: number, shown: Shown) =>
  rows(
    `update works set
       picture = case when version = $3 then coalesce($4, picture) else picture end,
       numbers = case when version = $3 then $5::jsonb else numbers end,
       live_picture = coalesce($4, live_picture), live_numbers = coalesce($5::jsonb, live_numbers), live_at = now()
     where handout_id = $1 and person_id = $2`,
    [handoutId, personId, version, shown.picture ?? null, shown.numbers ?? null],
  );

/** Which version the server holds, and from which window; the document is not read. */
export const workMark = (handoutId: string, personId: string) =>
  row<{ version: number; window: string | null }>(
    `select version, changed_by as window from works where handout_id = $1 and person_id = $2`,
    [handoutId, personId],
  );

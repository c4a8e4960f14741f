import type pg from "pg";
import { emptyPart, type PartDocument } from "@/core/part/document";
import { database, one, prepared, row, rows, transaction } from "./database";
import type { Handout } from "./handouts";
import { REMEMBERED, remembered, type SaveMark } from "./saves";

/** What the Bench showed when a version was made: figures a person tells versions apart by. */
export interface Numbers {
  readonly steps: number;
  readonly volume?: number | undefined;
  readonly mass?: number | undefined;
  readonly loose?: number | undefined;
}

export interface Work {
  readonly document: PartDocument;
  readonly version: number;
}
/** What the Bench showed of a version: a small picture as a data address, and its numbers. */
export interface Shown {
  readonly picture?: string | null | undefined;
  readonly numbers?: Numbers | null | undefined;
}
export interface OpenWork extends Work {
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
export type Saved =
  | { readonly ok: true; readonly version: number }
  /** Another window has saved since; what was sent stands in the history. */
  | { readonly ok: false; readonly version: number };

/** Work that pauses for so long is a spell; its end stands in the history. */
const SPELL = "15 minutes";
/** Whoever works for hours without a pause has a version in between at least so often. */
const LONG_SPELL = "45 minutes";

/** A student's part on a handout; begun empty when opened first. */
export async function openWork(h: Handout, personId: string): Promise<OpenWork> {
  const start = emptyPart(h.exercise.title, h.exercise.units, h.exercise.material);
  await rows("insert into works (handout_id, person_id, document) values ($1, $2, $3) on conflict do nothing", [
    h.id,
    personId,
    start,
  ]);
  return one<OpenWork>(
    "select document, version, variant, changed_at from works where handout_id = $1 and person_id = $2",
    [h.id, personId],
  );
}

interface Standing extends OpenWork, Shown {
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
    const now = await one<Standing>(
      `select document, version, variant, changed_at, saves, picture, numbers, ${SPELL_OVER} as spell_over
       from works where handout_id = $1 and person_id = $2 for update`,
      [handoutId, personId],
      client,
    );
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
async function put(
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

/** Remembers how a version looked, for the history; one that is no longer the newest is let go. */
export const rememberShown = (handoutId: string, personId: string, version: number, shown: Shown) =>
  rows("update works set picture = $4, numbers = $5 where handout_id = $1 and person_id = $2 and version = $3", [
    handoutId,
    personId,
    version,
    shown.picture ?? null,
    shown.numbers ?? null,
  ]);

/** Which version the server holds, and from which window; the document is not read. */
export const workMark = (handoutId: string, personId: string) =>
  row<{ version: number; window: string | null }>(
    `select version, changed_by as window from works where handout_id = $1 and person_id = $2`,
    [handoutId, personId],
  );

export type VersionKind = "spell" | "named" | "handed-in" | "parted" | "before";

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
  v: Kept,
): Promise<string | undefined> {
  const made = await row<{ id: string }>(
    `insert into work_versions
       (handout_id, person_id, variant, version, kind, name, document, picture, numbers, save_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) on conflict (save_id) do nothing returning id`,
    [
      handoutId,
      personId,
      v.variant,
      v.version,
      v.kind,
      v.name ?? null,
      v.document,
      v.picture ?? null,
      v.numbers ?? { steps: v.document.steps.length },
      v.saveId ?? null,
    ],
    client,
  );
  await client.query(THIN, [handoutId, personId]);
  return made?.id;
}

/**
 * Old spells are thinned: all of the last seven days stay, of the weeks before that the last of each day, and of what
 * is older than sixty days the last of each week. What was handed in, named or set aside stays for good.
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

/** The ways of one work; one of them stands on the Bench. */
export const variantsOf = (handoutId: string, personId: string) =>
  rows<{ name: string; stands: boolean }>(
    `select name, false as stands from work_variants where handout_id = $1 and person_id = $2
     union select variant, true from works where handout_id = $1 and person_id = $2 order by name`,
    [handoutId, personId],
  );

/** What can be done with the history; each goes out from a version, under an id of its own, like a save. */
export type HistoryChange = { readonly id: string; readonly version: number; readonly window: string } & (
  | {
      readonly do: "name";
      readonly name: string;
      readonly shown?: Shown | undefined;
    }
  | { readonly do: "restore"; readonly of: string }
  | { readonly do: "branch"; readonly name: string }
  | { readonly do: "switch"; readonly name: string }
);

const MOST_VARIANTS = 12;

export type Changed =
  | { readonly ok: true; readonly version: number; readonly variant: string; readonly document: PartDocument }
  | { readonly ok: false; readonly code: "other-version" | "not-there" | "taken" | "too-many" };

/**
 * Names what stands, restores an old version as a new one, branches a variant off, or goes over to another. Nothing
 * that stood is lost by it: it stays in the history or in its variant.
 */
export async function changeHistory(handoutId: string, personId: string, c: HistoryChange): Promise<Changed> {
  return transaction(async (client): Promise<Changed> => {
    const now = await one<Standing>(
      `select document, version, variant, changed_at, saves, picture, numbers, true as spell_over from works
       where handout_id = $1 and person_id = $2 for update`,
      [handoutId, personId],
      client,
    );
    const as = (version: number, of: Pick<Standing, "variant" | "document"> = now): Changed => ({
      ok: true,
      version,
      variant: of.variant,
      document: of.document,
    });
    // the answer was lost: what it made stands
    if (now.saves.some((s) => s.id === c.id)) return as(now.version);
    if (now.version !== c.version) return { ok: false, code: "other-version" };
    if (c.do === "name") {
      const { name, shown } = c;
      await keepVersion(client, handoutId, personId, { ...now, ...shown, kind: "named", name, saveId: c.id });
      return as(now.version);
    }
    if (c.do === "restore") {
      const old = await versionDocument(handoutId, personId, c.of, client);
      if (!old) return { ok: false, code: "not-there" };
      await keepVersion(client, handoutId, personId, {
        ...now,
        kind: "before",
        name: "Before an older one was restored",
      });
      return as(await put(client, handoutId, personId, now, { ...c, ...old }), { ...now, ...old });
    }
    const others = await rows<{ name: string; document: PartDocument }>(
      "select name, document from work_variants where handout_id = $1 and person_id = $2",
      [handoutId, personId],
      client,
    );
    const there = others.find((v) => v.name === c.name);
    if (c.do === "branch" && (there || c.name === now.variant)) return { ok: false, code: "taken" };
    if (c.do === "branch" && others.length + 1 >= MOST_VARIANTS) return { ok: false, code: "too-many" };
    if (c.do === "switch" && !there) return { ok: false, code: "not-there" };
    // what stands stays behind under its variant's name
    await client.query(
      `insert into work_variants (handout_id, person_id, name, document) values ($1, $2, $3, $4)
       on conflict (handout_id, person_id, name) do update set document = excluded.document, changed_at = now()`,
      [handoutId, personId, now.variant, now.document],
    );
    await client.query("delete from work_variants where handout_id = $1 and person_id = $2 and name = $3", [
      handoutId,
      personId,
      c.name,
    ]);
    const next = { document: there?.document ?? now.document, variant: c.name };
    return as(await put(client, handoutId, personId, now, { ...c, ...next }), next);
  });
}

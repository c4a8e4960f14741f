import type { Exercise } from "@/core/check/exercise/exercise";
import { changedSince, merged, type Merged, type Stamped } from "@/core/exercise/merge";
import { differences, needsMeasuring, type Things } from "@/core/exercise/things";
import type { PartDocument } from "@/core/part/document";
import { isSame } from "@/core/units/same";
import { done, type Outcome } from "@/core/units/refusal";
import type pg from "pg";
import { one, transaction } from "../database";
import { remembered, type SaveMark } from "../works/saves";
import { openMeasuring } from "./exercises";

/** A save as the page that makes it calls it: sent again under the same id it is answered with what it made. */
interface Save {
  readonly id: string;
  /** The version that what was changed stood on. */
  readonly version: number;
  /** The id of whoever makes it, for the history. */
  readonly by?: string;
}

interface Standing extends Stamped {
  readonly saves: readonly SaveMark[];
  readonly prepared_version: number;
  readonly by: string | null;
}

/** What became of a save. */
export interface Changed {
  /** The version that stands now. */
  readonly version: number;
  /** What others have changed since the version it stood on. */
  readonly theirs: Things;
  /** What it wanted to change and others had changed meanwhile, not alike: nothing of it was taken then. */
  readonly odds: readonly string[];
  /** Who changed it last before. */
  readonly by?: string;
}

const standing = (id: string, client: pg.PoolClient) =>
  one<Standing>(
    `select document, version, saves, stamps, prepared_version, name_of(changed_by) as by
     from exercises where id = $1 for update`,
    [id],
    client,
  );

/** Writes what became of changes. */
async function write(
  id: string,
  was: Standing,
  { now, written }: Merged,
  save: Omit<Save, "version">,
  client: pg.PoolClient,
): Promise<void> {
  const isNew = now.version !== was.version;
  // words beside the part leave what was measured as it is
  const isToMeasure = needsMeasuring(written);
  const isMeasured = !isToMeasure && was.prepared_version === was.version;
  await client.query(
    `update exercises set version = $2, saves = $3, stamps = $4, changed_by = coalesce($5, changed_by),
       document = case when $6 then $7 else document end,
       prepared_version = case when $8 then $2 else prepared_version end
     where id = $1`,
    [
      id,
      now.version,
      JSON.stringify(remembered(was.saves, { id: save.id, version: now.version })),
      JSON.stringify(now.stamps),
      save.by ?? null,
      isNew,
      JSON.stringify(now.document),
      isMeasured,
    ],
  );
  // what is being measured already goes on: words beside it change nothing
  if (isNew && isToMeasure) await openMeasuring(id, client);
}

/** Changes things of an exercise. Others may have changed other things meanwhile: both stand. */
export const changeThings = (
  id: string,
  things: Things | ((document: Exercise) => Things),
  save: Save,
): Promise<Outcome<Changed>> =>
  transaction(async (client) => {
    const was = await standing(id, client);
    const by = was.by ? { by: was.by } : {};
    if (was.saves.some((s) => s.id === save.id)) {
      const theirs = changedSince(was, save.version);
      return done({ version: was.version, theirs, odds: [], ...by });
    }
    const r = merged(was, typeof things === "function" ? things(was.document) : things, save.version);
    if (!r.ok) return r;
    const { now, theirs, odds } = r.value;
    if (!odds.length) await write(id, was, r.value, save, client);
    return done({ version: now.version, theirs, odds, ...by });
  });

/** What has changed in an exercise since a version. */
export async function changesSince(id: string, version: number): Promise<Omit<Changed, "odds">> {
  const now = await one<Stamped & { by: string | null }>(
    "select document, version, stamps, name_of(changed_by) as by from exercises where id = $1",
    [id],
  );
  return { version: now.version, theirs: changedSince(now, version), ...(now.by && { by: now.by }) };
}

/** The reference part as the Bench edits it. One begun in a new exercise hands its material and unit on to it. */
export const saveReference = (id: string, part: PartDocument, save: Save): Promise<Outcome<Changed>> =>
  changeThings(
    id,
    ({ reference, material, units }) => {
      const isFirst = !reference.steps.length && isSame(material, reference.material) && units === reference.units;
      return { reference: part, ...(isFirst && { material: part.material, units: part.units }) };
    },
    save,
  );

/** Saves a whole exercise over a version. @returns the new version, or undefined when another has saved since */
export const saveExercise = (id: string, document: Exercise, version: number, by?: string) =>
  transaction(async (client) => {
    const was = await standing(id, client);
    if (was.version !== version) return undefined;
    const r = merged(was, differences(was.document, document), version);
    if (!r.ok) return undefined;
    await write(id, was, r.value, { id: crypto.randomUUID(), ...(by && { by }) }, client);
    return r.value.now.version;
  });

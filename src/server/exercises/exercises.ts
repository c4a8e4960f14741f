import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import type { PartDocument } from "@/core/part/document";
import type { Targets } from "@/core/check/exercise/prepare";
import type { Arrangement } from "@/core/sheet/layout/edit";
import type pg from "pg";
import { one, row, rows, transaction } from "../database";
import { PRIORITY } from "../queue";
import { remembered, type SaveMark } from "../works/saves";
import { beginRun, endRun, openRun, type Ticket } from "../tries/runs";

/** What the worker found when it built the reference. */
export type Prepared = Measured | { readonly trouble: string };

/** What was measured; before there were sizes and questions they were left out. */
type Measured = Omit<Targets, Later> & Partial<Pick<Targets, Later>>;
type Later = "sizes" | "things" | "table" | "wanted" | "proof" | "drawing" | "signature";

interface ExerciseRow {
  readonly id: string;
  readonly course_id: string;
  readonly document: Exercise;
  readonly version: number;
  readonly prepared: Prepared | null;
  readonly prepared_version: number;
  /** How far the measuring of its reference is, in a few words; empty while nothing is done. */
  readonly preparing: string;
}

/** What a list shows of the exercises of a course. */
export const exerciseTitlesOf = (courseId: string) =>
  rows<{ id: string; number: string; title: string }>(
    `select id, document->>'number' as number, document->>'title' as title from exercises
     where course_id = $1 order by document->>'number'`,
    [courseId],
  );
export const exercise = async (id: string): Promise<ExerciseRow> =>
  await one<ExerciseRow>(
    "select id, course_id, document, version, prepared, prepared_version, preparing from exercises where id = $1",
    [id],
  );

/** An exercise to start from in a course: its Sheet is titled, lettered and projected as the course's last one. */
export async function newExerciseIn(courseId: string): Promise<Exercise> {
  const plain = newExercise();
  const last = await row<{ sheet: Exercise["sheet"] }>(
    "select document->'sheet' as sheet from exercises where course_id = $1 order by created_at desc, id limit 1",
    [courseId],
  );
  if (!last) return plain;
  const { projection, printMass, massTolerance, drawnBy, owner, general, fractions, signs, exact } = last.sheet;
  const taken = { projection, printMass, massTolerance, drawnBy, owner, general, fractions, signs, exact };
  return { ...plain, sheet: { ...plain.sheet, ...taken } };
}

/** Makes an exercise and has it measured. @param within a transaction that it belongs to; else one of its own */
export async function createExercise(courseId: string, document: Exercise, within?: pg.PoolClient): Promise<string> {
  if (!within) return transaction((client) => createExercise(courseId, document, client));
  const made = await one<{ id: string }>(
    "insert into exercises (course_id, document) values ($1, $2) returning id",
    [courseId, document],
    within,
  );
  await openMeasuring(made.id, within);
  return made.id;
}

/**
 * Saves over a version and has the worker measure anew. @returns the new version, or undefined when another has saved
 * since
 */
export async function saveExercise(
  id: string,
  document: Exercise,
  version: number,
  by?: string,
): Promise<number | undefined> {
  return transaction(async (client) => {
    const saved = await row<{ version: number }>(
      `update exercises set document = $2, version = version + 1, changed_by = coalesce($4, changed_by)
       where id = $1 and version = $3 returning version`,
      [id, document, version, by ?? null],
      client,
    );
    if (saved) await openMeasuring(id, client);
    return saved?.version;
  });
}

/** Has an exercise measured as it stands; what was begun on an earlier version gives way. */
export const openMeasuring = (id: string, client: pg.PoolClient): Promise<string> =>
  openRun({ kind: "measure", exercise_id: id }, { priority: PRIORITY.prepare }, client);

/** Begins measuring an exercise; undefined where it was done. */
export const beginMeasuring = (id: string): Promise<Ticket | undefined> =>
  beginRun({ kind: "measure", exercise_id: id }, "", "(select x.version from exercises x where x.id = r.exercise_id)");

/** Ends a measuring with what was found on the version it was begun on. */
export const finishMeasuring = (ticket: Ticket, id: string, version: number, prepared: Prepared): Promise<void> =>
  transaction(async (client) => {
    const trouble = "trouble" in prepared ? prepared.trouble : null;
    if (await endRun(ticket, trouble, client)) await savePrepared(id, version, prepared, client);
  });

/** Writes what was measured on a version; what is known of a later one stays. */
export const savePrepared = (id: string, version: number, prepared: Prepared, client?: pg.Pool | pg.PoolClient) =>
  rows(
    `update exercises set prepared = $3, prepared_version = $2, preparing = ''
     where id = $1 and prepared_version <= $2`,
    [id, version, prepared],
    client,
  );

/** Says how far the measuring of a version is; one that was measured or changed meanwhile says nothing. */
export const setPreparing = (id: string, version: number, what: string) =>
  rows("update exercises set preparing = $3 where id = $1 and version = $2 and prepared_version < $2", [
    id,
    version,
    what,
  ]);

/** A save as the page that makes it calls it: sent again under the same id it is answered with what it made. */
interface Save {
  readonly id: string;
  readonly version: number;
  /** The id of whoever makes it, for the history. */
  readonly by?: string;
}

/**
 * Writes a part of an exercise once. @param write sets what has changed, given the next version and what is remembered
 * of saves
 * @returns the new version, or undefined when another window has saved since
 */
async function savedOnce(
  id: string,
  save: Save,
  write: (client: pg.PoolClient, version: number, saves: string) => Promise<unknown>,
): Promise<number | undefined> {
  return transaction(async (client) => {
    const now = await one<{ version: number; saves: readonly SaveMark[] }>(
      "select version, saves from exercises where id = $1 for update",
      [id],
      client,
    );
    const known = now.saves.find((s) => s.id === save.id);
    if (known) return known.version;
    if (now.version !== save.version) return undefined;
    const version = now.version + 1;
    await write(client, version, JSON.stringify(remembered(now.saves, { id: save.id, version })));
    await openMeasuring(id, client);
    return version;
  });
}

/** The reference part as the Bench edits it. One begun in a new exercise hands its material and unit on to it. */
export const saveReference = (id: string, part: PartDocument, save: Save): Promise<number | undefined> =>
  savedOnce(id, save, (client, version, saves) =>
    client.query(
      `update exercises set version = $3, saves = $4, changed_by = coalesce($5, changed_by),
         document = jsonb_set(document, '{reference}', $2)
         || case when jsonb_array_length(document->'reference'->'steps') = 0
              and document->'material' = document->'reference'->'material'
              and document->'units' = document->'reference'->'units'
            then jsonb_build_object('material', $2::jsonb->'material', 'units', $2::jsonb->'units') else '{}'::jsonb end
       where id = $1`,
      [id, JSON.stringify(part), version, saves, save.by ?? null],
    ),
  );

/** The sizes that a Sheet prints and how they stand on it, as the drawing board arranges them. */
export const saveArrangement = (id: string, { sizes, sheet }: Arrangement, save: Save): Promise<number | undefined> =>
  savedOnce(id, save, (client, version, saves) =>
    client.query(
      `update exercises set version = $4, saves = $5, changed_by = coalesce($6, changed_by),
         document = jsonb_set(jsonb_set(document, '{sizes}', $2), '{sheet}', $3)
       where id = $1`,
      [id, JSON.stringify(sizes), JSON.stringify(sheet), version, saves, save.by ?? null],
    ),
  );

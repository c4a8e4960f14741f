import { newExercise, type Exercise } from "@/core/check/exercise/exercise";
import type { Targets } from "@/core/check/exercise/prepare";
import type pg from "pg";
import { needsMeasuring } from "@/core/exercise/things";
import { numberAfter } from "@/core/exercise/number-after";
import { one, row, rows, transaction } from "../database";
import { keepLinePicture } from "../files/line-pictures";
import { PRIORITY } from "../queue";
import { beginRun, endRun, openRun, type Ticket } from "../tries/runs";

/** What the worker found when it built the reference. */
export type Prepared = Measured | { readonly trouble: string };

/** What was measured; before there were sizes and questions they were left out. */
type Measured = Omit<Targets, Later> & Partial<Pick<Targets, Later>>;
type Later = "sizes" | "things" | "table" | "wanted" | "proof" | "drawing" | "signature" | "bodies" | "loose";

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
  rows<{ id: string; number: string; title: string; pictured: string | null }>(
    `select id, document->>'number' as number, document->>'title' as title, pictured from exercises
     where course_id = $1 order by document->>'number'`,
    [courseId],
  );
export const exercise = async (id: string): Promise<ExerciseRow> =>
  await one<ExerciseRow>(
    "select id, course_id, document, version, prepared, prepared_version, preparing from exercises where id = $1",
    [id],
  );

/** What an exercise was given out as, the newest first. */
export const handoutsOfExercise = (id: string) =>
  rows<{ id: string; due_at: Date }>(
    `select id, due_at from handouts where exercise_id = $1 and withdrawn_at is null order by created_at desc limit 50`,
    [id],
  );

/** What a page shows of what was measured: without what files are made of. */
export type Found = Omit<Measured, "drawing" | "signature"> | { readonly trouble: string };

export interface Measuring {
  /** The version that was measured. */
  readonly version: number;
  /** Left out: as it was told before. */
  readonly found?: Found | null;
  /** How far it is, in a few words. */
  readonly preparing: string;
}

/** How far the measuring of an exercise is. @param told the version whose measures are known already */
export async function measuringOf(id: string, told = -1): Promise<Measuring> {
  const r = await one<{ version: number; found: Found | null; preparing: string }>(
    `select prepared_version as version, preparing,
       case when prepared_version <> $2 then prepared - 'drawing' - 'signature' end as found
     from exercises where id = $1`,
    [id, told],
  );
  const { found, ...rest } = r;
  return r.version === told ? rest : { ...rest, found };
}

/**
 * An exercise to start from in a course: its Sheet is titled, lettered and projected as the course's last one, and its
 * number is the next.
 */
export async function newExerciseIn(courseId: string): Promise<Exercise> {
  const plain = newExercise();
  const last = await row<{ sheet: Exercise["sheet"]; numbers: readonly string[] }>(
    `select document->'sheet' as sheet,
       (select array_agg(x.document->>'number') from exercises x where x.course_id = $1) as numbers
     from exercises where course_id = $1 order by created_at desc, id limit 1`,
    [courseId],
  );
  if (!last) return plain;
  const { projection, printMass, massTolerance, drawnBy, owner, general, fractions, signs, exact } = last.sheet;
  const taken = { projection, printMass, massTolerance, drawnBy, owner, general, fractions, signs, exact };
  return { ...plain, number: numberAfter(last.numbers), sheet: { ...plain.sheet, ...taken } };
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

/** Has an exercise measured as it stands; what was begun on an earlier version gives way. */
export const openMeasuring = (id: string, client: pg.PoolClient): Promise<string> =>
  openRun({ kind: "measure", exercise_id: id }, { priority: PRIORITY.prepare }, client);

/** Begins measuring an exercise; undefined where it was done. */
export const beginMeasuring = (id: string): Promise<Ticket | undefined> =>
  beginRun({ kind: "measure", exercise_id: id }, "", "(select x.version from exercises x where x.id = r.exercise_id)");

/** Whoever changes an exercise and its runs locks the exercise first: a save and the end of a measuring meet. */
export const lockExercise = (id: string, client: pg.PoolClient) =>
  client.query("select 1 from exercises where id = $1 for update", [id]);

/** Ends a measuring with what was found on the version it was begun on. */
export const finishMeasuring = (ticket: Ticket, id: string, version: number, prepared: Prepared): Promise<void> =>
  transaction(async (client) => {
    const trouble = "trouble" in prepared ? prepared.trouble : null;
    await lockExercise(id, client);
    if (await endRun(ticket, trouble, client))
      await savePrepared(id, await stillHolds(id, version, client), prepared, client);
  });

/** The latest version that what was measured on one holds for: words beside the part may have changed since. */
async function stillHolds(id: string, version: number, client: pg.PoolClient): Promise<number> {
  const now = await one<{ version: number; stamps: Readonly<Record<string, number>> }>(
    "select version, stamps from exercises where id = $1",
    [id],
    client,
  );
  const since = Object.keys(now.stamps).filter((place) => now.stamps[place]! > version);
  return since.some((place) => needsMeasuring({ [place]: null })) ? version : now.version;
}

/** Writes what was measured on a version; what is known of a later one stays. */
export async function savePrepared(
  id: string,
  version: number,
  prepared: Prepared,
  client?: pg.Pool | pg.PoolClient,
): Promise<void> {
  // the picture is kept by itself, and told by its hash
  const svg = "picture" in prepared ? prepared.picture : undefined;
  const picture = svg ? await keepLinePicture(svg, client) : null;
  const measured = "picture" in prepared ? { ...prepared, picture: undefined } : prepared;
  await rows(
    `update exercises set prepared = $3, prepared_version = $2, preparing = '', pictured = $4
     where id = $1 and prepared_version <= $2`,
    [id, version, measured, picture],
    client,
  );
}

/** Says how far the measuring of a version is; one that was measured or changed meanwhile says nothing. */
export const setPreparing = (id: string, version: number, what: string) =>
  rows("update exercises set preparing = $3 where id = $1 and version = $2 and prepared_version < $2", [
    id,
    version,
    what,
  ]);

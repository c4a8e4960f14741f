import type { Exercise } from "@/core/check/exercise/exercise";
import type { RubricLine } from "@/core/check/exercise/rubric";
import { previewOf, type Preview } from "@/core/grade/preview";
import type { TriedMistakes } from "@/core/check/mistakes";
import { isTried } from "@/core/exercise/things";
import type pg from "pg";
import { one, rows, transaction } from "../database";
import { PRIORITY } from "../queue";
import { lockExercise } from "./exercises";
import { beginRun, endRun, openRun, type Subject, type Ticket } from "../tries/runs";

/** Rubrics to start from, of the course an exercise belongs to. */
export const rubricsOf = (courseId: string) =>
  rows<{ id: string; name: string; rubric: RubricLine[] }>(
    "select id, name, rubric from rubrics where course_id = $1 order by name",
    [courseId],
  );

/** So many of a course. */
const MOST_RUBRICS = 50;

/** Keeps a rubric under a name; one of that name is replaced. @returns false where there are too many */
export const keepRubric = (courseId: string, name: string, rubric: readonly RubricLine[]): Promise<boolean> =>
  transaction(async (client) => {
    const { n } = await one<{ n: number }>(
      "select count(*)::int as n from rubrics where course_id = $1 and name <> $2",
      [courseId, name],
      client,
    );
    if (n >= MOST_RUBRICS) return false;
    await client.query(
      `insert into rubrics (course_id, name, rubric) values ($1, $2, $3)
       on conflict (course_id, name) do update set rubric = excluded.rubric, made_at = now()`,
      [courseId, name, JSON.stringify(rubric)],
    );
    return true;
  });

export const sayTrying = (exerciseId: string, what: string) =>
  rows("update exercises set trying = $2 where id = $1", [exerciseId, what]);

const mistakesOf = (exerciseId: string): Subject => ({ kind: "mistakes", exercise_id: exerciseId });

/** Begins trying a rubric; undefined where it was done. */
export const beginTrying = (exerciseId: string): Promise<Ticket | undefined> =>
  beginRun(mistakesOf(exerciseId), "", "(select x.version from exercises x where x.id = r.exercise_id)");

/** What was found on a version; marked when it is looked at, since the rubric may be another by then. */
export const finishTrying = (
  ticket: Ticket,
  exerciseId: string,
  version: number,
  tried: TriedMistakes | { trouble: string },
): Promise<void> =>
  transaction(async (client) => {
    const trouble = "trouble" in tried ? tried.trouble : null;
    await lockExercise(exerciseId, client);
    if (await endRun(ticket, trouble, client)) await saveTried(exerciseId, version, tried, client);
  });

export const saveTried = (
  exerciseId: string,
  version: number,
  tried: TriedMistakes | { trouble: string },
  client?: pg.Pool | pg.PoolClient,
) =>
  rows(
    "update exercises set tried = $3, tried_version = $2, trying = '' where id = $1",
    [exerciseId, version, JSON.stringify(tried)],
    client,
  );

export interface Tried {
  readonly preview: Preview | undefined;
  readonly trouble: string | undefined;
  /** How far trying is, in a few words; empty while nothing is done. */
  readonly trying: string;
}

/**
 * What an exercise's rubric gives for what was tried. Where the reference, or what is checked of it, has changed since,
 * the worker tries anew; other points and words need no other trial.
 */
export const triedNow = (exerciseId: string): Promise<Tried> =>
  transaction(async (client) => {
    const now = await one<{
      document: Exercise;
      stamps: Readonly<Record<string, number>>;
      tried: TriedMistakes | { trouble: string } | null;
      tried_version: number;
      trying: string;
      measured: boolean;
    }>(
      `select document, stamps, tried, tried_version, trying,
         prepared_version = version and prepared ? 'sheet' as measured
       from exercises where id = $1 for update`,
      [exerciseId],
      client,
    );
    const { tried } = now;
    const changed = Object.keys(now.stamps).filter((place) => isTried(place));
    const isOld = !tried || changed.some((place) => now.stamps[place]! > now.tried_version);
    if (isOld && now.measured && !now.trying) {
      await client.query("update exercises set trying = 'waiting' where id = $1", [exerciseId]);
      await openRun(mistakesOf(exerciseId), { priority: PRIORITY.prepare }, client);
      now.trying = "waiting";
    }
    return {
      preview: tried && "reference" in tried ? previewOf({ ...now.document, wanted: undefined }, tried) : undefined,
      trouble: tried && "trouble" in tried ? tried.trouble : undefined,
      trying: now.trying,
    };
  });

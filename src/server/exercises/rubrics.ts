import type { Exercise } from "@/core/check/exercise/exercise";
import type { RubricLine } from "@/core/check/exercise/rubric";
import { previewOf, type Preview } from "@/core/grade/preview";
import type { TriedMistakes } from "@/core/check/mistakes";
import type pg from "pg";
import { one, rows, transaction } from "../database";
import { PRIORITY } from "../queue";
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

/** Has the worker try an exercise's rubric on typical mistakes. */
export const tryRubric = (exerciseId: string): Promise<void> =>
  transaction(async (client) => {
    await client.query("update exercises set trying = 'waiting' where id = $1", [exerciseId]);
    await openRun(mistakesOf(exerciseId), { priority: PRIORITY.prepare }, client);
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
  readonly version: number;
  readonly trying: string;
}

/** What an exercise's rubric gives for what was tried. */
export async function triedOf(exerciseId: string, exercise: Exercise): Promise<Tried> {
  const row = await one<{ tried: TriedMistakes | { trouble: string } | null; tried_version: number; trying: string }>(
    "select tried, tried_version, trying from exercises where id = $1",
    [exerciseId],
  );
  const { tried } = row;
  return {
    preview: tried && "reference" in tried ? previewOf(exercise, tried) : undefined,
    trouble: tried && "trouble" in tried ? tried.trouble : undefined,
    version: row.tried_version,
    trying: row.trying,
  };
}

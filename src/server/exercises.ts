import type { Exercise } from "@/core/check/exercise";
import type { PartDocument } from "@/core/part/document";
import type { Sheet } from "@/core/sheet/sheet";
import { row, rows, transaction } from "./database";
import { enqueue } from "./queue";

/** What the worker found when it built the reference. */
export type Prepared =
  | { readonly sheet: Sheet; readonly volume: number; readonly mass: number; readonly area: number }
  | { readonly trouble: string };

export interface ExerciseRow {
  readonly id: string;
  readonly course_id: string;
  readonly document: Exercise;
  readonly version: number;
  readonly prepared: Prepared | null;
  readonly prepared_version: number;
}

export const exercisesOf = (courseId: string) =>
  rows<ExerciseRow>(
    "select id, course_id, document, version, prepared, prepared_version from exercises where course_id = $1 order by document->>'number'",
    [courseId],
  );
export const exercise = async (id: string): Promise<ExerciseRow> =>
  (await row<ExerciseRow>(
    "select id, course_id, document, version, prepared, prepared_version from exercises where id = $1",
    [id],
  ))!;

export async function createExercise(courseId: string, document: Exercise): Promise<string> {
  return transaction(async (client) => {
    const made = (await row<{ id: string }>(
      "insert into exercises (course_id, document) values ($1, $2) returning id",
      [courseId, document],
      client,
    ))!;
    await enqueue({ task: "prepare-exercise", exercise: made.id }, client);
    return made.id;
  });
}

/** Saves and has the worker measure the reference anew. */
export async function saveExercise(id: string, document: Exercise): Promise<void> {
  await transaction(async (client) => {
    await client.query("update exercises set document = $2, version = version + 1 where id = $1", [id, document]);
    await enqueue({ task: "prepare-exercise", exercise: id }, client);
  });
}

/** The reference part as the Bench edits it. @returns the new version, or undefined when another window has saved since */
export async function saveReference(id: string, part: PartDocument, version: number): Promise<number | undefined> {
  return transaction(async (client) => {
    const saved = await row<{ version: number }>(
      "update exercises set document = jsonb_set(document, '{reference}', $2), version = version + 1 where id = $1 and version = $3 returning version",
      [id, JSON.stringify(part), version],
      client,
    );
    if (saved) await enqueue({ task: "prepare-exercise", exercise: id }, client);
    return saved?.version;
  });
}

import type { Exercise } from "@/core/check/exercise";
import type { PartDocument } from "@/core/part/document";
import type { Targets } from "@/core/check/prepare";
import { one, row, rows, transaction } from "./database";
import { enqueue } from "./queue";

/** What the worker found when it built the reference. */
export type Prepared = Targets | { readonly trouble: string };

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
    `select id, course_id, document, version, prepared, prepared_version from exercises
       where course_id = $1 order by document->>'number'`,
    [courseId],
  );
export const exercise = async (id: string): Promise<ExerciseRow> =>
  await one<ExerciseRow>(
    "select id, course_id, document, version, prepared, prepared_version from exercises where id = $1",
    [id],
  );

export async function createExercise(courseId: string, document: Exercise): Promise<string> {
  return transaction(async (client) => {
    const made = await one<{ id: string }>(
      "insert into exercises (course_id, document) values ($1, $2) returning id",
      [courseId, document],
      client,
    );
    await enqueue({ task: "prepare-exercise", exercise: made.id }, client);
    return made.id;
  });
}

/**
 * Saves over a version and has the worker measure anew. @returns the new version, or undefined when another has saved
 * since
 */
export async function saveExercise(id: string, document: Exercise, version: number): Promise<number | undefined> {
  return transaction(async (client) => {
    const saved = await row<{ version: number }>(
      "update exercises set document = $2, version = version + 1 where id = $1 and version = $3 returning version",
      [id, document, version],
      client,
    );
    if (saved) await enqueue({ task: "prepare-exercise", exercise: id }, client);
    return saved?.version;
  });
}

/** Writes what was measured on a version; what is known of a later one stays. */
export const savePrepared = (id: string, version: number, prepared: Prepared) =>
  rows("update exercises set prepared = $3, prepared_version = $2 where id = $1 and prepared_version <= $2", [
    id,
    version,
    prepared,
  ]);

/**
 * The reference part as the Bench edits it. One begun in a new exercise hands its material and unit on to it.
 * @returns the new version, or undefined when another window has saved since
 */
export async function saveReference(id: string, part: PartDocument, version: number): Promise<number | undefined> {
  return transaction(async (client) => {
    const saved = await row<{ version: number }>(
      `update exercises set version = version + 1, document = jsonb_set(document, '{reference}', $2)
         || case when jsonb_array_length(document->'reference'->'steps') = 0
              and document->'material' = document->'reference'->'material'
              and document->'units' = document->'reference'->'units'
            then jsonb_build_object('material', $2::jsonb->'material', 'units', $2::jsonb->'units') else '{}'::jsonb end
       where id = $1 and version = $3 returning version`,
      [id, JSON.stringify(part), version],
      client,
    );
    if (saved) await enqueue({ task: "prepare-exercise", exercise: id }, client);
    return saved?.version;
  });
}

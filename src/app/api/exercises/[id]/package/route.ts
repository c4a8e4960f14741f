import { packageOfExercise } from "@/server/exercises/exercise-package";
import { endpoint, zipFile } from "../../../endpoint";

/** An exercise with its reference and Sheet, to be taken elsewhere. */
export const GET = endpoint<{ id: string }>("exercise.edit", "id", async (_, { id }) =>
  zipFile(await packageOfExercise(id), "exercise.zip"),
);

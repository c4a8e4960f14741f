import { triedNow } from "@/server/exercises/rubrics";
import { endpoint } from "../../../endpoint";

/** What the rubric gives for typical mistakes; has them tried where that was not done on the exercise as it stands. */
export const POST = endpoint<{ id: string }>("exercise.edit", "id", (_, { id }) => triedNow(id));

import { exercise, savePrepared } from "../exercises/exercises";
import { remarkOne } from "../marking/marking";
import { writeTrial } from "../marking/rechecks";
import { saveTried } from "../exercises/rubrics";
import { buryRuns, queueLost, type Buried } from "./runs";

const DIED = "Could not be checked: the grading process ended each time it tried.";
const NOT_MEASURED =
  "It could not be measured: the grading process ended each time it tried. Save it again to have it tried anew.";

/**
 * Ends the runs of any kind whose process died each time it tried, so that nobody waits for ever: each leaves a
 * sentence where its reader looks, and can be begun anew. Runs whose job has been lost are queued anew.
 */
export async function buryLost(): Promise<void> {
  for (const run of await buryRuns(DIED)) await leaveWord(run);
  await queueLost();
}

async function leaveWord(run: Buried): Promise<void> {
  switch (run.kind) {
    case "check":
      return remarkOne(run.submission_id);
    case "second-check":
      return writeTrial(run.recheck_id, run.submission_id, { trouble: DIED });
    case "measure":
      return void (await savePrepared(run.exercise_id, await versionOf(run), { trouble: NOT_MEASURED }));
    case "mistakes":
      return void (await saveTried(run.exercise_id, await versionOf(run), { trouble: NOT_MEASURED }));
    default:
    // a practice and an own part are told by how their run stands
  }
}

const versionOf = async (run: Buried): Promise<number> => (await exercise(run.exercise_id)).version;

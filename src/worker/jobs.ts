import { z } from "zod";
import type { JobHelpers, TaskList } from "graphile-worker";
import { gradeReport } from "@/core/grade/grade";
import { rows } from "@/server/database";
import { exercise } from "@/server/exercises";
import { handout } from "@/server/handouts";
import { packPicture } from "@/server/pictures";
import { checkInput, setState, writeReport } from "@/server/submissions";
import { ThreadEnded, type KernelThreads } from "./threads";

const CheckPayload = z.object({ submission: z.uuid() });
const ExercisePayload = z.object({ exercise: z.uuid() });
const HandoutPayload = z.object({ handout: z.uuid() });

const isLast = (helpers: JobHelpers) => helpers.job.attempts >= helpers.job.max_attempts;

/** The jobs of the grading process, over a set of kernel threads. */
export function jobs(threads: KernelThreads): TaskList {
  return {
    async check(payload, helpers) {
      const { submission } = CheckPayload.parse(payload);
      const input = await checkInput(submission);
      if (!input) return;
      const attempt = helpers.job.attempts;
      const again = attempt > 1 ? ` (try ${attempt} of ${helpers.job.max_attempts})` : "";
      await setState(submission, "checking", `starting${again}`);
      try {
        let last = Promise.resolve<unknown>(undefined);
        const result = await threads.run(
          { kind: "check", exercise: input.exercise, document: input.document },
          {
            progress: (what) => (last = last.then(() => setState(submission, "checking", what + again))),
            ...(helpers.abortSignal && { signal: helpers.abortSignal }),
          },
        );
        await last;
        if (!result.ok) {
          await setState(submission, "failed", "", result.refusal.sentence);
          return;
        }
        const { report, picture } = result.value;
        await writeReport(
          submission,
          input.revision,
          report,
          gradeReport(input.exercise, report),
          packPicture(picture),
        );
      } catch (e) {
        const reason = e instanceof ThreadEnded ? e.message : "the program failed";
        if (isLast(helpers))
          await setState(submission, "failed", "", `Could not be checked: ${reason}. It was tried ${attempt} times.`);
        else await setState(submission, "queued", `${reason}; trying again`);
        throw e;
      }
    },
    async "prepare-exercise"(payload) {
      const row = await exercise(ExercisePayload.parse(payload).exercise);
      if (!row) return;
      const result = await threads.run({ kind: "prepare", exercise: row.document }).catch((e: Error) => ({
        ok: false as const,
        refusal: { code: "failed", sentence: `The reference could not be measured: ${e.message}.` },
      }));
      await rows("update exercises set prepared = $2, prepared_version = $3 where id = $1", [
        row.id,
        result.ok ? result.value : { trouble: result.refusal.sentence },
        row.version,
      ]);
    },
    async "prepare-handout"(payload) {
      const row = await handout(HandoutPayload.parse(payload).handout);
      if (!row) return;
      const result = await threads.run({ kind: "prepare", exercise: row.exercise }).catch((e: Error) => ({
        ok: false as const,
        refusal: { code: "failed", sentence: `The Sheet could not be drawn: ${e.message}.` },
      }));
      await rows("update handouts set sheet = $2, trouble = $3 where id = $1", [
        row.id,
        result.ok ? result.value.sheet : null,
        result.ok ? null : result.refusal.sentence,
      ]);
    },
  };
}

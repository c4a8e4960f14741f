import { z } from "zod";
import type { JobHelpers, TaskList } from "graphile-worker";
import { gradeReport } from "@/core/grade/grade";
import { exercise, savePrepared } from "@/server/exercises";
import { packPicture } from "@/server/pictures";
import { checkInput, setProgress, setState, writeReport } from "@/server/submissions";
import { ThreadEnded, type KernelThreads } from "./threads";

const CheckPayload = z.object({ submission: z.uuid() });
const ExercisePayload = z.object({ exercise: z.uuid() });

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
      // one after the other: what was said of a check is written before its end, and nothing after it
      let said: Promise<unknown> = Promise.resolve();
      try {
        const result = await threads.run(
          { kind: "check", exercise: input.exercise, document: input.document },
          {
            progress: (what) => (said = said.then(() => setProgress(submission, what + again)).catch(() => {})),
            ...(helpers.abortSignal && { signal: helpers.abortSignal }),
          },
        );
        await said;
        if (!result.ok) {
          await setState(submission, "failed", "", result.refusal.sentence);
          return;
        }
        const { report, picture } = result.value;
        const grade = gradeReport(input.exercise, report);
        await writeReport(submission, input.revision, report, grade, packPicture(picture));
      } catch (e) {
        await said;
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
      await savePrepared(row.id, row.version, result.ok ? result.value : { trouble: result.refusal.sentence });
    },
  };
}

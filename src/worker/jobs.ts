import { z } from "zod";
import type { JobHelpers, TaskList } from "graphile-worker";
import { gradeReport } from "@/core/grade/grade";
import { exercise, savePrepared, setPreparing } from "@/server/exercises";
import { withOwnNumbers } from "@/core/check/own-numbers";
import { log } from "@/server/log";
import { news } from "@/server/news";
import { ownPartInput, passOver, saveOwnPart } from "@/server/own-parts";
import { packPicture } from "@/server/pictures";
import { enqueue, PRIORITY } from "@/server/queue";
import { practiceInput, sayPractice } from "@/server/practices";
import { sweep } from "@/server/removal";
import { trialInput, writeTrial } from "@/server/rechecks";
import { saveTried, sayTrying } from "@/server/rubrics";
import { beginCheck, checkInput, setProgress, setState, writeReport } from "@/server/submissions";
import { ThreadEnded, type KernelThreads } from "./threads";

const CheckPayload = z.object({ submission: z.uuid() });
const ExercisePayload = z.object({ exercise: z.uuid() });

/** Progress is written at most so often. */
const SAY_MS = 400;

/** Writes progress, one word after the other: all of it before the end of what it tells of, and nothing after. */
function sayer(write: (what: string) => Promise<unknown>) {
  let said: Promise<unknown> = Promise.resolve(),
    saidAt = 0;
  return {
    say: (what: string) => {
      // forty steps of a second are not forty rows of a table
      if (Date.now() - saidAt < SAY_MS) return;
      saidAt = Date.now();
      said = said.then(() => write(what)).catch(() => {});
    },
    written: () => said,
  };
}

const isLast = (helpers: JobHelpers) => helpers.job.attempts >= helpers.job.max_attempts;

/** What is done while others wait: checks as far as they are quickly done. */
export function shortJobs(threads: KernelThreads): TaskList {
  return {
    check: (payload, helpers) =>
      check(threads, payload, helpers, async (submission, input) => {
        await setState(submission, "checking", "this part takes longer; it goes on beside the others");
        await enqueue({ task: "check-long", submission }, { priority: PRIORITY.attempt(input.attempt) });
      }),
    practise: (payload) => practise(threads, payload),
  };
}

/** Draws the Sheet of an exercise and measures its reference. */
async function prepare(threads: KernelThreads, payload: unknown): Promise<void> {
  const row = await exercise(ExercisePayload.parse(payload).exercise);
  // asked for twice, or measured by who made it
  if (row.prepared && row.prepared_version >= row.version) return;
  try {
    const said = sayer((what) => setPreparing(row.id, row.version, what));
    const result = await threads.run({ kind: "prepare", exercise: row.document }, { progress: said.say });
    await said.written();
    await savePrepared(row.id, row.version, result.ok ? result.value : { trouble: result.refusal.sentence });
  } catch (e) {
    // the next worker does it
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    const message = e instanceof Error ? e.message : String(e);
    await savePrepared(row.id, row.version, { trouble: `The reference could not be measured: ${message}.` });
  }
}

/** What others need not wait for: checks that take longer, and following a reference's numbers for its sizes. */
export const longJobs = (threads: KernelThreads): TaskList => ({
  "check-long": (payload, helpers) =>
    check(threads, payload, helpers, (submission, _, e) => setState(submission, "failed", "", spentText(e))),
  "prepare-exercise": (payload) => prepare(threads, payload),
  "try-rubric": (payload) => tryOn(threads, payload),
  "second-check": (payload) => secondCheck(threads, payload),
  sweep: async () => log.info(await sweep(), "thrown away what is past its time"),
  "own-part": (payload) => measureOwnPart(threads, payload),
});

const OwnPartPayload = z.object({ handout: z.uuid(), person: z.uuid() });

/** Builds and measures one student's own part; numbers that do not do give way to the next in the row. */
async function measureOwnPart(threads: KernelThreads, payload: unknown): Promise<void> {
  const { handout, person } = OwnPartPayload.parse(payload);
  for (let tried = 1; ; tried++) {
    const input = await ownPartInput(handout, person);
    if (!input) return;
    const own = withOwnNumbers(input.exercise, input.numbers);
    let trouble = "";
    try {
      const result = own.ok ? await threads.run({ kind: "prepare", exercise: own.value }, {}) : own;
      if (!result.ok) trouble = result.refusal.sentence;
      else if (result.value.proof.points.length) trouble = result.value.proof.points[0]!.sentence;
      else if (await saveOwnPart(handout, person, input.revision, result.value)) return;
      else trouble = "Another student has the same part by other numbers.";
    } catch (e) {
      if (e instanceof ThreadEnded && e.ending === "closing") throw e;
      trouble = e instanceof Error ? e.message : String(e);
    }
    await passOver(handout, person, tried, trouble);
  }
}

/** Tries an exercise's rubric on typical mistakes. */
async function tryOn(threads: KernelThreads, payload: unknown): Promise<void> {
  const row = await exercise(ExercisePayload.parse(payload).exercise);
  const measured = row.prepared && "sheet" in row.prepared ? row.prepared : undefined;
  const document = {
    ...row.document,
    sizes: row.document.sizes ?? [...(measured?.sizes ?? [])],
    wanted: measured?.wanted,
  };
  const said = sayer((what) => sayTrying(row.id, what));
  try {
    const result = await threads.run({ kind: "try-mistakes", exercise: document }, { progress: said.say });
    await said.written();
    await saveTried(row.id, row.version, result.ok ? result.value : { trouble: result.refusal.sentence });
  } catch (e) {
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    await saveTried(row.id, row.version, { trouble: e instanceof Error ? e.message : String(e) });
  }
}

const TrialPayload = z.object({ trial: z.uuid(), submission: z.uuid() });

/** Checks one submission by a changed exercise, beside what there is. */
async function secondCheck(threads: KernelThreads, payload: unknown): Promise<void> {
  const { trial, submission } = TrialPayload.parse(payload);
  const input = await trialInput(trial, submission);
  // tried already, applied or dropped meanwhile
  if (!input) return;
  const { exercise: asked, document, answers, initials } = input;
  try {
    const result = await threads.run({ kind: "check", exercise: asked, document, answers, by: { initials } }, {});
    if (!result.ok) return void (await writeTrial(trial, submission, { trouble: result.refusal.sentence }));
    const { report, picture } = result.value;
    await writeTrial(trial, submission, { report, grade: gradeReport(asked, report), picture: packPicture(picture) });
  } catch (e) {
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    await writeTrial(trial, submission, { trouble: e instanceof ThreadEnded ? spentText(e) : "The program failed." });
  }
}

const PracticePayload = z.object({ practice: z.uuid() });

/** A check before handing in: nothing of it is a submission. */
async function practise(threads: KernelThreads, payload: unknown): Promise<void> {
  const { practice } = PracticePayload.parse(payload);
  const input = await practiceInput(practice);
  if (!input || input.state === "checked" || input.state === "failed") return;
  const said = sayer((progress) => sayPractice(practice, "checking", { progress }));
  await sayPractice(practice, "checking", { progress: "starting" });
  const { exercise: asked, document, initials } = input;
  try {
    const task = { kind: "check" as const, exercise: asked, document, answers: {}, by: { initials } };
    const result = await threads.run(task, { progress: said.say });
    await said.written();
    if (result.ok) await sayPractice(practice, "checked", { grade: gradeReport(asked, result.value.report) });
    else await sayPractice(practice, "failed", { trouble: result.refusal.sentence });
  } catch (e) {
    await said.written();
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    await sayPractice(practice, "failed", { trouble: e instanceof ThreadEnded ? spentText(e) : "The program failed." });
  }
}

type Input = NonNullable<Awaited<ReturnType<typeof checkInput>>>;

/** @param outOfTime what happens to a check that takes longer than it may here */
async function check(
  threads: KernelThreads,
  payload: unknown,
  helpers: JobHelpers,
  outOfTime: (submission: string, input: Input, e: ThreadEnded) => Promise<unknown>,
): Promise<void> {
  const { submission } = CheckPayload.parse(payload);
  const input = await checkInput(submission);
  if (!input) return;
  const attempt = helpers.job.attempts;
  const again = attempt > 1 ? ` (try ${attempt} of ${helpers.job.max_attempts})` : "";
  if (!(await beginCheck(submission, `starting${again}`))) return;
  const said = sayer((what) => setProgress(submission, what + again));
  const stop = new AbortController();
  const leave = () => stop.abort();
  helpers.abortSignal?.addEventListener("abort", leave);
  const deafen = news().listen((topic) => topic === `stop:${submission}` && stop.abort());
  try {
    const result = await threads.run(
      {
        kind: "check",
        exercise: input.exercise,
        document: input.document,
        answers: input.answers,
        by: { initials: input.initials },
      },
      { progress: said.say, signal: stop.signal },
    );
    await said.written();
    if (!result.ok) {
      await setState(submission, "failed", "", result.refusal.sentence);
      return;
    }
    const { report, picture } = result.value;
    const grade = gradeReport(input.exercise, report);
    await writeReport(submission, helpers.job.id, input.revision, report, grade, packPicture(picture));
  } catch (e) {
    await said.written();
    const ended = e instanceof ThreadEnded ? e : undefined;
    // stopped by hand, and said so already
    if (ended?.ending === "cancelled" && !helpers.abortSignal?.aborted) return;
    // what is too much once is too much each time
    if (ended?.ending === "time") return void (await outOfTime(submission, input, ended));
    if (ended?.ending === "memory") return void (await setState(submission, "failed", "", spentText(ended)));
    const reason = ended?.message ?? "the program failed";
    if (isLast(helpers) && ended?.ending !== "closing")
      await setState(submission, "failed", "", `Could not be checked: ${reason}. It was tried ${attempt} times.`);
    else await setState(submission, "queued", `${reason}; trying again`);
    throw e;
  } finally {
    helpers.abortSignal?.removeEventListener("abort", leave);
    deafen();
  }
}

/** What was too much, and where: "Could not be checked: it took longer than 60 s, while building step 3 (Pattern)." */
function spentText(e: ThreadEnded): string {
  const place = e.during ? `, while ${e.during}` : "";
  return `Could not be checked: ${e.message}${place}. Make it lighter there and hand in again.`;
}

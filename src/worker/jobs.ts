import { z } from "zod";
import type { JobHelpers, TaskList } from "graphile-worker";
import { gradeReport } from "@/core/grade/grade";
import { beginMeasuring, exercise, finishMeasuring, setPreparing, type Prepared } from "@/server/exercises/exercises";
import { withOwnNumbers } from "@/core/check/exercise/own-numbers";
import { log } from "@/server/log";
import { news } from "@/server/news";
import { beginOwnPart, ownPartInput, passOver, saveOwnPart } from "@/server/handouts/own-parts";
import { keepLines } from "@/server/files/line-pictures";
import { packPicture } from "@/server/files/pictures";
import { beginPractice, finishPractice } from "@/server/works/practices";
import { sweep } from "@/server/upkeep/removal";
import { beginTrial, finishTrial } from "@/server/marking/rechecks";
import { beginTrying, finishTrying, sayTrying } from "@/server/exercises/rubrics";
import { beginCheck, failCheck, finishCheck, goOnLonger } from "@/server/tries/checks";
import { sayProgress, stepRun, type Ticket } from "@/server/tries/runs";
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
      check(threads, payload, helpers, ({ ticket, submission, input }) =>
        goOnLonger(ticket, submission, input.attempt),
      ),
    practise: (payload) => practise(threads, payload),
  };
}

/** Draws the Sheet of an exercise and measures its reference. */
async function prepare(threads: KernelThreads, payload: unknown): Promise<void> {
  const { exercise: id } = ExercisePayload.parse(payload);
  const ticket = await beginMeasuring(id);
  if (!ticket) return;
  const row = await exercise(id);
  // measured by who made it
  if (row.prepared && row.prepared_version >= row.version) return void (await stepRun(ticket, "finish"));
  const end = (found: Prepared) => finishMeasuring(ticket, row.id, row.version, found);
  try {
    const said = sayer((what) => setPreparing(row.id, row.version, what));
    const result = await threads.run({ kind: "prepare", exercise: row.document }, { progress: said.say });
    await said.written();
    await end(result.ok ? result.value : { trouble: result.refusal.sentence });
  } catch (e) {
    // the next worker does it
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    const message = e instanceof Error ? e.message : String(e);
    await end({ trouble: `The reference could not be measured: ${message}.` });
  }
}

/** What others need not wait for: checks that take longer, and following a reference's numbers for its sizes. */
export const longJobs = (threads: KernelThreads): TaskList => ({
  "check-long": (payload, helpers) =>
    check(threads, payload, helpers, ({ ticket, submission }, e) => failCheck(ticket, submission, spentText(e))),
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
  const ticket = await beginOwnPart(handout, person);
  if (!ticket) return;
  for (let tried = 1; ; tried++) {
    const input = await ownPartInput(handout, person);
    const own = withOwnNumbers(input.exercise, input.numbers);
    let trouble = "";
    try {
      const result = own.ok ? await threads.run({ kind: "prepare", exercise: own.value }, {}) : own;
      if (!result.ok) trouble = result.refusal.sentence;
      else if (result.value.proof.points.length) trouble = result.value.proof.points[0]!.sentence;
      else if (await saveOwnPart(ticket, handout, person, result.value)) return;
      else trouble = "Another student has the same part by other numbers.";
    } catch (e) {
      if (e instanceof ThreadEnded && e.ending === "closing") throw e;
      trouble = e instanceof Error ? e.message : String(e);
    }
    if (!(await passOver(ticket, handout, person, tried, trouble))) return;
  }
}

/** Tries an exercise's rubric on typical mistakes. */
async function tryOn(threads: KernelThreads, payload: unknown): Promise<void> {
  const { exercise: id } = ExercisePayload.parse(payload);
  const ticket = await beginTrying(id);
  if (!ticket) return;
  const row = await exercise(id);
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
    await finishTrying(ticket, row.id, row.version, result.ok ? result.value : { trouble: result.refusal.sentence });
  } catch (e) {
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    await finishTrying(ticket, row.id, row.version, { trouble: e instanceof Error ? e.message : String(e) });
  }
}

const TrialPayload = z.object({ trial: z.uuid(), submission: z.uuid() });

/** Checks one submission by a changed exercise, beside what there is. */
async function secondCheck(threads: KernelThreads, payload: unknown): Promise<void> {
  const { trial, submission } = TrialPayload.parse(payload);
  const begun = await beginTrial(trial, submission);
  // tried already, applied or dropped meanwhile
  if (!begun) return;
  const { ticket, input } = begun;
  const { exercise: asked, document, answers, initials } = input;
  try {
    const task = { kind: "check" as const, exercise: asked, document, answers, by: { initials } };
    const result = await untilStopped(ticket, (signal) => threads.run(task, { signal }));
    if (!result.ok) return await finishTrial(ticket, trial, submission, { trouble: result.refusal.sentence });
    const { report, picture } = result.value;
    const grade = gradeReport(asked, report);
    const lines = await keepLines(result.value.lines);
    await finishTrial(ticket, trial, submission, { report, grade, picture: packPicture(picture), lines });
  } catch (e) {
    if (isNoLongerWanted(e)) return;
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    const trouble = e instanceof ThreadEnded ? spentText(e) : "The program failed.";
    await finishTrial(ticket, trial, submission, { trouble });
  }
}

/** Runs something until it ends, or its run was stopped or gave way. @param leave from outside, when the pool closes */
async function untilStopped<T>(
  { run }: Ticket,
  work: (signal: AbortSignal) => Promise<T>,
  leave?: AbortSignal,
): Promise<T> {
  const stop = new AbortController();
  const end = () => stop.abort();
  leave?.addEventListener("abort", end);
  const deafen = news().listen((topic) => topic === `stop:${run}` && end());
  try {
    return await work(stop.signal);
  } finally {
    leave?.removeEventListener("abort", end);
    deafen();
  }
}
const isNoLongerWanted = (e: unknown): boolean => e instanceof ThreadEnded && e.ending === "cancelled";

const PracticePayload = z.object({ practice: z.uuid() });

/** A check before handing in: nothing of it is a submission. */
async function practise(threads: KernelThreads, payload: unknown): Promise<void> {
  const { practice } = PracticePayload.parse(payload);
  const begun = await beginPractice(practice);
  if (!begun) return;
  const { ticket, input } = begun;
  const said = sayer((progress) => sayProgress(ticket, progress));
  const { exercise: asked, document, initials } = input;
  const fail = (trouble: string) => finishPractice(ticket, practice, { trouble });
  try {
    const task = { kind: "check" as const, exercise: asked, document, answers: {}, by: { initials } };
    const result = await threads.run(task, { progress: said.say });
    await said.written();
    if (result.ok) await finishPractice(ticket, practice, { grade: gradeReport(asked, result.value.report) });
    else await fail(result.refusal.sentence);
  } catch (e) {
    await said.written();
    if (e instanceof ThreadEnded && e.ending === "closing") throw e;
    await fail(e instanceof ThreadEnded ? spentText(e) : "The program failed.");
  }
}

/** A check that was begun. */
type Begun = NonNullable<Awaited<ReturnType<typeof beginCheck>>> & { readonly submission: string };

/** @param outOfTime what happens to a check that takes longer than it may here */
async function check(
  threads: KernelThreads,
  payload: unknown,
  helpers: JobHelpers,
  outOfTime: (begun: Begun, e: ThreadEnded) => Promise<unknown>,
): Promise<void> {
  const { submission } = CheckPayload.parse(payload);
  const attempt = helpers.job.attempts;
  const again = attempt > 1 ? ` (try ${attempt} of ${helpers.job.max_attempts})` : "";
  const begun = await beginCheck(submission, `starting${again}`);
  if (!begun) return;
  const { ticket, input } = begun;
  const said = sayer((what) => sayProgress(ticket, what + again));
  try {
    const { exercise: asked, document, answers, initials } = input;
    const task = { kind: "check" as const, exercise: asked, document, answers, by: { initials } };
    const result = await untilStopped(
      ticket,
      (signal) => threads.run(task, { progress: said.say, signal }),
      helpers.abortSignal,
    );
    await said.written();
    if (!result.ok) return await failCheck(ticket, submission, result.refusal.sentence);
    const { report, picture } = result.value;
    const lines = await keepLines(result.value.lines);
    await finishCheck(ticket, submission, report, gradeReport(asked, report), packPicture(picture), lines);
  } catch (e) {
    await said.written();
    const ended = e instanceof ThreadEnded ? e : undefined;
    // stopped by hand or overtaken, and said so already
    if (isNoLongerWanted(e) && !helpers.abortSignal?.aborted) return;
    // what is too much once is too much each time
    if (ended?.ending === "time") return void (await outOfTime({ ...begun, submission }, ended));
    if (ended?.ending === "memory") return await failCheck(ticket, submission, spentText(ended));
    const reason = ended?.message ?? "the program failed";
    if (isLast(helpers) && ended?.ending !== "closing")
      await failCheck(ticket, submission, `Could not be checked: ${reason}. It was tried ${attempt} times.`);
    else await stepRun(ticket, "again", { progress: `${reason}; trying again` });
    throw e;
  }
}

/** What was too much, and where: "Could not be checked: it took longer than 60 s, while building step 3 (Pattern)." */
function spentText(e: ThreadEnded): string {
  const place = e.during ? `, while ${e.during}` : "";
  return `Could not be checked: ${e.message}${place}. Make it lighter there and hand in again.`;
}

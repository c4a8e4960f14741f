import { randomUUID } from "node:crypto";
import { EventEmitter } from "node:events";
import { Logger, run, type JobHelpers } from "graphile-worker";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Report } from "@/core/check/check";
import type { PartDocument } from "@/core/part/document";
import { closeDatabase, connectionString, one, row, rows } from "@/server/database";
import type { Handout } from "@/server/handouts/handouts";
import type { Person } from "@/server/people/people";
import { enqueue, PRIORITY } from "@/server/queue";
import { currentReport, submission } from "@/server/tries/submissions";
import { beginCheck, finishCheck, retryCheck, stopCheck } from "@/server/tries/checks";
import { sayProgress } from "@/server/tries/runs";
import { startHeartbeat } from "@/worker/heartbeat";
import { longJobs, shortJobs } from "@/worker/jobs";
import { ThreadEnded, type Ending, type KernelThreads } from "@/worker/threads";
import { dropPerson, gradedAs, handoutNumbered, newStudent, newSubmission, until } from "./sample";

let foot: Handout, student: Person, good: PartDocument;
beforeAll(async () => {
  foot = await handoutNumbered("WS-08");
  good = (
    await one<{ document: PartDocument }>(
      `select s.document from submissions s join people p on p.id = s.person_id
       where s.handout_id = $1 and p.name = 'Barnaby Teal'`,
      [foot.id],
    )
  ).document;
});
beforeEach(async () => {
  student = await newStudent(foot.course_id);
});
afterEach(() => dropPerson(student.id));
afterAll(closeDatabase);

const handedIn = (attempt = 1) => newSubmission(foot.id, student.id, good, attempt);
const helpers = (attempts: number, id = randomUUID()) => ({ job: { id, attempts, max_attempts: 3 } }) as JobHelpers;
/** Threads that end instead of checking. */
const ending = (how: Ending, reason: string, during = "") =>
  ({ run: () => Promise.reject(new ThreadEnded(how, reason, during)) }) as unknown as KernelThreads;
const queued = (key: string) =>
  row<{ priority: number; queue: string | null; attempts: number }>(
    `select j.priority, q.queue_name as queue, j.attempts from graphile_worker._private_jobs j
     left join graphile_worker._private_job_queues q on q.id = j.job_queue_id where j.key = $1`,
    [key],
  );

/** While this is done, a job of this key waits for tomorrow: the running worker does not look at it. */
async function outOfSight(key: string, work: () => Promise<void>): Promise<void> {
  const name = `held_${randomUUID().slice(0, 8)}`;
  await rows(`create function ${name}() returns trigger language plpgsql as $$ begin
    if new.key = '${key}' then new.run_at := now() + interval '1 day'; end if;
    return new;
  end $$`);
  await rows(`create trigger ${name} before insert on graphile_worker._private_jobs
    for each row execute function ${name}()`);
  await work().finally(() => rows(`drop function ${name}() cascade`));
}

describe("a check that cannot end", () => {
  it("is tried three times in all, then says so with the reason; nothing is lost", async () => {
    const id = await handedIn();
    // as a grading process leaves it that died three times
    await rows(
      `select graphile_worker.add_job('check', payload := json_build_object('submission', $1::text),
         max_attempts := 3, job_key := 'check:' || $1::text, run_at := now() + interval '1 day')`,
      [id],
    );
    await rows("update graphile_worker._private_jobs set attempts = 3 where key = 'check:' || $1::text", [id]);
    await until(async () => (await submission(id)).state === "failed");
    const after = await submission(id);
    expect(after.trouble).toMatch(/^Could not be checked: .*ended each time/);
    expect(after.document).toEqual(good);
    expect(await currentReport(id)).toBeUndefined();
    await rows("select graphile_worker.remove_job('check:' || $1::text)", [id]);
  });
  it("nothing is said of its progress after its end", async () => {
    const id = await handedIn();
    // progress is told and the thread gone before any of it is written
    const hasty = {
      run: (_: unknown, { progress }: { progress: (what: string) => void }) => {
        for (let i = 0; i < 20; i++) progress(`part ${i}`);
        return Promise.reject(new ThreadEnded("died", "its thread ended without a result"));
      },
    } as unknown as KernelThreads;
    await expect(shortJobs(hasty)["check"]!({ submission: id }, helpers(3))).rejects.toThrow(ThreadEnded);
    for (let i = 0; i < 5; i++) {
      expect(await submission(id)).toMatchObject({ state: "failed", progress: "" });
      await new Promise((r) => setTimeout(r, 30));
    }
    const { run } = await one<{ run: string }>("select run_id as run from tries where submission_id = $1", [id]);
    await sayProgress({ run, turn: 1, revision: 1 }, "late");
    expect(await submission(id)).toMatchObject({ state: "failed", progress: "" });
  });
  it("says while it is tried again what went wrong, and after the third time gives the reason", async () => {
    const id = await handedIn();
    const attempt = (n: number) =>
      shortJobs(ending("died", "its thread ended without a result"))["check"]!({ submission: id }, helpers(n));
    await expect(attempt(1)).rejects.toThrow(ThreadEnded);
    expect(await submission(id)).toMatchObject({
      state: "queued",
      progress: "its thread ended without a result; trying again",
      trouble: null,
    });
    await expect(attempt(3)).rejects.toThrow(ThreadEnded);
    expect(await submission(id)).toMatchObject({
      state: "failed",
      trouble: "Could not be checked: its thread ended without a result. It was tried 3 times.",
    });
    expect(await currentReport(id)).toBeUndefined();
  });
  it("out of time it makes room for the others once, and the second time says where it was", async () => {
    const id = await handedIn();
    await outOfSight(`check-long:${id}`, async () => {
      await shortJobs(ending("time", "it took longer than 15 s"))["check"]!({ submission: id }, helpers(1));
      const waiting = { state: "queued", progress: expect.stringContaining("takes longer") };
      expect(await submission(id)).toMatchObject(waiting);
    });
    const slow = ending("time", "it took longer than 60 s", "building step 3 of the part (Pattern)");
    await rows("select graphile_worker.remove_job('check-long:' || $1::text)", [id]);
    await longJobs(slow)["check-long"]!({ submission: id }, helpers(1));
    expect(await submission(id)).toMatchObject({
      state: "failed",
      trouble: expect.stringMatching(
        /longer than 60 s, while building step 3 of the part \(Pattern\)\. Make it lighter/,
      ),
    });
  });
  it("out of memory it is not tried again", async () => {
    const id = await handedIn();
    await shortJobs(ending("memory", "it needs more than 700 MB of memory"))["check"]!({ submission: id }, helpers(1));
    expect(await submission(id)).toMatchObject({
      state: "failed",
      trouble: expect.stringContaining("more than 700 MB"),
    });
  });
  it("one that was replaced meanwhile is not begun", async () => {
    const id = await handedIn();
    await rows("update runs set state = 'replaced' where submission_id = $1", [id]);
    await shortJobs(ending("fault", "must not run"))["check"]!({ submission: id }, helpers(1));
    expect((await submission(id)).state).toBe("replaced");
  });
});

describe("reports", () => {
  it("a run writes one, however often it is told to", async () => {
    const id = await handedIn();
    const report = { version: 1, kernel: "k", evidence: [] } as Report;
    const line = { id: "a", title: "A", points: 7, of: 10, verdict: "missed" };
    const grade = { points: 7, of: 10, lines: [line] } as never;
    const { ticket } = (await beginCheck(id, ""))!;
    const write = () => finishCheck(ticket, id, report, grade, {} as never);
    expect((await Promise.all([write(), write()])).sort()).toEqual([false, true]);
    expect(await rows("select 1 from reports where submission_id = $1", [id])).toHaveLength(1);
    await gradedAs(id, grade);
    expect(await rows("select 1 from reports where submission_id = $1", [id])).toHaveLength(2);
    expect((await submission(id)).points).toBe(7);
  });
});

describe("the queue", () => {
  it("takes first tries before fifth ones, and two of one person at once at most", async () => {
    const ids = await Promise.all([1, 2, 3, 5].map(handedIn));
    for (const [i, attempt] of [1, 2, 3, 5].entries())
      await enqueue(
        { task: "check-long", submission: ids[i]! },
        { priority: PRIORITY.attempt(attempt), lane: `person:${student.id}:${attempt % 2}` },
      );
    const jobs = await Promise.all(ids.map((id) => queued(`check-long:${id}`)));
    const there = jobs.filter((j) => j !== undefined);
    // what runs already is gone from the list; the order of the rest is told by its numbers
    expect(new Set(there.map((j) => j.queue)).size).toBeLessThanOrEqual(2);
    expect(there.map((j) => j.priority)).toEqual([...there.map((j) => j.priority)].sort((a, b) => a - b));
    for (const id of ids) await rows("select graphile_worker.remove_job('check-long:' || $1::text)", [id]);
  });
});

describe("the heartbeat", () => {
  /** Shorter than in earnest, but not so short that the demo's own worker would seem dead. */
  const BEAT = { everyMs: 500, deadMs: 3_500 };
  const quiet = new Logger(() => () => {});
  /** A grading process with one slow job of its own kind. */
  async function slowProcess(task: string, ms: number, done: (pool: string) => void) {
    const events = new EventEmitter();
    let pool = "";
    events.on("pool:create", (e: { workerPool: { id: string } }) => (pool = e.workerPool.id));
    const runner = await run({
      connectionString: connectionString(),
      concurrency: 1,
      pollInterval: 100,
      noHandleSignals: true,
      logger: quiet,
      events: events as never,
      taskList: {
        [task]: async () => {
          await new Promise((r) => setTimeout(r, ms));
          done(pool);
        },
      },
    });
    const still = await startHeartbeat(() => [pool], BEAT);
    return { pool, stop: async () => void (await Promise.all([runner.stop(), still()])) };
  }
  it("a job that takes longer than the limit of the heartbeat runs once, with two processes", async () => {
    const task = `slow-${randomUUID()}`,
      runs: string[] = [];
    const both = await Promise.all([1, 2].map(() => slowProcess(task, 6_000, (pool) => runs.push(pool))));
    await rows("select graphile_worker.add_job($1)", [task]);
    await new Promise((r) => setTimeout(r, 8_500));
    await Promise.all(both.map((p) => p.stop()));
    expect(runs).toHaveLength(1);
  }, 20_000);
  it("a job in the hands of a dead process is freed and done", async () => {
    const task = `left-${randomUUID()}`,
      runs: string[] = [];
    await rows("select graphile_worker.add_job($1)", [task]);
    await rows(
      `update graphile_worker._private_jobs set locked_by = 'dead-pool', locked_at = now() - interval '1 minute',
         attempts = 1
       where task_id = (select id from graphile_worker._private_tasks where identifier = $1)`,
      [task],
    );
    const p = await slowProcess(task, 10, (pool) => runs.push(pool));
    await until(() => Promise.resolve(runs.length > 0), 15_000).finally(() => p.stop());
    expect(runs).toEqual([p.pool]);
  }, 20_000);
});

describe("stopping by hand", () => {
  it("ends a running check at once, says so, and it can be tried again", async () => {
    const id = await handedIn();
    const endless = {
      run: (_: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise((_, reject) =>
          signal.addEventListener("abort", () => reject(new ThreadEnded("cancelled", "it was cancelled"))),
        ),
    } as unknown as KernelThreads;
    const running = shortJobs(endless)["check"]!({ submission: id }, helpers(1));
    await until(async () => (await submission(id)).state === "checking");
    // it listens before it can be told
    await new Promise((r) => setTimeout(r, 500));
    await stopCheck(id);
    await running;
    expect(await submission(id)).toMatchObject({ state: "failed", trouble: expect.stringMatching(/^Stopped by/) });
    await retryCheck(id);
    expect((await submission(id)).state).not.toBe("failed");
  });
});

import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise";
import { database, row, rows } from "@/server/database";
import { forStudent, handout, issueHandout, openWork, saveWork } from "@/server/handouts";
import {
  closeSession,
  hashPassword,
  openSession,
  personByPassword,
  personOfSession,
  type Person,
} from "@/server/people";
import { Denied, permit } from "@/server/permissions";
import { createExercise, exercise, saveExercise, savePrepared, saveReference } from "@/server/exercises";
import { latestReport, setProgress, submission } from "@/server/submissions";
import { jobs } from "@/worker/jobs";
import { ThreadEnded, type KernelThreads } from "@/worker/threads";
import type { JobHelpers } from "graphile-worker";

afterAll(() => database().end());

const person = async (name: string) =>
  (await row<Person>("select id, name, email from people where name = $1", [name]))!;
let teacher: Person, student: Person, other: Person, stranger: Person, foot: string, own: string;
beforeAll(async () => {
  [teacher, student, other] = (await Promise.all(["Hedda Lark", "Linnea Holt", "Barnaby Teal"].map(person))) as [
    Person,
    Person,
    Person,
  ];
  stranger = (await row<Person>(
    `insert into people (name, email, password_hash)
       values ('Nobody Here', 'nobody@elsewhere.example', $1) on conflict (email) do update
       set name = excluded.name returning id, name, email`,
    [await hashPassword("a word")],
  ))!;
  foot = (await row<{ id: string }>("select id from handouts where exercise->>'number' = 'WS-08'"))!.id;
  own = (await row<{ id: string }>("select id from submissions where handout_id = $1 and person_id = $2", [
    foot,
    other.id,
  ]))!.id;
});
const allowed = (p: Person, action: Parameters<typeof permit>[1], id: string) =>
  permit(p, action, id).then(
    (r) => r as string,
    (e) => (e instanceof Denied ? "denied" : Promise.reject(e as Error)),
  );

describe("permissions", () => {
  it("let people do what is theirs and nothing else", async () => {
    expect(await allowed(teacher, "handout.teach", foot)).toBe("instructor");
    expect(await allowed(student, "handout.view", foot)).toBe("student");
    expect(await allowed(student, "handout.teach", foot)).toBe("denied");
    expect(await allowed(teacher, "handout.work", foot)).toBe("denied");
    expect(await allowed(stranger, "handout.view", foot)).toBe("denied");
    expect(await allowed(other, "submission.view", own)).toBe("student");
    expect(await allowed(student, "submission.view", own)).toBe("denied");
    expect(await allowed(other, "submission.mark", own)).toBe("denied");
    expect(await allowed(teacher, "submission.mark", own)).toBe("instructor");
  });
  it.each(["", "1", "' or true --", "00000000-0000-4000-8000-000000000000"])(
    "an id that is none or nobody's (%j) is denied, not an error",
    async (id) => {
      expect(await allowed(teacher, "submission.view", id)).toBe("denied");
    },
  );
});

describe("sign-in", () => {
  it("takes the right password only, and stores it as argon2id", async () => {
    expect((await personByPassword("Nobody@Elsewhere.example", "a word"))?.id).toBe(stranger.id);
    expect(await personByPassword("nobody@elsewhere.example", "another")).toBeUndefined();
    expect(await personByPassword("no.one@elsewhere.example", "a word")).toBeUndefined();
    expect((await row<{ h: string }>("select password_hash as h from people where id = $1", [stranger.id]))!.h).toMatch(
      /^\$argon2id\$/,
    );
  });
  it("sessions open, are found by their token only, and close", async () => {
    const { token } = await openSession(student.id);
    expect((await personOfSession(token))?.id).toBe(student.id);
    expect(await personOfSession(`${token}x`)).toBeUndefined();
    expect(
      await rows("select 1 from sessions where encode(token_hash, 'escape') like '%' || $1 || '%'", [token]),
    ).toEqual([]);
    await closeSession(token);
    expect(await personOfSession(token)).toBeUndefined();
  });
});

describe("works", () => {
  it("a second window is told instead of overwritten", async () => {
    const h = await handout(foot);
    const first = await openWork(h, student.id),
      second = await openWork(h, student.id);
    expect(await saveWork(foot, student.id, { ...first.document, name: "from one" }, first.version)).toBe(
      first.version + 1,
    );
    expect(await saveWork(foot, student.id, { ...second.document, name: "from two" }, second.version)).toBeUndefined();
    expect((await openWork(h, student.id)).document.name).toBe("from one");
  });
});

describe("an exercise", () => {
  const steps = [
    { id: "s", kind: "sketch", sketch: { plane: { base: "top" }, curves: [], constraints: [], dimensions: [] } },
  ];
  const brass = { name: "Brass CuZn39Pb3", density: 8.47 };
  const measured = {
    sheet: { svg: "<svg/>", scale: "1:1", projection: "first-angle", dimensions: [] },
    volume: 1,
    area: 1,
    mass: 1,
  };
  const make = async () => createExercise((await handout(foot)).course_id, newExercise());
  const drop = (id: string) => rows("delete from exercises where id = $1", [id]);

  it("is saved over the version it was filled from only", async () => {
    const id = await make();
    const before = (await exercise(id)).document;
    expect(await saveExercise(id, { ...before, title: "one" }, 1)).toBe(2);
    expect(await saveExercise(id, { ...before, title: "two" }, 1)).toBeUndefined();
    expect((await exercise(id)).document.title).toBe("one");
    await drop(id);
  });
  it("takes material and unit from its first reference, and keeps them from then on", async () => {
    const id = await make();
    const reference = (await exercise(id)).document.reference;
    await saveReference(id, { ...reference, steps, material: brass, units: "in" } as never, 1);
    expect((await exercise(id)).document).toMatchObject({ material: brass, units: "in" });
    await saveReference(id, { ...reference, steps } as never, 2);
    expect((await exercise(id)).document).toMatchObject({ material: brass, units: "in", reference: { units: "mm" } });
    await drop(id);
  });
  it("is issued exactly as it was measured, or not at all", async () => {
    const id = await make();
    const due = new Date(Date.now() + 1e6);
    expect(await issueHandout(id, due)).toBeUndefined();
    await savePrepared(id, 1, { trouble: "It has no solid." });
    expect(await issueHandout(id, due)).toBeUndefined();
    await savePrepared(id, 1, measured as never);
    expect(await issueHandout(id, due, true, 2)).toBeUndefined();
    const h = await handout((await issueHandout(id, due, true, 1))!);
    expect([h.revision, h.sheet]).toEqual([1, measured.sheet]);
    // changed since: what was measured is of another revision
    await saveExercise(id, { ...newExercise(), title: "later" }, 1);
    expect(await issueHandout(id, due)).toBeUndefined();
    // a slow measurement of an older version does not undo a newer one
    await savePrepared(id, 2, measured as never);
    await savePrepared(id, 1, { trouble: "old" });
    expect((await exercise(id)).prepared_version).toBe(2);
    await drop(id);
  });
});

describe("what a student is sent of a handout", () => {
  it("holds nothing of the reference but the Sheet", async () => {
    const h = await handout(foot);
    const text = JSON.stringify(forStudent(h));
    expect(text).not.toContain("extrude1");
    expect(text).not.toContain("reference");
    expect(text).not.toContain('"steps"');
    expect(Object.keys(forStudent(h)).sort()).toEqual([
      "brief",
      "course",
      "dueAt",
      "id",
      "material",
      "number",
      "sheet",
      "title",
      "trouble",
      "units",
    ]);
  });
});

describe("a check that cannot end", () => {
  it("is tried three times in all, then says so with the reason; nothing is lost", async () => {
    const s = await submission(own);
    const id = (await row<{ id: string }>(
      "insert into submissions (handout_id, person_id, attempt, document) values ($1, $2, 99, $3) returning id",
      [foot, stranger.id, s.document],
    ))!.id;
    // as a grading process leaves it that died three times
    await rows(
      `select graphile_worker.add_job('check', payload := json_build_object('submission', $1::text),
         max_attempts := 3, job_key := 'check:' || $1::text, run_at := now() + interval '1 day')`,
      [id],
    );
    await rows("update graphile_worker._private_jobs set attempts = 3 where key = 'check:' || $1::text", [id]);
    let state = "";
    for (let i = 0; i < 60 && state !== "failed"; i++) {
      state = (await submission(id)).state;
      await new Promise((r) => setTimeout(r, 250));
    }
    const after = await submission(id);
    expect(after.state).toBe("failed");
    expect(after.trouble).toMatch(/^Could not be checked: .*ended each time/);
    expect(after.document).toEqual(s.document);
    expect(await latestReport(id)).toBeUndefined();
    await rows("delete from submissions where id = $1", [id]);
    await rows("select graphile_worker.remove_job('check:' || $1::text)", [id]);
  });
  it("nothing is said of its progress after its end", async () => {
    const s = await submission(own);
    const id = (await row<{ id: string }>(
      "insert into submissions (handout_id, person_id, attempt, document) values ($1, $2, 96, $3) returning id",
      [foot, stranger.id, s.document],
    ))!.id;
    // progress is told and the thread gone before any of it is written
    const hasty = {
      run: (_: unknown, { progress }: { progress: (what: string) => void }) => {
        for (let i = 0; i < 20; i++) progress(`part ${i}`);
        return Promise.reject(new ThreadEnded("it took longer than 60 s"));
      },
    } as unknown as KernelThreads;
    const last = { job: { attempts: 3, max_attempts: 3 } } as JobHelpers;
    await expect(jobs(hasty)["check"]!({ submission: id }, last)).rejects.toThrow(ThreadEnded);
    for (let i = 0; i < 5; i++) {
      expect(await submission(id)).toMatchObject({ state: "failed", progress: "" });
      await new Promise((r) => setTimeout(r, 30));
    }
    await setProgress(id, "late");
    expect(await submission(id)).toMatchObject({ state: "failed", progress: "" });
    await rows("delete from submissions where id = $1", [id]);
  });
  it("says while it is tried again what went wrong, and after the third time gives the reason", async () => {
    const s = await submission(own);
    const id = (await row<{ id: string }>(
      "insert into submissions (handout_id, person_id, attempt, document) values ($1, $2, 97, $3) returning id",
      [foot, stranger.id, s.document],
    ))!.id;
    const slow = { run: () => Promise.reject(new ThreadEnded("it took longer than 60 s")) } as unknown as KernelThreads;
    const attempt = (n: number) =>
      jobs(slow)["check"]!({ submission: id }, { job: { attempts: n, max_attempts: 3 } } as JobHelpers);
    await expect(attempt(1)).rejects.toThrow(ThreadEnded);
    expect(await submission(id)).toMatchObject({
      state: "queued",
      progress: "it took longer than 60 s; trying again",
      trouble: null,
    });
    await expect(attempt(3)).rejects.toThrow(ThreadEnded);
    expect(await submission(id)).toMatchObject({
      state: "failed",
      trouble: "Could not be checked: it took longer than 60 s. It was tried 3 times.",
    });
    expect(await latestReport(id)).toBeUndefined();
    await rows("delete from submissions where id = $1", [id]);
  });
  it("a job in the hands of a dead worker is freed and done", async () => {
    // the demo's submissions stand before it in the queue: its own time begins when they are done
    for (
      let i = 0;
      i < 480 && (await rows("select 1 from submissions where state in ('queued', 'checking') limit 1")).length;
      i++
    )
      await new Promise((r) => setTimeout(r, 250));
    const s = await submission(own);
    const id = (await row<{ id: string }>(
      "insert into submissions (handout_id, person_id, attempt, document) values ($1, $2, 98, $3) returning id",
      [foot, stranger.id, s.document],
    ))!.id;
    await rows(
      `select graphile_worker.add_job('check', payload := json_build_object('submission', $1::text),
         max_attempts := 3, job_key := 'check:' || $1::text)`,
      [id],
    );
    // locked by one that has not been heard of for a while; it may also be taken at once, which is as good
    await rows(
      `update graphile_worker._private_jobs
         set locked_by = 'worker-dead', locked_at = now() - interval '5 minutes', attempts = 1
         where key = 'check:' || $1::text and locked_by is null`,
      [id],
    );
    let state = "";
    for (let i = 0; i < 120 && state !== "checked"; i++) {
      state = (await submission(id)).state;
      await new Promise((r) => setTimeout(r, 250));
    }
    expect(state).toBe("checked");
    expect((await latestReport(id))?.grade.points).toBe(20);
    await rows("delete from submissions where id = $1", [id]);
  }, 180_000);
});

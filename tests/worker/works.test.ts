import { randomUUID } from "node:crypto";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { PartDocument } from "@/core/part/document";
import { closeDatabase, database, one, row, rows, Taken, transaction } from "@/server/database";
import { handout, type Handout } from "@/server/handouts/handouts";
import { extend, issueHandout } from "@/server/handouts/handout-terms";
import type { Person } from "@/server/people/people";
import { handIn, submission } from "@/server/tries/submissions";
import { checkAgain } from "@/server/tries/checks";
import { changeHistory, type HistoryChange } from "@/server/works/history";
import { countsOf, filledBy, keepWithin, MOST_KEPT, roomNow, versionsOf } from "@/server/works/versions";
import { openWork, saveWork } from "@/server/works/works";
import { dropPerson, handoutNumbered, newStudent, newSubmission, personCalled, until } from "./sample";

let foot: Handout, student: Person, start: PartDocument;
beforeAll(async () => {
  foot = await handoutNumbered("WS-08");
  // the demo's own checks go first
  const done = `select 1 from checks c join submissions s on s.id = c.submission_id
    join people p on p.id = s.person_id where c.state = 'checked' and p.demo limit 1`;
  await until(async () => (await rows(done)).length > 0, 90_000);
}, 100_000);
beforeEach(async () => {
  student = await newStudent(foot.course_id);
  start = (await openWork(foot, student.id)).document;
});
afterEach(() => dropPerson(student.id));
afterAll(closeDatabase);

const called = (name: string): PartDocument => ({ ...start, name });
const save = (name: string, version: number, id: string = randomUUID(), window = "a") =>
  saveWork(foot.id, student.id, { id, document: called(name), version, window });
const now = () => openWork(foot, student.id);
const kinds = async () => (await versionsOf(foot.id, student.id)).map((v) => v.kind);

describe("saving", () => {
  it("the same save sent again is answered with what it made, also after a later one", async () => {
    const id = randomUUID();
    expect(await save("one", 1, id)).toEqual({ ok: true, version: 2 });
    expect(await save("one", 1, id)).toEqual({ ok: true, version: 2 });
    await save("two", 2);
    expect(await save("one", 1, id)).toEqual({ ok: true, version: 2 });
    expect((await now()).document.name).toBe("two");
  });
  it("of two at once over one version one is taken, the other kept aside whole", async () => {
    const both = await Promise.all([save("left", 1, randomUUID(), "a"), save("right", 1, randomUUID(), "b")]);
    expect(both.map((r) => r.ok).sort()).toEqual([false, true]);
    const [aside] = await versionsOf(foot.id, student.id);
    const names = [(await now()).document.name];
    const kept = await row<{ document: PartDocument }>("select document from work_versions where id = $1", [aside!.id]);
    expect([...names, kept!.document.name].sort()).toEqual(["left", "right"]);
    expect(aside).toMatchObject({ kind: "parted", name: "From another window" });
  });
  it("a late one sent twice is kept aside once", async () => {
    const id = randomUUID();
    await save("theirs", 1);
    expect([await save("late", 1, id), await save("late", 1, id)]).toEqual([
      { ok: false, version: 2 },
      { ok: false, version: 2 },
    ]);
    expect(await kinds()).toEqual(["parted"]);
  });
  it("adds no row a save; a pause makes the end of the spell a version", async () => {
    for (let v = 1; v < 20; v++) await save(`step ${v}`, v);
    expect(await kinds()).toEqual([]);
    await rows("update works set changed_at = now() - interval '20 minutes' where person_id = $1", [student.id]);
    await save("after lunch", 20);
    expect(await kinds()).toEqual(["spell"]);
    const spell = await row<{ document: PartDocument }>("select document from work_versions where person_id = $1", [
      student.id,
    ]);
    expect(spell!.document.name).toBe("step 19");
  });
  it("tells those who listen, with version and window", async () => {
    const client = await database().connect();
    const heard: string[] = [];
    client.on("notification", (n) => heard.push(n.payload ?? ""));
    await client.query("listen caliper");
    await save("one", 1, randomUUID(), "w1");
    await client.query("select 1");
    await client.query("unlisten caliper");
    client.release();
    expect(heard).toContain(`work:${foot.id}:${student.id}:2:w1`);
  });
});

describe("history", () => {
  const change = async (c: Record<string, unknown>, id: string = randomUUID()) =>
    changeHistory(foot.id, student.id, {
      id,
      version: (await now()).version,
      window: "a",
      ...c,
    } as HistoryChange);
  it("a named version is restored as a new one, and what stood before stays too", async () => {
    await save("good", 1);
    await change({ do: "name", name: "before the shell" });
    await save("bad", 2);
    const named = (await versionsOf(foot.id, student.id)).find((v) => v.kind === "named")!;
    const r = await change({ do: "restore", of: named.id });
    expect(r).toMatchObject({ ok: true, version: 4, document: { name: "good" } });
    expect((await kinds()).sort()).toEqual(["before", "named"]);
  });
  it("a variant is branched off and gone back from; both keep what they had", async () => {
    await save("first way", 1);
    expect(await change({ do: "branch", name: "Turned" })).toMatchObject({ ok: true, variant: "Turned" });
    await save("turned way", (await now()).version);
    const back = await change({ do: "switch", name: "First way" });
    expect(back).toMatchObject({ ok: true, variant: "First way", document: { name: "first way" } });
    expect(await change({ do: "switch", name: "Turned" })).toMatchObject({ document: { name: "turned way" } });
    expect(await change({ do: "branch", name: "First way" })).toEqual({ ok: false, code: "taken" });
    expect(await change({ do: "switch", name: "nowhere" })).toEqual({ ok: false, code: "not-there" });
  });
  it("sent again it happens once; over another version not at all", async () => {
    const id = randomUUID();
    const first = await change({ do: "branch", name: "Turned" }, id);
    const version = (await now()).version;
    expect(
      await changeHistory(foot.id, student.id, { id, version: 1, window: "a", do: "branch", name: "Turned" }),
    ).toEqual(first);
    expect((await now()).version).toBe(version);
    expect(
      await changeHistory(foot.id, student.id, { id: randomUUID(), version: 1, window: "a", do: "branch", name: "X" }),
    ).toEqual({ ok: false, code: "other-version" });
  });
  it("so many versions can be named, and a name can be taken away", async () => {
    await rows(
      `insert into work_versions (handout_id, person_id, variant, version, kind, name, document)
       select $1, $2, 'First way', 1, 'named', 'n' || n, '{}' from generate_series(1, 100) n`,
      [foot.id, student.id],
    );
    expect(await change({ do: "name", name: "one more" })).toEqual({ ok: false, code: "too-many-named" });
    const [one] = (await versionsOf(foot.id, student.id)).filter((v) => v.kind === "named");
    expect(await change({ do: "unname", of: one!.id })).toMatchObject({ ok: true });
    expect(await change({ do: "unname", of: one!.id })).toEqual({ ok: false, code: "not-there" });
    expect(await change({ do: "name", name: "one more" })).toMatchObject({ ok: true });
    expect(await countsOf(foot.id, student.id)).toEqual({ named: 100, parted: 0 });
  });
  it("histories of all parts have room for so much; the oldest that nobody asked for go first", async () => {
    const [other] = await rows<{ id: string }>("select id from handouts where id <> $1 limit 1", [foot.id]);
    await openWork((await handout(other!.id))!, student.id);
    // a kilobyte each that cannot be pressed, the lower the number the older
    const put = (kind: string, of: string, from: number, to: number) =>
      rows(
        `insert into work_versions (handout_id, person_id, variant, version, kind, name, document, made_at)
         select $1, $2, 'First way', n, $3, n::text,
           json_build_object('x', (select string_agg(md5(n || '/' || i), '') from generate_series(1, 30) i)),
           now() - (1000 - n) * interval '1 second'
         from generate_series($4::int, $5::int) n`,
        [of, student.id, kind, from, to],
      );
    await put("named", foot.id, 1, 4);
    await put("spell", foot.id, 11, 20);
    await put("handed-in", other!.id, 21, 22);
    await put("parted", other!.id, 31, 35);
    const asked = await filledBy(student.id);
    expect(asked).toBeGreaterThan(6 * 960);
    expect(asked).toBeLessThan(6 * 1100);
    await keepWithin(database(), student.id, 10 * (asked / 6) + 10);
    const left = await rows<{ version: number }>(
      "select version from work_versions where person_id = $1 order by version",
      [student.id],
    );
    expect(left.map((v) => v.version)).toEqual([1, 2, 3, 4, 21, 22, 32, 33, 34, 35]);
    const naming: HistoryChange = { id: randomUUID(), version: 1, window: "a", do: "name", name: "more" };
    expect(await changeHistory(foot.id, student.id, naming, asked)).toEqual({ ok: false, code: "too-much" });
    expect(await changeHistory(foot.id, student.id, naming, asked + 1)).toMatchObject({ ok: true });
  });
  it("the server has room for so much", async () => {
    const { bytes, most, isFull } = await roomNow();
    expect([most, isFull]).toEqual([50e9, false]);
    expect(await roomNow(database(), bytes / 2)).toMatchObject({ isFull: true });
  });
  it("what was put aside does not grow without end: the last ones stay", async () => {
    await save("stands", 1);
    for (let i = 0; i < MOST_KEPT.parted + 3; i++) await save(`aside ${i}`, 1);
    const left = await rows<{ name: string }>(
      `select document->>'name' as name from work_versions where handout_id = $1 and person_id = $2
       and kind = 'parted' order by made_at`,
      [foot.id, student.id],
    );
    expect(left.map((v) => v.name)).toEqual(Array.from({ length: MOST_KEPT.parted }, (_, i) => `aside ${i + 3}`));
  });
  it("a save under somebody else's id is refused, and nothing is taken for kept", async () => {
    const other = await newStudent(foot.course_id);
    await openWork(foot, other.id);
    const id = randomUUID();
    await save("stands", 1);
    expect(await save("aside", 1, id)).toMatchObject({ ok: false });
    const foreign = () => saveWork(foot.id, other.id, { id, document: called("other"), version: 7, window: "b" });
    await expect(foreign()).rejects.toThrow(Taken);
    await dropPerson(other.id);
  });
  it("before the Bench was opened there is nothing to save into", async () => {
    const other = await newStudent(foot.course_id);
    const to = { id: randomUUID(), document: start, version: 1, window: "b" };
    expect(await saveWork(foot.id, other.id, to)).toEqual({ ok: false, version: 0 });
    const named = { id: randomUUID(), version: 1, window: "b", do: "name", name: "x" } as const;
    expect(await changeHistory(foot.id, other.id, named)).toEqual({ ok: false, code: "not-opened" });
    await dropPerson(other.id);
  });
  it("old spells are thinned by the day and the week; what was named stays", async () => {
    await save("x", 1);
    const put = (kind: string, age: string) =>
      rows(
        `insert into work_versions (handout_id, person_id, variant, version, kind, document, made_at)
         values ($1, $2, 'First way', 1, $3, '{}', date_trunc('week', now()) - $4::interval)`,
        [foot.id, student.id, kind, age],
      );
    for (const hours of [1, 2, 3]) await put("spell", `20 days ${hours} hours`);
    for (const days of [71, 72, 73]) await put("spell", `${days} days`);
    await put("named", "70 days");
    await put("named", "71 days");
    await change({ do: "name", name: "now" });
    const left = await versionsOf(foot.id, student.id);
    expect(left.filter((v) => v.kind === "named")).toHaveLength(3);
    // three of one day leave one; days 71 to 73 before a Monday lie in one week
    expect(left.filter((v) => v.kind === "spell")).toHaveLength(2);
  });
});

describe("handing in", () => {
  const part = async () => {
    const good = await one<{ document: PartDocument }>(
      "select document from submissions where handout_id = $1 and attempt = 1 limit 1",
      [foot.id],
    );
    await saveWork(foot.id, student.id, { id: randomUUID(), document: good.document, version: 1, window: "a" });
  };
  const give = (h: Handout, version: number, id: string = randomUUID()) => handIn(h, student.id, { id, version });
  const made = (r: Awaited<ReturnType<typeof handIn>>) => {
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value.submission;
  };
  it("sent three times at once it is one submission", async () => {
    await part();
    const id = randomUUID();
    const all = await Promise.all([give(foot, 2, id), give(foot, 2, id), give(foot, 2, id)]);
    expect(new Set(all.map(made)).size).toBe(1);
    expect(await kinds()).toContain("handed-in");
  });
  it("is refused for another version than the one that was meant, and for an empty part", async () => {
    expect(await give(foot, 1)).toMatchObject({ ok: false, refusal: { code: "empty" } });
    await part();
    expect(await give(foot, 1)).toMatchObject({ ok: false, refusal: { code: "other-version" } });
  });
  it("a new try takes the place of the own one that waits", async () => {
    await part();
    // it waits: no job takes it up
    const first = await newSubmission(foot.id, student.id, (await now()).document);
    const second = made(await give(foot, 2));
    expect(await submission(first)).toMatchObject({ state: "replaced", attempt: 1 });
    expect(await submission(second)).toMatchObject({ attempt: 2 });
  });
  it("goes by the server's clock: refused, late, or in time by an extension", async () => {
    await part();
    const exercise = (await one<{ exercise_id: string }>("select exercise_id from handouts where id = $1", [foot.id]))
      .exercise_id;
    const hour = 3_600_000;
    const issued = async (afterDue: "refuse" | "late", ago: number) =>
      handout((await issueHandout(exercise, { dueAt: new Date(Date.now() - ago), graceMinutes: 10, afterDue }))!);
    const closed = await issued("refuse", hour),
      late = await issued("late", hour),
      graced = await issued("refuse", hour / 10);
    for (const h of [closed, late, graced]) {
      await openWork(h, student.id);
      await rows(
        `update works w set document = o.document, version = 2 from works o
         where w.handout_id = $1 and w.person_id = $2 and o.handout_id = $3 and o.person_id = $2`,
        [h.id, student.id, foot.id],
      );
    }
    expect(await give(closed, 2)).toMatchObject({ ok: false, refusal: { code: "closed" } });
    expect((await submission(made(await give(late, 2)))).late_seconds).toBeGreaterThanOrEqual(3600);
    expect((await submission(made(await give(graced, 2)))).late_seconds).toBe(0);
    expect(await extend(closed.id, student.id, new Date(Date.now() + hour))).toBe(true);
    expect((await submission(made(await give(closed, 2)))).late_seconds).toBe(0);
    expect(await extend(closed.id, (await personCalled("Hedda Lark")).id, new Date())).toBe(false);
    await transaction(async (client) => {
      await client.query("select allow_deleting()");
      await client.query("delete from handouts where id = any($1)", [[closed.id, late.id, graced.id]]);
    });
  });
  /**
   * Wants whole tables for itself: where others work on them just then it gives way, before the database would end one
   * of the two, and asks once more.
   */
  const alone = async (sql: string): Promise<unknown> => {
    for (;;) {
      try {
        return await transaction(async (client) => {
          await client.query("set local lock_timeout = '200ms'");
          return client.query(sql);
        });
      } catch (e) {
        if (!["40P01", "55P03"].includes((e as { code?: string }).code ?? "")) throw e;
      }
    }
  };
  it("what was handed in, reported and issued is never changed but in the one way", async () => {
    await part();
    const id = made(await give(foot, 2));
    for (const sql of [
      "update submissions set attempt = 9 where id = $1",
      "delete from submissions where id = $1",
      "delete from handouts where id = (select handout_id from submissions where id = $1)",
      "update handouts set exercise = '{}' where id = (select handout_id from submissions where id = $1)",
      "delete from reports where submission_id <> $1",
      "update reports set grade = '{}' where submission_id <> $1",
    ])
      await expect(rows(sql, [id]), sql).rejects.toThrow(/never changed/);
    for (const table of ["submissions", "reports", "handouts"])
      await expect(alone(`truncate ${table} cascade`), table).rejects.toThrow(/never changed/);
    // an extension of the due time is a change of the rules, not of what was issued
    await rows("update handouts set due_at = due_at where id = $1", [foot.id]);
  });
  it("is checked again without losing what was reported", async () => {
    const done = await one<{ id: string; report_id: string }>(
      `select s.id, c.report_id from submissions s join checks c on c.submission_id = s.id
       join people p on p.id = s.person_id where c.state = 'checked' and p.demo limit 1`,
    );
    expect(await checkAgain({ submission: done.id })).toBe(1);
    expect(await checkAgain({ submission: done.id })).toBe(0);
    const old = await rows("select 1 from reports where id = $1", [done.report_id]);
    expect(old).toHaveLength(1);
  });
});

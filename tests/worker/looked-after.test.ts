import { spawn, spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { emptyPart } from "@/core/part/document";
import { tripodFoot } from "@/demo/parts";
import { makeCourse } from "@/server/courses/courses";
import { closeDatabase, connectionString, one, row, rows } from "@/server/database";
import { saveExercise } from "@/server/exercises/changes";
import { createExercise } from "@/server/exercises/exercises";
import { handout, type Handout } from "@/server/handouts/handouts";
import { invite } from "@/server/people/invitations";
import { revisionsOfExercise } from "@/server/library/library";
import { liveOn, signOff } from "@/server/marking/live";
import { rename, type Person } from "@/server/people/people";
import { personData } from "@/server/people/person-data";
import { removeCourse, removePerson, sweep } from "@/server/upkeep/removal";
import { handIn } from "@/server/tries/submissions";
import { openWork, saveWork } from "@/server/works/works";
import { gradedAs, dropPerson, handoutNumbered, newStudent, newSubmission, until } from "./sample";

const folder = mkdtempSync(join(tmpdir(), "caliper-backup-"));
const databases: string[] = [];
/** Another database of the same server, as a server elsewhere has it. */
async function elsewhere(): Promise<string> {
  const name = `elsewhere_${randomUUID().slice(0, 8)}`;
  await rows(`create database ${name}`);
  databases.push(name);
  const url = new URL(connectionString());
  url.pathname = `/${name}`;
  return url.href;
}
const asked = async <T extends pg.QueryResultRow>(url: string, sql: string, values: unknown[] = []): Promise<T[]> => {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(sql, values)).rows;
  } finally {
    await client.end();
  }
};
const program = (script: string, url: string, file: string) =>
  new Promise<{ code: number | null; said: string }>((resolve) => {
    const child = spawn(process.execPath, [`scripts/${script}.mjs`, file], {
      env: { ...process.env, DATABASE_URL: url },
    });
    let said = "";
    for (const s of [child.stdout, child.stderr]) s.on("data", (d) => (said += String(d)));
    child.on("exit", (code) => resolve({ code, said }));
  });

/** Everything that stands in a database, as text. */
const DUMP = `exec "$(ls -d /usr/lib/postgresql/*/bin | tail -1)/pg_dump" --data-only "$1"`;

/** Everything that stands in one database, put into another. */
const COPY = `bin="$(ls -d /usr/lib/postgresql/*/bin | tail -1)"
"$bin/pg_dump" "$1" | "$bin/psql" -q -v ON_ERROR_STOP=1 "$2" > /dev/null`;

let h: Handout;
beforeAll(async () => void (h = await handoutNumbered("WS-08")));
afterAll(async () => {
  for (const name of databases) await rows(`drop database if exists ${name} with (force)`);
  rmSync(folder, { recursive: true, force: true });
  await closeDatabase();
});

describe("a backup", () => {
  it("taken while students work and restored elsewhere holds all that was acknowledged before it began", async () => {
    const students = await Promise.all(Array.from({ length: 6 }, () => newStudent(h.course_id)));
    const acknowledged = new Map<string, number>();
    const handedIn = new Set<string>();
    let isOver = false;
    const works = async (s: Person) => {
      let { version } = await openWork(h, s.id);
      while (!isOver) {
        const save = { id: randomUUID(), document: tripodFoot(), version, window: "load" };
        version = (await saveWork(h.id, s.id, save)).version;
        acknowledged.set(s.id, version);
        if (version % 10 === 0) {
          const r = await handIn(h, s.id, { id: randomUUID(), version });
          if (r.ok) handedIn.add(r.value.submission);
        }
      }
    };
    const load = Promise.all(students.map(works));
    await until(async () => handedIn.size > 3, 60_000);
    const [saves, submissions] = [new Map(acknowledged), [...handedIn]];
    const file = join(folder, "under-load.backup");
    const taken = await program("backup", connectionString(), file);
    isOver = true;
    await load;
    expect(taken.said).toMatch(/MB/);
    expect(taken.code).toBe(0);
    const there = await elsewhere();
    const restored = await program("restore", there, file);
    expect(restored.said).toMatch(/Restored: \d+ people/);
    expect(restored.code).toBe(0);
    for (const [person, version] of saves) {
      const [found] = await asked<{ version: number }>(
        there,
        "select version from works where handout_id = $1 and person_id = $2",
        [h.id, person],
      );
      expect(found!.version).toBeGreaterThanOrEqual(version);
    }
    const [{ n } = { n: 0 }] = await asked<{ n: number }>(
      there,
      "select count(*)::int as n from submissions s join checks c on c.submission_id = s.id where s.id = any($1)",
      [submissions],
    );
    expect(n).toBe(submissions.length);
    // what waited to be checked waits there too
    const [waiting] = await asked<{ n: number }>(
      there,
      `select count(*)::int as n from checks c
       where c.submission_id = any($1) and c.state in ('queued', 'checking') and not exists (
         select 1 from graphile_worker._private_jobs j
         where j.key in ('check:' || c.submission_id, 'check-long:' || c.submission_id))`,
      [submissions],
    );
    expect(waiting!.n).toBe(0);
    for (const s of students) await dropPerson(s.id);
  }, 120_000);
  it("of an older program is brought up to date", async () => {
    const old = await elsewhere();
    const migrations = readdirSync("src/server/upkeep/migrations").sort();
    const last = migrations.indexOf("008_marking.sql");
    await asked(old, "create table migrations (name text primary key, done_at timestamptz not null default now())");
    for (const name of migrations.slice(0, last + 1)) {
      await asked(old, readFileSync(`src/server/upkeep/migrations/${name}`, "utf8"));
      await asked(old, "insert into migrations (name) values ($1)", [name]);
    }
    await asked(old, "insert into people (name, email) values ('Orla Quill', 'orla.quill@saltmarsh.example')");
    await asked(old, "insert into outbox (address, subject, body) values ('a@b.example', 'A way in', 'link')");
    const file = join(folder, "older.backup");
    expect((await program("backup", old, file)).code).toBe(0);
    const there = await elsewhere();
    const restored = await program("restore", there, file);
    expect(restored.said).toMatch(/Restored: 1 people/);
    const [found] = await asked<{ name: string; now: string | null; waits: number }>(
      there,
      `select (select name from people) as name, to_regclass('own_parts')::text as now,
         (select count(*)::int from outbox where sent_at is null) as waits`,
    );
    // and letters that waited then are not sent a second time
    expect(found).toEqual({ name: "Orla Quill", now: "own_parts", waits: 0 });
  }, 120_000);
  it("is not written over, nor into a database that holds something", async () => {
    const file = join(folder, "there.backup");
    expect((await program("backup", connectionString(), file)).code).toBe(0);
    const again = await program("backup", connectionString(), file);
    expect([again.code, again.said]).toEqual([1, expect.stringMatching(/is there already/)]);
    const over = await program("restore", connectionString(), file);
    expect([over.code, over.said]).toEqual([1, expect.stringMatching(/not empty/)]);
    const r = spawnSync(process.execPath, ["scripts/restore.mjs", join(folder, "none")], { encoding: "utf8" });
    expect([r.status, r.stderr]).toEqual([1, expect.stringMatching(/There is no/)]);
  }, 60_000);
});

describe("taking away", () => {
  const course = () => makeCourse({ title: `Course ${randomUUID()}`, term: "Autumn", timeZone: "Europe/London" });
  /** A handout in a course, with one checked submission of somebody. */
  async function checkedIn(courseId: string, student: Person, points: number): Promise<string> {
    const exercise = await createExercise(courseId, h.exercise);
    const made = await one<{ id: string }>(
      `insert into handouts (exercise_id, course_id, exercise, revision, due_at)
       values ($1, $2, $3, 1, now()) returning id`,
      [exercise, courseId, h.exercise],
    );
    const part = emptyPart("a", "mm", { name: "Steel", density: 8 });
    const s = await newSubmission((await handout(made.id)).id, student.id, part);
    await gradedAs(s, { points, of: 20, lines: [{ id: "a", title: "A", points, of: 20, verdict: "missed" }] } as never);
    return s;
  }
  const kept = async (courseId: string) =>
    rows<{ points: number }>(
      "select k.points from grades_kept k join courses c on c.title = k.course where c.id = $1 order by points",
      [courseId],
    );
  it("a person leaves their points without a name, and what they decided without theirs", async () => {
    const id = await course();
    const [student, other] = [await newStudent(id), await newStudent(id)];
    const [teacher, second] = [await newStudent(id, "instructor"), await newStudent(id, "instructor")];
    await checkedIn(id, student, 17);
    const stays = await checkedIn(id, other, 12);
    await rows(
      'insert into entries (id, submission_id, person_id, by_name, what) values ($1, $2, $3, $4, \'{"do": "accept"}\')',
      [randomUUID(), stays, teacher.id, teacher.name],
    );
    // what they changed and signed, also under the name they had before
    const was = teacher.name;
    const changed = await createExercise(id, h.exercise);
    await saveExercise(changed, { ...h.exercise, title: "one" }, 1, teacher.id);
    await saveExercise(changed, { ...h.exercise, title: "two" }, 2, second.id);
    const { handout_id: on } = await one<{ handout_id: string }>("select handout_id from submissions where id = $1", [
      stays,
    ]);
    await signOff(on, other.id, teacher.id);
    await rename(teacher.id, `Renamed ${randomUUID().slice(0, 8)}`);
    Object.assign(teacher, await one("select name from people where id = $1", [teacher.id]));
    expect((await revisionsOfExercise(changed)).map((r) => r.by_name)).toEqual([second.name, teacher.name, null]);
    const token = await invite(id, teacher, { role: "student", groupId: null, days: 3, mostUses: 2 });
    expect(token).toBeTypeOf("string");
    expect((await removePerson(student.id)).ok).toBe(true);
    expect(await row("select 1 from submissions where person_id = $1", [student.id])).toBeUndefined();
    expect(await kept(id)).toEqual([{ points: 17 }]);
    expect((await removePerson(teacher.id)).ok).toBe(true);
    const said = await one<{ by_name: string; person_id: string | null }>(
      "select by_name, person_id from entries where submission_id = $1",
      [stays],
    );
    expect(said).toEqual({ by_name: "somebody who has left", person_id: null });
    // no name of theirs is left anywhere
    const dump = spawnSync("sh", ["-c", DUMP, "-", connectionString()], { encoding: "utf8", maxBuffer: 1 << 29 });
    expect(dump.status).toBe(0);
    for (const name of [student.name, teacher.name, was, student.email, teacher.email])
      expect(dump.stdout.includes(name)).toBe(false);
    const by = (await revisionsOfExercise(changed)).map((r) => r.by_name);
    expect(by).toEqual([second.name, "somebody who has left", null]);
    expect((await liveOn(await handout(on)))[0]).toMatchObject({
      signedOff: { by: "somebody who has left" },
    });
    // the last one of a course stays
    const last = await removePerson(second.id);
    expect(!last.ok && last.refusal.sentence).toMatch(/has no other instructor/);
    await removeCourse(id);
    for (const p of [other, second]) await dropPerson(p.id);
  });
  it("a course with more than one statement takes goes whole", async () => {
    const id = await course();
    const [one, two] = [await newStudent(id), await newStudent(id)];
    for (const s of [one, two]) await checkedIn(id, s, 5);
    const many = await rows<{ id: string }>(
      `insert into submissions (handout_id, person_id, attempt, document)
       select s.handout_id, s.person_id, n, s.document from submissions s join handouts h on h.id = s.handout_id,
         generate_series(2, 700) n where h.course_id = $1 returning id`,
      [id],
    );
    expect((await removeCourse(id)).ok).toBe(true);
    expect(await rows("select 1 from submissions where id = any($1)", [many.map((m) => m.id)])).toEqual([]);
    for (const s of [one, two]) await dropPerson(s.id);
  });
  it("the demo goes whole: nothing of its people, courses and parts is left in the database", async () => {
    const there = await elsewhere();
    const whole = spawnSync("sh", ["-c", COPY, "-", connectionString(), there], { encoding: "utf8" });
    expect([whole.status, whole.stderr]).toEqual([0, ""]);
    await asked(there, "insert into people (name, email) values ('Orla Quill', 'orla.quill@saltmarsh.example')");
    const words = await asked<{ word: string }>(
      there,
      `select name as word from people where demo union select email from people where demo
       union select title from courses where demo union select c.code from courses c where demo and code is not null
       union select x.document->>'title' from exercises x join courses c on c.id = x.course_id where c.demo
       -- the part that other tests here take into courses of their own
       except select 'Tripod foot'`,
    );
    expect(words.length).toBeGreaterThan(30);
    const env = { ...process.env, DATABASE_URL: there };
    const gone = spawnSync(process.execPath, ["--import", import.meta.resolve("tsx"), "src/demo/remove.ts"], { env });
    expect([gone.status, String(gone.stderr)]).toEqual([0, ""]);
    const dump = spawnSync("sh", ["-c", DUMP, "-", there], { encoding: "utf8", maxBuffer: 1 << 29 });
    expect(words.map((w) => w.word).filter((w) => dump.stdout.includes(w))).toEqual([]);
    expect(dump.stdout).toContain("Orla Quill");
  }, 120_000);
  it("a course goes with all that was made for it; people and points stay", async () => {
    const id = await course();
    const student = await newStudent(id);
    await checkedIn(id, student, 9);
    const title = (await one<{ title: string }>("select title from courses where id = $1", [id])).title;
    expect((await removeCourse(id)).ok).toBe(true);
    expect(await rows("select points, handout from grades_kept where course = $1", [title])).toEqual([
      { points: 9, handout: "WS-08 Tripod foot" },
    ]);
    expect(await row("select 1 from people where id = $1", [student.id])).toBeDefined();
    expect((await removeCourse(id)).ok).toBe(false);
    await dropPerson(student.id);
  });
  it("what is past its time goes at night, and nothing else", async () => {
    const student = await newStudent(h.course_id);
    const session = (hours: number) =>
      rows(
        `insert into sessions (token_hash, person_id, expires_at) values ($1, $2, now() + make_interval(hours => $3))`,
        [Buffer.from(randomUUID()), student.id, hours],
      );
    await session(-1);
    await session(1);
    expect((await sweep())["sessions"]).toBeGreaterThanOrEqual(1);
    expect(await rows("select 1 from sessions where person_id = $1", [student.id])).toHaveLength(1);
    await dropPerson(student.id);
  });
});

const zipOf = async (id: string) => {
  const pieces: Uint8Array[] = [];
  for await (const piece of personData(id)) pieces.push(piece);
  return unzipSync(new Uint8Array(Buffer.concat(pieces)));
};

it("a person with a long history has all of it, each under a name of its own, and holds nobody up", async () => {
  const student = await newStudent(h.course_id);
  const work = await openWork(h, student.id);
  const save = { id: randomUUID(), document: tripodFoot(), version: work.version, window: "test" };
  await saveWork(h.id, student.id, save);
  // versions of one moment, a variant, a practice, own numbers, more time
  const many = 300;
  await rows(
    `insert into work_versions (handout_id, person_id, variant, version, kind, document, made_at)
     select $1, $2, 'First way', n, 'named', $3, '2026-11-01T10:00:00Z' from generate_series(1, ${many}) n`,
    [h.id, student.id, tripodFoot()],
  );
  await rows("insert into work_variants (handout_id, person_id, name, document) values ($1, $2, 'b/w: 1', $3)", [
    h.id,
    student.id,
    tripodFoot(),
  ]);
  await rows("insert into extensions (handout_id, person_id, due_at) values ($1, $2, now())", [h.id, student.id]);
  await rows("insert into sign_offs (handout_id, person_id, made_by) values ($1, $2, $2)", [h.id, student.id]);
  await rows("insert into remarks (person_id, about, text) values ($1, '', 'mind the datum')", [student.id]);
  // how often others had their turn meanwhile
  let turns = 0,
    isOver = false;
  const others = (): unknown => (turns++, isOver || setImmediate(others));
  others();
  const files = await zipOf(student.id);
  isOver = true;
  const about = JSON.parse(strFromU8(files["about.json"]!)) as Record<string, { file: string }[]>;
  expect(about["versions"]).toHaveLength(many);
  expect(new Set(about["versions"]!.map((v) => v.file)).size).toBe(many);
  for (const v of about["versions"]!) expect(files[v.file]).toBeDefined();
  expect([about["variants"], about["extensions"], about["signOffs"], about["remarks"]].map((l) => l!.length)).toEqual([
    1, 1, 1, 1,
  ]);
  expect(turns).toBeGreaterThan(many);
  await dropPerson(student.id);
});
it("a person's data are one file: who they are, their parts, what they handed in, and nothing unreturned", async () => {
  const student = await newStudent(h.course_id);
  const work = await openWork(h, student.id);
  const save = { id: randomUUID(), document: tripodFoot(), version: work.version, window: "test" };
  const { version } = await saveWork(h.id, student.id, save);
  await handIn(h, student.id, { id: randomUUID(), version });
  const files = await zipOf(student.id);
  const about = JSON.parse(strFromU8(files["about.json"]!)) as {
    person: { email: string };
    works: { file: string }[];
    submissions: { file: string; returned: unknown }[];
  };
  expect(about.person.email).toBe(student.email);
  const part = JSON.parse(strFromU8(files[about.works[0]!.file]!)) as { steps: unknown[] };
  expect(part.steps).toHaveLength(tripodFoot().steps.length);
  expect(files[about.submissions[0]!.file]).toBeDefined();
  expect(about.submissions[0]!.returned).toBeNull();
  expect(strFromU8(files["about.json"]!)).not.toMatch(/password|token/);
  await dropPerson(student.id);
});

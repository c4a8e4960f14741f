// npm run bench -- lists: what every page costs with 500 students in 20 courses and 60,000 submissions of theirs, among
// 2,000 people in 40 courses.
import { spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { join } from "node:path";
import { ensureData, ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem();
ensureModules();
process.chdir(ROOT);
ensureData();
const { build, closing, startWeb } = await import("./application.mjs");
const { default: pg } = await import("pg");
const stops = [];
const close = closing(stops);
const RUNS = 100;
try {
  build();
  const postgres = await startPostgres("lists", { fresh: true });
  stops.push(postgres.stop);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "0" };
  const lists = ["--import", import.meta.resolve("tsx"), join(ROOT, "src/cli/bench/lists.ts")];
  const r = spawnSync(process.execPath, lists, {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ["ignore", "inherit", "inherit"],
  });
  if (r.status !== 0) throw new Error("the lists could not be measured");

  const client = new pg.Client({ connectionString: postgres.url });
  await client.connect();
  stops.unshift(() => client.end());
  const one = async (sql, values) => (await client.query(sql, values)).rows[0];
  /** The cookie of a session opened for somebody. */
  const entered = async (person) => {
    const token = randomBytes(32).toString("base64url");
    await client.query(
      "insert into sessions (token_hash, person_id, expires_at) values ($1, $2, now() + interval '1 hour')",
      [createHash("sha256").update(token).digest(), person],
    );
    return `caliper-session=${token}`;
  };
  const { address } = await startWeb(env, 3_660, { quiet: true });
  const caretaker = await entered((await one("select id from people where administrator limit 1")).id);
  const teaching = await one(
    `select e.person_id, h.course_id, h.id, h.exercise_id from handouts h join enrolments e on e.course_id = h.course_id
     where e.role = 'instructor' order by h.id limit 1`,
  );
  const learning = await one(
    "select s.id, s.person_id from submissions s where s.handout_id = $1 order by attempt desc limit 1",
    [teaching.id],
  );
  const [teacher, student] = [await entered(teaching.person_id), await entered(learning.person_id)];
  const { course_id: course, id: handout, exercise_id: exercise } = teaching;
  const pages = [
    ["people and courses", "/administration", caretaker],
    ["what runs here", "/running", caretaker],
    ["courses", "/courses", teacher],
    ["courses of a student", "/courses", student],
    ["people of a course", `/courses/${course}/people`, teacher],
    ["calendar", `/courses/${course}/calendar`, teacher],
    ["gradebook", `/courses/${course}/gradebook`, teacher],
    ["library", "/library", teacher],
    ["library searched", "/library?q=exercise+1", teacher],
    ["exercise", `/exercises/${exercise}`, teacher],
    ["drawing board", `/exercises/${exercise}/sheet`, teacher],
    ["revisions", `/exercises/${exercise}/revisions`, teacher],
    ["class on a handout", `/handouts/${handout}`, teacher],
    ["class view", `/handouts/${handout}/class`, teacher],
    ["live", `/handouts/${handout}/live`, teacher],
    ["second check", `/handouts/${handout}/second-check`, teacher],
    ["same work", `/handouts/${handout}/same-work`, teacher],
    ["marking desk", `/submissions/${learning.id}`, teacher],
    ["result", `/submissions/${learning.id}`, student],
    ["Bench", `/bench/${handout}`, student],
    ["account", "/account", teacher],
  ];
  for (const [name, path, cookie] of pages) {
    const took = [];
    for (let i = 0; i < RUNS + 20; i++) {
      const began = performance.now();
      const answer = await fetch(address + path, { headers: { cookie } });
      await answer.text();
      if (answer.status !== 200) throw new Error(`${path} answers ${answer.status}`);
      // the first ones warm the page up
      if (i >= 20) took.push(performance.now() - began);
    }
    took.sort((a, b) => a - b);
    console.log(`lists page “${name}”, p95: ${took[Math.floor(0.95 * RUNS)].toFixed(1)} ms`);
  }
} catch (e) {
  console.error(e instanceof Error ? e.stack : e);
  process.exitCode = 1;
}
await close();
process.exit();

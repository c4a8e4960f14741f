// npm run bench -- lists: what lists and pages cost over 60,000 submissions, and with 2,000 people in 40 courses.
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
    `select e.person_id, h.course_id, h.id from handouts h join enrolments e on e.course_id = h.course_id
     where e.role = 'instructor' limit 1`,
  );
  const teacher = await entered(teaching.person_id);
  const pages = [
    ["people and courses", "/administration", caretaker],
    ["people of a course", `/courses/${teaching.course_id}/people`, teacher],
    ["courses", "/courses", teacher],
    ["class on a handout", `/handouts/${teaching.id}`, teacher],
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

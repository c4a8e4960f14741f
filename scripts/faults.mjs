// npm run test:faults: web, worker and database are killed at random moments while students save and hand in.
// Holds: no save that was acknowledged is lost, nothing is graded twice, every submission ends in a report or in a
// sentence, and everything recovers by itself. `--rounds N` kills N times; the seed is printed, `--seed S` repeats it.
import { randomUUID } from "node:crypto";
import { ensureData, ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem();
ensureModules();
process.chdir(ROOT);
ensureData();
const { copyDatabase } = await import("./database-files.mjs");
const { fullDisk } = await import("./full-disk.mjs");
const { studentsOf } = await import("./students.mjs");
const { build, closing, keepAlive, runProgram, SHORT_LIVED, startWeb, startWorker } = await import("./application.mjs");

const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const ROUNDS = option("rounds", 50);
const SEED = option("seed", Math.floor(Math.random() * 1e6));
const STUDENTS = 6;
const RECOVERS_MS = 30_000;
let state = SEED;
/** Park and Miller's generator: the same moments for the same seed. */
const random = () => (state = (state * 48_271 + 11) % 2_147_483_647) / 2_147_483_647;
const wait = (ms) => new Promise((r) => setTimeout(r, ms));

const sums = { passed: 0, failed: 0 };
const holds = (what, is, more = "") => {
  sums[is ? "passed" : "failed"]++;
  console.log(`${is ? "✓" : "✗"} ${what}${is ? "" : `: ${more}`}`);
};
const stops = [];
const close = closing(stops);
try {
  console.log(`seed ${SEED}, ${ROUNDS} kills`);
  const postgres = await startPostgres("faults", { fresh: true, wishedPort: 54_520 });
  stops.push(postgres.stop);
  await keepAlive(postgres.child);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
  build();
  await fullDisk(holds, stops);
  // a demo that stands elsewhere is taken over: loading one takes longer than the whole run
  const there = process.env.CALIPER_DEMO_FROM;
  if (there) copyDatabase(there, postgres.url);
  else runProgram("src/demo/load.ts", env, [], SHORT_LIVED);
  const { handout, document, people } = studentsOf(env, STUDENTS);
  const worker = await keepAlive(() => startWorker(env, { quiet: true, engine: SHORT_LIVED }));
  let web;
  const webKept = await keepAlive(
    async () => (web = await startWeb(env, 3_700, { quiet: true, port: web?.port })).child,
  );
  const { address } = web;

  /** Asks until there is an answer of the application itself; the same request, under the same id. */
  async function persist(method, path, cookie, body) {
    for (;;) {
      try {
        const r = await fetch(address + path, {
          method,
          headers: { cookie, ...(body && { "content-type": "application/json" }) },
          ...(body && { body: JSON.stringify(body) }),
          signal: AbortSignal.timeout(8_000),
        });
        const data = await r.json().catch(() => ({}));
        if (r.status < 500) return { status: r.status, data };
        if (!data.sentence) mute.push(r.status);
      } catch {
        // killed in the middle, or not there yet
      }
      if (over) return { status: 0, data: {} };
      await wait(150);
    }
  }

  let over = false;
  const mute = [];
  const acknowledged = new Map(),
    submissions = [],
    refusals = [];
  let saves = 0;
  const student = async (p, i) => {
    const cookie = `caliper-session=${p.token}`;
    let version = (await persist("GET", `/api/works/${handout}`, cookie)).data.version;
    for (let n = 0; !over; n++) {
      const name = `${p.name} ${n}`;
      const saved = await persist("PUT", `/api/works/${handout}`, cookie, {
        id: randomUUID(),
        window: "faults",
        owner: p.id,
        version,
        document: { ...document, name },
      });
      if (saved.status === 200) {
        ({ version } = saved.data);
        acknowledged.set(p.id, { name, version });
        saves++;
      } else if (saved.status) refusals.push(saved);
      if (n % 12 === 2 * i) {
        const r = await persist("POST", `/api/handouts/${handout}/hand-in`, cookie, {
          id: randomUUID(),
          owner: p.id,
          version,
        });
        if (r.status === 200) submissions.push(r.data.submission);
        else if (r.status) refusals.push(r);
      }
      await wait(60);
    }
  };
  const students = Promise.all(people.map(student));

  /** Healthy: the web answers, and says that the database answers and somebody grades. */
  const healthy = async () =>
    fetch(`${address}/api/health`, { signal: AbortSignal.timeout(2_000) }).then(
      (r) => r.status === 200,
      () => false,
    );
  let slowest = 0;
  const killed = { web: 0, worker: 0, database: 0 };
  for (let k = 0; k < ROUNDS; k++) {
    await wait(300 + 1_700 * random());
    const what = ["web", "worker", "database"][Math.floor(3 * random())];
    killed[what]++;
    const began = Date.now();
    if (what === "web") webKept.child.kill("SIGKILL");
    if (what === "worker") worker.child.kill("SIGKILL");
    if (what === "database") {
      await postgres.kill();
    }
    await wait(50);
    while (!(await healthy())) {
      if (Date.now() - began > RECOVERS_MS) throw new Error(`after the ${what} was killed nothing came back in 30 s`);
      await wait(100);
    }
    slowest = Math.max(slowest, Date.now() - began);
  }
  await wait(1_000);
  over = true;
  await students;
  holds(`${ROUNDS} kills (${JSON.stringify(killed)}), each recovered by itself within 30 s`, true);
  console.log(`  slowest recovery ${(slowest / 1000).toFixed(1)} s; ${saves} saves, ${submissions.length} hand-ins`);

  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: postgres.url });
  await client.connect();
  stops.unshift(() => client.end());
  const query = async (sql, values) => (await client.query(sql, values)).rows;
  const works = await query(
    "select person_id, version, document->>'name' as name from works where handout_id = $1 and person_id = any($2)",
    [handout, people.map((p) => p.id)],
  );
  const lost = works.filter((w) => {
    const known = acknowledged.get(w.person_id);
    // one more may have arrived whose answer was lost at the very end
    return known && w.version < known.version;
  });
  const other = works.filter((w) => {
    const known = acknowledged.get(w.person_id);
    return known && w.version === known.version && w.name !== known.name;
  });
  holds("no acknowledged save is lost", saves > 0 && !lost.length && !other.length, JSON.stringify([lost, other]));
  holds("no save was taken for another window's", !refusals.length, JSON.stringify(refusals.slice(0, 3)));
  holds("what failed meanwhile said so in a sentence", !mute.length, JSON.stringify(mute));
  holds("every hand-in counts once", new Set(submissions).size === submissions.length);
  const end = Date.now() + 300_000;
  let open;
  do {
    open = await query(
      `select count(*)::int as n from checks c join submissions s on s.id = c.submission_id
       where c.state in ('queued', 'checking') and s.person_id = any($1)`,
      [people.map((p) => p.id)],
    );
    await wait(500);
  } while (open[0].n && Date.now() < end);
  holds("every submission ends", open[0].n === 0, JSON.stringify(open));
  const wrong = await query(
    `select s.id, c.state, c.trouble, (select count(*)::int from reports r where r.submission_id = s.id) as reports
     from submissions s join checks c on c.submission_id = s.id where s.id = any($1)`,
    [submissions],
  );
  const twice = wrong.filter((w) => w.reports > 1),
    silent = wrong.filter((w) => (w.state === "checked" ? w.reports !== 1 : !w.trouble));
  holds("none is graded twice", submissions.length > 0 && !twice.length, JSON.stringify(twice));
  holds("each ends in a report or in a sentence", !silent.length, JSON.stringify(silent));
} catch (e) {
  holds("the run itself", false, e instanceof Error ? e.stack : String(e));
}
await close();
console.log(`${sums.passed} passed, ${sums.failed} failed`);
process.exit(sums.failed ? 1 : 0);

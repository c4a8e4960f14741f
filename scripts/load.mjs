// npm run bench -- load: 200 students saving a 40 kB part every 2 s for a minute while 50 hand in; then two workers.
import { randomUUID } from "node:crypto";
import { Agent, request } from "node:http";
import { spawn } from "node:child_process";
import { join } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { ensureData, ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem();
ensureModules();
process.chdir(ROOT);
ensureData();
const { studentsOf } = await import("./students.mjs");
const { build, closing, runProgram, startWeb, startWorker } = await import("./application.mjs");

const STUDENTS = Number(process.env.LOAD_STUDENTS ?? 200);
const HAND_INS = Math.round(STUDENTS / 4);
const SECONDS = Number(process.env.LOAD_SECONDS ?? 60);
const EVERY_MS = 2_000;
const stops = [];
const close = closing(stops);
const line = (metric, value, unit) => console.log(`load ${metric}: ${value} ${unit}`);
const share = (list, p) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(p * list.length))];

const agent = new Agent({ keepAlive: true, maxSockets: STUDENTS });
function send(port, method, path, cookie, body) {
  return new Promise((resolve, reject) => {
    const data = body && JSON.stringify(body);
    const r = request(
      {
        host: "127.0.0.1",
        port,
        method,
        path,
        agent,
        headers: {
          cookie,
          ...(data && { "content-type": "application/json", "content-length": Buffer.byteLength(data) }),
        },
      },
      (answer) => {
        let text = "";
        answer.on("data", (d) => (text += d)).on("end", () => resolve({ status: answer.statusCode, body: text }));
      },
    );
    r.on("error", reject);
    r.end(data);
  });
}

try {
  const postgres = await startPostgres("load", { fresh: true });
  stops.push(postgres.stop);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
  build();
  runProgram("src/demo/load.ts", env);
  const { handout, document, people } = studentsOf(env, STUDENTS);
  line("size of the part", (JSON.stringify(document).length / 1000).toFixed(1), "kB");
  await startWorker(env, { quiet: true });
  const { port } = await startWeb(env, 3_650, { quiet: true });

  /** The same part with one line of one drawing elsewhere, as after a drag. */
  const layouts = document.steps.flatMap((s, i) => (s.id.startsWith("layout") ? [i] : []));
  const changed = (name, turn) => {
    const at = layouts[turn % layouts.length];
    const steps = document.steps.map((step, i) => {
      if (i !== at) return step;
      const curves = step.sketch.curves.map((c, j) => (j ? c : { ...c, start: [Math.random(), Math.random()] }));
      return { ...step, sketch: { ...step.sketch, curves } };
    });
    return { ...document, name, steps };
  };

  async function round(name) {
    const took = [];
    let failed = 0,
      lost = 0;
    const sentAs = new Map();
    const end = Date.now() + SECONDS * 1000;
    const finished = [];
    const student = async (p, i) => {
      const cookie = `caliper-session=${p.token}`;
      await new Promise((r) => setTimeout(r, (i / STUDENTS) * EVERY_MS));
      const mark = JSON.parse((await send(port, "GET", `/api/works/${handout}`, cookie)).body);
      let version = mark.version;
      let last;
      const handAt = i < HAND_INS ? Date.now() + SECONDS * 500 + (i / HAND_INS) * SECONDS * 300 : Infinity;
      let handed = false;
      while (Date.now() < end) {
        const began = performance.now();
        last = `${p.name} ${version}`;
        const sent = changed(last, version);
        const r = await send(port, "PUT", `/api/works/${handout}`, cookie, {
          id: randomUUID(),
          window: "load",
          owner: p.id,
          version,
          document: sent,
        }).catch(() => ({ status: 0 }));
        took.push(performance.now() - began);
        if (r.status === 200) version = JSON.parse(r.body).version;
        else failed++;
        if (!handed && Date.now() > handAt) {
          handed = true;
          const h = await send(port, "POST", `/api/handouts/${handout}/hand-in`, cookie, {
            id: randomUUID(),
            owner: p.id,
            version,
          }).catch(() => ({ status: 0 }));
          if (h.status === 200) {
            const id = JSON.parse(h.body).submission;
            finished.push({ id, at: Date.now() });
            sentAs.set(id, JSON.stringify(sent));
          } else failed++;
        }
        await new Promise((r) => setTimeout(r, Math.max(0, EVERY_MS - (performance.now() - began))));
      }
      const [held] = await fetched(
        "select version, document->>'name' as name from works where handout_id = $1 and person_id = $2",
        [handout, p.id],
      );
      if (held.name !== last || held.version !== version) lost++;
    };
    await Promise.all(people.map(student));
    const lastHandIn = Math.max(...finished.map((f) => f.at));
    const ids = finished.map((f) => f.id);
    let graded = { n: 0 };
    while (graded.n < finished.length && Date.now() < lastHandIn + 180_000) {
      [graded] = await query(
        `select count(*)::int as n, max(changed_at) as at from checks
         where submission_id = any($1) and state in ('checked', 'failed')`,
        [ids],
      );
      await new Promise((r) => setTimeout(r, 250));
    }
    // what is frozen is what was on the screen when it was handed in
    let otherwise = 0;
    for (const [id, sent] of sentAs) {
      const [{ document: frozen }] = await query("select document::text as document from submissions where id = $1", [
        id,
      ]);
      if (!isDeepStrictEqual(JSON.parse(frozen), JSON.parse(sent))) otherwise++;
    }
    line(`${name}, handed in`, sentAs.size, "");
    line(`${name}, handed in and frozen otherwise`, otherwise, "");
    line(`${name}, saves`, took.length, "");
    line(`${name}, save p50`, share(took, 0.5).toFixed(0), "ms");
    line(`${name}, save p99`, share(took, 0.99).toFixed(0), "ms");
    line(`${name}, failed`, failed, "");
    line(`${name}, lost`, lost, "");
    line(`${name}, graded`, `${graded.n} of ${finished.length}`, "");
    line(`${name}, last graded after the last hand-in`, ((new Date(graded.at) - lastHandIn) / 1000).toFixed(1), "s");
  }
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: postgres.url });
  await client.connect();
  stops.unshift(() => client.end());
  const query = async (sql, values) => (await client.query(sql, values)).rows;
  /** One question after the other on the one connection. */
  let asked = Promise.resolve();
  const fetched = (...q) => (asked = asked.then(() => query(...q)));

  await round("one worker");
  /** How long a class's checks take with nothing else going on. */
  const alone = async (name) => {
    const [{ n }] = await query(`select count(*)::int as n from checks where state = 'checked'`);
    let began = 0;
    const asking = spawn(
      process.execPath,
      ["--import", import.meta.resolve("tsx"), join(ROOT, "src/cli/caliper.ts"), "recheck", "--handout", handout],
      { cwd: ROOT, env: { ...process.env, ...env } },
    );
    // counted from the first that begins: the terminal takes a second to start
    for (let isOver = false; !isOver;) {
      const [now] = await query(
        `select (count(*) filter (where state in ('queued', 'checking')))::int as left,
           (count(*) filter (where state = 'checking'))::int as running from checks`,
      );
      if (!began && now.running) began = Date.now();
      isOver = began > 0 && !now.left && asking.exitCode !== null;
      await new Promise((r) => setTimeout(r, 20));
    }
    const s = (Date.now() - began) / 1000;
    line(`${name}, ${n} second checks`, s.toFixed(1), "s");
    return s;
  };
  // a kernel gets quicker over its first checks: both are warm before anything is compared
  const second = await startWorker(env, { quiet: true });
  for (let i = 1; i <= 3; i++) await alone(`two workers warming up, ${i}`);
  const two = await alone("two workers alone");
  const gone = new Promise((r) => second.once("exit", r));
  second.kill("SIGTERM");
  await gone;
  const one = await alone("one worker alone");
  line("two workers against one", (one / two).toFixed(2), "times");
} catch (e) {
  console.error(e instanceof Error ? e.stack : e);
  process.exitCode = 1;
}
await close();
process.exit();

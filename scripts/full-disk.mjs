// Part of npm run test:faults: the disk of the database runs full while students save, and is freed again.
import { spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { runProgram, startWeb } from "./application.mjs";
import { startPostgres } from "./postgres.mjs";
import { studentsOf } from "./students.mjs";

const PLACE = "/var/tmp/rusty-caliper-small-disk";
const SIZE_MB = 320;
const BALLAST_MB = 8;
const wait = (ms) => new Promise((r) => setTimeout(r, ms));

/** @param holds takes what must hold and whether it does @param stops where to leave what must be ended */
export async function fullDisk(holds, stops) {
  mkdirSync(PLACE, { recursive: true });
  const mounted = spawnSync("mount", ["-t", "tmpfs", "-o", `size=${SIZE_MB}m,mode=0755`, "tmpfs", PLACE]);
  if (mounted.status !== 0) {
    console.log("  disk full: skipped, no small file system can be mounted here");
    return;
  }
  stops.push(() => void spawnSync("umount", ["-l", PLACE]));
  const postgres = await startPostgres("disk", { fresh: true, wishedPort: 54_530, folder: join(PLACE, "data") });
  stops.unshift(postgres.stop);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
  runProgram("src/demo/load.ts", env);
  const { handout, document, people } = studentsOf(env, 3);
  const web = await startWeb(env, 3_730, { quiet: true });
  const versions = new Map();
  /** One save. @returns the status, 0 where there was no answer */
  const save = async (p, name) => {
    try {
      const r = await fetch(`${web.address}/api/works/${handout}`, {
        method: "PUT",
        headers: { cookie: `caliper-session=${p.token}`, "content-type": "application/json" },
        body: JSON.stringify({
          id: randomUUID(),
          window: "disk",
          owner: p.id,
          version: versions.get(p.id)?.version ?? 0,
          document: { ...document, name },
        }),
        signal: AbortSignal.timeout(20_000),
      });
      const answer = await r.json();
      if (r.status === 200) versions.set(p.id, { version: answer.version, name });
      return { status: r.status, sentence: answer.sentence };
    } catch {
      return { status: 0 };
    }
  };
  const saveAll = async (name) => Promise.all(people.map((p) => save(p, name)));
  const begun = await fetch(`${web.address}/api/works/${handout}`, {
    headers: { cookie: `caliper-session=${people[0].token}` },
  }).then((r) => r.json());
  for (const p of people) versions.set(p.id, { version: begun.version, name: "" });
  holds(
    "with room on the disk saves are taken",
    (await saveAll("before")).every((r) => r.status === 200),
  );

  const ballast = [];
  try {
    for (; ballast.length < SIZE_MB / BALLAST_MB; ballast.push(ballast.length))
      writeFileSync(join(PLACE, `ballast-${ballast.length}`), Buffer.alloc(BALLAST_MB << 20));
  } catch {
    // full
  }
  const refused = [];
  for (let i = 0; i < 400 && refused.length < 6; i++)
    refused.push(...(await saveAll(`full ${i}`)).filter((r) => r.status !== 200));
  holds("a full disk is told, never acknowledged", refused.length > 0, "every save was taken");
  holds(
    "what the server could not keep is said in a sentence",
    refused.every((r) => !r.status || (r.status >= 500 && /\.( \(F-|$)/.test(r.sentence ?? ""))),
    JSON.stringify(refused.slice(0, 3)),
  );
  for (let i = 0; i <= ballast.length; i++) rmSync(join(PLACE, `ballast-${i}`), { force: true });
  // a database that gave up for want of room is started again by whoever looks after it
  if (postgres.hasEnded()) await postgres.restart();
  const freed = Date.now();
  let after = [];
  const acknowledged = new Map(versions);
  while (Date.now() - freed < 30_000) {
    const held = await heldBy(postgres.url, handout, people).catch(() => undefined);
    const kept = held && people.every((p) => held.get(p.id)?.version >= acknowledged.get(p.id).version);
    if (held && !after.length) holds("no save acknowledged before is lost", kept, JSON.stringify([...held]));
    for (const p of held ? people : []) versions.set(p.id, held.get(p.id));
    after = held ? await saveAll("after") : [];
    if (after.length && after.every((r) => r.status === 200)) break;
    await wait(300);
  }
  holds("with room again saves are taken within 30 s", after.length > 0 && after.every((r) => r.status === 200));
  web.child.kill("SIGTERM");
  await postgres.stop();
}

async function heldBy(url, handout, people) {
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 3_000 });
  try {
    await client.connect();
    const { rows } = await client.query(
      "select person_id, version from works where handout_id = $1 and person_id = any($2)",
      [handout, people.map((p) => p.id)],
    );
    return new Map(rows.map((r) => [r.person_id, { version: r.version }]));
  } finally {
    await client.end().catch(() => {});
  }
}

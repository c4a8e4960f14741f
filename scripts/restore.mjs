// npm run restore -- FILE: a backup into an empty database, brought up to date where an older program made it.
import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { ensureModules, ROOT } from "./machine.mjs";
import { meantDatabase, postgresProgram } from "./database-files.mjs";

const [name] = process.argv.slice(2);
if (!name || !existsSync(name)) {
  console.error(name ? `There is no ${name}.` : "Say which: npm run restore -- FILE");
  process.exit(1);
}
const file = resolve(name);
ensureModules();
process.chdir(ROOT);
const { default: pg } = await import("pg");
const { runProgram } = await import("./application.mjs");
let database;
try {
  database = await meantDatabase();
  const ask = async (sql) => {
    const client = new pg.Client({ connectionString: database.url });
    await client.connect();
    try {
      return (await client.query(sql)).rows;
    } finally {
      await client.end();
    }
  };
  const [found] = await ask(
    "select count(*)::int as n from information_schema.tables where table_schema in ('public', 'graphile_worker')",
  );
  if (found.n)
    throw new Error("This database is not empty, and nothing in it is written over. Restore into an empty one.");
  // all of it or nothing
  postgresProgram("pg_restore", ["--no-owner", "--no-privileges", "--single-transaction", file], database.url);
  // an older backup is brought up to date, as at any start
  runProgram("src/server/upkeep/prepare.ts", { DATABASE_URL: database.url });
  // letters that waited then were sent since by the server the backup was taken of, or are of no use any more
  await ask(
    `update outbox set sent_at = now(), trouble = 'not sent: it waited when the backup was taken'
     where sent_at is null`,
  );
  const [sum] = await ask(
    `select (select count(*) from people) as people, (select count(*) from courses) as courses,
       (select count(*) from submissions) as submissions`,
  );
  console.log(`Restored: ${sum.people} people, ${sum.courses} courses, ${sum.submissions} submissions.`);
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
} finally {
  await database?.stop();
}

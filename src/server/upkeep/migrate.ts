import { readdir, readFile } from "node:fs/promises";
import { runMigrations } from "graphile-worker";
import pg from "pg";
import { connectionString } from "../database";

const FOLDER = new URL("./migrations/", import.meta.url);
/** Any number, the same in every process: who holds it migrates. */
const LOCK = 7_419_003;

/** The database was made by a newer program than this one: nothing is touched. */
export class TooNew extends Error {}

/**
 * Brings the database up to date: numbered SQL files, each once, then the queue's own tables. Several processes may
 * start at once: one migrates, the others wait. A connection of its own, since a migration may take longer than a
 * statement of a page may. @throws TooNew
 */
export async function migrate(): Promise<void> {
  const client = new pg.Client({ connectionString: connectionString(), statement_timeout: 0 });
  await client.connect();
  try {
    await client.query("select pg_advisory_lock($1)", [LOCK]);
    await client.query(
      "create table if not exists migrations (name text primary key, done_at timestamptz not null default now())",
    );
    const done = new Set((await client.query<{ name: string }>("select name from migrations")).rows.map((r) => r.name));
    const ours = (await readdir(FOLDER)).filter((n) => n.endsWith(".sql")).sort();
    const unknown = [...done].filter((n) => !ours.includes(n));
    if (unknown.length)
      throw new TooNew(
        `The database is newer than this program: it has ${unknown.join(", ")}. ` +
          "Start the newer program; nothing was changed.",
      );
    for (const name of ours) {
      if (done.has(name)) continue;
      const sql = await readFile(new URL(name, FOLDER), "utf8");
      try {
        await client.query("begin");
        await client.query(sql);
        await client.query("insert into migrations (name) values ($1)", [name]);
        await client.query("commit");
      } catch (e) {
        await client.query("rollback").catch(() => {});
        throw e;
      }
    }
    await runMigrations({ connectionString: connectionString() });
  } finally {
    // the lock goes with the connection
    await client.end().catch(() => {});
  }
}

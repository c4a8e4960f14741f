import { readdir, readFile } from "node:fs/promises";
import { runMigrations } from "graphile-worker";
import { connectionString, database, rows, transaction } from "./database";

const FOLDER = new URL("./migrations/", import.meta.url);

/** Brings the database up to date: numbered SQL files, each once, then the queue's own tables. */
export async function migrate(): Promise<void> {
  await database().query(
    "create table if not exists migrations (name text primary key, done_at timestamptz not null default now())",
  );
  const done = new Set((await rows<{ name: string }>("select name from migrations")).map((r) => r.name));
  for (const name of (await readdir(FOLDER)).filter((n) => n.endsWith(".sql")).sort()) {
    if (done.has(name)) continue;
    const sql = await readFile(new URL(name, FOLDER), "utf8");
    await transaction(async (client) => {
      await client.query(sql);
      await client.query("insert into migrations (name) values ($1)", [name]);
    });
  }
  await runMigrations({ connectionString: connectionString() });
}

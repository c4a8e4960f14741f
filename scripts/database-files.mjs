// What npm run backup and npm run restore share: which database is meant, and the programs of its server.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { ensureSystem, postgresPrograms } from "./machine.mjs";
import { runningPostgres, startPostgres } from "./postgres.mjs";

/**
 * The database that is meant: DATABASE_URL, or the one of npm start in this folder, started for the while where it does
 * not run.
 */
export async function meantDatabase() {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, stop: async () => {} };
  ensureSystem({ database: true });
  const url = runningPostgres("college");
  return url ? { url, stop: async () => {} } : startPostgres("college");
}

/** Runs one of PostgreSQL's own programs; the password goes by the environment, where no list of processes shows it. */
export function postgresProgram(name, args, url) {
  const at = new URL(url);
  const r = spawnSync(join(postgresPrograms(), name), [...args, "--dbname", databaseOf(at)], {
    env: { ...process.env, PGPASSWORD: decodeURIComponent(at.password) },
    encoding: "utf8",
    maxBuffer: 1 << 26,
  });
  if (r.error) throw new Error(`${name} cannot be run: ${r.error.message}`);
  if (r.status !== 0) throw new Error(`${name}: ${r.stderr.trim()}`);
  return r.stdout;
}

/** Puts everything of one database into another that is empty. */
export function copyDatabase(from, to) {
  const file = join(mkdtempSync(join(tmpdir(), "caliper-copy-")), "all");
  try {
    postgresProgram("pg_dump", ["--format=custom", "--compress=0", `--file=${file}`], from);
    postgresProgram("pg_restore", ["--no-owner", file], to);
  } finally {
    rmSync(dirname(file), { recursive: true, force: true });
  }
}

function databaseOf(at) {
  const plain = new URL(at);
  plain.password = "";
  return plain.href;
}

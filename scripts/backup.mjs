// npm run backup -- FILE: everything that stands in the database at this moment, in one file, while it goes on working.
import { existsSync, openSync, fsyncSync, closeSync, renameSync, rmSync, statSync } from "node:fs";
import { resolve } from "node:path";
import { meantDatabase, postgresProgram } from "./database-files.mjs";

const [name] = process.argv.slice(2);
if (!name) {
  console.error("Say where to: npm run backup -- FILE");
  process.exit(1);
}
const file = resolve(name);
// it holds everything: whoever else is on this machine does not read it
process.umask(0o077);
if (existsSync(file)) {
  console.error(`${name} is there already, and is not written over.`);
  process.exit(1);
}
// a backup that was broken off never has the name of a whole one
const unfinished = `${file}.unfinished`;
let database;
try {
  database = await meantDatabase();
  postgresProgram("pg_dump", ["--format=custom", "--no-owner", "--no-privileges", "--file", unfinished], database.url);
  const handle = openSync(unfinished, "r+");
  fsyncSync(handle);
  closeSync(handle);
  renameSync(unfinished, file);
  console.log(`${name}: ${(statSync(file).size / 1e6).toFixed(1)} MB. Try it now and then: npm run restore elsewhere.`);
} catch (e) {
  rmSync(unfinished, { force: true });
  console.error(e instanceof Error ? e.message : e);
  process.exitCode = 1;
} finally {
  await database?.stop();
}

// npm start: everything on one machine, in a folder of its own or on DATABASE_URL. npm run web and npm run worker start
// the two apart, on a DATABASE_URL that both know. --demo loads the demo course beside what is there, --without-demo
// takes it away again.
import { ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

const part = process.argv.slice(2).find((a) => !a.startsWith("--")) ?? "all";
const flags = new Set(process.argv.slice(2).filter((a) => a.startsWith("--")));
const hasDatabase = Boolean(process.env.DATABASE_URL);
if (!hasDatabase && part !== "all") {
  console.error("DATABASE_URL is not set: web and worker started apart need one database that both know.");
  process.exit(1);
}
ensureSystem({ database: !hasDatabase });
ensureModules();
process.chdir(ROOT);
const { build, closing, keepAlive, runProgram, startWeb, startWorker } = await import("./application.mjs");
const stops = [];
const close = closing(stops);
try {
  let url = process.env.DATABASE_URL;
  if (!url) {
    const postgres = await startPostgres("college");
    stops.push(postgres.stop);
    await keepAlive(postgres.child);
    ({ url } = postgres);
  }
  const env = { DATABASE_URL: url };
  runProgram("src/server/upkeep/prepare.ts", env);
  if (flags.has("--demo")) runProgram("src/demo/load.ts", env);
  if (flags.has("--without-demo")) runProgram("src/demo/remove.ts", env);
  if (part !== "worker") build();
  if (part !== "web") await keepAlive(() => startWorker(env));
  if (part !== "worker") {
    const wished = Number(process.env.PORT || 3000);
    let web;
    await keepAlive(async () => (web = await startWeb(env, wished, { port: web?.port })).child);
    if (web.port !== wished) console.log(`Port ${wished} is taken; using ${web.port}.`);
    console.log(`\nRusty Caliper is running at ${web.address}\n`);
    console.log("The first visit makes the administrator. Ctrl+C ends it; the data stay.");
  } else console.log("The grading process is running. Ctrl+C ends it.");
  await new Promise(() => {});
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  await close();
  process.exit(1);
}

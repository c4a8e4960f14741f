// npm run demo [-- --fresh]: everything from a fresh clone to a running application with the demo course.
import { ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem();
ensureModules();
process.chdir(ROOT);
const { build, closing, keepAlive, runProgram, startWeb, startWorker } = await import("./application.mjs");
const stops = [];
const close = closing(stops);
try {
  const postgres = await startPostgres("demo", { fresh: process.argv.includes("--fresh") });
  stops.push(postgres.stop);
  await keepAlive(postgres.child);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1", LOG_LEVEL: process.env.LOG_LEVEL ?? "warn" };
  build();
  runProgram("src/demo/load.ts", env);
  await keepAlive(() => startWorker(env));
  const wished = Number(process.env.PORT ?? 3000);
  let web;
  await keepAlive(async () => (web = await startWeb(env, wished, { port: web?.port })).child);
  if (web.port !== wished) console.log(`Port ${wished} is taken; using ${web.port}.`);
  console.log(`
Rusty Caliper is running at ${web.address}

  instructor   hedda.lark@saltmarsh.example     pass: demo-caliper
  student      ottoline.marsh@saltmarsh.example pass: demo-caliper
  …or one click on any demo person on the first page.

Ctrl+C ends it; the data stay. npm run demo -- --fresh starts over.`);
  await new Promise(() => {});
} catch (e) {
  console.error(e instanceof Error ? e.message : e);
  await close();
  process.exit(1);
}

import { ensureData, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";
process.chdir(ROOT);
ensureData();
const { build, runProgram, startWeb, startWorker } = await import("./application.mjs");
const postgres = await startPostgres("zz", { fresh: true, wishedPort: 54420 });
const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
if (process.argv.includes("--build")) build();
runProgram("src/demo/load.ts", env);
console.log("DB", postgres.url);
await startWorker(env);
if (!process.argv.includes("--no-web")) {
  const web = await startWeb(env, 3400);
  console.log("WEB", web.address);
}
console.log("READY");
await new Promise(() => {});

// npm run bench -- lists: what the lists of a page cost over 60,000 submissions.
import { ensureData, ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";
import { spawnSync } from "node:child_process";
import { join } from "node:path";

ensureSystem();
ensureModules();
ensureData();
const postgres = await startPostgres("lists", { fresh: true });
const r = spawnSync(process.execPath, ["--import", import.meta.resolve("tsx"), join(ROOT, "src/cli/bench/lists.ts")], {
  cwd: ROOT,
  env: { ...process.env, DATABASE_URL: postgres.url },
  stdio: ["ignore", "inherit", "inherit"],
});
await postgres.stop();
process.exit(r.status ?? 1);

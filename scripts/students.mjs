import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { ROOT } from "./machine.mjs";

/** Students for a load, signed in, the handout they work on and the part they save. */
export function studentsOf(env, count) {
  const made = spawnSync(
    process.execPath,
    ["--import", import.meta.resolve("tsx"), join(ROOT, "src/cli/bench/load-people.ts"), String(count)],
    { cwd: ROOT, env: { ...process.env, ...env }, encoding: "utf8", maxBuffer: 1 << 26 },
  );
  if (made.status !== 0) throw new Error(made.stderr);
  return JSON.parse(made.stdout);
}

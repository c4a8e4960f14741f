// npm test: type checks, lint, unit tests and browser tests, on a database of its own. npm run test:long adds the
// long runs.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { chromium, DATA, ensureData, ensureModules, ensureSystem, offerDrawingTools, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem({ browser: true, meshes: true });
offerDrawingTools();
ensureModules();
process.chdir(ROOT);
ensureData();
const { build, closing, SHORT_LIVED, startWeb, startWorker } = await import("./application.mjs");
const isLong = process.argv.includes("--long");
// npm test -- browser: only one part while working on it
const only = process.argv.slice(2).find((a) => !a.startsWith("--"));
const wants = (part) => !only || only === part;
const stops = [];
const close = closing(stops);
const sums = { passed: 0, failed: 0 };
const count = (name, passed, failed) => {
  sums.passed += passed;
  sums.failed += failed;
  console.log(`${failed ? "✗" : "✓"} ${name}: ${passed} passed, ${failed} failed`);
};

/** Runs a tool; its output is shown only when it fails. */
function tool(args, env = {}, isMeek = false) {
  return new Promise((resolve) => {
    const [command, ...rest] = [...(isMeek ? ["nice", "-n", "19"] : []), process.execPath, ...args];
    const child = spawn(command, rest, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: ["ignore", "pipe", "pipe"],
    });
    let text = "";
    for (const s of [child.stdout, child.stderr]) s.on("data", (d) => (text += d));
    stops.unshift(async () => void child.kill());
    child.on("exit", (code) => resolve({ code, text }));
  });
}
const bin = (path) => join(ROOT, "node_modules", path);

async function check(name, args) {
  const r = await tool(args);
  if (r.code !== 0) console.log(r.text);
  count(name, r.code === 0 ? 1 : 0, r.code === 0 ? 0 : 1);
}

/** @param isMeek takes only the time that others leave */
async function vitest(name, args, env, isMeek = false) {
  const file = join(DATA, `${name.replace(/\W+/g, "-")}.json`);
  rmSync(file, { force: true });
  const r = await tool(
    [bin("vitest/vitest.mjs"), "run", ...args, "--reporter=default", "--reporter=json", `--outputFile.json=${file}`],
    env,
    isMeek,
  );
  const result = existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : undefined;
  if (r.code !== 0) console.log(r.text.slice(-20_000));
  // a suite that could not even start counts as failed
  const failed = result
    ? Math.max(result.numFailedTests + (result.numPendingTests && r.code ? 1 : 0), r.code ? 1 : 0)
    : 1;
  count(name, result?.numPassedTests ?? 0, failed);
}

/** Runs one TypeScript program to its end, while others run. */
async function program(file, env, engine) {
  const r = await tool([...engine, "--import", import.meta.resolve("tsx"), join(ROOT, file)], env);
  if (r.code !== 0) throw new Error(`${file} failed:\n${r.text}`);
}

/** Web, worker and database are killed so often while students work: scripts/faults.mjs, on a database of its own. */
async function faults(rounds, demo) {
  const r = await tool(
    [join(ROOT, "scripts/faults.mjs"), "--rounds", String(rounds)],
    { CALIPER_DEMO_FROM: demo },
    true,
  );
  const [, passed = "0", failed = "1"] = /(\d+) passed, (\d+) failed\s*$/.exec(r.text) ?? [];
  if (r.code !== 0) console.log(r.text.slice(-6_000));
  count("killed processes", Number(passed), Number(failed));
}

const REPORTS = ["tools.txt", "actions.txt"].map((file) => join(ROOT, "test-results", file));
try {
  mkdirSync(join(ROOT, "test-results"), { recursive: true });
  for (const old of REPORTS) rmSync(old, { force: true });
  const postgres = await startPostgres("test", { fresh: true, wishedPort: 54_420 });
  stops.push(postgres.stop);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
  const longEnv = isLong ? { CALIPER_LONG: "1" } : {};
  // two cores: the build beside the checks, then unit tests beside the browser
  const checks = (async () => {
    if (!wants("checks")) return;
    await check("type check of core", [bin("typescript/bin/tsc"), "--noEmit", "-p", "src/core"]);
    await check("lint", [bin("eslint/bin/eslint.js"), "--max-warnings", "0", "."]);
    await check("format", [bin("prettier/bin/prettier.cjs"), "--check", "."]);
  })();
  build();
  // unit tests take the time that all others leave, from the beginning
  const unit = (async () => {
    if (wants("unit"))
      await vitest("unit tests", ["-c", "vitest.config.ts", "src/", "tests/house"], { ...env, ...longEnv }, true);
  })();
  await checks;
  if (wants("checks")) await check("type check", [bin("typescript/bin/tsc"), "--noEmit", "-p", "."]);
  await program("src/demo/load.ts", env, SHORT_LIVED);
  await startWorker(env, { quiet: true, engine: SHORT_LIVED });
  const web = await startWeb(env, 3_400, { quiet: true });
  // what is checked by the demo's own worker is read before the browser tests add to it
  if (wants("worker"))
    await vitest("grading process", ["-c", "vitest.config.ts", "tests/worker"], {
      ...env,
      ...longEnv,
      CALIPER_URL: web.address,
    });
  // and a sample of killed processes, once there is a demo to begin with
  const killed = (async () => {
    if (wants("faults")) await faults(isLong ? 50 : 3, postgres.url);
  })();
  // two browsers at a time, each file with a student and a handout of its own
  if (wants("browser"))
    await vitest("browser tests", ["-c", "vitest.browser.config.ts"], {
      ...env,
      CALIPER_URL: web.address,
      CHROMIUM_PATH: chromium(),
    });
  await Promise.all([unit, killed]);
  // which tools go by mouse and by keyboard, and how many actions whole parts take
  for (const said of REPORTS) if (existsSync(said)) console.log(readFileSync(said, "utf8").trimEnd());
} catch (e) {
  console.log(e instanceof Error ? e.stack : e);
  count("the run itself", 0, 1);
}
await close();
console.log(`${sums.passed} passed, ${sums.failed} failed`);
process.exit(sums.failed || !sums.passed ? 1 : 0);

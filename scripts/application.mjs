// Starts the parts of the application and sees that none is left behind.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DATA, freePort, ROOT } from "./machine.mjs";

const tsx = () => import.meta.resolve("tsx");
const running = new Set();

/**
 * The engine's second compiler pays for what runs for hours; what is over in minutes, as tests are, waits for it more
 * than it gains.
 */
export const SHORT_LIVED = ["--liftoff-only"];

/** @param engine flags of the JavaScript engine */
export function start(name, args, env, { quiet = false, engine = [] } = {}) {
  const child = spawn(process.execPath, [...engine, "--import", new URL("leash.mjs", import.meta.url).href, ...args], {
    cwd: ROOT,
    env: { ...process.env, ...env, NEXT_TELEMETRY_DISABLED: "1" },
    stdio: ["pipe", "pipe", "pipe"],
    detached: true,
  });
  running.add(child);
  child.log = "";
  for (const s of [child.stdout, child.stderr])
    s.on("data", (d) => {
      child.log = (child.log + d).slice(-20_000);
      if (!quiet) (s === child.stderr ? process.stderr : process.stdout).write(d);
    });
  child.once("exit", () => running.delete(child));
  child.label = name;
  return child;
}

async function until(child, pattern, seconds) {
  const end = Date.now() + seconds * 1000;
  while (!pattern.test(child.log)) {
    if (child.exitCode !== null || Date.now() > end) throw new Error(`the ${child.label} did not start:\n${child.log}`);
    await new Promise((r) => setTimeout(r, 50));
  }
}

/** Runs one TypeScript program to its end. */
export function runProgram(file, env, args = [], engine = []) {
  const r = spawnSync(process.execPath, [...engine, "--import", tsx(), join(ROOT, file), ...args], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    stdio: ["ignore", 2, 2],
  });
  if (r.status !== 0) throw new Error(`${file} failed`);
}

/** Builds the web application when the sources have changed. */
export function build() {
  const stamp = join(DATA, "build-stamp");
  const listed = spawnSync(
    "git",
    [
      "ls-files",
      "-co",
      "--exclude-standard",
      "--",
      "src",
      "package-lock.json",
      "next.config.ts",
      "postcss.config.mjs",
      "tsconfig.json",
    ],
    { cwd: ROOT, encoding: "utf8" },
  )
    .stdout.split("\n")
    .filter(Boolean)
    // what is committed is listed before what is new: a commit alone changes nothing
    .sort();
  const state = listed.map((f) => `${f}:${existsSync(join(ROOT, f)) ? statSync(join(ROOT, f)).mtimeMs : 0}`).join("\n");
  if (existsSync(stamp) && existsSync(join(ROOT, ".next/BUILD_ID")) && readFileSync(stamp, "utf8") === state) return;
  console.error("building …");
  const r = spawnSync("npm", ["run", "-s", "build"], {
    cwd: ROOT,
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
    encoding: "utf8",
  });
  if (r.status !== 0) throw new Error(`the build failed:\n${r.stdout}${r.stderr}`);
  writeFileSync(stamp, state);
}

export const startWorker = async (env, options) => {
  const child = start("grading worker", ["--import", tsx(), join(ROOT, "src/worker/worker.ts")], env, options);
  await until(child, /grading worker ready/, 60);
  return child;
};

/** @param port exactly this one where it is started again */
export const startWeb = async (env, wishedPort, { port: own, ...options } = {}) => {
  const port = own ?? (await freePort(wishedPort));
  const place = { ...env, PORT: String(port), NODE_ENV: "production" };
  const child = start("web server", ["--import", tsx(), join(ROOT, "src/web/server.ts")], place, options);
  await until(child, /web server ready/, 60);
  return { child, port, address: `http://127.0.0.1:${port}` };
};

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 8_000;
/** One that lived so long was well: it did not die of its start. */
const LIVED_MS = 5_000;
let isEnding = false;

/**
 * Keeps a part of the application alive: a dead one is started again after a pause that grows, and it is said. No part
 * ends another. @param startOne starts it and gives its process, once it is ready
 */
export async function keepAlive(startOne) {
  let pause = FIRST_PAUSE_MS;
  const kept = { child: await startOne() };
  const watch = (since) =>
    kept.child.once("exit", async (code, signal) => {
      if (isEnding) return;
      const { label } = kept.child;
      if (Date.now() - since > LIVED_MS) pause = FIRST_PAUSE_MS;
      for (let why = signal ?? code; !isEnding;) {
        console.error(`The ${label} ended (${why}). It is started again in ${pause / 1000} s.`);
        await new Promise((r) => setTimeout(r, pause));
        pause = Math.min(2 * pause, LONGEST_PAUSE_MS);
        if (isEnding) return;
        try {
          kept.child = await startOne();
          console.error(`The ${label} is there again.`);
          return watch(Date.now());
        } catch (e) {
          why = e instanceof Error ? e.message.split("\n")[0] : e;
        }
      }
    });
  watch(Date.now());
  return kept;
}

async function endChild(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((r) => child.once("exit", r));
  child.kill("SIGTERM");
  const late = setTimeout(() => child.kill("SIGKILL"), 8000);
  await gone;
  clearTimeout(late);
}

/** Ends all that was started, the database last. Safe to call twice. */
export function closing(stops) {
  let closed;
  const close = () =>
    (closed ??= (async () => {
      isEnding = true;
      await Promise.all([...running].map(endChild));
      for (const stop of stops) await stop();
    })());
  for (const s of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(s, () => void close().then(() => process.exit(130)));
  return close;
}

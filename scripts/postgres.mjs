// A PostgreSQL server of the project's own, on loopback, never as root.
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, rmSync, unlinkSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DATA, ensureData, freePort, isRoot, postgresPrograms, ROOT } from "./machine.mjs";

const id = (flag) => Number(execFileSync("id", [flag, "postgres"], { encoding: "utf8" }).trim());
const owner = () => (isRoot ? { uid: id("-u"), gid: id("-g") } : {});

/** Inside the project, or under /var/tmp where the server's user may not enter the project. */
function dataFolder(name) {
  ensureData();
  const inside = join(DATA, `postgres-${name}`);
  if (!isRoot) return inside;
  mkdirSync(inside, { recursive: true });
  const enters = spawnSync("test", ["-x", inside], { ...owner() }).status === 0;
  if (enters) return inside;
  rmSync(inside, { recursive: true, force: true });
  return `/var/tmp/rusty-caliper-${createHash("sha256").update(ROOT).digest("hex").slice(0, 12)}-${name}`;
}

/** Ends a server left over from a run that was killed, and clears the lock of one that died. */
async function heal(folder, bin) {
  const lock = join(folder, "postmaster.pid");
  if (!existsSync(lock)) return;
  const pid = Number(readFileSync(lock, "utf8").split("\n")[0]);
  let command = "";
  try {
    command = readFileSync(`/proc/${pid}/cmdline`, "utf8");
  } catch {
    // no such process: the lock is stale
  }
  if (command.includes(folder)) {
    console.error("ending a database server left over from last time …");
    spawnSync(join(bin, "pg_ctl"), ["-D", folder, "-m", "fast", "-w", "stop"], { ...owner(), stdio: "ignore" });
  }
  if (existsSync(lock)) unlinkSync(lock);
}

/** The address of a server that runs already on this project's data folder; undefined where none does. */
export function runningPostgres(name, folder = dataFolder(name)) {
  const lock = join(folder, "postmaster.pid");
  if (!existsSync(lock) || !existsSync(`${folder}.secret`)) return undefined;
  const [pid, , , port] = readFileSync(lock, "utf8").split("\n");
  try {
    if (!readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(folder)) return undefined;
  } catch {
    return undefined;
  }
  return `postgres://caliper:${readFileSync(`${folder}.secret`, "utf8")}@127.0.0.1:${port}/postgres`;
}

/**
 * Starts the server, making its data folder at the first start.
 * @param folder where its data lie
 * @returns its url, port and folder; `stop`, `kill` and `restart`, and whether it `hasEnded`
 */
export async function startPostgres(name, { fresh = false, wishedPort = 54_320, folder = dataFolder(name) } = {}) {
  const bin = postgresPrograms();
  const secret = `${folder}.secret`;
  const as = owner();
  await heal(folder, bin);
  if (fresh || !existsSync(join(folder, "PG_VERSION")) || !existsSync(secret)) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    writeFileSync(secret, randomBytes(18).toString("hex"), { mode: 0o600 });
    if (isRoot) for (const f of [folder, secret]) chownSync(f, as.uid, as.gid);
    const made = spawnSync(
      join(bin, "initdb"),
      [
        "-D",
        folder,
        "-U",
        "caliper",
        "--pwfile",
        secret,
        "--auth=scram-sha-256",
        "-E",
        "UTF8",
        "--locale=C.UTF-8",
        "--no-sync",
      ],
      { ...as, cwd: "/", encoding: "utf8" },
    );
    if (made.status !== 0) throw new Error(`the database could not be made: ${made.stderr}`);
  }
  chmodSync(folder, 0o700);
  const port = await freePort(wishedPort);
  let server = await serve(bin, folder, port, as, name);
  const hasEnded = () => server.exitCode !== null || server.signalCode !== null;
  const end = async (signal) => {
    const gone = new Promise((r) => server.once("exit", r));
    if (hasEnded()) return;
    server.kill(signal);
    await gone;
  };
  // SIGINT is PostgreSQL's fast shutdown
  const stop = () => end("SIGINT");
  const base = `postgres://caliper:${readFileSync(secret, "utf8")}@127.0.0.1:${port}`;
  /** Starts it again after it was killed: what it left behind takes a moment to go. */
  const restart = async () => {
    for (const until = Date.now() + 20_000; ;) {
      try {
        await heal(folder, bin);
        server = await serve(bin, folder, port, as, name);
        return;
      } catch (e) {
        if (Date.now() > until) throw e;
        await new Promise((r) => setTimeout(r, 200));
      }
    }
  };
  /** Its process, started again where it has ended: for whoever keeps it alive. */
  const child = async () => {
    if (hasEnded()) await restart();
    return server;
  };
  return { url: `${base}/postgres`, port, folder, child, hasEnded, stop, kill: () => end("SIGKILL"), restart };
}

/** Starts the server on a data folder that is there. */
async function serve(bin, folder, port, as, name) {
  const server = spawn(
    join(bin, "postgres"),
    [
      "-D",
      folder,
      "-p",
      String(port),
      "-c",
      "listen_addresses=127.0.0.1",
      "-c",
      "unix_socket_directories=",
      "-c",
      "max_connections=60",
      "-c",
      "fsync=" + (name === "test" ? "off" : "on"),
    ],
    { ...as, cwd: "/", stdio: ["ignore", "ignore", "pipe"], detached: true },
  );
  server.label = "database";
  let log = "";
  server.stderr.on("data", (d) => (log = (log + d).slice(-4000)));
  const ready = Date.now() + 30_000;
  while (!/ready to accept connections/.test(log)) {
    if (server.exitCode !== null || Date.now() > ready) throw new Error(`the database did not start: ${log}`);
    await new Promise((r) => setTimeout(r, 50));
  }
  return server;
}

// What the project needs on a machine: found, installed where that is possible, otherwise named.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = fileURLToPath(new URL("..", import.meta.url));
export const DATA = join(ROOT, ".data");
export const isRoot = process.getuid?.() === 0;

const onPath = (name) => spawnSync("sh", ["-c", `command -v ${name}`], { encoding: "utf8" }).stdout.trim();

/** Folder of PostgreSQL's server programs, or undefined. */
export function postgresPrograms() {
  const base = "/usr/lib/postgresql";
  const versions = existsSync(base)
    ? readdirSync(base)
        .filter((v) => existsSync(join(base, v, "bin/postgres")))
        .sort((a, b) => Number(b) - Number(a))
    : [];
  if (versions.length) return join(base, versions[0], "bin");
  const own = onPath("initdb");
  return own ? own.replace(/\/initdb$/, "") : undefined;
}

export const chromium = () =>
  process.env.CHROMIUM_PATH || onPath("chromium") || onPath("chromium-browser") || undefined;

/** Installs Debian's packages for what is missing, or says exactly what to install. */
export function ensureSystem({ database = true, browser = false, meshes = false } = {}) {
  const missing = () =>
    [
      database && !postgresPrograms() && "postgresql",
      browser && !chromium() && "chromium",
      meshes && !onPath("admesh") && "admesh",
    ].filter(Boolean);
  let packages = missing();
  if (!packages.length) return;
  if (isRoot && onPath("apt-get")) {
    console.error(`installing ${packages.join(" and ")} …`);
    const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
    // Debian would start a server of its own; ours is the only one wanted
    spawnSync("apt-get", ["update", "-qq"], { stdio: ["ignore", 2, 2], env });
    spawnSync("apt-get", ["install", "-y", "-qq", "--no-install-recommends", ...packages], {
      stdio: ["ignore", 2, 2],
      env,
    });
    packages = missing();
    if (!packages.length) return;
  }
  console.error(`This machine lacks ${packages.join(" and ")}. On Debian: sudo apt-get install ${packages.join(" ")}`);
  process.exit(1);
}

/** Programs that tests hold files against; where they cannot be had those tests say that they were skipped. */
export function offerDrawingTools() {
  const wanted = { qpdf: "qpdf", pdftotext: "poppler-utils", "rsvg-convert": "librsvg2-bin" };
  const packages = Object.entries(wanted).flatMap(([program, name]) => (onPath(program) ? [] : [name]));
  const hasDxf = spawnSync("/usr/bin/python3", ["-c", "import ezdxf"], { stdio: "ignore" }).status === 0;
  if (!hasDxf) packages.push("python3-ezdxf");
  if (!packages.length || !isRoot || !onPath("apt-get")) return;
  console.error(`installing ${packages.join(" and ")} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  spawnSync("apt-get", ["install", "-y", "-qq", "--no-install-recommends", ...packages], {
    stdio: ["ignore", "ignore", "ignore"],
    env,
    timeout: 180_000,
  });
}

/** npm ci when the lock file has changed since the last time. */
export function ensureModules() {
  const stamp = join(ROOT, "node_modules/.lock-stamp");
  const lock = createHash("sha256")
    .update(readFileSync(join(ROOT, "package-lock.json")))
    .digest("hex");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.error("installing npm packages …");
  execFileSync("npm", ["ci", "--no-fund", "--no-audit", "--loglevel=error"], { cwd: ROOT, stdio: ["ignore", 2, 2] });
  writeFileSync(stamp, lock);
}

const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(true)));
  });

/** The wished port, or the next free one. */
export async function freePort(wished) {
  for (let port = wished; port < wished + 200; port++) if (await isFree(port)) return port;
  throw new Error(`no free port from ${wished} on`);
}

export function ensureData() {
  mkdirSync(DATA, { recursive: true });
  return DATA;
}

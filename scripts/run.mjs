// Runs one of the project's TypeScript programs: node scripts/run.mjs FILE [ARGUMENT …]
import { spawn } from "node:child_process";
import { fileURLToPath } from "node:url";

const tsx = fileURLToPath(import.meta.resolve("tsx"));
const child = spawn(process.execPath, ["--import", tsx, ...process.argv.slice(2)], { stdio: "inherit" });
for (const s of ["SIGINT", "SIGTERM"]) process.on(s, () => child.kill(s));
child.on("exit", (code, signal) => process.exit(signal ? 1 : (code ?? 1)));

import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    include: ["src/**/*.test.ts", "tests/house.test.ts", "tests/worker/**/*.test.ts"],
    // a guard against hanging only: beside the browsers these tests get what processor time is left
    testTimeout: 900_000,
    hookTimeout: 900_000,
    pool: "forks",
    // what is over in minutes waits for the engine's second compiler more than it gains by it
    execArgv: ["--liftoff-only"],
    // one kernel for all the files of a process: opening and warming one for each cost more than many a test
    isolate: false,
    maxWorkers: process.env["CALIPER_WORKERS"] ? Number(process.env["CALIPER_WORKERS"]) : 2,
  },
});

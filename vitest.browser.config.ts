import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    include: ["tests/browser/**/*.test.ts"],
    testTimeout: 90_000,
    hookTimeout: 60_000,
    // a guard only: beside the unit tests a rebuild may take seconds
    expect: { poll: { timeout: 20_000 } },
    maxWorkers: 2,
    pool: "forks",
  },
});

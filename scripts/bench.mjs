// Runs the benches: node scripts/bench.mjs [CASE …]
import { register } from "node:module";

register("./plain-loader.mjs", import.meta.url);
await import("../src/cli/bench/bench.ts");

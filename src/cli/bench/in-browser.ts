import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { Bench } from "./measure";

/** Benches in a browser of their own, each a program in scripts/. */
const inBrowser =
  (script: string): Bench =>
  async () => {
    const r = spawnSync(process.execPath, [fileURLToPath(new URL(`../../../scripts/${script}.mjs`, import.meta.url))], {
      stdio: ["ignore", "inherit", 2],
    });
    if (r.status !== 0) throw new Error(`${script} could not be measured`);
  };

/** An edge of the mixed sketch is dragged, frames counted. */
export const dragFramesBench = inBrowser("drag-frames");
/** From a click on a handout to its part, shaded. */
export const openingBench = inBrowser("opening");

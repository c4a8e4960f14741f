import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { Bench } from "./measure";

/** Benches that start the whole application, each a program in scripts/. */
const asProgram =
  (script: string): Bench =>
  async () => {
    const r = spawnSync(process.execPath, [fileURLToPath(new URL(`../../../scripts/${script}.mjs`, import.meta.url))], {
      stdio: ["ignore", "inherit", 2],
    });
    if (r.status !== 0) throw new Error(`${script} could not be measured`);
  };

/** An edge of the mixed sketch is dragged, frames counted. */
export const dragFramesBench = asProgram("drag-frames");
/** From a click on a handout to its part, shaded. */
export const openingBench = asProgram("opening");
/** An evening of marking with a stopwatch, and a gradebook of thirty by twenty. */
export const markingBench = asProgram("evening");
/** Lists over many submissions. */
export const listsBench = asProgram("lists");
/** A class of students saving and handing in. */
export const loadBench = asProgram("load");

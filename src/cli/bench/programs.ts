import { spawn } from "node:child_process";
import { createInterface } from "node:readline";
import { fileURLToPath } from "node:url";
import { z } from "zod";
import { figure } from "./figures";
import type { Bench } from "./measure";

const FigureLine = z.object({
  bench: z.string(),
  case: z.string(),
  metric: z.string(),
  value: z.number(),
  unit: z.string(),
});

/** Benches that start the whole application, each a program in scripts/ that says its figures as JSON lines. */
const asProgram =
  (script: string): Bench =>
  async () => {
    const file = fileURLToPath(new URL(`../../../scripts/${script}.mjs`, import.meta.url));
    const child = spawn(process.execPath, [file], { stdio: ["ignore", "pipe", "inherit"] });
    const ended = new Promise<number | null>((done) => child.once("exit", done));
    for await (const line of createInterface({ input: child.stdout })) {
      const said = line.startsWith("{") ? FigureLine.safeParse(JSON.parse(line)) : undefined;
      // what is said is said beside what it was, and can be kept like any other figure
      if (said?.success) figure(said.data.bench, said.data.case, said.data.metric, said.data.value, said.data.unit);
      else console.error(line);
    }
    if ((await ended) !== 0) throw new Error(`${script} could not be measured`);
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

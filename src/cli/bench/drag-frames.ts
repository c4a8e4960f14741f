import { spawnSync } from "node:child_process";
import { fileURLToPath } from "node:url";
import type { Bench } from "./measure";

/** In a browser of its own: the application is started, an edge of the mixed sketch dragged, frames counted. */
export const dragFramesBench: Bench = async () => {
  const script = fileURLToPath(new URL("../../../scripts/drag-frames.mjs", import.meta.url));
  const r = spawnSync(process.execPath, [script], { stdio: ["ignore", "inherit", 2] });
  if (r.status !== 0) throw new Error("the drag could not be measured");
};

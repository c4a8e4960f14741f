import { chosen, type Bench } from "./measure";
import { causeBench } from "./cause";
import { checkBench } from "./check";
import { keepFigures } from "./figures";
import { dragFramesBench, listsBench, loadBench, markingBench, openingBench } from "./programs";
import { memoryBench } from "./memory";
import { rebuildBench } from "./rebuild";
import { sheetBench } from "./sheet";
import { solidsBench } from "./solids";
import { solverBench } from "./solver";

const BENCHES: Record<string, Bench> = {
  solver: solverBench,
  rebuild: rebuildBench,
  solids: solidsBench,
  check: checkBench,
  cause: causeBench,
  sheet: sheetBench,
  memory: memoryBench,
  "drag-frames": dragFramesBench,
  marking: markingBench,
  lists: listsBench,
  load: loadBench,
  opening: openingBench,
};

// --keep writes the figures into docs/figures.md
const names = process.argv.slice(2).filter((n) => n !== "--keep");
const unknown = names.filter((n) => !BENCHES[n]);
if (unknown.length) {
  console.error(`unknown bench ${unknown.join(", ")}; there are ${Object.keys(BENCHES).join(", ")}`);
  process.exit(2);
}
for (const name of chosen(names, Object.keys(BENCHES))) await BENCHES[name]!(name);
if (process.argv.includes("--keep")) keepFigures();
process.exit(0);

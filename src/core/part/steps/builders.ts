import { buildAxis } from "./axis/build";
import { buildChamfer } from "./chamfer/build";
import { buildExtrude } from "./extrude/build";
import { buildFillet } from "./fillet/build";
import { buildHole } from "./hole/build";
import { buildImported } from "./imported/build";
import type { Step } from "./kinds";
import { buildMirror } from "./mirror/build";
import { buildPattern } from "./pattern/build";
import { buildPlane } from "./plane/build";
import { buildPoint } from "./point/build";
import { buildRevolve } from "./revolve/build";
import { buildShell } from "./shell/build";
import { buildSketch } from "./sketch/build";
import type { Build } from "./step";

/** How every kind of step is built, one line each. */
const BUILDERS: { [K in Step["kind"]]: Build<Extract<Step, { kind: K }>> } = {
  sketch: buildSketch,
  extrude: buildExtrude,
  revolve: buildRevolve,
  hole: buildHole,
  fillet: buildFillet,
  chamfer: buildChamfer,
  shell: buildShell,
  mirror: buildMirror,
  pattern: buildPattern,
  plane: buildPlane,
  axis: buildAxis,
  point: buildPoint,
  imported: buildImported,
};
export const builderOf = (step: Step): Build<Step> => BUILDERS[step.kind] as unknown as Build<Step>;

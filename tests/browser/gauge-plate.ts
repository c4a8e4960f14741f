import type { PartDocument } from "@/core/part/document";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";

/** A gauge plate: 80 × 50 × 12 with a ⌀20 hole in its middle. */
export function gaugePlate(): PartDocument {
  const d = new Draft("Gauge plate", "mm", STEEL).sketch("top");
  const [bottom, right] = d.rectangle([0, 0], [80, 50]) as [string, string];
  const hole = d.circle([40, 25], 10);
  d.constrain("coincident", `${bottom}.start`, "origin")
    .dimension("length", [bottom], 80)
    .dimension("length", [right], 50)
    .dimension("diameter", [hole], 20)
    .dimension("horizontal-distance", ["origin", `${hole}.centre`], 40)
    .dimension("vertical-distance", ["origin", `${hole}.centre`], 25);
  return d.extrude("add", { kind: "depth", depth: 12 }).document;
}

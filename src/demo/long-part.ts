import type { PartDocument } from "@/core/part/document";
import { Draft } from "./draft";
import { STEEL } from "./parts";

/** A frame of the weather station of 40 steps: a plate with bosses, pockets and holes, each by a step of its own; for the bench. */
export function longPart(): PartDocument {
  const d = new Draft("Station frame", "mm", STEEL).sketch("top");
  d.rectangle([0, 0], [240, 160]);
  const plate = d.extrude("add", { kind: "depth", depth: 16 }).last;
  d.step({ kind: "fillet", groups: [{ radius: 12, edges: [[1, 2], [2, 3], [3, 4], [4, 1]].map(([a, b], i) => ({ id: `e${i + 1}`, on: { edge: `${plate}/side/l${a}|${plate}/side/l${b}` } })) }] });
  for (let i = 0; i < 9; i++) {
    const x = 30 + 45 * (i % 5), y = i < 5 ? 40 : 120;
    d.sketch("top", 16);
    d.circle([x, y], 12);
    const boss = d.extrude("add", { kind: "depth", depth: 14 }).last;
    d.step({ kind: "hole", on: { face: `${boss}/end` }, points: [{ id: "p1", at: [x, y] }], diameter: 8, head: { kind: "plain" }, extent: { kind: "through" } });
  }
  for (let i = 0; i < 4; i++) {
    d.sketch("top", 16);
    d.rectangle([50 + 40 * i, 70], [70 + 40 * i, 90]);
    d.extrude("cut", { kind: "depth", depth: 6 }, { reverse: true });
  }
  const screw = d.step({ kind: "hole", on: { face: `${plate}/end` }, points: [{ id: "p1", at: [14, 80] }], diameter: 6.6, head: { kind: "counterbore", diameter: 11, depth: 6 }, extent: { kind: "through" } });
  d.step({ kind: "pattern", of: { steps: [screw] }, way: { kind: "rows", first: { along: { axis: "x" }, count: 2, by: "step", distance: 212 } } });
  return d.document;
}

import type { PartDocument } from "@/core/part/document";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { Draft } from "./draft";
import { bore, pulley } from "./long-part";
import { ALUMINIUM } from "./parts";
import { BRASS } from "./solid-parts";

/** WS-07 Pulley: disc with a boss and a ring of lightening holes; it runs loose and has no keyway. */
export function cordPulley(): PartDocument {
  const whole = pulley();
  const steps = whole.steps.filter((s) => s.id !== "sketch3" && s.id !== "extrude3");
  return withSketchesDefined({ ...whole, steps });
}

/** WS-09 Gland plate: 90 × 50 × 12, a bore with a seat in the middle, two counterbored and two countersunk holes. */
export function glandPlate(): PartDocument {
  const d = new Draft("Gland plate", "mm", ALUMINIUM).sketch("top");
  const [bottom, right] = d.rectangle([0, 0], [90, 50]) as [string, string];
  d.constrain("coincident", `${bottom}.start`, "origin")
    .dimension("length", [bottom], 90)
    .dimension("length", [right], 50);
  const plate = d.extrude("add", { kind: "depth", depth: 12 }).last;
  d.sketch("top", 12);
  const seat = d.circle([45, 25], 14);
  d.dimension("diameter", [seat], 28)
    .dimension("horizontal-distance", ["origin", `${seat}.centre`], 45)
    .dimension("vertical-distance", ["origin", `${seat}.centre`], 25);
  d.extrude("cut", { kind: "depth", depth: 5 }, { reverse: true });
  const top = `${plate}/end`;
  d.step(bore(top, [[45, 25]], 20));
  d.step(bore(top, [[12, 12], [78, 12]], 5.5, { kind: "counterbore", diameter: 10, depth: 5.4 })); // prettier-ignore
  d.step(bore(top, [[12, 38], [78, 38]], 4.5, { kind: "countersink", diameter: 9, angle: 90 })); // prettier-ignore
  return d.document;
}

/** WS-10 Counterweight: turned, ⌀36 × 50 with a neck, a drilled blind hole from the end and one across. */
export function counterweight(): PartDocument {
  const d = new Draft("Counterweight", "mm", BRASS).sketch("front");
  const lines = d.outline([
    [0, 0],
    [18, 0],
    [18, 38],
    [11, 38],
    [11, 50],
    [0, 50],
  ]) as [string, string, string, string, string, string];
  const [base, side, shoulder, neck] = lines;
  d.constrain("coincident", `${base}.start`, "origin")
    .dimension("length", [base], 18)
    .dimension("length", [side], 38)
    .dimension("length", [neck], 12)
    .dimension("length", [shoulder], 7);
  const profile = d.last;
  const turned = d.step({
    kind: "revolve",
    sketch: profile,
    operation: "add",
    about: { sketch: profile, curve: "y-axis" },
    turn: { kind: "whole" },
  });
  d.step({
    kind: "hole",
    on: { face: `${turned}/side/${base}` },
    points: [{ id: "p1", at: [0, 0] }],
    diameter: 10,
    head: { kind: "plain" },
    extent: { kind: "depth", depth: 24 },
    tip: 118,
  });
  d.sketch("front");
  const cross = d.circle([0, 44], 3);
  d.constrain("point-on-curve", `${cross}.centre`, "y-axis")
    .dimension("diameter", [cross], 6)
    .dimension("vertical-distance", ["origin", `${cross}.centre`], 44);
  d.extrude("cut", { kind: "through" });
  return d.document;
}

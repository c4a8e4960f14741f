import type { PartDocument } from "@/core/part/document";
import { Draft } from "./draft";

export const STEEL = { name: "Steel S235", density: 7.85 };
export const ALUMINIUM = { name: "Aluminium 6082", density: 2.7 };

/** What goes wrong in a student's hands; nothing given is right. */
interface FootSlips {
  readonly baseHole?: number;
  readonly leaveLoose?: boolean;
  readonly mirrored?: boolean;
  readonly units?: "mm" | "in";
}

/**
 * WS-08 Tripod foot: an angle of 96 × 64, 14 thick, 52 wide; one ⌀18 bore off the middle of the base, two ⌀9 holes in
 * the upright.
 */
export function tripodFoot(slips: FootSlips = {}): PartDocument {
  const units = slips.units ?? "mm";
  const mm = units === "in" ? 25.4 : 1;
  const d = new Draft("Tripod foot", units, STEEL);
  d.sketch("front");
  const P = (x: number, y: number): [number, number] => [x * mm, y * mm];
  const [bottom, right, , , , left] = d.outline([P(0, 0), P(96, 0), P(96, 14), P(14, 14), P(14, 64), P(0, 64)]) as [
    string,
    string,
    string,
    string,
    string,
    string,
  ];
  d.constrain("coincident", `${bottom}.start`, "origin");
  d.dimension("length", [bottom], 96).dimension("length", [left], 64).dimension("length", [right], 14);
  if (!slips.leaveLoose)
    d.constrain("equal", right, d.document.steps[0]!.kind === "sketch" ? d.document.steps[0].sketch.curves[4]!.id : "");
  d.extrude("add", { kind: "depth", depth: 52 });

  d.sketch("top");
  const side = slips.mirrored ? -1 : 1;
  // the foot reaches from y = 0 to y = −52; a mirrored reading puts the bore at the other side of its middle
  const bore = d.circle(P(62, -26 + side * 8), 9 * mm);
  d.dimension("horizontal-distance", ["origin", `${bore}.centre`], 62).dimension(
    "vertical-distance",
    ["origin", `${bore}.centre`],
    26 - side * 8,
  );
  d.dimension("diameter", [bore], slips.baseHole ?? 18);
  d.extrude("cut", { kind: "through" });

  d.sketch("right");
  const low = d.circle(P(-14, 44), 4.5 * mm),
    high = d.circle(P(-38, 44), 4.5 * mm);
  d.constrain("equal", low, high).dimension("diameter", [low], 9);
  d.dimension("vertical-distance", ["origin", `${low}.centre`], 44).dimension(
    "vertical-distance",
    ["origin", `${high}.centre`],
    44,
  );
  d.dimension("horizontal-distance", ["origin", `${low}.centre`], 14).dimension(
    "horizontal-distance",
    [`${low}.centre`, `${high}.centre`],
    24,
  );
  d.extrude("cut", { kind: "through" });
  return d.document;
}

/**
 * The same foot by another way: base plate and upright apart, lying elsewhere and turned, holes first in the profile.
 */
export function tripodFootElsewhere(): PartDocument {
  const d = new Draft("Tripod foot", "mm", STEEL);
  // the base, seen from above, standing off the origin; its width runs along x
  d.sketch("top", 30);
  const [bottom, right] = d.rectangle([100, 40], [152, 136]) as [string, string, string, string];
  const bore = d.circle([118, 102], 9);
  d.dimension("horizontal-distance", ["origin", `${bottom}.start`], 100).dimension(
    "vertical-distance",
    ["origin", `${bottom}.start`],
    40,
  );
  d.dimension("length", [bottom], 52).dimension("length", [right], 96);
  d.dimension("diameter", [bore], 18)
    .dimension("horizontal-distance", [`${bottom}.start`, `${bore}.centre`], 18)
    .dimension("vertical-distance", [`${bottom}.start`, `${bore}.centre`], 62);
  d.extrude("add", { kind: "depth", depth: 14 });
  // the upright stands on the near end
  d.sketch("front", -40);
  const [b2, r2] = d.rectangle([100, 44], [152, 94]) as [string, string, string, string];
  const h1 = d.circle([114, 74], 4.5),
    h2 = d.circle([138, 74], 4.5);
  d.dimension("horizontal-distance", ["origin", `${b2}.start`], 100)
    .dimension("vertical-distance", ["origin", `${b2}.start`], 44)
    .dimension("length", [b2], 52)
    .dimension("length", [r2], 50);
  d.dimension("diameter", [h1], 9).constrain("equal", h1, h2);
  d.dimension("vertical-distance", [`${b2}.start`, `${h1}.centre`], 30).dimension(
    "vertical-distance",
    [`${b2}.start`, `${h2}.centre`],
    30,
  );
  d.dimension("horizontal-distance", [`${b2}.start`, `${h1}.centre`], 14).dimension(
    "horizontal-distance",
    [`${h1}.centre`, `${h2}.centre`],
    24,
  );
  d.extrude("add", { kind: "depth", depth: 14 }, { reverse: true });
  return d.document;
}

/** WS-05 Vane arm, in inches: a bar with one corner cut off, three holes and a boss for the counterweight. */
export function vaneArm(slips: { bossHeight?: string } = {}): PartDocument {
  const d = new Draft("Vane arm", "in", ALUMINIUM);
  const i = 25.4;
  d.sketch("top");
  const [bottom, right, top, slope, left] = d.outline([
    [0, 0],
    [5.5 * i, 0],
    [5.5 * i, 1.25 * i],
    [0.75 * i, 1.25 * i],
    [0, 0.5 * i],
  ]) as [string, string, string, string, string];
  void slope;
  d.constrain("coincident", `${bottom}.start`, "origin");
  d.dimension("length", [bottom], "5 1/2 in")
    .dimension("length", [right], "1 1/4 in")
    .dimension("length", [left], "1/2 in")
    .dimension("length", [top], "=5.5-0.75");
  const pivot = d.circle([1.5 * i, 0.625 * i], 0.25 * i),
    near = d.circle([3 * i, 0.4 * i], 0.15 * i),
    far = d.circle([3 * i, 0.85 * i], 0.15 * i);
  d.dimension("diameter", [pivot], "1/2 in").dimension("diameter", [near], "5/16 in").constrain("equal", near, far);
  d.dimension("horizontal-distance", ["origin", `${pivot}.centre`], 1.5).dimension(
    "vertical-distance",
    ["origin", `${pivot}.centre`],
    "5/8",
  );
  d.dimension("horizontal-distance", [`${pivot}.centre`, `${near}.centre`], 1.5).dimension(
    "horizontal-distance",
    [`${pivot}.centre`, `${far}.centre`],
    1.5,
  );
  d.dimension("vertical-distance", ["origin", `${near}.centre`], "3/8").dimension(
    "vertical-distance",
    [`${near}.centre`, `${far}.centre`],
    "1/2",
  );
  d.extrude("add", { kind: "depth", depth: "3/8 in" });
  d.sketch("top", 0.375 * i);
  const boss = d.circle([4.7 * i, 0.6 * i], 0.4 * i),
    hole = d.circle([4.72 * i, 0.6 * i], 0.15 * i);
  d.constrain("concentric", boss, hole).dimension("diameter", [boss], "7/8 in").dimension("diameter", [hole], "3/8 in");
  d.dimension("horizontal-distance", ["origin", `${boss}.centre`], "4 3/4").dimension(
    "vertical-distance",
    ["origin", `${boss}.centre`],
    "5/8",
  );
  d.extrude("add", { kind: "depth", depth: slips.bossHeight ?? "1/2 in" });
  return d.document;
}

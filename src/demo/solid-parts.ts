import type { PartDocument } from "@/core/part/document";
import type { EdgeRef } from "@/core/naming/reference";
import { Draft } from "./draft";
import { ALUMINIUM, STEEL } from "./parts";

const edge = (a: string, b: string): EdgeRef => ({ edge: `${a}|${b}` });
const edges = (...list: EdgeRef[]) => list.map((on, i) => ({ id: `e${i + 1}`, on }));
export const BRASS = { name: "Brass CuZn39Pb3", density: 8.47 };
export const POLYMER = { name: "PA 12", density: 1.01 };

/** WS-04 Bearing spacer: turned, ⌀34 × 40, bore ⌀16, a groove ⌀28 × 6 in the middle, both outer rims chamfered 1.5. */
export function bearingSpacer(slips: { grooveDiameter?: number; onlyOneChamfer?: boolean } = {}): PartDocument {
  const d = new Draft("Bearing spacer", "mm", BRASS).sketch("front");
  const [bottom, right, , left] = d.rectangle([8, 0], [17, 40]) as [string, string, string, string];
  const axis = d.centreLine([0, -5], [0, 45]);
  d.constrain("collinear", axis, "y-axis")
    .dimension("length", [axis], 50)
    .dimension("vertical-distance", [`${axis}.start`, "origin"], 5);
  d.constrain("point-on-curve", `${bottom}.start`, "x-axis")
    .dimension("across", [left, axis], 16)
    .dimension("across", [right, axis], 34)
    .dimension("length", [right], 40);
  const turned = d.revolve("add");
  d.sketch("front");
  const [below, inner] = d.rectangle([19, 17], [14, 23]) as [string, string];
  const groove = d.centreLine([0, 0], [0, 40]);
  d.constrain("collinear", groove, "y-axis")
    .constrain("coincident", `${groove}.start`, "origin")
    .dimension("length", [groove], 40);
  d.dimension("across", [inner, groove], slips.grooveDiameter ?? 28)
    .dimension("length", [inner], 6)
    .dimension("length", [below], 5)
    .dimension("vertical-distance", ["origin", `${below}.start`], 17);
  d.revolve("cut");
  const rims = [
    edge(`${turned}/side/${right}`, `${turned}/side/l3`),
    edge(`${turned}/side/${right}`, `${turned}/side/${bottom}`),
  ];
  d.step({
    kind: "chamfer",
    groups: [
      { size: { kind: "equal", distance: 1.5 }, edges: edges(...(slips.onlyOneChamfer ? rims.slice(0, 1) : rims)) },
    ],
  });
  return d.document;
}

/** The same spacer from discs: a tube, a ring cut out of its middle, chamfers last. */
export function bearingSpacerFromDiscs(): PartDocument {
  const d = new Draft("Bearing spacer", "mm", BRASS).sketch("top");
  const outer = d.circle([0, 0], 17),
    bore = d.circle([0, 0], 8);
  d.constrain("coincident", `${outer}.centre`, "origin")
    .constrain("coincident", `${bore}.centre`, "origin")
    .dimension("diameter", [outer], 34)
    .dimension("diameter", [bore], 16);
  const tube = d.extrude("add", { kind: "depth", depth: 40 }).last;
  d.sketch("top", 17);
  const wide = d.circle([0, 0], 20),
    narrow = d.circle([0, 0], 14);
  d.constrain("coincident", `${wide}.centre`, "origin")
    .constrain("coincident", `${narrow}.centre`, "origin")
    .dimension("diameter", [wide], 40)
    .dimension("diameter", [narrow], 28);
  d.extrude("cut", { kind: "depth", depth: 6 });
  d.step({
    kind: "chamfer",
    groups: [
      {
        size: { kind: "equal", distance: 1.5 },
        edges: edges(edge(`${tube}/side/${outer}`, `${tube}/end`), edge(`${tube}/side/${outer}`, `${tube}/start`)),
      },
    ],
  });
  return d.document;
}

/**
 * WS-06 Sensor housing: half a box, its upright edges rounded, hollowed to 2, mirrored; a cable hole ⌀10 in one wall.
 */
export function sensorHousing(slips: { wall?: number; shellFirst?: boolean } = {}): PartDocument {
  const d = new Draft("Sensor housing", "mm", POLYMER).sketch("top");
  const [bottom, right] = d.rectangle([-25, -30], [0, 30]) as [string, string, string, string];
  d.constrain("collinear", right, "y-axis")
    .constrain("midpoint", "origin", right)
    .dimension("length", [bottom], 25)
    .dimension("length", [right], 60);
  const block = d.extrude("add", { kind: "depth", depth: 36 }).last;
  const side = (n: number) => `${block}/side/l${n}`;
  const round = () =>
    d.step({ kind: "fillet", groups: [{ radius: 8, edges: edges(edge(side(1), side(4)), edge(side(3), side(4))) }] });
  const hollow = () =>
    d.step({ kind: "shell", thickness: slips.wall ?? 2, open: [{ face: `${block}/end` }, { face: side(2) }] });
  if (slips.shellFirst) hollow();
  round();
  if (!slips.shellFirst) hollow();
  d.step({ kind: "mirror", of: { body: true }, about: { datum: "right" } });
  d.sketch("right");
  const hole = d.circle([0, 18], 5);
  d.constrain("point-on-curve", `${hole}.centre`, "y-axis")
    .dimension("diameter", [hole], 10)
    .dimension("vertical-distance", ["origin", `${hole}.centre`], 18);
  d.extrude("cut", { kind: "depth", depth: 40 });
  return d.document;
}

/** WS-02 Anemometer hub: a flange ⌀80 × 10 with a boss ⌀36 and a bore, six holes for M5 cap screws on ⌀62. */
export function anemometerHub(slips: { holes?: number; through?: boolean } = {}): PartDocument {
  const d = new Draft("Anemometer hub", "mm", ALUMINIUM).sketch("top");
  const plate = d.circle([0, 0], 40);
  d.constrain("coincident", `${plate}.centre`, "origin").dimension("diameter", [plate], 80);
  const flange = d.extrude("add", { kind: "depth", depth: 10 }).last;
  d.sketch("top", 10);
  const ring = d.circle([0, 0], 18);
  d.constrain("coincident", `${ring}.centre`, "origin").dimension("diameter", [ring], 36);
  const boss = d.extrude("add", { kind: "depth", depth: 20 }).last;
  d.step({
    kind: "hole",
    on: { face: `${boss}/end` },
    points: [{ id: "p1", at: [0, 0] }],
    diameter: 14,
    head: { kind: "plain" },
    extent: { kind: "through" },
  });
  const screw = d.step({
    kind: "hole",
    on: { face: `${flange}/end` },
    points: [{ id: "p1", at: [31, 0] }],
    diameter: 5.5,
    head: { kind: "counterbore", diameter: 10, depth: 5.4 },
    extent: slips.through === false ? { kind: "depth", depth: 8 } : { kind: "through" },
    from: { table: "iso-4762", row: "M5", fit: "medium" },
  });
  d.step({
    kind: "pattern",
    of: { steps: [screw] },
    way: { kind: "ring", about: { axis: "z" }, count: slips.holes ?? 6, by: "total", angle: 360 },
  });
  d.step({ kind: "fillet", groups: [{ radius: 3, edges: edges(edge(`${boss}/side/${ring}`, `${flange}/end`)) }] });
  return d.document;
}

/**
 * WS-03 Mast clamp bracket: an angle 70 × 45 × 8, 40 wide, its inner corner rounded 6, outer corners rounded 10,
 * slotted hole pair.
 */
export function mastBracket(slips: { forgetInner?: boolean; width?: number } = {}): PartDocument {
  const d = new Draft("Mast bracket", "mm", STEEL).sketch("front");
  const [bottom, , , inner, , left] = d.outline([
    [0, 0],
    [70, 0],
    [70, 8],
    [8, 8],
    [8, 45],
    [0, 45],
  ]) as [string, string, string, string, string, string];
  void inner;
  d.constrain("coincident", `${bottom}.start`, "origin")
    .dimension("length", [bottom], 70)
    .dimension("length", [left], 45)
    .dimension("length", ["l2"], 8)
    .constrain("equal", "l2", "l5");
  const angle = d.extrude("add", { kind: "both", depth: slips.width ?? 40 }).last;
  const side = (n: number) => `${angle}/side/l${n}`;
  d.step({
    kind: "fillet",
    groups: [
      ...(slips.forgetInner ? [] : [{ radius: 6, edges: [{ id: "inner", on: edge(side(3), side(4)) }] }]),
      {
        radius: 10,
        edges: [edge(side(2), `${angle}/start`), edge(side(2), `${angle}/end`)].map((on, i) => ({
          id: `outer${i + 1}`,
          on,
        })),
      },
    ],
  });
  d.step({
    kind: "hole",
    on: { face: side(3) },
    points: [
      { id: "p1", at: [36, 0] },
      { id: "p2", at: [58, 0] },
    ],
    diameter: 9,
    head: { kind: "plain" },
    extent: { kind: "through" },
    from: { table: "clearance", row: "M8", fit: "medium" },
  });
  return d.document;
}

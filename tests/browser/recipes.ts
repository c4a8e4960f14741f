import type { Locator } from "playwright-core";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import type { Mm, Way } from "./ways";

/** What is drawn with a tool, and how it is told that it was. */
export interface Recipe {
  readonly tool: string;
  readonly again?: number;
  /** Drawn first: lines by their ends, circles by centre and a place on them. */
  readonly lines?: readonly (readonly [Mm, Mm])[];
  readonly circles?: readonly (readonly [Mm, Mm])[];
  readonly draw: (w: Way) => Promise<void>;
  /** How many curves there are then. */
  readonly curves?: number;
  /** What else is there: how many of a selector. */
  readonly shows?: readonly [selector: string, count: number];
}
const places =
  (...list: Mm[]) =>
  (w: Way) =>
    w.at(...list);
const ended =
  (...list: Mm[]) =>
  async (w: Way) => {
    await w.at(...list);
    await w.key("Enter");
  };
const L1 = [
    [-40, 10],
    [-10, 10],
  ] as const,
  SLANT = [
    [-40, 10],
    [-10, 20],
  ] as const,
  STEEP = [
    [10, -10],
    [20, 20],
  ] as const,
  C1 = [
    [-20, -20],
    [-10, -20],
  ] as const,
  C2 = [
    [20, -20],
    [30, -20],
  ] as const;
const mark = (kind: string) => `[aria-label^="${kind} constraint"]`;

export const DRAWN: readonly Recipe[] = [
  { tool: "Line", draw: ended([-40, -20], [40, -20], [40, 20]), curves: 2 },
  { tool: "Rectangle", draw: places([-40, -20], [40, 20]), curves: 4 },
  { tool: "Rectangle", again: 1, draw: places([0, 0], [40, 20]), curves: 6 },
  { tool: "Rectangle", again: 2, draw: places([-40, -20], [20, -10], [10, 20]), curves: 4 },
  { tool: "Circle", draw: places([-20, 10], [0, 10]), curves: 1 },
  { tool: "Circle", again: 1, draw: places([-20, 10], [10, 20]), curves: 1 },
  { tool: "Circle", again: 2, draw: places([-20, 10], [10, 20], [0, -10]), curves: 1 },
  { tool: "Arc", draw: places([-20, 10], [20, 10], [0, 30]), curves: 1 },
  { tool: "Arc", again: 1, draw: places([0, 10], [20, 10], [0, 30]), curves: 1 },
  { tool: "Ellipse", draw: places([0, 10], [40, 10], [0, 30]), curves: 1 },
  { tool: "Polygon", draw: places([10, 10], [30, 10]), curves: 7 },
  { tool: "Slot", draw: places([-30, 10], [20, 10], [20, 20]), curves: 5 },
  { tool: "Spline", draw: ended([-40, 10], [-10, 30], [30, 10]), curves: 1 },
  { tool: "Point", draw: places([-20, 10]), curves: 1 },
  {
    tool: "Pick",
    lines: [L1],
    draw: async (w) => {
      await w.at([-20, 10]);
      await w.key("Delete");
    },
    curves: 0,
  },
  {
    tool: "Construct",
    lines: [L1],
    draw: async () => {},
    shows: ["[data-curve] path[stroke-dasharray]", 1],
  },
  { tool: "Delete", lines: [L1], draw: async () => {}, curves: 0 },
  {
    tool: "Dimension",
    lines: [L1],
    draw: async (w) => {
      await w.at([-30, 10], [-20, 30]);
      await w.size("50");
    },
    shows: ["[data-dimension-id]", 1],
  },
  { tool: "Coincide", lines: [L1], circles: [C1], draw: places([-10, 10], [-20, -20]), shows: [mark("coincident"), 0] },
  { tool: "Level", lines: [SLANT], draw: places([-40, 10], [-10, 20]), shows: [mark("horizontal"), 1] },
  { tool: "Upright", lines: [STEEP], draw: places([10, -10], [20, 20]), shows: [mark("vertical"), 1] },
  { tool: "Parallel", circles: [], lines: [SLANT, STEEP], draw: both, shows: [mark("parallel"), 1] },
  { tool: "Square", lines: [SLANT, STEEP], draw: both, shows: [mark("perpendicular"), 1] },
  { tool: "Equal", circles: [C1, C2], draw: places([-10, -20], [30, -20]), shows: [mark("equal"), 1] },
  { tool: "Tangent", lines: [L1], circles: [C1], draw: places([-30, 10], [-10, -20]), shows: [mark("tangent"), 1] },
  { tool: "Midpoint", lines: [L1], circles: [C1], draw: places([-20, -20], [-30, 10]), shows: [mark("midpoint"), 1] },
  {
    tool: "Symmetric",
    circles: [C1, C2],
    draw: places([-20, -20], [20, -20], [0, 40]),
    shows: [mark("symmetric"), 1],
  },
  { tool: "Fix", circles: [C1], draw: places([-20, -20]), shows: [mark("fixed"), 1] },
  {
    tool: "Trim",
    lines: [
      [
        [-40, 10],
        [20, 10],
      ],
      [
        [-20, 30],
        [-20, -10],
      ],
    ],
    draw: places([10, 10]),
    curves: 2,
  },
  {
    tool: "Extend",
    lines: [
      [
        [-40, 10],
        [-20, 10],
      ],
      [
        [10, 30],
        [10, -10],
      ],
    ],
    draw: places([-25, 10]),
    shows: [mark("point on curve"), 1],
  },
  { tool: "Split", lines: [L1], draw: places([-20, 10]), curves: 2 },
  {
    tool: "Corner",
    lines: [
      [
        [-40, 10],
        [0, 10],
      ],
      [
        [0, 10],
        [0, -20],
      ],
    ],
    draw: async (w) => {
      await w.at([0, 10]);
      await w.typed("8");
    },
    shows: ['[data-curve^="a"]', 1],
  },
  { tool: "Offset", circles: [C1], draw: places([-10, -20], [0, -20]), curves: 2 },
  {
    tool: "Mirror",
    circles: [C1],
    lines: [
      [
        [0, 30],
        [0, -40],
      ],
    ],
    draw: async (w) => {
      await w.at([-10, -20]);
      await w.key("Enter");
      await w.at([0, 20]);
    },
    curves: 3,
  },
  {
    tool: "Pattern",
    circles: [
      [
        [-40, 10],
        [-35, 10],
      ],
    ],
    draw: async (w) => {
      await w.at([-35, 10]);
      await w.key("Enter");
      await w.at([-20, 10]);
      await w.key("Enter");
    },
    curves: 3,
  },
  {
    tool: "Move",
    again: 1,
    circles: [C1],
    draw: async (w) => {
      await w.at([-10, -20]);
      await w.key("Enter");
      await w.at([-20, -20], [20, 10]);
    },
    curves: 2,
  },
];
async function both(w: Way) {
  await w.at([-25, 15], [15, 5]);
}

/** A block 40 × 30 × 10 with a hole ⌀6 through it, and a ring of ⌀8 and ⌀4 at (60, 10) that waits. */
export function block() {
  const d = new Draft("Block", "mm", STEEL).sketch("top");
  const [bottom, right] = d.rectangle([0, 0], [40, 30]) as [string, string];
  const hole = d.circle([10, 15], 3);
  d.constrain("coincident", `${bottom}.start`, "origin")
    .dimension("length", [bottom], 40)
    .dimension("length", [right], 30)
    .dimension("diameter", [hole], 6)
    .extrude("add", { kind: "depth", depth: 10 })
    .sketch("top");
  d.circle([60, 10], 4);
  d.circle([60, 10], 2);
  return d.document;
}
export const BLOCK = (1200 - 9 * Math.PI) * 10;
export const TOP = /^extrude1\/end$/;
const RIM = /extrude1\/(end|side\/l2)\|extrude1\/(side\/l2|end)/;
const CORNER = [40, 15, 10] as const;
export const ABOVE = [25, 20, 10] as const;
const SHELLED = BLOCK - (36 * 26 * 8 - 25 * Math.PI * 8);

export interface SolidRecipe {
  readonly tool: string;
  readonly card: string;
  readonly work: (w: Way, card: Locator) => Promise<void>;
  /** mm³ then; left out: the solid stays, and there is a step more. */
  readonly volume?: number;
}
export const BUILT: readonly SolidRecipe[] = [
  {
    tool: "Add material",
    card: "Extrude",
    work: (w, card) => w.number(card.getByLabel("Depth"), "5"),
    volume: BLOCK + 12 * Math.PI * 5,
  },
  {
    tool: "Cut material",
    card: "Extrude",
    work: async (w, card) => {
      await w.press(card.getByRole("button", { name: "A face", exact: true }));
      await w.thing(TOP, ABOVE);
      await w.press(card.getByRole("button", { name: "To depth" }));
      await w.press(card.getByRole("button", { name: "Turn round" }));
      await w.number(card.getByLabel("Depth"), "4");
    },
    volume: BLOCK * 0.6,
  },
  {
    tool: "Revolve",
    card: "Revolve",
    work: (w, card) => w.choose(card.getByLabel("Turns about"), "y of the sketch"),
    volume: BLOCK + 2 * Math.PI * 60 * 12 * Math.PI,
  },
  {
    tool: "Hole",
    card: "Hole",
    work: async (w, card) => {
      await w.thing(TOP, ABOVE);
      await w.number(card.getByLabel("Diameter"), "4");
    },
    volume: BLOCK - 40 * Math.PI,
  },
  {
    tool: "Pattern",
    card: "Pattern",
    work: async (w, card) => {
      await w.number(card.getByLabel("How many"), "2");
      await w.number(card.getByLabel("Spacing"), "50");
    },
    volume: 2 * BLOCK,
  },
  { tool: "Mirror", card: "Mirror", work: (w, card) => w.choose(card.getByLabel("About"), "right"), volume: 2 * BLOCK },
  {
    tool: "Fillet",
    card: "Fillet",
    work: async (w, card) => {
      await w.thing(RIM, CORNER);
      await w.number(card.getByLabel("Radius"), "2");
    },
    volume: BLOCK - (4 - Math.PI) * 30,
  },
  {
    tool: "Chamfer",
    card: "Chamfer",
    work: async (w, card) => {
      await w.thing(RIM, CORNER);
      await w.number(card.getByLabel("Distance"), "2");
    },
    volume: BLOCK - 60,
  },
  {
    tool: "Shell",
    card: "Shell",
    work: async (w, card) => {
      await w.thing(TOP, ABOVE);
      await w.number(card.getByLabel("Wall thickness"), "2");
    },
    volume: SHELLED,
  },
  { tool: "Point", card: "Datum point", work: (w, card) => w.number(card.getByLabel("X", { exact: true }), "5") },
  { tool: "Plane", card: "Datum plane", work: (w, card) => w.number(card.getByLabel("Distance"), "25") },
  { tool: "Axis", card: "Datum axis", work: (w, card) => w.choose(card.getByLabel("Of", { exact: true }), "x axis") },
];

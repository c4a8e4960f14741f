import type { Browser, Locator, Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import { SKETCH_ROWS } from "@/ui/bench/tray/sketch-rows";
import { SOLID_ROWS } from "@/ui/bench/tray/solid-rows";
import { type Hand, openBench, openBrowser, pictureOnFailure, report } from "./harness";
import { byKeyboard, byMouse, type Mm, type Way } from "./ways";

let browser: Browser, page: Page, hand: Hand;
const done = new Map<string, Set<Way["name"]>>();
const WAYS = ["mouse", "keyboard"] as const;
const rowsOf = (kind: "sketch" | "solid") => (kind === "sketch" ? SKETCH_ROWS : SOLID_ROWS);
const labelsOf = (kind: "sketch" | "solid") => rowsOf(kind).flatMap((r) => r.tools.map((t) => t.label));
const wayOf = (name: Way["name"], kind: "sketch" | "solid"): Way =>
  name === "mouse"
    ? byMouse(hand)
    : byKeyboard(hand, new Map(rowsOf(kind).flatMap((r) => r.tools.map((t) => [t.label, t.key]))));
const note = (kind: string, label: string, way: Way["name"]) => {
  const key = `${kind}: ${label}`;
  done.set(key, (done.get(key) ?? new Set()).add(way));
};

beforeAll(async () => {
  browser = await openBrowser();
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(async () => {
  await browser.close();
  const all = (["sketch", "solid"] as const).flatMap((kind) => labelsOf(kind).map((l) => `${kind}: ${l}`));
  const sign = (tool: string, way: Way["name"]) => (done.get(tool)?.has(way) ? "yes" : "NO");
  const rows = all.map((t) => `${t} | ${sign(t, "mouse")} | ${sign(t, "keyboard")}`);
  report("tools.txt", ["tool | mouse | keyboard", ...rows]);
});

/** What is drawn with a tool, and how it is told that it was. */
interface Recipe {
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
    await hand.key("Enter");
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

const DRAWN: readonly Recipe[] = [
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
      await hand.key("Delete");
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
      await hand.key("Enter");
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
      await hand.key("Enter");
      await w.at([-20, 10]);
      await hand.key("Enter");
    },
    curves: 3,
  },
  {
    tool: "Move",
    again: 1,
    circles: [C1],
    draw: async (w) => {
      await w.at([-10, -20]);
      await hand.key("Enter");
      await w.at([-20, -20], [20, 10]);
    },
    curves: 2,
  },
];
async function both(w: Way) {
  await w.at([-25, 15], [15, 5]);
}

describe.sequential("every tool of a sketch", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Ottoline Marsh", /WS-04/);
    page = hand.page;
    await hand.sketchOn("front");
  });
  afterEach(async () => {
    await hand.key("q");
    for (let i = 0; i < 30 && (await hand.curves()); i++) await hand.key("Control+z");
  });
  describe.each(WAYS)("by %s", (name) => {
    it.each(DRAWN.map((r) => [`${r.tool}${r.again ? ` (${r.again + 1})` : ""}`, r] as const))("%s", async (_, r) => {
      const w = wayOf(name, "sketch");
      for (const line of r.lines ?? []) {
        await w.take("Line");
        await w.at(...line);
        await hand.key("q");
      }
      for (const circle of r.circles ?? []) {
        await w.take("Circle");
        await w.at(...circle);
        await hand.key("q");
      }
      const isAct = ["Construct", "Delete"].includes(r.tool);
      if (isAct) await w.at([-20, 10]);
      await w.take(r.tool, r.again);
      await r.draw(w);
      if (r.curves !== undefined) await expect.poll(hand.curves).toBe(r.curves);
      if (r.shows) {
        const [selector, count] = r.shows;
        await hand.key("q");
        await expect.poll(() => page.locator(selector).count()).toBe(count);
      }
      note("sketch", r.tool, name);
    });
    it.each(["Sizes", "Find", "Files", "Keys"])("%s opens its card", async (tool) => {
      await wayOf(name, "sketch").take(tool);
      await page.getByRole("dialog").waitFor();
      note("sketch", tool, name);
      await hand.key("Escape");
      await page.getByRole("dialog").waitFor({ state: "detached" });
    });
  });
});

/** A block 40 × 30 × 10 with a hole ⌀6 through it, and a ring of ⌀8 and ⌀4 at (60, 10) that waits. */
function block() {
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
const BLOCK = (1200 - 9 * Math.PI) * 10;
const TOP = /^extrude1\/end$/,
  RIM = /extrude1\/(end|side\/l2)\|extrude1\/(side\/l2|end)/;
const CORNER = [40, 15, 10] as const,
  ABOVE = [25, 20, 10] as const;
const SHELLED = BLOCK - (36 * 26 * 8 - 25 * Math.PI * 8);

interface SolidRecipe {
  readonly tool: string;
  readonly card: string;
  readonly work: (w: Way, card: Locator) => Promise<void>;
  /** mm³ then; left out: the solid stays, and there is a step more. */
  readonly volume?: number;
}
const BUILT: readonly SolidRecipe[] = [
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

describe.sequential("every tool of the solid", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Ottoline Marsh", /WS-04/, block());
    page = hand.page;
    await hand.built();
  });
  afterEach(async () => {
    for (let i = 0; i < 3; i++) await hand.key("Escape");
    const steps = page.locator("[data-step]");
    for (let i = 0; i < 9 && (await steps.count()) > 3; i++) await hand.key("Control+z");
    await hand.built();
  });
  describe.each(WAYS)("by %s", (name) => {
    const w = () => wayOf(name, "solid");
    it.each(BUILT.map((r) => [r.tool, r] as const))("%s", async (_, r) => {
      await w().take(r.tool);
      const card = page.getByRole("form", { name: r.card });
      await card.waitFor();
      await r.work(w(), card);
      if (r.volume !== undefined) await hand.volumeNear(r.volume);
      await w().accept(card);
      if (r.volume !== undefined) await hand.volumeNear(r.volume);
      expect(await page.locator("[data-step]").count()).toBe(4);
      note("solid", r.tool, name);
    });
    it("Sketch, on a face of the part", async () => {
      await w().take("Sketch");
      await w().thing(TOP, ABOVE);
      await page.getByTestId("sketch").waitFor();
      note("solid", "Sketch", name);
      await wayOf(name, "sketch").take("Done");
      await page.getByTestId("sketch").waitFor({ state: "detached" });
      note("sketch", "Done", name);
    });
    it.each(["Look", "Numbers", "Strays", "Files", "Keys", "Colour", "Mass"])("%s opens its card", async (tool) => {
      await w().take(tool);
      await page.getByRole("dialog").waitFor();
      note("solid", tool, name);
    });
    it("the view is changed and brought back", async () => {
      const look = () => page.locator("[data-camera]").getAttribute("data-camera");
      await w().take("Fit");
      const fitted = await look();
      await hand.key("Shift+ArrowRight");
      expect(await look()).not.toBe(fitted);
      await w().take("Fit");
      await expect.poll(look).toBe(fitted);
      note("solid", "Fit", name);
      await w().take("Section");
      await page.locator("[data-section-handle]").waitFor();
      for (let i = 0; i < 3; i++) await w().take("Section");
      await page.locator("[data-section-handle]").waitFor({ state: "detached" });
      note("solid", "Section", name);
    });
  });
});

describe.sequential("regions of a sketch", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Ottoline Marsh", /WS-04/, block());
    page = hand.page;
    await hand.built();
  });
  const at = async (x: number, y: number) => hand.click(...(await hand.space(x, y, 0)));
  const inner = () => page.getByRole("checkbox", { name: /^inside the circle ⌀4, 12.6 mm²/ });

  it("are lit under the hand, taken and left by a click, and a second height begins with what is left", async () => {
    const card = await hand.card("w", "Extrude");
    await card.getByText("1 of 2 regions taken").waitFor();
    await at(60, 10);
    await card.getByText("2 of 2 regions taken").waitFor();
    await hand.volumeNear(BLOCK + 160 * Math.PI);
    await page.keyboard.down("Shift");
    await at(60, 10);
    await page.keyboard.up("Shift");
    await hand.volumeNear(BLOCK + 120 * Math.PI);
    await hand.key("Control+z");
    await hand.volumeNear(BLOCK + 160 * Math.PI);
    await hand.key("Control+z");
    await page.keyboard.type("3");
    await hand.accept(card);
    await hand.volumeNear(BLOCK + 36 * Math.PI);
    // the circle in the middle is what no step has used
    const second = await hand.card("w", "Extrude");
    await second.getByText("1 of 2 regions taken").waitFor();
    expect(await inner().isChecked()).toBe(true);
    await page.keyboard.type("7");
    await hand.volumeNear(BLOCK + (36 + 28) * Math.PI);
    await hand.accept(second);
  });
  it("are gone to by the arrows and taken with Space", async () => {
    for (let i = 0; i < 2; i++) await hand.key("Control+z");
    await hand.volumeNear(BLOCK);
    const card = await hand.card("w", "Extrude");
    for (let i = 0; i < 90 && !(await page.evaluate(() => document.activeElement?.matches("[data-region]"))); i++)
      await page.keyboard.press("Shift+Tab");
    const now = () => page.evaluate(() => document.activeElement?.getAttribute("aria-label"));
    const first = await now();
    await hand.key("ArrowRight");
    expect(await now()).not.toBe(first);
    if (!(await now())!.includes("⌀4,")) await hand.key("ArrowRight");
    await hand.key("Space");
    await card.getByText("2 of 2 regions taken").waitFor();
    await hand.key("Enter");
    await card.waitFor({ state: "detached" });
    await hand.volumeNear(BLOCK + 160 * Math.PI);
  });
});

it("no tool is without both ways", () => {
  // of what only changes how it is looked at, what shows in no count is left to the eye
  const eye = ["Swing", "Straight", "See into", "Project", "Define the rest", "Display", "Tangents", "Depth", "Hide"];
  const more = [...eye, "Show only this", "Fit"];
  const all = (["sketch", "solid"] as const).flatMap((kind) =>
    labelsOf(kind)
      .filter((l) => !more.includes(l))
      .map((l) => `${kind}: ${l}`),
  );
  const lacking = all.flatMap((t) => WAYS.filter((way) => !done.get(t)?.has(way)).map((way) => `${t}, ${way}`));
  expect(lacking).toEqual([]);
});

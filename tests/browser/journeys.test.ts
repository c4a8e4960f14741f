import type { Browser, Locator, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, expect, it } from "vitest";
import { type Hand, openBench, openBrowser, pictureOnFailure, report, type } from "./harness";
import { byKeyboard } from "./ways";

let browser: Browser, page: Page, hand: Hand;
const counts: string[] = [];
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Idris Fenwick", /WS-06/);
  page = hand.page;
  // what a hand does: presses, and keys; a text typed into one field is one
  await page.evaluate(() => {
    const w = window as unknown as { actions: number };
    w.actions = 0;
    let typing: EventTarget | null = null;
    window.addEventListener("pointerdown", () => ((typing = null), w.actions++), true);
    window.addEventListener(
      "keydown",
      (e) => {
        if (["Shift", "Control"].includes(e.key)) return;
        const isText = e.target instanceof HTMLInputElement && (e.key.length === 1 || e.ctrlKey);
        if (isText && typing === e.target) return;
        typing = isText ? e.target : null;
        w.actions++;
      },
      true,
    );
  });
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(async () => {
  await browser.close();
  report("actions.txt", ["whole parts by hand, actions:", ...counts]);
});

const near = (v: number) => hand.volumeNear(v);
const exact = (v: number) => expect.poll(hand.volume, { timeout: 20_000 }).toBeCloseTo(v, 0);
/** A part from nothing, its actions counted. @param aim two thirds of what it took before */
function whole(name: string, aim: number, build: () => Promise<void>): void {
  it(name, async () => {
    await hand.clear();
    const actions = () => page.evaluate(() => (window as unknown as { actions: number }).actions);
    const before = await actions();
    await build();
    counts.push(`${name}: ${(await actions()) - before} (aim ${aim})`);
  });
}
const accepted = async (card: Locator) => {
  await hand.key("Enter");
  await card.waitFor({ state: "detached" });
  await hand.built();
};
/** Clicks in the sketch at pixels from the origin. */
const at = (...places: [number, number][]) => hand.places(...places);

whole("a turned part with a groove and chamfers of two sizes", 65, async () => {
  await hand.rectangle("front", "15", "60");
  const turned = await hand.card("r", "Revolve");
  await turned.getByLabel("Turns about").selectOption({ label: "y of the sketch" });
  await accepted(turned);
  await near(Math.PI * 225 * 60);
  // the groove: a rectangle about the middle of the side, sized
  await hand.sketchOn("front");
  await hand.key("e");
  const [x, y] = await hand.point("origin");
  await hand.click(x + 90, y - 120);
  await hand.click(x + 170, y - 150);
  const [bottom, left, right] = [await hand.curve("l1"), await hand.curve("l4"), await hand.curve("l2")];
  await hand.dimension([right], [right[0] + 30, right[1]], "6");
  await hand.dimension([await hand.point("origin"), await hand.curve("l4")], [left[0] - 40, left[1] + 60], "12");
  await hand.dimension([await hand.curve("l1")], [bottom[0], bottom[1] + 40], "8");
  await hand.key("1");
  const groove = await hand.card("r", "Revolve");
  await groove.getByRole("button", { name: "Cut material" }).click();
  await groove.getByLabel("Turns about").selectOption({ label: "y of the sketch" });
  await near(Math.PI * 225 * 60 - Math.PI * (225 - 144) * 6);
  await accepted(groove);
  const chamfer = await hand.card("s", "Chamfer");
  const rim = (z: number) => [15 / Math.SQRT2, -15 / Math.SQRT2, z] as const;
  await hand.touch(rim(60), /revolve1/);
  await page.keyboard.type("2");
  await chamfer.getByRole("button", { name: "Another group" }).click();
  await hand.touch(rim(0), /revolve1/);
  await type(chamfer.getByLabel("Distance").nth(1), "3");
  const off = (c: number) => Math.PI * (225 * c - (c * (225 + 15 * (15 - c) + (15 - c) ** 2)) / 3);
  await near(Math.PI * 225 * 60 - Math.PI * 81 * 6 - off(2) - off(3));
  await accepted(chamfer);
});

/** Area of what lies within a circle about the origin, right of x = a and above y = b. */
const cornerOfDisc = (r: number, a: number, b: number): number => {
  const under = (x: number) => (x * Math.sqrt(r * r - x * x) + r * r * Math.asin(x / r)) / 2;
  const end = Math.sqrt(r * r - b * b);
  return under(end) - under(a) - b * (end - a);
};
/** Of a quarter of a ring between two radii, all its sides moved in by so much. */
const quarterRing = (outer: number, inner: number, by: number) =>
  cornerOfDisc(outer - by, by, by) - cornerOfDisc(inner + by, by, by);

whole("a stool of concentric arcs and an offset outline: two heights, mirrored and hollow", 65, async () => {
  await hand.sketchOn("top");
  // two arcs about the origin, and the lines that close them
  await hand.keys("t t");
  await at([0, 0], [180, 0], [0, 180]);
  await at([0, 0], [90, 0], [0, 90]);
  await hand.key("w");
  await hand.pick("a2.start", "a1.start");
  await hand.key("Escape");
  await hand.pick("a2.end", "a1.end");
  await hand.key("Escape");
  const [x, y] = await hand.point("origin");
  await hand.dimension([await hand.on("a1", 0.5)], [x + 210, y - 200], "60");
  await hand.dimension([await hand.on("a2", 0.5)], [x + 20, y - 20], "30");
  await hand.key("b");
  await hand.pick("a1");
  await hand.click(x + 95, y - 95);
  await hand.key("q");
  expect(await page.locator("[data-dimension-id]").count()).toBe(3);
  await page.locator("[data-dimension-id]").last().dblclick();
  await type(page.getByLabel("size", { exact: true }), "5");
  await hand.key("Enter");
  await hand.key("1");
  const ring = await hand.card("w", "Extrude");
  await page.keyboard.type("20");
  await accepted(ring);
  const seat = await hand.card("w", "Extrude");
  await page.keyboard.type("8");
  const whole = quarterRing(60, 30, 0),
    floor = quarterRing(60, 30, 5);
  const solid = (whole - floor) * 20 + floor * 8;
  await near(solid);
  await accepted(seat);
  const mirror = await hand.card("u", "Mirror");
  await mirror.getByLabel("About").selectOption({ label: "right" });
  await near(2 * solid);
  await accepted(mirror);
  // from below: the underside is gone to by the keys
  const shell = await hand.card("d", "Shell");
  await byKeyboard(hand, new Map()).thing(/^extrude[12]\/start/, [0, 0, 0]);
  await type(shell.getByLabel("Wall thickness"), "2");
  // within: all sides moved in by 2, the pockets' walls moved out by 2; under the pockets 6 high, beside them 18
  const within = 2 * (cornerOfDisc(58, 0, 2) - cornerOfDisc(32, 0, 2)),
    pockets = 2 * quarterRing(60, 30, 3);
  await near(2 * solid - within * 6 - (within - pockets) * 12);
  await accepted(shell);
});

/** What two chamfers take off the edges of 40 and of 60 that meet at a corner; each by its way in and its way down. */
const cutOff = ([a, down]: readonly [number, number], [b, deep]: readonly [number, number]): number => {
  const h = Math.min(down, deep);
  // they share (a - a w / down)(b - b w / deep) at each depth w
  const shared = a * b * (h - (h * h * (1 / down + 1 / deep)) / 2 + h ** 3 / (3 * down * deep));
  return (a * down * 40) / 2 + (b * deep * 60) / 2 - shared;
};

whole("a bracket with equal holes and a chamfer the other way round", 65, async () => {
  await hand.rectangle("top", "60", "40");
  const block = await hand.card("w", "Extrude");
  await page.keyboard.type("10");
  await accepted(block);
  const hole = await hand.card("t", "Hole");
  await hand.touch([15, 20, 10], /extrude1\/end/);
  await hand.touch([45, 20, 10], /extrude1\/end/);
  await type(hole.getByLabel("Diameter"), "8");
  await near(24_000 - 2 * 160 * Math.PI);
  await accepted(hole);
  const chamfer = await hand.card("s", "Chamfer");
  await hand.touch([60, 20, 10], /extrude1\/(end|side\/l2)\|/);
  await hand.touch([30, 0, 10], /extrude1\/(end|side\/l1)\|/);
  await chamfer.getByRole("button", { name: "Two distances" }).click();
  await type(chamfer.getByLabel("Distance", { exact: true }), "2");
  await type(chamfer.getByLabel("On the other face"), "5");
  // 2 lies on the top at one edge and on the side at the other: the corner is cut off twice, by different slants
  await exact(24_000 - 320 * Math.PI - cutOff([2, 5], [2, 5]));
  await chamfer
    .getByRole("button", { name: /^Turn round/ })
    .last()
    .click();
  await exact(24_000 - 320 * Math.PI - cutOff([2, 5], [5, 2]));
  await accepted(chamfer);
});

whole("a ring of ten holes, then eight", 33, async () => {
  await hand.sketchOn("top");
  await hand.key("r");
  await at([0, 0], [120, 0]);
  const [x, y] = await hand.point("origin");
  await hand.dimension([await hand.on("c1", 0.12)], [x + 150, y - 120], "80");
  await hand.key("1");
  const disc = await hand.card("w", "Extrude");
  await page.keyboard.type("12");
  await accepted(disc);
  const hole = await hand.card("t", "Hole");
  await hand.touch([0, -28, 12], /extrude1\/end/);
  await accepted(hole);
  const pattern = await hand.card("y", "Pattern");
  await pattern.getByRole("button", { name: "Ring" }).click();
  await type(pattern.getByLabel("How many"), "10");
  await near(12 * Math.PI * (1600 - 90));
  await accepted(pattern);
  await page.locator("[data-step]").nth(3).getByRole("button").nth(1).click();
  await type(pattern.getByLabel("How many"), "8");
  await near(12 * Math.PI * (1600 - 72));
  await accepted(pattern);
});

whole("a plate with a spline edge, a slot and a counterbore stays right when it gets thicker", 37, async () => {
  await hand.sketchOn("top");
  await hand.key("w");
  const corner: [number, number] = [140, 90];
  await at([0, 0], [corner[0], 0], corner);
  await hand.key("Escape");
  await hand.key("o");
  await hand.pick("l2.end");
  await at([70, 110]);
  await at([0, 90]);
  await hand.key("Enter");
  await hand.key("w");
  await hand.pick("s1.end");
  await at([0, 0]);
  await hand.key("q");
  await hand.key("i");
  await at([40, 40], [80, 40], [80, 52]);
  await hand.key("1");
  const plate = await hand.card("w", "Extrude");
  await page.keyboard.type("6");
  await accepted(plate);
  const thin = await hand.volume();
  await page.locator("[data-step]").nth(1).getByRole("button").nth(1).click();
  await page.getByRole("form", { name: "Extrude" }).waitFor();
  await page.keyboard.type("12");
  await expect.poll(async () => (await hand.volume()) / thin, { timeout: 20_000 }).toBeCloseTo(2, 3);
  await accepted(page.getByRole("form", { name: "Extrude" }));
  const free = await hand.volume();
  const hole = await hand.card("t", "Hole");
  const [x, y] = await hand.space(0, 0, 12);
  const [right] = await hand.space(10, 0, 12);
  expect(right).not.toBe(x);
  expect(y).toBeGreaterThan(0);
  await hand.touch([5, 5, 12], /extrude1\/end/);
  await type(hole.getByLabel("Diameter"), "3");
  await hole.getByRole("button", { name: "Counterbore" }).click();
  await type(hole.getByLabel("Its diameter"), "6");
  await type(hole.getByLabel("Its depth"), "2");
  await near(free - Math.PI * (2.25 * 10 + 9 * 2));
  await accepted(hole);
});

whole("walls that run into walls, and a wedge groove", 39, async () => {
  await hand.rectangle("top", "60", "40");
  const tray = await hand.card("w", "Extrude");
  await page.keyboard.type("20");
  await accepted(tray);
  const shell = await hand.card("d", "Shell");
  await hand.touch([30, 20, 20], /extrude1\/end/);
  await accepted(shell);
  const hollow = 60 * 40 * 20 - 56 * 36 * 18;
  await near(hollow);
  await hand.sketchOn("top");
  await hand.key("w");
  await page.keyboard.down("Shift");
  const mm = (x: number, y: number) => hand.space(x, y, 0);
  for (const p of [await mm(30, 10), await mm(30, 30)]) await hand.click(...p);
  await page.keyboard.up("Shift");
  await hand.key("Escape");
  await hand.key("1");
  const wall = await hand.card("w", "Extrude");
  await wall.getByLabel("Thin wall along the outline").click();
  await type(wall.getByLabel("Thickness"), "2");
  await wall.getByRole("button", { name: "half each" }).click();
  for (const end of await wall.locator("select[aria-label^=How]").all()) await end.selectOption("first");
  await type(wall.getByLabel("Depth", { exact: true }), "20");
  await near(hollow + 36 * 2 * 18);
  await accepted(wall);
});

import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type Hand, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Perpetua Lowe", /WS-05/);
  page = hand.page;
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

const field = (name: string) => page.getByLabel(name, { exact: true });
const panel = () => page.getByRole("region", { name: "Sketch" });
/** Out of the sketch, whatever is open in it. */
const done = async () => {
  await hand.key("q");
  await hand.key("1");
  await page.getByTestId("sketch").waitFor({ state: "detached" });
};
/** Back at the solid, whatever a journey before has left open. */
const toSolid = async () => {
  for (let i = 0; i < 8 && (await page.getByTestId("sketch").count()); i++) await hand.key("Escape");
};
/** Types into the numbers beside the pointer and places. */
const typed = async (...numbers: string[]) => {
  for (const [i, n] of numbers.entries()) {
    if (i) await page.keyboard.press("Tab");
    await page.keyboard.type(n);
  }
  await hand.key("Enter");
};

describe.sequential("a hinge leaf with slots and a hole centred by relations", () => {
  it("a rectangle is typed while it is drawn", async () => {
    await toSolid();
    await hand.sketchOn("top");
    await hand.key("e");
    await hand.places([0, 0]);
    const [x, y] = await hand.point("origin");
    await page.mouse.move(x + 150, y - 80, { steps: 4 });
    await typed("80 mm", "50 mm");
    await hand.freedoms(0);
    await hand.key("Home");
    await hand.still();
  });
  it("a hole goes to the middle by a diagonal, without a number", async () => {
    await hand.key("w");
    await hand.pick("l1.start", "l2.end");
    await hand.keys("Escape q");
    await hand.pick("l5");
    await hand.keys("[ r");
    const [x, y] = await hand.on("l5", 0.85);
    await hand.click(x + 6, y + 30);
    await page.mouse.move(x + 25, y + 30, { steps: 4 });
    await typed("12 mm");
    await hand.freedoms(2);
    await hand.key("l");
    await hand.pick("c1.centre", "l5");
    await hand.freedoms(0);
  });
  it("a slot, level, is placed by sizes and repeated in a row", async () => {
    const start = await hand.point("l1.start");
    await hand.key("i");
    await hand.click(start[0] + 35, start[1] - 11);
    await hand.click(start[0] + 80, start[1] - 14);
    await hand.click(start[0] + 80, start[1] - 26);
    await hand.key("Escape");
    const before = await hand.freedomsNow();
    await hand.key("d");
    await hand.pick("l8");
    await hand.freedoms(before - 1);
    await hand.dimension([await hand.on("l8")], [start[0] + 45, start[1] + 30], "8 mm");
    await hand.dimension([await hand.on("a1")], [start[0] + 110, start[1] - 60], "2.5 mm");
    await hand.dimension([start, await hand.point("l8.start")], [start[0] + 14, start[1] + 40], "10 mm");
    await hand.dimension([start, await hand.point("l8.start")], [start[0] - 40, start[1] - 8], "8 mm");
    await hand.freedoms(0);
    // picked by a box, then repeated
    await hand.key("q");
    const [a, b] = [await hand.point("l8.start"), await hand.point("l8.end")];
    await hand.drag([a[0] - 34, a[1] + 54], [b[0] + 24, b[1] - 20]);
    await hand.key("m");
    await hand.key("Tab");
    await typed("3", "20 mm", "0");
    await expect.poll(hand.curves).toBe(21);
    await hand.freedoms(0);
    // the count can be changed later
    await type(panel().getByRole("form", { name: /^Row/ }).getByLabel("count"), "2");
    await panel().getByRole("button", { name: "Set" }).click();
    await expect.poll(hand.curves).toBe(16);
    await hand.freedoms(0);
  });
  it("corners made in one go share a value; one of them is parted", async () => {
    await hand.key("v");
    await hand.pick("l3.start", "l3.end");
    await page.keyboard.press("Tab");
    await typed("6 mm");
    await hand.freedoms(0);
    await hand.keys("Escape q");
    const radii = page.locator("[data-dimension-id]", { hasText: "R" });
    await expect.poll(() => radii.count()).toBeGreaterThanOrEqual(3);
    await hand.pick("a6");
    const value = panel().locator("[data-size] input[aria-label^='value of']").first();
    expect(await value.inputValue()).toMatch(/^=m\d+$/);
    await type(value, "9 mm");
    await hand.key("Enter");
    await hand.freedoms(0);
    await done();
  });
});

describe.sequential("a turned profile with diameters across the centre line", () => {
  it("half the profile is drawn, open along its axis, and closed at a click", async () => {
    await toSolid();
    await hand.sketchOn("front");
    await hand.key("w");
    await hand.places([0, 0], [0, 170]);
    await hand.keys("Escape q");
    await hand.pick("l1");
    await hand.keys("[ [ w");
    await hand.places([0, 0], [60, 0], [60, 70], [36, 70], [36, 150]);
    const [x, y] = await hand.point("origin");
    await hand.click(x + 1, y - 150);
    await hand.keys("Escape q");
    await panel().getByRole("button", { name: "Draw the segment" }).click();
    await expect.poll(() => page.locator("title", { hasText: "meets nothing" }).count()).toBeLessThan(2);
    expect(await hand.curves()).toBe(7);
  });
  it("sizes go across the centre line once the pointer is past it", async () => {
    const [x, y] = await hand.point("origin");
    await hand.key("a");
    await hand.click(...(await hand.on("l3", 0.6)));
    await hand.click(x, y - 160);
    await page.mouse.move(x - 50, y + 45, { steps: 4 });
    await expect.poll(() => page.locator("[data-meant]").first().getAttribute("data-meant")).toBe("across");
    await hand.click(x - 50, y + 45);
    await type(field("size"), "24 mm");
    await hand.key("Enter");
    await expect.poll(() => page.locator("[data-dimension-id]").first().textContent()).toBe("⌀0.9449");
    await hand.keys("Escape Home");
    await hand.still();
    const far = await hand.point("origin");
    await hand.dimension([await hand.on("l5", 0.3), await hand.on("l1", 0.96)], [far[0] - 40, far[1] + 60], "16 mm");
    await hand.dimension(
      [await hand.on("l3", 0.3)],
      [(await hand.point("l3.end"))[0] + 60, (await hand.on("l3"))[1]],
      "14 mm",
    );
    await hand.dimension(
      [await hand.on("l5", 0.6)],
      [(await hand.point("l3.end"))[0] + 90, (await hand.on("l5"))[1]],
      "20 mm",
    );
    // how far the centre line reaches is nobody's concern
    await hand.freedoms(0);
    await done();
  });
});

describe.sequential("a symmetric outline with tangent arcs", () => {
  it("lines and tangent arcs follow each other without leaving the tool; the image stays symmetric", async () => {
    await toSolid();
    await hand.sketchOn("front");
    await hand.key("w");
    await hand.places([0, -60], [80, -60]);
    await hand.key("w");
    await hand.places([120, -20]);
    await hand.key("w");
    await hand.places([120, 60]);
    await hand.key("Escape");
    expect(await hand.curves()).toBe(3);
    expect(await page.getByLabel(/^tangent constraint/).count()).toBe(2);
    await hand.key("q");
    const [x, y] = await hand.point("origin");
    await hand.drag([x - 10, y + 80], [x + 160, y - 80]);
    await hand.key("n");
    await hand.pick("y-axis");
    await expect.poll(hand.curves).toBe(6);
    // both go along when one is pulled
    await hand.key("Escape");
    await hand.key("q");
    const before = await hand.point("l4.end");
    const end = await hand.point("l2.end");
    await hand.drag(end, [end[0] + 10, end[1] - 20]);
    const after = await hand.point("l4.end");
    expect(Math.abs(after[0] - before[0] + 10)).toBeLessThan(4);
    expect(Math.abs(after[1] - before[1] + 20)).toBeLessThan(4);
  });
  it("undo in the middle of a drag goes back, and letting go afterwards changes nothing", async () => {
    const pulled = await hand.point("l2.end");
    await page.mouse.move(pulled[0], pulled[1]);
    await page.mouse.down();
    await page.mouse.move(pulled[0] + 15, pulled[1] + 15, { steps: 4 });
    await page.keyboard.press("Control+z");
    await page.mouse.move(pulled[0] + 40, pulled[1] + 30, { steps: 4 });
    await page.mouse.up();
    const back = await hand.point("l2.end");
    expect(Math.abs(back[0] - pulled[0] + 10)).toBeLessThan(4);
    expect(Math.abs(back[1] - pulled[1] - 20)).toBeLessThan(4);
    // what was undone is still there to be done again
    await page.keyboard.press("Control+y");
    const again = await hand.point("l2.end");
    expect(Math.hypot(again[0] - pulled[0], again[1] - pulled[1])).toBeLessThan(2);
  });
  it("Define the rest proposes what is missing; each can be left", async () => {
    await hand.key("2");
    const list = page.getByRole("list", { name: "Proposals" });
    const n = await list.getByRole("checkbox").count();
    expect(n).toBeGreaterThan(2);
    await list.getByRole("checkbox").last().uncheck();
    await page.getByRole("button", { name: /^Take/ }).click();
    await list.waitFor({ state: "detached" });
    expect(await hand.freedomsNow()).toBeGreaterThan(0);
    await hand.key("2");
    await page.getByRole("button", { name: /^Take/ }).click();
    await hand.freedoms(0);
    await done();
  });
});

describe.sequential("a conflicting sketch mended", () => {
  it("says what disagrees and goes on once one of them gives way", async () => {
    await toSolid();
    await hand.sketchOn("front");
    await hand.key("e");
    await hand.places([0, 0], [150, 90]);
    await hand.key("Escape");
    const [x, y] = await hand.point("origin");
    await hand.dimension([await hand.on("l1")], [x + 70, y + 40], "60 mm");
    await hand.keys("Home");
    await hand.still();
    const top = await hand.on("l3");
    await hand.key("a");
    await hand.click(...top);
    await hand.click(top[0], top[1] - 40);
    await type(field("size"), "70 mm");
    await hand.key("Enter");
    const list = page.getByRole("list", { name: "What disagrees" });
    await list.getByText("line at the bottom is", { exact: false }).waitFor();
    // the old size gives way and only measures from now on
    await list
      .locator("li", { hasText: "line at the bottom is" })
      .getByRole("button", { name: "Let it only measure" })
      .click();
    await list.waitFor({ state: "detached" });
    await expect.poll(() => page.getByLabel("dimension m1").textContent()).toMatch(/^\(2\.75/);
    await hand.key("Control+z");
    await expect.poll(() => page.getByLabel("dimension m1").textContent()).toMatch(/^2\.36/);
  });
  it("a constraint that cannot be is refused with its reasons and taken back by Escape", async () => {
    await hand.keys("Escape q d");
    await hand.pick("l2");
    await page.getByRole("list", { name: "What disagrees" }).waitFor();
    await hand.key("Escape");
    await page.getByRole("list", { name: "What disagrees" }).waitFor({ state: "detached" });
    await hand.key("Escape");
    await hand.freedoms(1);
  });
  it("several sizes are changed first and solved at once; one follows another by name", async () => {
    await hand.key("q");
    const l2 = await hand.on("l2");
    await hand.dimension([l2], [l2[0] + 60, l2[1]], "30 mm");
    await hand.key("3");
    await type(field("size m1"), "90 mm");
    await type(field("size m2"), "=m1/3+5 mm");
    await page.getByRole("button", { name: "Solve at once" }).click();
    await expect.poll(() => page.getByLabel("dimension m2").textContent()).toBe("1.378");
    await hand.key("Escape");
    // picked up by a click while typing
    await hand.keys("Home q");
    await hand.still();
    await page.getByLabel("dimension m2").dblclick();
    await page.getByLabel("dimension m1").click();
    expect(await field("size").inputValue()).toBe("=m1");
    await page.keyboard.type("/2");
    await hand.key("Enter");
    await expect.poll(() => page.getByLabel("dimension m2").textContent()).toBe("1.7717");
    await done();
  });
});

describe.sequential("an open profile found and closed", () => {
  it("a gap of a hair is marked, named and closed", async () => {
    await toSolid();
    await hand.sketchOn("front");
    await hand.key("w");
    await page.keyboard.down("Shift");
    await hand.places([-80, -50], [80, -50], [80, 60], [-80, 60], [-80, -47]);
    await page.keyboard.up("Shift");
    await hand.keys("Escape q");
    await expect.poll(() => page.locator("title", { hasText: "meets nothing" }).count()).toBe(2);
    await panel()
      .getByText(/end .* apart/)
      .waitFor();
    await panel().getByRole("button", { name: "Close it" }).click();
    await expect.poll(() => page.locator("title", { hasText: "meets nothing" }).count()).toBe(0);
    await done();
  });
});

describe.sequential("a sketch brought in by DXF", () => {
  it("takes the curves, counts what it could not, and gives files out", async () => {
    await toSolid();
    await hand.sketchOn("front");
    const file = join(mkdtempSync(join(tmpdir(), "caliper-")), "plate.dxf");
    const rows = [
      0,
      "SECTION",
      2,
      "HEADER",
      9,
      "$INSUNITS",
      70,
      4,
      0,
      "ENDSEC",
      0,
      "SECTION",
      2,
      "ENTITIES",
      0,
      "LWPOLYLINE",
      90,
      4,
      70,
      1,
      10,
      0,
      20,
      0,
      10,
      60,
      20,
      0,
      42,
      1,
      10,
      60,
      20,
      30,
      10,
      0,
      20,
      30,
      0,
      "CIRCLE",
      10,
      60,
      20,
      15,
      40,
      6,
      0,
      "TEXT",
      1,
      "A",
      0,
      "ENDSEC",
      0,
      "EOF",
    ];
    writeFileSync(file, rows.join("\n"));
    await hand.key("8");
    await page.getByLabel("DXF file").setInputFiles(file);
    await page.getByText("5 curves taken in mm. Not taken: 1 × TEXT.").waitFor();
    expect(await hand.curves()).toBe(5);
    const [file2] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "DXF 2000" }).click(),
    ]);
    expect(file2.suggestedFilename()).toMatch(/\.dxf$/);
    const [svg] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "SVG" }).click()]);
    expect(svg.suggestedFilename()).toMatch(/\.svg$/);
    // another plane
    await page.getByRole("button", { name: "right", exact: true }).last().click();
    await page.getByText("Sketch on right").last().waitFor();
    await hand.key("Escape");
    await done();
  });
});

import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { extrude, part, rect, sketch } from "@/core/part/testing/build";
import { gauge, type Hand, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
  const block = part(sketch("base", "top", rect(0, 0, 60, 40)), extrude("block", "base", 10));
  hand = await openBench(browser, "Perpetua Lowe", /WS-03/, { ...block, name: "Block" });
  page = hand.page;
  await hand.built();
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

describe.sequential("places on a part", () => {
  it("a hole stands by its distances from two faces, and follows when the block grows", async () => {
    const hole = await hand.card("t", "Hole");
    // the face it starts from, by a place that is taken out again
    await hand.touch([30, 20, 10], /block\/end/);
    await hole.getByRole("button", { name: "Take out place 1" }).click();
    await hole.getByRole("button", { name: "Place by distances from two edges or faces" }).click();
    await hand.touch([60, 20, 10], /block\/end\|block\/side\/l2/);
    await hand.touch([30, 0, 5], /block\/side\/l1/);
    await type(hole.getByLabel("from level edge, 40 mm, of step 2"), "8");
    await type(hole.getByLabel("from flat side of step 2"), "12");
    await type(hole.getByLabel("Diameter"), "6");
    await hand.volumeNear(24_000 - 90 * Math.PI);
    await hand.accept(hole);
    await hand.touch([52, 15, 10], /hole1\/bore|block\/end/);
    expect(await page.getByText(/‹|›/).count()).toBe(0);
  });
  it("what is picked is called as a person would, by its step's number", async () => {
    await page.keyboard.press("Escape");
    await hand.touch([0, 0, 5], /block\/side\/l1\|block\/side\/l4/);
    await page.getByText("The upright edge, 10 mm, of step 2").waitFor();
    await page.keyboard.press("Escape");
    await hand.touch([10, 30, 10], /block\/end/);
    await page.getByText("The end face of step 2").waitFor();
    await expect
      .poll(() => page.locator('[data-reading="part, square to it"]').textContent(), { timeout: 10_000 })
      .toBe("10 mm");
    await page.keyboard.press("Escape");
  });
  it("a step's card opens before the first build is there, as on a slow network", async () => {
    await kept(page);
    let open = () => {};
    const gate = new Promise<void>((r) => (open = r));
    await page.route("**/kernel/**", async (route) => {
      await gate;
      await route.continue();
    });
    await page.reload();
    await page.getByRole("button", { name: "Edit step 2" }).focus();
    await page.keyboard.press("Enter");
    const card = page.getByRole("form", { name: "Extrude" });
    await card.getByLabel("Depth").waitFor();
    await page.waitForTimeout(500);
    expect(await card.count()).toBe(1);
    await card.getByLabel("Depth").press("Escape");
    open();
    await hand.built();
    await page.unroute("**/kernel/**");
  });
  it("another unit leaves the part exactly what it was", async () => {
    const before = await gauge(page, "Mass").textContent();
    await hand.key("0");
    await page.getByRole("button", { name: "inch" }).click();
    await hand.built();
    await expect.poll(() => gauge(page, "Mass").textContent(), { timeout: 15_000 }).toBe(before);
    await page.getByRole("button", { name: "mm", exact: true }).click();
    await hand.built();
    await expect.poll(() => gauge(page, "Mass").textContent(), { timeout: 15_000 }).toBe(before);
    await page.keyboard.press("Escape");
    await kept(page);
  });
  it("a sketch is begun by a click on a datum plane in the view", async () => {
    await hand.clear();
    await hand.key("q");
    const plane = page.getByTestId("planes").locator('[data-datum="front"] path');
    await plane.waitFor();
    // towards the corner where its name stands, clear of the others
    const name = (await page.getByTestId("planes").getByText("front").boundingBox())!;
    await page.mouse.move(name.x + 2, name.y + name.height / 2);
    await page.mouse.move(name.x + 5, name.y + name.height / 2);
    await expect.poll(() => page.locator('[data-datum="front"]').getAttribute("data-lit")).toBe("true");
    await hand.click(name.x + 5, name.y + name.height / 2);
    await page.getByTestId("sketch").waitFor();
    await page.getByText("Sketch on front").waitFor();
    await hand.still();
  });
  it("the number shows before it is placed, with the sign of a diameter", async () => {
    await hand.keys("r");
    const [x, y] = await hand.point("origin");
    await hand.places([0, 0], [80, 0]);
    await hand.key("a");
    await hand.click(x + 57, y - 57);
    await page.mouse.move(x + 110, y - 90);
    await hand.settled();
    expect(await page.locator("[data-number-meant]").textContent()).toMatch(/^⌀\d/);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Escape");
    await hand.key("1");
    await hand.clear();
    await kept(page);
  });
});

describe.sequential("little room", () => {
  it.each([
    [1024, 700],
    [640, 400],
  ])("at %d × %d every tool can be reached, and nothing is cut off at the sides", async (width, height) => {
    await page.setViewportSize({ width, height });
    await hand.settled();
    const tray = page.getByRole("toolbar");
    for (const b of await tray.getByRole("button").all()) {
      const box = (await b.boundingBox())!;
      expect(box.x).toBeGreaterThanOrEqual(0);
      expect(box.x + box.width).toBeLessThanOrEqual(width);
      expect(box.y).toBeGreaterThanOrEqual(0);
      expect(box.y + box.height).toBeLessThanOrEqual(height);
    }
    await page.getByRole("button", { name: "Fold the tools away" }).click();
    await page.getByText("Tools folded away").waitFor();
    await page.getByRole("button", { name: "Unfold the tools" }).click();
    for (const pane of ["Sheet", "Steps"]) {
      const button = page.locator("header").getByRole("button", { name: pane, exact: true });
      await button.click();
      await button.click();
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  });
});

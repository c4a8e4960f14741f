import type { Browser, Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type Hand, openBench, openBrowser, pictureOnFailure, type } from "./harness";
import { sketchHand } from "./sketch-hand";

type Own = ReturnType<typeof sketchHand>;
let browser: Browser, page: Page, hand: Hand, own: Own;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Idris Fenwick", /WS-05/);
  page = hand.page;
  own = sketchHand(hand, page);
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());
const fresh = () => own.fresh();
const cleared = () => own.cleared();
const line: Own["line"] = (...a) => own.line(...a);
const circle: Own["circle"] = (...a) => own.circle(...a);
const marks: Own["marks"] = (...a) => own.marks(...a);

describe.sequential("every edit", () => {
  beforeAll(fresh);
  afterEach(cleared);
  it("trim shows what goes, extend goes on, split parts", async () => {
    await line([-150, 60], [60, 60]);
    await line([-60, 110], [-60, 20]);
    await hand.key("z");
    const [x, y] = await hand.point("origin");
    await page.mouse.move(x + 20, y - 60, { steps: 4 });
    await expect.poll(() => page.locator("[data-gone]").count()).toBe(1);
    await hand.places([20, 60]);
    const [end] = await hand.point("l1.end");
    expect(Math.abs(end - (x - 60))).toBeLessThan(3);
    await line([-20, -20], [-20, 110]);
    await hand.key("z");
    await hand.places([-60, 30]);
    await hand.key("x");
    await hand.places([-75, 60]);
    await expect.poll(async () => Math.abs((await hand.point("l1.end"))[0] - (x - 20)) < 3).toBe(true);
    await hand.key("c");
    await hand.places([-110, 60]);
    await expect.poll(hand.curves).toBe(4);
    expect(await marks("collinear")).toBe(1);
  });

  it("a corner is cut off", async () => {
    await hand.key("e");
    await hand.places([-150, 20], [-30, 100]);
    await hand.keys("Escape v v");
    await hand.pick("l2.end");
    await page.keyboard.press("Tab");
    await page.keyboard.type("8 mm");
    await hand.key("Enter");
    // the chamfer and the corner that stays as a point
    await expect.poll(hand.curves).toBe(6);
    await hand.key("Escape");
  });

  it("an outline is offset by a typed distance", async () => {
    await hand.key("e");
    await hand.places([-150, 20], [-30, 100]);
    await hand.keys("Escape b");
    await hand.pick("l1");
    await hand.places([-90, 50]);
    await expect.poll(hand.curves).toBe(8);
    // one size moves all four, and is lettered once
    await hand.key("q");
    await expect.poll(() => page.locator("[data-dimension-id]").count()).toBe(1);
  });

  it("a ring of holes about the origin, then with another count", async () => {
    await circle([80, 0], 12);
    await hand.pick("c1");
    await hand.keys("m m");
    await hand.pick("origin");
    await page.keyboard.press("Tab");
    await page.keyboard.type("5");
    await hand.key("Enter");
    await expect.poll(hand.curves).toBe(5);
    const form = page.getByRole("form", { name: /^Ring/ });
    await type(form.getByLabel("count"), "8");
    await form.getByRole("button", { name: "Set" }).click();
    await expect.poll(hand.curves).toBe(8);
  });

  it("curves are moved, copied, turned and scaled", async () => {
    await line([-100, 40], [-40, 40]);
    const width = async () => (await hand.point("l1.end"))[0] - (await hand.point("l1.start"))[0];
    const before = await hand.point("l1.start"),
      wide = await width();
    await hand.pick("l1");
    await hand.key(",");
    await hand.pick("l1.start");
    await hand.places([-100, 90]);
    await expect.poll(async () => Math.round(before[1] - (await hand.point("l1.start"))[1])).toBe(50);
    await hand.keys("q");
    await hand.pick("l1");
    await hand.keys(", ,");
    await hand.places([-100, 90], [-100, 20]);
    await expect.poll(hand.curves).toBe(2);
    await hand.keys("q");
    await hand.pick("l1");
    await hand.keys(", , ,");
    await hand.pick("l1.start");
    await page.keyboard.press("Tab");
    await page.keyboard.type("90");
    await hand.key("Enter");
    await expect.poll(async () => Math.abs(Math.round(await width()))).toBe(0);
    await hand.keys("q");
    await hand.pick("l2");
    await hand.keys(", , , ,");
    await hand.pick("l2.start");
    await page.keyboard.press("Tab");
    await page.keyboard.type("2");
    await hand.key("Enter");
    await expect
      .poll(async () => Math.round((await hand.point("l2.end"))[0] - (await hand.point("l2.start"))[0]))
      .toBe(Math.round(2 * wide));
  });

  it("curves go by copy, cut and paste into another sketch", async () => {
    await circle([-60, 40], 20);
    await hand.pick("c1");
    await hand.key("Control+c");
    await hand.key("Control+v");
    await expect.poll(hand.curves).toBe(2);
    await hand.key("Control+x");
    await expect.poll(hand.curves).toBe(1);
    await hand.keys("q 1");
    await hand.sketchOn("front");
    await hand.key("Control+v");
    await expect.poll(hand.curves).toBe(1);
  });

  it("a curve is made construction, a centre line and real again", async () => {
    await line([-100, 40], [-40, 60]);
    await hand.pick("l1");
    const now = () => page.getByRole("group", { name: "Kind of curve" }).locator("[aria-pressed=true]").textContent();
    for (const kind of ["construction", "centre line", "real"]) {
      await hand.key("[");
      await expect.poll(now).toBe(kind);
    }
  });
});

describe.sequential("every dimension", () => {
  beforeAll(fresh);
  afterEach(cleared);
  const meant = () => page.locator("[data-meant]").first().getAttribute("data-meant");
  it("a circle: diameter, and radius by the key once more; the next follows", async () => {
    await circle([-100, 60], 25);
    await circle([0, 60], 18);
    await hand.key("a");
    await hand.pick("c1");
    const [x, y] = await hand.point("origin");
    await page.mouse.move(x - 60, y - 110, { steps: 3 });
    expect(await meant()).toBe("diameter");
    await hand.key("a");
    await expect.poll(meant).toBe("radius");
    await hand.places([-50, 115]);
    await hand.key("Enter");
    await hand.pick("c2");
    await page.mouse.move(x + 40, y - 110, { steps: 3 });
    await expect.poll(meant).toBe("radius");
    await hand.places([45, 115]);
    await hand.key("Enter");
    // turned into a diameter afterwards
    await hand.key("q");
    await page.getByLabel("dimension m1").click();
    await page.getByRole("button", { name: "⌀", exact: true }).click();
    await expect.poll(() => page.getByLabel("dimension m1").textContent()).toMatch(/^⌀/);
  });
  it("an arc: its length", async () => {
    await hand.keys("t t");
    await hand.places([-70, 60], [-30, 60], [-70, 110]);
    await hand.keys("Escape a");
    await hand.pick("a1");
    await hand.key("a");
    await expect.poll(meant).toBe("arc-length");
    await hand.places([30, 130]);
    await hand.key("Enter");
    await expect.poll(() => page.getByLabel("dimension m1").textContent()).toMatch(/^⌒/);
  });
  it("from a line to the near and the far side of a circle", async () => {
    await line([-150, 20], [-150, 110]);
    await circle([-60, 60], 25);
    await hand.key("a");
    await hand.pick("l1", "c1");
    const [x, y] = await hand.point("origin");
    await page.mouse.move(x - 110, y + 30, { steps: 3 });
    expect(await meant()).toBe("point-line");
    await hand.key("a");
    await expect.poll(meant).toBe("to-side");
    await hand.places([-110, -30]);
    const near = Number(await page.getByLabel("size", { exact: true }).inputValue());
    await hand.key("Enter");
    await hand.key("q");
    await page.getByLabel("dimension m1").click();
    await page.getByRole("button", { name: "(…)" }).click();
    await page.getByRole("button", { name: "far side" }).click();
    await expect
      .poll(async () => Number((await page.getByLabel("dimension m1").textContent())!.replace(/[()]/g, "")) > near)
      .toBe(true);
  });
  it("the wall between two circles about one centre", async () => {
    await circle([-100, 60], 40);
    await hand.key("r");
    await hand.pick("c1.centre");
    await hand.places([-80, 60]);
    await hand.keys("Escape a");
    await hand.pick("c1", "c2");
    await expect.poll(meant).toBe("ring");
    await hand.places([-40, 110]);
    await hand.key("Enter");
    await expect.poll(() => page.getByLabel("dimension m1").count()).toBe(1);
  });
  it("an angle in the sector where its number stands", async () => {
    await line([20, 20], [90, 20]);
    await line([20, 30], [80, 90]);
    await hand.key("a");
    await hand.pick("l1", "l2");
    const [x, y] = await hand.point("origin");
    await page.mouse.move(x + 90, y - 45, { steps: 3 });
    await expect.poll(meant).toBe("angle");
    await hand.places([90, 45]);
    expect(Math.round(Number(await page.getByLabel("size", { exact: true }).inputValue()))).toBe(45);
    await hand.key("Escape");
    await hand.pick("l1", "l2");
    await hand.places([20, 90]);
    expect(Math.round(Number(await page.getByLabel("size", { exact: true }).inputValue()))).toBe(135);
    await hand.key("Escape");
  });
});

import type { Browser, Locator, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { BASE, Hand, openBench, openBrowser, pictureOnFailure, type, visit } from "./harness";

let browser: Browser, hand: Hand, page: Page;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Linnea Holt", /WS-03/);
  page = hand.page;
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

const sheet = () => page.getByLabel("The Sheet", { exact: true });
const shown = async (of: Page = page): Promise<number[]> =>
  (await of.locator(".live-sheet svg").getAttribute("viewBox"))!.split(/[ ,]+/).map(Number);
const size = (text: string, of: Page = page): Locator =>
  of
    .locator(".live-sheet [data-dimension]")
    .filter({ has: of.locator(`text:text-is("${text}")`) })
    .first();

describe.sequential("the Sheet beside the model", () => {
  it("opens on what is drawn, offers its views where lettering is small, and the whole paper by a key", async () => {
    await sheet().waitFor();
    const whole = await page.locator(".live-sheet svg").evaluate((svg) => parseFloat(svg.getAttribute("width")!));
    const [, , width] = await shown();
    expect(width!).toBeLessThan(0.95 * whole);
    // at 7 pixels it is hardly to be read: one view fills the pane, the arrows go on
    await page.getByRole("button", { name: "Front view" }).click();
    const [, , one] = await shown();
    expect(one!).toBeLessThan(0.8 * width!);
    await page.getByRole("button", { name: "The next view" }).click();
    await page.getByRole("button", { name: /, 2 of \d/ }).waitFor();
    await page.getByRole("button", { name: /, 2 of \d/ }).click();
    expect((await shown())[2]).toBeCloseTo(width!, 3);
    await sheet().focus();
    await page.keyboard.press("0");
    expect((await shown())[2]).toBeCloseTo(whole, 3);
  });

  it("keeps its lines between 0.7 and 2 pixels, however close one looks", async () => {
    const widths = () =>
      page.locator(".live-sheet svg").evaluate((svg) => {
        const k = (svg as SVGSVGElement).getScreenCTM()!.a;
        return [...svg.querySelectorAll("[class^=pen-]")].map((e) => parseFloat(getComputedStyle(e).strokeWidth) * k);
      });
    await sheet().focus();
    for (const keys of [["0"], ["+", "+", "+", "+"], ["+", "+", "+", "+", "+", "+", "+", "+"]]) {
      for (const k of keys) await page.keyboard.press(k);
      const all = await widths();
      expect(Math.min(...all)).toBeGreaterThan(0.69);
      expect(Math.max(...all)).toBeLessThan(2.01);
    }
    await page.keyboard.press("0");
  });

  it("stands along the top when it is put there, and stays so", async () => {
    await page.getByRole("button", { name: "The Sheet at the top" }).click();
    const wide = async () => (await sheet().boundingBox())!.width;
    await expect.poll(wide).toBeGreaterThan(1200);
    await page.reload();
    await page.getByRole("toolbar").waitFor();
    await expect.poll(wide).toBeGreaterThan(1200);
    await page.getByRole("button", { name: "The Sheet at the left" }).click();
    await expect.poll(wide).toBeLessThan(600);
  });

  it("a printed number is typed by a click, taken off by Alt and a click, and ticked off", async () => {
    await page
      .getByRole("button", { name: /^Sketch/ })
      .first()
      .waitFor();
    await hand.sketchOn("front");
    await hand.key("e");
    await hand.places([0, 0], [150, 90]);
    await hand.key("Escape");
    const [x, y] = await hand.point("origin");
    await hand.key("a");
    await hand.click(...(await hand.on("l1")));
    await hand.click(x + 70, y + 40);
    const field = page.getByLabel("size", { exact: true });
    await size("70").click();
    expect(await field.inputValue()).toBe("70");
    await size("8").click({ modifiers: ["Alt"] });
    expect(await field.inputValue()).toBe("=70-8");
    await field.press("Enter");
    await expect.poll(() => size("70").evaluate((g) => g.classList.contains("used"))).toBe(true);
    await expect.poll(() => size("8").evaluate((g) => g.classList.contains("used"))).toBe(true);
  });

  it("what is drawn by typed numbers stays in sight", async () => {
    await hand.key("w");
    const [x, y] = await hand.point("origin");
    await hand.click(x, y);
    await page.mouse.move(x + 40, y - 40);
    await page.keyboard.type("900");
    await page.keyboard.press("Enter");
    await hand.key("Escape");
    const model = (await page.getByLabel("Model", { exact: true }).boundingBox())!;
    await expect
      .poll(async () => {
        const curves = await page.locator("[data-curve] path").all();
        const boxes = await Promise.all(curves.map((c) => c.boundingBox()));
        return boxes.every((b) => !b || (b.x >= model.x && b.x + b.width <= model.x + model.width));
      })
      .toBe(true);
  });
});

describe.sequential("the Sheet in a window of its own", () => {
  it("is in step with the Bench, and outlives it", async () => {
    await page.keyboard.press("Escape");
    const opened = page.context().waitForEvent("page");
    await page.getByRole("button", { name: "The Sheet in a window of its own" }).click();
    const other = await opened;
    await other.locator(".live-sheet svg").waitFor();
    const isUsed = (text: string, of: Page) => size(text, of).evaluate((g) => g.classList.contains("used"));
    // ticked off here it is ticked off there, and the other way
    const before = await isUsed("45", page);
    await size("45").locator("text").click();
    await expect.poll(() => isUsed("45", other)).toBe(!before);
    await size("45", other).locator("text").click();
    await expect.poll(() => isUsed("45", page)).toBe(before);
    await size("58", other).locator("text").hover();
    await expect.poll(() => size("58").evaluate((g) => g.classList.contains("chosen"))).toBe(true);
    await page.goto(`${BASE}/courses`);
    expect(await other.locator(".live-sheet svg").count()).toBe(1);
    await other.close();
  });
});

describe.sequential("pictures where people look", () => {
  it("stand in every list, the own part in one's own", async () => {
    const teacher = await visit(browser, "Hedda Lark");
    const drawn = (p: Page) =>
      p.locator('img[src^="/api/pictures/"]').evaluateAll((list) => {
        for (const i of list) (i as HTMLImageElement).loading = "eager";
        return list.filter((i) => (i as HTMLImageElement).naturalWidth > 0).length;
      });
    await expect.poll(() => drawn(teacher)).toBeGreaterThanOrEqual(9);
    await teacher.getByRole("button", { name: "Show as cards" }).first().click();
    await teacher.getByRole("list", { name: "Handouts" }).getByRole("link", { name: /WS-10/ }).waitFor();
    await teacher.reload();
    await teacher.getByRole("list", { name: "Handouts" }).waitFor();
    await teacher.getByRole("button", { name: "Show as rows" }).first().click();
    await teacher.getByRole("link", { name: "All exercises" }).click();
    await teacher.waitForURL("**/library");
    await expect.poll(() => drawn(teacher)).toBeGreaterThanOrEqual(9);
    await teacher.goto(`${BASE}/courses`);
    await teacher.getByRole("row", { name: /WS-10/ }).getByRole("link", { name: "Counterweight" }).click();
    await teacher.waitForURL("**/handouts/*");
    await teacher.getByRole("img", { name: "The part of Casimir Dunn" }).waitFor();
    await teacher.getByRole("link", { name: "Class view" }).click();
    const wall = teacher.getByRole("list", { name: "Parts" });
    await wall.waitFor();
    // what is wrong stands first, and is hatched on the part
    const first = await wall.getByRole("img").first().getAttribute("src");
    expect(await (await teacher.request.get(`${BASE}${first}`)).text()).toMatch(/clip-path="url\(#[me]\)"/);
    await wall.getByRole("link", { name: "Casimir Dunn" }).click();
    await teacher.waitForURL("**/submissions/*");
    await teacher.goto(`${BASE}/courses`);
    await teacher.getByRole("link", { name: "Gradebook" }).first().click();
    await teacher.locator("[data-picture]").first().hover();
    await teacher.locator('div.fixed img[src^="/api/pictures/"]').waitFor();
    await type(teacher.getByLabel("Find a student or group"), "Casimir");
    const student = await visit(browser, "Casimir Dunn");
    const own = student.getByRole("row", { name: /WS-10/ }).getByRole("img", { name: "Your own part" });
    // one's own part tells nothing of what is missing
    const svg = await (await student.request.get(`${BASE}${await own.getAttribute("src")}`)).text();
    expect(svg).toMatch(/^<svg/);
    expect(svg).not.toMatch(/clip-path/);
    await student.context().close();
    await teacher.context().close();
  });
});

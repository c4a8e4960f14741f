import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { gauge, type Hand, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Sunniva Rook", /WS-05/);
  page = hand.page;
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

const alert = () => page.locator("[aria-live=polite] [role=alert]");
const note = () => page.locator("[aria-live=polite]");
const curves = () => page.locator("[data-curve]").count();

describe.sequential("the tools of the Bench, in inches", () => {
  it("a sketch is begun from the keyboard; lines find level and upright", async () => {
    await hand.key("q");
    await hand.key("Tab");
    await page.getByRole("button", { name: /^front/ }).press("Enter");
    await page.getByTestId("sketch").waitFor();
    const [x, y] = await hand.point("origin");
    await hand.click(x, y);
    await page.mouse.move(x + 150, y + 4, { steps: 4 });
    expect(await page.getByTestId("found").textContent()).toContain("horizontal");
    await hand.click(x + 150, y + 3);
    await page.mouse.move(x + 152, y - 90, { steps: 4 });
    expect(await page.getByTestId("found").textContent()).toContain("vertical");
    await hand.click(x + 152, y - 90);
    // a slant, and back to the start: the chain closes itself
    await hand.click(x + 60, y - 140);
    await hand.click(x, y);
    expect(await curves()).toBe(4);
    await hand.freedoms(4);
  });

  it("a held key leaves found constraints out", async () => {
    const [x, y] = await hand.point("origin");
    await page.keyboard.down("Shift");
    await hand.click(x - 60, y - 60);
    await hand.click(x - 120, y - 61);
    await page.keyboard.up("Shift");
    await hand.key("Escape");
    await hand.key("Escape");
    await hand.freedoms(8);
  });

  it("an open end is marked, picked by a box and deleted", async () => {
    const [x, y] = await hand.point("origin");
    expect(await page.locator("circle title", { hasText: "meets nothing" }).count()).toBe(2);
    await hand.drag([x - 140, y - 90], [x - 40, y - 30]);
    await hand.key("Delete");
    expect(await curves()).toBe(4);
    await hand.freedoms(4);
    await hand.key("Control+z");
    expect(await curves()).toBe(5);
    await hand.key("Control+y");
    expect(await curves()).toBe(4);
  });

  it("what is loose is dragged; what is pinned says so", async () => {
    const before = await hand.point("l3.end");
    await hand.drag(before, [before[0] + 12, before[1] - 30]);
    const after = await hand.point("l3.end");
    expect(Math.abs(after[1] - before[1] + 30)).toBeLessThan(3);
    const origin = await hand.point("l1.start");
    await hand.drag(origin, [origin[0] + 40, origin[1] + 20]);
    expect(await note().textContent()).toMatch(/pinned/);
    const still = await hand.point("l1.start");
    expect(Math.hypot(still[0] - origin[0], still[1] - origin[1])).toBeLessThan(1);
  });

  it("sizes are typed as fractions and sums; a bad one is told and what was typed stays", async () => {
    const l1 = await hand.curve("l1");
    await hand.key("a");
    await hand.click(...l1);
    await hand.click(l1[0], l1[1] + 35);
    const size = page.getByLabel("size", { exact: true });
    await type(size, "two");
    await hand.key("Enter");
    await alert().waitFor();
    expect(await alert().first().textContent()).toMatch(/no number/);
    expect(await size.inputValue()).toBe("two");
    await type(size, "2 5/8 in");
    await hand.key("Enter");
    await size.waitFor({ state: "detached" });
    expect(await page.getByLabel("dimension m1").textContent()).toBe("2.625");
    await hand.freedoms(3);
    await hand.key("Home");
    const l2 = await hand.curve("l2");
    await hand.dimension([l2], [l2[0] + 45, l2[1]], "=(3-1)/2");
    await hand.freedoms(2);
  });

  it("a slanting line is dimensioned level, upright or along it, by where the pointer goes", async () => {
    const [a, b] = [await hand.point("l3.start"), await hand.point("l3.end")];
    const middle: [number, number] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    await hand.key("a");
    await hand.click(...middle);
    await hand.click(middle[0], Math.min(a[1], b[1]) - 40);
    await type(page.getByLabel("size", { exact: true }), "1.5");
    await hand.key("Enter");
    await page.getByLabel("size", { exact: true }).waitFor({ state: "detached" });
    await hand.freedoms(1);
    await hand.key("Home");
    await hand.dimension(
      [await hand.point("l1.start"), await hand.point("l3.end")],
      [(await hand.point("l1.start"))[0] - 45, (await hand.point("l3.end"))[1] + 40],
      "1.25",
    );
    await hand.freedoms(0);
    expect(await page.locator('[data-loose="true"]').count()).toBe(0);
  });

  it("one size too many only measures; a contradiction is refused and names what disagrees", async () => {
    await hand.key("Home");
    const l4 = [await hand.point("l4.start"), await hand.point("l4.end")] as const;
    const middle: [number, number] = [(l4[0][0] + l4[1][0]) / 2, (l4[0][1] + l4[1][1]) / 2];
    await hand.key("a");
    await hand.click(...middle);
    await hand.click(middle[0] - 70, middle[1] + 20);
    await type(page.getByLabel("size", { exact: true }), "9");
    await hand.key("Enter");
    await alert().waitFor();
    expect(await alert().first().textContent()).toMatch(/This cannot be: .*disagree/);
    expect(await page.locator("[data-conflict]").count()).toBeGreaterThan(0);
    await hand.key("Escape");
    await hand.click(...middle);
    await hand.click(middle[0] - 70, middle[1] + 20);
    await hand.key("Enter");
    await expect.poll(() => note().textContent()).toMatch(/reference dimension/);
    expect(await page.locator("[data-dimension-id]").last().textContent()).toMatch(/^\(.*\)$/);
    await hand.key("q");
  });

  it("constraints are applied to what is picked, and removed by their mark", async () => {
    const before = await page.getByLabel(/constraint/).count();
    await hand.click(...(await hand.curve("l1")));
    await page.keyboard.down("Shift");
    await hand.click(...(await hand.curve("l2")));
    await page.keyboard.up("Shift");
    await hand.key("h");
    await expect.poll(() => page.getByLabel(/perpendicular constraint/).count()).toBe(1);
    expect(await note().textContent()).toMatch(/so already/);
    await page.getByLabel(/perpendicular constraint/).click();
    await hand.key("Delete");
    expect(await page.getByLabel(/constraint/).count()).toBe(before);
    await hand.freedoms(0);
  });

  it("an existing size is changed in place, and the part follows", async () => {
    await hand.key("1");
    await hand.key("w");
    await type(page.getByLabel("Depth"), "1/2 in");
    await page.getByLabel("Depth").press("Enter");
    await expect.poll(() => gauge(page, "Volume").textContent()).toMatch(/in³/);
    const volume = await gauge(page, "Volume").textContent();
    await page.getByRole("button", { name: "Edit step 1" }).focus();
    await page.keyboard.press("Enter");
    await page.getByTestId("sketch").waitFor();
    await page.waitForTimeout(300);
    await page.getByLabel("dimension m2").dblclick();
    await type(page.getByLabel("size", { exact: true }), "1.1");
    await hand.key("Enter");
    await hand.key("1");
    await expect.poll(() => gauge(page, "Volume").textContent()).not.toBe(volume);
  });

  it("a cut that meets nothing is told on its card and cannot be accepted; Escape leaves without harm", async () => {
    const volume = await gauge(page, "Volume").textContent();
    await hand.key("q");
    await type(page.getByLabel("moved towards you by"), "5");
    await page.getByRole("button", { name: /^front/ }).click();
    await hand.key("r");
    const [x, y] = await hand.point("origin");
    await hand.click(x + 30, y - 30);
    await hand.click(x + 60, y - 30);
    await hand.key("1");
    await hand.key("e");
    await page.getByRole("button", { name: "To depth", exact: true }).click();
    const card = page.getByRole("form", { name: "Extrude" });
    await expect.poll(() => card.getByRole("alert").textContent()).toMatch(/meets no material/);
    expect(await card.getByRole("button", { name: "Accept" }).isDisabled()).toBe(true);
    await card.getByLabel("Depth").press("Escape");
    await card.waitFor({ state: "detached" });
    expect(await gauge(page, "Volume").textContent()).toBe(volume);
    expect(await page.locator("[data-step]").count()).toBe(3);
  });

  it("a sketch is begun on a face by a click; its outline and the section follow the part", async () => {
    await hand.key("q");
    await page.getByText("click a flat face of the part", { exact: false }).last().waitFor();
    await page.waitForTimeout(800);
    // about the middle of the part, wherever the planes to choose from leave it
    await hand.click(...(await hand.space(30, -6, 12)));
    await page.getByTestId("sketch").waitFor();
    await page.getByText(/^Sketch on a face/).waitFor();
    await page.waitForTimeout(800);
    await hand.keys("0 0");
    const frame = (await page.getByTestId("sketch").boundingBox())!;
    for (const share of [0.5, 0.35, 0.65]) {
      await hand.click(frame.x + frame.width * share, frame.y + (frame.height - 160) * 0.5);
      if (await curves()) break;
    }
    expect(await curves()).toBeGreaterThan(2);
    await hand.freedoms(0);
    await hand.key("Control+z");
    expect(await curves()).toBe(0);
    await hand.keys("q 1");
    await page
      .getByRole("button", { name: /^Delete step/ })
      .last()
      .click({ force: true });
    await page.getByTestId("sketch").waitFor({ state: "detached" });
  });

  it("the view turns by box, keys and wheel, and everything is kept over a reload", async () => {
    await page.getByRole("button", { name: "View from right" }).click();
    await hand.key("ArrowLeft");
    await hand.key("Home");
    await page.mouse.move(640, 300);
    await page.mouse.wheel(0, 240);
    await kept(page);
    const volume = await gauge(page, "Volume").textContent();
    await page.reload();
    await expect.poll(() => gauge(page, "Volume").textContent(), { timeout: 15_000 }).toBe(volume);
    await expect.poll(() => gauge(page, "Printed sizes used").textContent()).toMatch(/of 1\d/);
  });
});

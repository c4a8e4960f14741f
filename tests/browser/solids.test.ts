import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { gauge, type Hand, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Casimir Dunn", /WS-02/);
  page = hand.page;
  await hand.built();
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

const volume = () => hand.volume(),
  near = (want: number) => hand.volumeNear(want),
  clear = () => hand.clear(),
  rectangle = (...of: Parameters<Hand["rectangle"]>) => hand.rectangle(...of);

describe.sequential("a turned shaft with a groove and chamfers", () => {
  it("half its profile is turned about the upright axis", async () => {
    await clear();
    await rectangle("front", "15", "60");
    const card = await hand.card("r", "Revolve");
    await card.getByLabel("Turns about").selectOption({ label: "y of the sketch" });
    await hand.accept(card);
    await near(Math.PI * 225 * 60);
  });
  it("a groove is cut by turning another profile", async () => {
    await hand.sketchOn("front");
    await hand.key("e");
    const [x, y] = await hand.point("origin");
    await hand.click(x + 90, y - 120);
    await hand.click(x + 170, y - 150);
    await hand.key("1");
    const before = await volume();
    const card = await hand.card("r", "Revolve");
    await card.getByRole("button", { name: "Cut material" }).click();
    await card.getByLabel("Turns about").selectOption({ label: "y of the sketch" });
    await expect.poll(volume, { timeout: 15_000 }).toBeLessThan(before - 100);
    await hand.accept(card);
  });
  it("both rims are chamfered in one step", async () => {
    const before = await volume(),
      card = await hand.card("s", "Chamfer");
    await type(card.getByLabel("Distance"), "2");
    const out = 15 / Math.SQRT2;
    await hand.touch([out, -out, 60], /revolve1\/side\/l3/);
    const cut = Math.PI * 225 * 2 - (Math.PI * 2 * (225 + 15 * 13 + 169)) / 3;
    await near(before - cut);
    await hand.touch([out, -out, 0], /revolve1\/side\/l1/);
    await near(before - 2 * cut);
    await hand.accept(card);
    await kept(page);
  });
});

describe.sequential("a housing: half of it rounded, hollowed and mirrored", () => {
  it("a block with its upright edges rounded, then a shell", async () => {
    await clear();
    await rectangle("top", "40", "50");
    const block = await hand.card("w", "Extrude");
    await type(block.getByLabel("Depth"), "30");
    await hand.accept(block);
    const round = await hand.card("a", "Fillet");
    await type(round.getByLabel("Radius"), "8");
    await hand.touch([0, 0, 15], /side\/l1\|extrude1\/side\/l4/);
    await near(60000 - (1 - Math.PI / 4) * 64 * 30);
    await hand.accept(round);
    const hollow = await hand.card("d", "Shell");
    await hand.touch([20, 25, 30], /^extrude1\/end$/);
    await hollow.getByText("1 picked").or(hollow.getByText("click faces")).first().waitFor();
    await hand.touch([40, 25, 15], /^extrude1\/side\/l2$/);
    await hand.accept(hollow);
    await expect.poll(volume, { timeout: 15_000 }).toBeLessThan(16_000);
  });
  it("is mirrored about its open side", async () => {
    const before = await volume(),
      card = await hand.card("u", "Mirror");
    await card.getByRole("button", { name: "Pick", exact: true }).click();
    await hand.touch([40, 1, 15], /^extrude1\/side\/l2/);
    await near(2 * before);
    await hand.accept(card);
    expect(await gauge(page, "Body").textContent()).toBe("1, closed");
  });
  it("what stands on a step is named when that is to be deleted", async () => {
    await page.locator("[data-step]").nth(1).hover();
    await page.getByRole("button", { name: "Delete step 2" }).click();
    expect(await hand.note()).toMatch(/stand.* on this step/);
  });
});

describe.sequential("a flange with a ring of counterbored holes", () => {
  it("a disc, and a hole placed by a click on its face", async () => {
    await clear();
    await hand.sketchOn("top");
    await hand.key("r");
    await hand.places([0, 0], [120, 0]);
    const [x, y] = await hand.point("origin");
    await hand.dimension([[x + 85, y - 85]], [x + 150, y - 120], "80");
    await hand.freedoms(0);
    await hand.key("1");
    const disc = await hand.card("w", "Extrude");
    await type(disc.getByLabel("Depth"), "12");
    await hand.accept(disc);
    const hole = await hand.card("t", "Hole");
    await hand.touch([0, -28, 12], /extrude1\/end/);
    await type(hole.getByLabel("place 1 x"), "0");
    await type(hole.getByLabel("place 1 y"), "-28");
    await hole.getByLabel("Table").selectOption({ label: "Cap screw ISO 4762" });
    const bore = Math.PI * 3.3 ** 2 * 12 + Math.PI * (5.75 ** 2 - 3.3 ** 2) * 6.4;
    await near(Math.PI * 1600 * 12 - bore);
    await hand.accept(hole);
    const pattern = await hand.card("y", "Pattern");
    await pattern.getByRole("button", { name: "Ring" }).click();
    await near(Math.PI * 1600 * 12 - 6 * bore);
    await type(pattern.getByLabel("How many"), "8");
    await near(Math.PI * 1600 * 12 - 8 * bore);
    await hand.accept(pattern);
  });
  it("is looked into by a section that is dragged, and measured", async () => {
    await hand.key("3");
    const handle = page.locator("[data-section-handle]");
    await handle.waitFor();
    const box = (await handle.boundingBox())!,
      at = [box.x + box.width / 2, box.y + box.height / 2] as const;
    await hand.drag(at, [at[0] - 60, at[1] + 30]);
    expect(Number(await handle.getAttribute("aria-valuenow"))).not.toBe(0);
    for (let i = 0; i < 3; i++) await hand.key("3");
    await handle.waitFor({ state: "detached" });
    await hand.touch([6, 4, 12], /extrude1\/end/);
    expect(await page.locator("[data-reading=area]").textContent()).toContain("mm²");
    const r = 40 / Math.SQRT2;
    await hand.touch([r, -r, 6], /extrude1\/side\/c1/, "Shift");
    await hand.key("Escape");
    await hand.touch([r, -r, 6], /extrude1\/side\/c1/);
    expect(await page.locator("[data-reading=diameter]").textContent()).toBe("80 mm");
  });
  it("what lies behind is reached by a key", async () => {
    await hand.key("Escape");
    await hand.touch([6, 4, 12], /extrude1\/end/);
    const layer = page.getByTestId("solid"),
      first = await layer.getAttribute("data-hover");
    await hand.key("Tab");
    expect(await layer.getAttribute("data-hover")).not.toBe(first);
    await hand.key("Escape");
  });
});

describe.sequential("a bracket whose early size changes later", () => {
  it("an edge is forgotten and added to the same step; then the block grows and all stands", async () => {
    await clear();
    await rectangle("top", "60", "40");
    const block = await hand.card("w", "Extrude");
    await type(block.getByLabel("Depth"), "12");
    await near(60 * 40 * 12);
    // the arrow drags the same number
    const arrow = (await page.locator("[data-handle=Depth]").boundingBox())!,
      tip = [arrow.x + arrow.width / 2, arrow.y + 4] as const;
    await hand.drag(tip, [tip[0], tip[1] - 40]);
    expect(Number(await block.getByLabel("Depth").inputValue())).toBeGreaterThan(12);
    await type(block.getByLabel("Depth"), "10");
    await hand.accept(block);
    const round = await hand.card("a", "Fillet");
    await type(round.getByLabel("Radius"), "6");
    await hand.touch([60, 0, 5], /side\/l1\|extrude1\/side\/l2/);
    await hand.accept(round);
    const one = (1 - Math.PI / 4) * 36;
    await near(24000 - one * 10);
    await page.locator("[data-step]").nth(2).hover();
    await page.getByRole("button", { name: "Edit step 3" }).click();
    const again = page.getByRole("form", { name: "Fillet" });
    await again.waitFor();
    await hand.touch([60, 40, 5], /side\/l2\|extrude1\/side\/l3/);
    await near(24000 - 2 * one * 10);
    await hand.accept(again);
    // the number is changed in the table of all numbers
    await hand.key("8");
    await type(page.getByLabel("2 · Extrude: depth"), "25");
    await page.keyboard.press("Enter");
    await near((2400 - 2 * one) * 25);
    await page.keyboard.press("Escape");
  });
  it("a radius too large says so and names the largest", async () => {
    await page.locator("[data-step]").nth(2).hover();
    await page.getByRole("button", { name: "Edit step 3" }).click();
    const card = page.getByRole("form", { name: "Fillet" });
    await type(card.getByLabel("Radius"), "45");
    await card
      .getByRole("alert")
      .getByText(/largest|run into each other/)
      .waitFor();
    await card.getByLabel("Radius").press("Escape");
    await card.waitFor({ state: "detached" });
    await hand.built();
  });
  it("a parameter drives a size", async () => {
    await hand.key("8");
    await type(page.getByLabel("New parameter's name"), "thick");
    await type(page.getByLabel("New parameter's value"), "12 mm");
    await page.keyboard.press("Enter");
    await type(page.getByLabel("2 · Extrude: depth"), "=thick*2");
    await page.keyboard.press("Enter");
    await near((2400 - 2 * (1 - Math.PI / 4) * 36) * 24);
    await type(page.getByLabel("parameter thick", { exact: true }), "5 mm");
    await page.keyboard.press("Enter");
    await near((2400 - 2 * (1 - Math.PI / 4) * 36) * 10);
    await page.keyboard.press("Escape");
  });
  it("steps are moved from the keyboard, renamed and suppressed", async () => {
    const grip = page.getByRole("button", { name: "Move step 3" });
    await grip.focus();
    for (const key of ["Space", "ArrowUp", "Space"]) {
      await page.keyboard.press(key);
      await page.waitForTimeout(300);
    }
    await expect.poll(() => hand.note()).toMatch(/must come after it/);
    await page.locator("[data-step]").nth(2).hover();
    await page.getByRole("button", { name: "Suppress step 3" }).click();
    await near(24000);
    await page.getByRole("button", { name: "Take up step 3" }).click();
    await page.getByRole("button", { name: "Rename step 3" }).click();
    await type(page.getByLabel("Name of step 3"), "Soft corners");
    await page.keyboard.press("Enter");
    await page.getByText("Soft corners").waitFor();
    await kept(page);
  });
  it("mass properties show with the material, and axes at the centre of mass", async () => {
    await hand.key("j");
    const mass = page.locator('[data-mass="Mass"]'),
      before = await mass.textContent();
    expect(await page.locator("[data-principal]").count()).toBe(3);
    await page.getByLabel("Material", { exact: true }).selectOption({ label: "Beech · 0.72 g/cm³" });
    await expect.poll(() => mass.textContent()).not.toBe(before);
    await page.keyboard.press("Escape");
  });
  it("files of the solid are handed out", async () => {
    await hand.key("0");
    for (const format of ["STEP", "STL", "3MF"]) {
      const download = page.waitForEvent("download");
      await page.getByRole("button", { name: format, exact: true }).click();
      expect((await download).suggestedFilename()).toMatch(new RegExp(`\\.${format.toLowerCase()}$`));
    }
    await page.keyboard.press("Escape");
  });
});

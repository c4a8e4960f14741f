import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type Hand, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Casimir Dunn", /WS-06/);
  page = hand.page;
  await hand.built();
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

describe.sequential("a tray with a wall, a raised face, and an edge that is lost", () => {
  it("a block is built", async () => {
    await hand.clear();
    await hand.rectangle("top", "60", "40");
    const block = await hand.card("w", "Extrude");
    await type(block.getByLabel("Depth"), "10");
    await hand.accept(block);
    await hand.volumeNear(24000);
  });
  it("an open outline becomes a wall, and its end is carried on", async () => {
    await hand.sketchOn("top");
    await hand.key("w");
    const [x, y] = await hand.point("origin");
    // a line that ends a little short of the block
    await hand.click(x - 75, y - 60);
    await hand.click(x - 20, y - 60);
    await hand.key("Escape");
    expect(await hand.curves()).toBe(1);
    await hand.key("1");
    const card = await hand.card("w", "Extrude");
    await card
      .getByRole("alert")
      .getByText(/no closed region/)
      .waitFor();
    // what can mend it stands open beside the refusal
    await card.getByLabel("Thin wall along the outline").check();
    await type(card.getByLabel("Thickness"), "4");
    await expect.poll(() => hand.volume(), { timeout: 15_000 }).toBeGreaterThan(24010);
    await hand.pieces(1);
    await card.getByLabel("How l1.end finishes").selectOption({ label: "square, as drawn" });
    await hand.pieces(2);
    await card.getByLabel("How l1.end finishes").selectOption({ label: "on to the first face" });
    await hand.pieces(1);
    await hand.accept(card);
  });
  it("a flat face that is picked rises without a sketch, dragged by its arrow", async () => {
    const before = await hand.volume();
    await hand.touch([30, 5, 10], /^extrude1\/end/);
    const card = await hand.card("w", "Extrude");
    await type(card.getByLabel("Depth"), "4");
    await expect.poll(() => hand.volume(), { timeout: 15_000 }).toBeGreaterThan(before + 2400 * 4 - 2);
    const arrow = page.locator("[data-handle=Depth]"),
      box = (await arrow.boundingBox())!,
      tip = [box.x + box.width / 2, box.y + 4] as const;
    await hand.drag(tip, [tip[0], tip[1] - 30]);
    expect(Number(await card.getByLabel("Depth").inputValue())).toBeGreaterThan(4);
    await type(card.getByLabel("Depth"), "4");
    await hand.accept(card);
  });
  it("a radius is dragged at the edge", async () => {
    const card = await hand.card("a", "Fillet");
    await type(card.getByLabel("Radius"), "3");
    await hand.touch([60, 0, 5], /extrude1\/side\/l1\|extrude1\/side\/l2/);
    await hand.built();
    const box = (await page.locator("[data-handle=Radius]").boundingBox())!,
      tip = [box.x + box.width / 2, box.y + box.height / 2] as const;
    await hand.drag(tip, [tip[0] + 2, tip[1] + 40]);
    expect(Number(await card.getByLabel("Radius").inputValue())).not.toBe(3);
    await type(card.getByLabel("Radius"), "5");
    await hand.accept(card);
  });
  it("a corner is cut off in the early sketch: the rounding says what it lost, and is given another edge", async () => {
    await page.locator("[data-step]").first().hover();
    await page.getByRole("button", { name: "Edit step 1" }).click();
    await page.getByTestId("sketch").waitFor();
    await hand.still();
    await hand.keys("v v");
    await hand.pick("l1.end");
    await page.keyboard.press("Tab");
    await page.keyboard.type("8 mm");
    await hand.key("Enter");
    await expect.poll(hand.curves).toBe(6);
    await hand.keys("Escape 1");
    await hand.built();
    const row = page.locator("[data-step]").nth(5);
    await row
      .getByRole("alert")
      .getByText(/no longer there/)
      .waitFor();
    expect(await page.locator("[data-lost]").count()).toBe(1);
    await row.getByRole("button", { name: "Pick anew" }).click();
    await hand.touch([0, 0, 5], /extrude1\/side\/l1\|extrude1\/side\/l4/);
    // while it is built anew the lost edge and its sentence may stand there both
    await expect.poll(() => row.getByRole("alert").count(), { timeout: 20_000 }).toBe(0);
    await hand.accept(page.getByRole("form", { name: "Fillet" }));
    expect(await page.locator("[data-lost]").count()).toBe(0);
    await kept(page);
  });
  it("a step that is deleted while its card is open takes the card with it", async () => {
    await page.locator("[data-step]").nth(5).hover();
    await page.getByRole("button", { name: "Edit step 6" }).click();
    const card = page.getByRole("form", { name: "Fillet" });
    await card.waitFor();
    await page.locator("[data-step]").nth(5).hover();
    await page.getByRole("button", { name: "Delete step 6" }).click();
    await card.waitFor({ state: "detached" });
    // undo brings the step back
    await page.getByRole("button", { name: "Undo" }).click();
    await expect.poll(() => page.locator("[data-step]").count()).toBe(6);
  });
});

describe.sequential("two bodies, looked at one by one", () => {
  it("a second body stands beside the first and is hidden, shown alone, and shown again", async () => {
    await hand.clear();
    await hand.rectangle("top", "30", "20");
    const block = await hand.card("w", "Extrude");
    await type(block.getByLabel("Depth"), "10");
    await hand.accept(block);
    await hand.rectangle("front", "12", "25");
    const post = await hand.card("w", "Extrude");
    await post.getByRole("button", { name: "Separate body" }).click();
    await type(post.getByLabel("Depth"), "6");
    await hand.accept(post);
    await hand.volumeNear(30 * 20 * 10 + 12 * 25 * 6);
    const faces = () => page.getByTestId("solid").getAttribute("data-shaded");
    expect(await faces()).toBe("12");
    // the post stands in front of the block: hidden, the pointer goes through it to the block
    await hand.touch([6, -6, 20], /^extrude2/);
    await hand.key("5");
    await hand.touch([6, 0, 8], /^extrude1\/side/);
    await hand.key("Escape");
    await hand.key("7");
    const look = page.getByRole("group", { name: "Bodies" });
    expect(await look.getByLabel("extrude2").isChecked()).toBe(false);
    expect(await look.getByLabel("extrude1").isChecked()).toBe(true);
    await look.getByRole("button", { name: "Show only this" }).nth(1).click();
    expect(await look.getByLabel("extrude1").isChecked()).toBe(false);
    expect(await look.getByLabel("extrude2").isChecked()).toBe(true);
    await look.getByLabel("extrude1").check();
    // the used sketches are off until they are switched on by themselves
    const sketches = page.getByRole("group", { name: "One by one" });
    expect(await page.locator("[data-idle]").count()).toBe(0);
    await sketches.getByLabel("sketch 3").check();
    expect(await page.locator("[data-idle=sketch2]").count()).toBe(1);
    await hand.key("Escape");
  });
  it("a hole acts on the body it is told to, is dragged over its face, and carries a thread as a note", async () => {
    const before = await hand.volume(),
      hole = await hand.card("t", "Hole");
    await type(hole.getByLabel("Diameter"), "5");
    await hand.touch([22, 12, 10], /^extrude1\/end/);
    await hand.volumeNear(before - Math.PI * 6.25 * 10);
    const x = Number(await hole.getByLabel("place 1 x").inputValue()),
      box = (await page.locator("[data-hole-point=p1]").boundingBox())!,
      at = [box.x + box.width / 2, box.y + box.height / 2] as const;
    await hand.drag(at, [at[0] + 14, at[1]]);
    expect(Number(await hole.getByLabel("place 1 x").inputValue())).not.toBe(x);
    await hole.getByLabel(/^threaded/).check();
    await type(hole.getByLabel("Thread", { exact: true }), "M6");
    await hole.getByLabel("all the way").uncheck();
    await type(hole.getByLabel("Depth of thread"), "8");
    await hand.accept(hole);
    await page.getByText(/M6, 8 mm deep/).waitFor();
    await kept(page);
  });
});

import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import type { Step } from "@/core/part/steps/kinds";
import type { Curve } from "@/core/sketch/sketch";
import { type Hand, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser, page: Page, hand: Hand;
beforeAll(async () => {
  browser = await openBrowser();
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());

const SIZE = [60, 40, 12] as const;
const BLOCK = 60 * 40 * 12;
/** A block 60 × 40 × 12, and a sketch with a real point and a sketch with a point that only constructs. */
function block() {
  const d = new Draft("Block", "mm", STEEL).sketch("top");
  const [bottom, right] = d.rectangle([0, 0], [60, 40]) as [string, string];
  d.constrain("coincident", `${bottom}.start`, "origin")
    .dimension("length", [bottom], 60)
    .dimension("length", [right], 40);
  return d.extrude("add", { kind: "depth", depth: SIZE[2] }).document;
}
/** The middle of an upper edge. */
const EDGES = {
  right: [60, 20, 12],
  left: [0, 20, 12],
  front: [30, 0, 12],
  back: [30, 40, 12],
} as const;
const TOP = /^extrude1\/end$/;
const edge = (line: string) => new RegExp(`extrude1/(end\\|extrude1/side/${line}|side/${line}\\|extrude1/end)`);
const near = (v: number) => hand.volumeNear(v);
const chamfer = (c: number, length: number) => (c * c * length) / 2;

describe.sequential("cards under real fingers", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Sunniva Rook", /WS-06/, block());
    page = hand.page;
    await hand.built();
  });
  it("a second group of edges has sizes of its own, and the first keeps its edges", async () => {
    const card = await hand.card("s", "Chamfer");
    await hand.touch(EDGES.right, edge("l2"));
    await page.keyboard.type("2");
    await near(BLOCK - chamfer(2, 40));
    await card.getByRole("button", { name: "Another group" }).click();
    await hand.touch(EDGES.left, edge("l4"));
    await type(card.getByLabel("Distance").nth(1), "4");
    await near(BLOCK - chamfer(2, 40) - chamfer(4, 40));
    // whatever was clicked last, Enter accepts
    await hand.key("Enter");
    await card.waitFor({ state: "detached" });
    await near(BLOCK - chamfer(2, 40) - chamfer(4, 40));
  });
  it("a double click on a step opens its card once, ready to pick", async () => {
    await page.locator("[data-step]").nth(2).getByRole("button").nth(1).dblclick();
    const card = page.getByRole("form", { name: "Chamfer" });
    await card.getByText("click edges").first().waitFor();
    await hand.touch(EDGES.front, edge("l1"));
    await expect.poll(hand.volume, { timeout: 20_000 }).toBeLessThan(BLOCK - chamfer(2, 40) - chamfer(4, 40) - 50);
    await hand.key("Escape");
    await card.waitFor({ state: "detached" });
    await near(BLOCK - chamfer(2, 40) - chamfer(4, 40));
    await hand.key("Control+z");
    await near(BLOCK);
  });
  it("a card that is opened over another accepts it, or asks; nothing is lost", async () => {
    const shell = await hand.card("d", "Shell");
    await hand.touch([30, 20, 12], TOP);
    await near(BLOCK - 56 * 36 * 10);
    await page.getByRole("toolbar").getByRole("button", { name: "Fillet" }).click();
    const fillet = page.getByRole("form", { name: "Fillet" });
    await fillet.waitFor();
    await shell.waitFor({ state: "detached" });
    expect(await page.locator("[data-step]").count()).toBe(3);
    expect(await hand.note()).toContain("Shell: accepted");
    // an edge is meant for the new card, and a radius that cannot be is asked about
    await hand.touch([60, 0, 6], /side\/l1\|extrude1\/side\/l2|side\/l2\|extrude1\/side\/l1/);
    await page.keyboard.type("90");
    await fillet.getByRole("alert").first().waitFor();
    await page.getByRole("toolbar").getByRole("button", { name: "Hole" }).click();
    const asked = page.getByRole("alertdialog");
    await asked.waitFor();
    await asked.getByRole("button", { name: "Stay and mend it" }).click();
    await asked.waitFor({ state: "detached" });
    await type(fillet.getByLabel("Radius"), "3");
    await page.getByRole("toolbar").getByRole("button", { name: "Hole" }).click();
    await page.getByRole("form", { name: "Hole" }).waitFor();
    expect(await page.locator("[data-step]").count()).toBe(4);
    // a hole that was not even begun is left without a word
    await page.getByRole("toolbar").getByRole("button", { name: "Plane" }).click();
    await page.getByRole("form", { name: "Datum plane" }).waitFor();
    expect(await page.locator("[data-step]").count()).toBe(4);
    await hand.key("Escape");
    for (let i = 0; i < 2; i++) await hand.key("Control+z");
    await near(BLOCK);
  });
  it("numbers are typed key by key, and what cannot be read stays and is told beside it", async () => {
    const hole = await hand.card("t", "Hole");
    await hand.touch([30, 20, 12], TOP);
    const [x, y] = [hole.getByLabel("place 1 x"), hole.getByLabel("place 1 y")];
    for (const [text, then] of [
      ["12.5", "12.5"],
      ["0.25", "0.25"],
      ["1/2 in", "12.7"],
      ["-28", "-28"],
    ] as const) {
      await type(x, text);
      await y.focus();
      expect(await x.inputValue()).toBe(then);
    }
    await hole
      .getByRole("alert")
      .getByText(/nothing|meets/)
      .first()
      .waitFor();
    await type(x, "two");
    await y.focus();
    expect(await x.inputValue()).toBe("two");
    await hole.getByText("“two” is no number").waitFor();
    await hand.key("Enter");
    expect(await hole.isVisible()).toBe(true);
    await type(x, "30");
    await type(y, "20");
    await near(BLOCK - 9 * Math.PI * 12);
    await hand.accept(hole);
    const pattern = await hand.card("y", "Pattern");
    const count = pattern.getByLabel("How many");
    await type(count, "");
    await pattern.getByLabel("Spacing").focus();
    await pattern.getByText(/is no count here/).waitFor();
    await type(count, "12");
    await pattern.getByLabel("Spacing").focus();
    expect(await count.inputValue()).toBe("12");
    await hand.key("Escape");
    await hand.key("Control+z");
    await near(BLOCK);
  });
  it("within a card Ctrl Z takes back a change at a time, and an open card outlives its page", async () => {
    const card = await hand.card("a", "Fillet");
    const corner = 12 * 9 * (1 - Math.PI / 4);
    const upright = /side\/l\d\|extrude1\/side\/l\d/;
    await hand.touch([60, 0, 6], upright);
    await near(BLOCK - corner);
    await hand.touch([0, 0, 6], upright);
    await near(BLOCK - 2 * corner);
    await hand.key("Control+z");
    await near(BLOCK - corner);
    await hand.key("Control+y");
    await near(BLOCK - 2 * corner);
    await hand.key("Control+z");
    await page.reload();
    await page.getByRole("toolbar").waitFor();
    await card.waitFor();
    await near(BLOCK - corner);
    await hand.key("Enter");
    await card.waitFor({ state: "detached" });
    await near(BLOCK - corner);
    await kept(page);
    await page.reload();
    await page.getByRole("toolbar").waitFor();
    await near(BLOCK - corner);
    expect(await card.count()).toBe(0);
    await hand.key("Control+z");
  });
});

describe.sequential("holes at the points of a sketch", () => {
  const at = (id: string, x: number, y: number, construction?: true): Curve => ({
    id,
    kind: "point",
    at: [x, y],
    ...(construction && { construction }),
  });
  const points = (id: string, ...curves: Curve[]): Step => ({
    id,
    kind: "sketch",
    sketch: { plane: { base: "top", offset: 12 }, curves, constraints: [], dimensions: [] },
  });
  const bore = 9 * Math.PI * 12;
  beforeAll(async () => {
    const d = block();
    const steps = [
      ...d.steps,
      points("sketch2", at("p1", 10, 10), at("p2", 30, 30)),
      points("sketch3", at("p1", 50, 20, true)),
    ];
    hand = await openBench(browser, "Sunniva Rook", /WS-06/, { ...d, steps });
    page = hand.page;
    await hand.built();
  });
  it("a construction point is not offered, and a click on a face does not drop a sketch's points", async () => {
    const card = await hand.card("t", "Hole");
    const list = card.getByLabel("Points of");
    expect(await list.locator("option", { hasText: "construction points only" }).isDisabled()).toBe(true);
    await list.selectOption({ label: "3 · on top (offset)" });
    await near(BLOCK - 2 * bore);
    // changing over to clicks is said, and taken back
    await card.getByRole("button", { name: "Place by clicks instead" }).click();
    await hand.touch([50, 30, 12], TOP);
    await near(BLOCK - bore);
    await list.selectOption({ label: "3 · on top (offset)" });
    expect(await hand.note()).toContain("left out now");
    await near(BLOCK - 2 * bore);
    await hand.key("Control+z");
    await near(BLOCK - bore);
    await hand.key("Control+y");
    await hand.key("Enter");
    await card.waitFor({ state: "detached" });
    await near(BLOCK - 2 * bore);
  });
});

describe.sequential("the pointer in a sketch", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Sunniva Rook", /WS-06/);
    page = hand.page;
    await hand.sketchOn("front");
    await hand.key("e");
    await hand.places([0, 0], [120, 80]);
    await hand.key("q");
  });
  it("one that is taken away ends its drag, and nothing has moved", async () => {
    const before = await hand.point("l2.end");
    await page.mouse.move(...before);
    await page.mouse.down();
    await page.mouse.move(before[0] + 40, before[1] - 30, { steps: 5 });
    await page.getByTestId("sketch").dispatchEvent("pointercancel", { pointerId: 1, bubbles: true });
    await page.mouse.move(before[0] + 80, before[1] - 60, { steps: 3 });
    await page.mouse.up();
    await hand.settled();
    const now = await hand.point("l2.end");
    expect([now[0] - before[0], now[1] - before[1]].map(Math.round)).toEqual([0, 0]);
  });
  const lowestMark = async () => {
    const boxes = await Promise.all(
      (await page.getByLabel(/^horizontal constraint/).all()).map((m) => m.boundingBox()),
    );
    const low = boxes.sort((a, b) => b!.y - a!.y)[0]!;
    return [low.x + low.width / 2, low.y + low.height / 2] as const;
  };
  it("a box may begin on a constraint's mark", async () => {
    const chosen = () => page.locator('[data-curve] path[stroke="var(--rust-wash)"]').count();
    expect(await chosen()).toBe(0);
    // the mark of the lower line: a box from it past the upper right corner holds the right side
    const [x, y] = await lowestMark();
    const corner = await hand.point("l2.end");
    await hand.drag([x, y], [corner[0] + 40, corner[1] - 40]);
    await expect.poll(chosen).toBe(1);
  });
  it("copying with nothing picked says so", async () => {
    await hand.key("Escape");
    await page.keyboard.press("Control+c");
    expect(await hand.note()).toContain("Nothing is picked");
  });
});

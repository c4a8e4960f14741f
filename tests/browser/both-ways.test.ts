import { createHash } from "node:crypto";
import type { Browser, Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { circ, extrude, fillet, part, rect, sketch } from "@/core/part/testing/build";
import { rim } from "@/core/part/testing/solids/known";
import { SKETCH_ROWS } from "@/ui/bench/tray/sketch-rows";
import { SOLID_ROWS } from "@/ui/bench/tray/solid-rows";
import { type Hand, openBench, openBrowser, pictureOnFailure, report } from "./harness";
import { ABOVE, block, BLOCK, BUILT, DRAWN, TOP } from "./recipes";
import { byKeyboard, byMouse, type Way } from "./ways";

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

/** A block with a rounded edge and a round post beside it, as a body of its own. */
const looked = () =>
  part(
    sketch("bs", "top", rect(-15, -10, 15, 10)),
    extrude("b", "bs", 15),
    fillet("f", 5, rim("l1")),
    sketch("s", "top", circ(30, 0, 6)),
    extrude("post", "s", 20, { operation: "separate" }),
  );
const POST = [30, -6, 10] as const;

describe.sequential("how it is looked at", () => {
  beforeAll(async () => {
    hand = await openBench(browser, "Ottoline Marsh", /WS-04/, looked());
    page = hand.page;
    await hand.built();
    // tools that stand still in motion show nothing that moves
    await page.emulateMedia({ reducedMotion: "no-preference" });
  });
  /** What is seen of the part, without what lies over it. */
  const picture = async () => {
    await page.mouse.move(640, 5);
    await hand.settled();
    const shot = await page.locator("[data-camera]").first().screenshot();
    return createHash("sha256").update(shot).digest("hex");
  };
  /** A tool gives so many pictures that all differ, and then the first again. */
  const goesRound = async (kind: "sketch" | "solid", tool: string, name: Way["name"], states: number) => {
    const first = await picture(),
      seen = new Set([first]);
    for (let i = 1; i < states; i++) {
      await wayOf(name, kind).take(tool);
      await expect.poll(async () => seen.has(await picture()), { timeout: 10_000 }).toBe(false);
      seen.add(await picture());
    }
    await wayOf(name, kind).take(tool);
    await expect.poll(picture, { timeout: 10_000 }).toBe(first);
    note(kind, tool, name);
  };
  describe.each(WAYS)("by %s", (name) => {
    const w = (kind: "sketch" | "solid" = "solid") => wayOf(name, kind);
    it.each([
      ["Display", 4],
      ["Tangents", 3],
      ["Depth", 2],
    ] as const)("%s", (tool, states) => goesRound("solid", tool, name, states));
    it.each(["Hide", "Show only this"])("%s", async (tool) => {
      const first = await picture();
      await w().thing(/^post/, POST);
      const picked = await picture();
      await w().take(tool);
      await expect.poll(picture).not.toBe(picked);
      expect(await picture()).not.toBe(first);
      await hand.key("Escape");
      await w().take(tool);
      await expect.poll(picture).toBe(first);
      note("solid", tool, name);
    });
    it("a sketch on the part: see into, straight, swing, project, define the rest", async () => {
      await hand.sketchOn("front");
      await goesRound("sketch", "See into", name, 3);
      // which way is right and which up
      const camera = async () =>
        JSON.stringify(JSON.parse((await page.getByTestId("sketch").getAttribute("data-camera"))!).slice(1, 3));
      const straight = await camera();
      const [x, y] = await hand.point("origin");
      await page.mouse.move(x + 60, y - 60);
      await page.mouse.down({ button: "right" });
      await page.mouse.move(x + 120, y - 30, { steps: 4 });
      await page.mouse.up({ button: "right" });
      await expect.poll(camera).not.toBe(straight);
      await w("sketch").take("Straight");
      await expect.poll(camera).toBe(straight);
      note("sketch", "Straight", name);
      const scale = async () =>
        Number(JSON.parse((await page.getByTestId("sketch").getAttribute("data-camera"))!)[3].toFixed(3));
      await w("sketch").take("Fit");
      const fitted = await scale();
      await page.mouse.move(x + 60, y - 60);
      await page.mouse.wheel(0, -300);
      await expect.poll(scale).not.toBe(fitted);
      await w("sketch").take("Fit");
      await expect.poll(scale).toBe(fitted);
      note("sketch", "Fit", name);
      // of the round post its outline: two lines, with the rims seen from their edge
      await w("sketch").take("Project", 1);
      await w("sketch").at([30, 10]);
      await expect.poll(hand.curves).toBe(4);
      note("sketch", "Project", name);
      await w("sketch").take("Line");
      await w("sketch").at([-10, 25], [10, 35]);
      await hand.keys("Escape q");
      await hand.freedoms(4);
      const drawn = () => page.locator("[data-curve^=l] path").last().getAttribute("d");
      const still = await drawn();
      await w("sketch").take("Swing");
      await expect.poll(drawn).not.toBe(still);
      await w("sketch").take("Swing");
      await expect.poll(drawn).toBe(still);
      note("sketch", "Swing", name);
      await w("sketch").take("Define the rest");
      await w("sketch").press(page.getByRole("button", { name: /^Take/ }));
      await hand.freedoms(0);
      note("sketch", "Define the rest", name);
      await w("sketch").take("Done");
      await page.getByTestId("sketch").waitFor({ state: "detached" });
      await hand.key("Control+z");
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
  const all = (["sketch", "solid"] as const).flatMap((kind) => labelsOf(kind).map((l) => `${kind}: ${l}`));
  const lacking = all.flatMap((t) => WAYS.filter((way) => !done.get(t)?.has(way)).map((way) => `${t}, ${way}`));
  expect(lacking).toEqual([]);
});

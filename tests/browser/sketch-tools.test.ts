import type { Browser, Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type Hand, openBench, openBrowser, pictureOnFailure, type } from "./harness";
import { type Place, sketchHand } from "./sketch-hand";

type Own = ReturnType<typeof sketchHand>;
let browser: Browser, page: Page, hand: Hand, own: Own;
beforeAll(async () => {
  browser = await openBrowser();
  hand = await openBench(browser, "Casimir Dunn", /WS-05/);
  page = hand.page;
  own = sketchHand(hand, page);
});
beforeEach(pictureOnFailure(() => [page]));
afterAll(() => browser.close());
const cleared = () => own.cleared();
const fresh = () => own.fresh();
const line: Own["line"] = (...a) => own.line(...a);
const circle: Own["circle"] = (...a) => own.circle(...a);
const marks: Own["marks"] = (...a) => own.marks(...a);

describe.sequential("every way of drawing", () => {
  beforeAll(fresh);
  afterEach(cleared);
  it.each<[string, string, Place[], number, string?]>([
    [
      "rectangle about its middle",
      "e e",
      [
        [-100, 60],
        [-40, 100],
      ],
      6,
    ],
    [
      "slanting rectangle",
      "e e e",
      [
        [-100, 60],
        [-40, 80],
        [-50, 120],
      ],
      4,
    ],
    [
      "circle by two points",
      "r r",
      [
        [-100, 60],
        [-40, 80],
      ],
      1,
    ],
    [
      "circle by three points",
      "r r r",
      [
        [-100, 60],
        [-40, 80],
        [-70, 120],
      ],
      1,
    ],
    [
      "arc by three points",
      "t",
      [
        [-100, 60],
        [-40, 60],
        [-70, 90],
      ],
      1,
    ],
    [
      "arc by its centre",
      "t t",
      [
        [-70, 60],
        [-30, 60],
        [-70, 110],
      ],
      1,
    ],
    [
      "ellipse",
      "y",
      [
        [-70, 60],
        [-10, 60],
        [-70, 90],
      ],
      1,
    ],
    [
      "arc of an ellipse",
      "y y",
      [
        [-70, 60],
        [-10, 60],
        [-70, 90],
        [-10, 60],
        [-70, 90],
      ],
      1,
    ],
    [
      "polygon in a circle",
      "u",
      [
        [-70, 60],
        [-20, 60],
      ],
      7,
    ],
    [
      "polygon about a circle",
      "u u",
      [
        [-70, 60],
        [-20, 60],
      ],
      8,
    ],
    [
      "slot",
      "i",
      [
        [-100, 60],
        [-40, 60],
        [-40, 80],
      ],
      5,
    ],
    [
      "bent slot",
      "i i",
      [
        [-70, 30],
        [-10, 30],
        [-70, 90],
        [-70, 105],
      ],
      5,
    ],
    [
      "spline",
      "o",
      [
        [-100, 60],
        [-60, 90],
        [-20, 60],
      ],
      1,
      "Enter",
    ],
    [
      "spline with end directions",
      "o o",
      [
        [-100, 60],
        [-60, 90],
        [-20, 60],
      ],
      1,
      "Enter",
    ],
    ["point", "p", [[-70, 60]], 1],
  ])("%s", async (_, keys, places, curves, end) => {
    await hand.keys(keys);
    await hand.places(...places);
    if (end) await hand.key(end);
    await expect.poll(hand.curves).toBe(curves);
  });

  it("a tangent arc from the end of a line", async () => {
    await line([-120, 60], [-60, 60]);
    await hand.keys("t t t");
    await hand.pick("l1.end");
    await hand.places([-20, 100]);
    await expect.poll(hand.curves).toBe(2);
    expect(await marks("tangent")).toBe(1);
  });

  it("the sides of a polygon are changed later", async () => {
    await hand.key("u");
    await hand.places([-70, 60], [-20, 60]);
    const form = page.getByRole("form", { name: /^Polygon/ });
    await type(form.getByLabel("sides"), "8");
    await form.getByRole("button", { name: "Set" }).click();
    await expect.poll(hand.curves).toBe(9);
  });

  it("what is found can be chosen and is remembered", async () => {
    await hand.key("7");
    await page.getByLabel("level and upright").uncheck();
    await hand.keys("Escape w");
    await hand.places([-100, 60], [-20, 61]);
    await hand.keys("Escape q");
    expect(await marks("horizontal")).toBe(0);
    await hand.key("7");
    expect(await page.getByLabel("level and upright").isChecked()).toBe(false);
    await page.getByLabel("level and upright").check();
    await hand.key("Escape");
  });

  it("the sheet of keys lists every tool", async () => {
    await hand.key("?");
    const sheet = page.getByRole("dialog", { name: "Keys" });
    for (const name of ["Extend", "Symmetric", "Polygon", "Define the rest"])
      await sheet.getByText(name, { exact: true }).waitFor();
    await hand.key("Escape");
    await sheet.waitFor({ state: "detached" });
  });
});

describe.sequential("every constraint", () => {
  /** Two lines and two circles, all loose. */
  const material = async () => {
    await line([-150, 60], [-80, 80]);
    await line([-40, 60], [30, 90]);
    await circle([-120, -60], 25);
    await circle([-20, -60], 18);
  };
  // drawn once; every constraint is taken back after it was tried
  beforeAll(async () => {
    await fresh();
    await material();
  });
  it.each<[string, string, string[], string, number]>([
    ["two ends coincide", "s", ["l1.end", "l2.start"], "", 2],
    ["an end on a curve", "s", ["l1.end", "c1"], "point on curve", 1],
    ["two circles about one centre", "s", ["c1", "c2"], "concentric", 2],
    ["a line level", "d", ["l1"], "horizontal", 1],
    ["two points level", "d", ["l1.start", "l2.end"], "horizontal", 1],
    ["a line upright", "f", ["l1"], "vertical", 1],
    ["two points upright", "f", ["l1.start", "c1.centre"], "vertical", 1],
    ["parallel", "g", ["l1", "l2"], "parallel", 1],
    ["in one line", "g g", ["l1", "l2"], "collinear", 2],
    ["square", "h", ["l1", "l2"], "perpendicular", 1],
    ["tangent", "j", ["l1", "c1"], "tangent", 1],
    ["circles tangent", "j", ["c1", "c2"], "tangent", 1],
    ["equal lines", "k", ["l1", "l2"], "equal", 1],
    ["equal circles", "k", ["c1", "c2"], "equal", 1],
    ["a centre midway on a line", "l", ["c1.centre", "l1"], "midpoint", 2],
    ["circles symmetric", ";", ["c1", "c2", "y-axis"], "symmetric", 3],
    ["ends symmetric about a line", ";", ["c1.centre", "c2.centre", "l1"], "symmetric", 2],
    ["fixed", "'", ["c1"], "fixed", 3],
  ])("%s", async (_, keys, refs, kind, takes) => {
    await hand.freedoms(14);
    await hand.keys(keys);
    await hand.pick(...refs);
    await hand.freedoms(14 - takes);
    if (kind) {
      expect(await marks(kind)).toBe(1);
      // its mark is picked and deleted with one key
      await hand.key("q");
      await page.getByLabel(new RegExp(`^${kind} constraint`)).click();
      await hand.key("Delete");
      await hand.freedoms(14);
      await hand.key("Control+z");
    }
    // back to how it was drawn
    await hand.keys("Control+z q");
  });

  it("a spline goes on from a line, smoothly and with its curvature", async () => {
    await fresh();
    await line([-150, 40], [-80, 40]);
    await hand.keys("o o");
    await hand.pick("l1.end");
    await hand.places([-40, 90], [20, 60]);
    await hand.keys("Enter q j");
    const before = await hand.freedomsNow();
    await hand.pick("l1", "s1");
    await hand.freedoms(before - 1);
    await hand.key("Control+z");
    await hand.keys("q j j");
    await hand.pick("l1", "s1");
    await hand.freedoms(before - 2);
  });
});

import { randomUUID } from "node:crypto";
import type { Browser, Locator, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import { closeDatabase, one, rows, transaction } from "@/server/database";
import { createExercise, exercise } from "@/server/exercises/exercises";
import { gaugePlate } from "./gauge-plate";
import {
  BASE,
  enterAs,
  Hand,
  isAccessible,
  measured,
  openBrowser,
  pictureOnFailure,
  report,
  station,
  type,
  typeMoment,
  unfold,
} from "./harness";

let browser: Browser, hedda: Page, alasdair: Page;
let course: string, plate: string;
beforeAll(async () => {
  course = (await one<{ id: string }>("insert into courses (title) values ('Plates and brackets') returning id")).id;
  const instructor = async (name: string): Promise<string> => {
    const { id } = await one<{ id: string }>("insert into people (name, email) values ($1, $2) returning id", [
      name,
      `${randomUUID()}@saltmarsh.example`,
    ]);
    await rows("insert into enrolments (course_id, person_id, role) values ($1, $2, 'instructor')", [course, id]);
    return id;
  };
  const people = [await instructor("Isolde Rook"), await instructor("Crispin Vole")];
  const document = { ...newExercise(), number: "P-07", title: "Gauge plate", reference: gaugePlate() };
  plate = await createExercise(course, document);
  browser = await openBrowser();
  hedda = await enterAs(browser, people[0]!);
  alasdair = await enterAs(browser, people[1]!);
});
beforeEach(pictureOnFailure(() => [hedda, alasdair]));
afterAll(async () => {
  await browser.close();
  await transaction(async (client) => {
    await client.query("select allow_deleting()");
    await client.query("delete from courses where id = $1", [course]);
  });
  await closeDatabase();
});

const at = (page: Page, where: string) => page.goto(`${BASE}/exercises/${plate}?at=${where}`);
const entered = async (field: Locator, text: string) => {
  await type(field, text);
  await field.press("Enter");
};
const stands = async () => (await exercise(plate)).document;

/** So many clicks and fields an exercise may take, outside the drawing in the Bench. */
const MOST_ACTIONS = 60;

describe.sequential("making an exercise", () => {
  it("goes from New exercise to a handout by the mouse, with few clicks", async () => {
    let actions = 0;
    const click = async (target: Locator) => {
      actions++;
      await target.click();
    };
    await hedda.goto(`${BASE}/courses`);
    await click(hedda.getByRole("link", { name: "New exercise" }));
    expect(await hedda.getByLabel("Number").inputValue()).toBe("P-08");
    actions++;
    await type(hedda.getByLabel("Title", { exact: true }), "Spacing bracket");
    await click(hedda.getByRole("button", { name: "Build it in the Bench" }));
    await hedda.waitForURL("**/bench");
    const hand = new Hand(hedda);
    await hedda.getByRole("button", { name: /^Sketch/ }).waitFor();
    // an empty pane says what will come, not that something is wrong
    await hedda.getByText("No Sheet yet.").waitFor();
    await hand.sketchOn("front");
    // an angle: six lines from the origin and back to it
    await hand.key("w");
    const [x, y] = await hand.point("origin");
    const across = [0, 160, 160, 30, 30, 0, 0],
      up = [0, 0, 30, 30, 120, 120, 0];
    for (const [i, dx] of across.entries()) await hand.click(x + dx, y - up[i]!);
    await hand.key("Escape");
    await hand.key("2");
    await hedda.getByRole("button", { name: /^Take/ }).click();
    await hand.freedoms(0);
    await hand.key("1");
    await hand.key("w");
    await type(hedda.getByLabel("Depth", { exact: true }), "40");
    await hedda.getByLabel("Depth", { exact: true }).press("Enter");
    await hedda.getByText(/^Kept on the server/).waitFor();
    await click(hedda.getByRole("link", { name: "To the exercise" }));
    await hedda.waitForURL(/exercises\/[0-9a-f-]{36}$/);
    await measured(hedda);
    await hedda.getByRole("img", { name: "The Sheet" }).waitFor();
    await click(hedda.getByRole("navigation", { name: "Stations" }).getByRole("button", { name: /^Give out/ }));
    await click(hedda.getByRole("button", { name: "Make a handout" }));
    const anyway = hedda.getByRole("button", { name: "Issue it all the same" });
    if (await anyway.count()) await click(anyway);
    await hedda.waitForURL("**/handouts/*");
    await hedda.getByRole("heading", { name: "P-08 Spacing bracket" }).waitFor();
    report("exercise-actions", [`From "New exercise" to a handout: ${actions} clicks and fields outside the Bench`]);
    expect(actions).toBeLessThanOrEqual(MOST_ACTIONS);
  }, 120_000);

  it("says at each station where it stands, and what typical mistakes would cost", async () => {
    await at(hedda, "points");
    await measured(hedda);
    const bar = hedda.getByRole("navigation", { name: "Stations" });
    await bar.getByText(/^fully defined, 1 body, 3/).waitFor();
    await bar.getByText("says all there is, nothing twice").waitFor();
    // it is tried by itself
    await bar.getByText(/^25 points; one slip costs \d/).waitFor({ timeout: 60_000 });
    const mass = hedda.locator("[data-rubric-line=mass]");
    await mass
      .getByText(/mm instead of .* mm −4$/)
      .first()
      .waitFor();
    await entered(hedda.getByLabel("Points for Mass"), "8");
    await mass.getByText(/−8$/).first().waitFor({ timeout: 30_000 });
    await bar.getByText(/^29 points/).waitFor();
    await hedda.getByRole("button", { name: "Undo" }).click();
    await bar.getByText(/^25 points/).waitFor();
  }, 120_000);

  it("another unit changes what lengths are typed in, and no tolerance", async () => {
    await at(hedda, "check");
    await hedda.getByLabel("Printed sizes and places of faces").selectOption("own");
    await entered(hedda.getByLabel("Lengths, ±"), "0.254");
    await station(hedda, "Part");
    await hedda.getByLabel("Units").selectOption("in");
    await station(hedda, "Check");
    expect(await hedda.getByLabel("Lengths, ±").inputValue()).toBe("0.01");
    await hedda.getByText(/^Kept on the server at/).waitFor();
    expect((await stands()).tolerances.sizes).toMatchObject({ length: 0.254 });
    await station(hedda, "Part");
    await hedda.getByLabel("Units").selectOption("mm");
    await measured(hedda);
    const { units, tolerances } = await stands();
    expect([units, tolerances.sizes]).toMatchObject(["mm", { length: 0.254 }]);
  }, 60_000);
});

describe.sequential("two instructors at one exercise", () => {
  it("see each other's changes at once, and undo only their own", async () => {
    await Promise.all([at(hedda, "part"), at(alasdair, "points")]);
    await Promise.all([measured(hedda), measured(alasdair)]);
    await entered(hedda.getByLabel("Title", { exact: true }), "Gauge plate, thick");
    await alasdair.getByRole("heading", { name: "P-07 Gauge plate, thick" }).waitFor();
    await alasdair.getByText("Isolde Rook has changed the title.").waitFor();
    await entered(alasdair.getByLabel("Points for Volume"), "4");
    await station(hedda, "Points");
    await expect.poll(() => hedda.getByLabel("Points for Volume").inputValue()).toBe("4");
    await hedda.getByRole("button", { name: "Undo" }).click();
    await alasdair.getByRole("heading", { name: "P-07 Gauge plate", exact: true }).waitFor();
    const { title, rubric } = await stands();
    expect([title, rubric.find((l) => l.id === "volume")!.points]).toEqual(["Gauge plate", 4]);
  }, 60_000);

  it("terms are kept as they are said, undone one by one, and dates stay typed at another station", async () => {
    await Promise.all([at(hedda, "give"), at(alasdair, "give")]);
    await Promise.all([measured(hedda), measured(alasdair)]);
    for (const p of [hedda, alasdair]) await p.getByText("Tries, practice and what students see").click();
    const tries = (p: Page) => p.getByLabel("Tries, empty: any number");
    await entered(tries(hedda), "3");
    await hedda.getByLabel("what was wanted").check();
    await expect.poll(() => tries(alasdair).inputValue()).toBe("3");
    await alasdair.getByLabel("Checks before handing in").selectOption("all");
    await entered(alasdair.getByLabel("How often, empty: any number"), "2");
    await expect.poll(() => hedda.getByLabel("How often, empty: any number").inputValue()).toBe("2");
    await typeMoment(hedda.getByLabel(/^Due, by the clock/), "2031-06-01T18:00");
    await station(hedda, "Points");
    await station(hedda, "Give out");
    expect(await hedda.getByLabel(/^Due, by the clock/).inputValue()).toBe("2031-06-01T18:00");
    await hedda.getByLabel("a part built on the Bench").click();
    await hedda.getByText("tick at least one").waitFor();
    for (let i = 0; i < 2; i++) await hedda.getByRole("button", { name: "Undo" }).click();
    await expect.poll(() => tries(alasdair).inputValue()).toBe("");
    await hedda.getByText(/^Kept on the server at/).waitFor();
    expect((await stands()).terms).toEqual({ practice: { shows: "all", most: 2 } });
    await alasdair.getByLabel("Checks before handing in").selectOption("none");
    await alasdair.getByText(/^Kept on the server at/).waitFor();
  }, 60_000);

  it("of the same thing changed twice both are told, and nothing is lost", async () => {
    await Promise.all([at(hedda, "part"), at(alasdair, "part")]);
    await Promise.all([measured(hedda), measured(alasdair)]);
    // what he types while he is cut off meets what she has saved
    await alasdair.context().setOffline(true);
    await entered(alasdair.getByLabel(/^Brief/), "His brief.");
    await entered(alasdair.getByLabel("Number"), "P-70");
    await alasdair.getByText(/^Kept in this browser/).waitFor();
    await type(hedda.getByLabel(/^Brief/), "Her brief.");
    await hedda.getByLabel("Number").focus();
    await hedda.getByText(/^Kept on the server at/).waitFor();
    await alasdair.context().setOffline(false);
    const told = alasdair.getByRole("alert").filter({ hasText: "has changed the brief at the same time" });
    await told.getByText("yours was “His brief.”").waitFor();
    expect(await alasdair.getByLabel(/^Brief/).inputValue()).toBe("Her brief.");
    await expect.poll(async () => (await stands()).number).toBe("P-70");
    await told.getByRole("button", { name: "Put mine" }).click();
    await expect.poll(async () => (await stands()).brief).toBe("His brief.");
    await expect.poll(() => hedda.getByLabel(/^Brief/).inputValue()).toBe("His brief.");
  }, 60_000);

  it("what the board changes stands on the page, and what the page changes on the board", async () => {
    await at(hedda, "check");
    await measured(hedda);
    // a number on the Sheet leads to its tolerance
    await station(hedda, "Points");
    const printed = hedda.locator('aside[aria-label="Sheet"] [data-dimension]').filter({ hasText: "⌀20" });
    await printed.locator("text").first().click();
    const focused = () => hedda.evaluate(() => document.activeElement?.getAttribute("aria-label"));
    await expect.poll(focused).toBe("Upper tolerance of ⌀20");
    await alasdair.goto(`${BASE}/exercises/${plate}/sheet`);
    await alasdair.locator("[data-dimension]").first().waitFor({ timeout: 30_000 });
    await entered(hedda.getByLabel("Upper tolerance of ⌀20"), "0.1");
    await alasdair.getByText("⌀20 +0.1").first().waitFor({ timeout: 20_000 });
    await station(hedda, "Sheet");
    await entered(hedda.getByLabel("Notes on the Sheet"), "Break all edges.");
    await alasdair.locator("svg").getByText("Break all edges.").first().waitFor();
  }, 90_000);
});

describe.sequential("an exercise on a bad day", () => {
  it("what was changed without a connection outlives the page", async () => {
    await at(hedda, "part");
    await measured(hedda);
    await hedda.route("**/api/exercises/**", (r) => r.abort());
    await entered(hedda.getByLabel("Title", { exact: true }), "Kept plate");
    await hedda.getByText(/^Kept in this browser/).waitFor();
    await hedda.unroute("**/api/exercises/**");
    await at(hedda, "part");
    await hedda.getByRole("heading", { name: "Kept plate" }).waitFor();
    await expect.poll(async () => (await stands()).title).toBe("Kept plate");
  }, 60_000);

  it("goes by the keyboard alone, is small enough for a small screen, and stands in nobody's way", async () => {
    await hedda.setViewportSize({ width: 1024, height: 700 });
    for (const s of ["part", "sheet", "check", "points", "give"]) {
      await at(hedda, s);
      await hedda.getByRole("region").first().waitFor();
      const wide = await hedda.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect([s, wide]).toEqual([s, 0]);
      await isAccessible(hedda);
    }
    // 200 % of 1280: everything is there in one column
    await hedda.setViewportSize({ width: 640, height: 400 });
    await at(hedda, "points");
    await hedda.getByLabel("Points for Mass").scrollIntoViewIfNeeded();
    await hedda.setViewportSize({ width: 1280, height: 800 });
    await at(hedda, "part");
    await measured(hedda);
    const reach = async (name: RegExp) => {
      for (let i = 0; i < 40; i++) {
        await hedda.keyboard.press("Tab");
        const now = await hedda.evaluate(() => document.activeElement?.textContent ?? "");
        if (name.test(now)) return;
      }
      throw new Error(`Tab does not come to ${name}`);
    };
    await reach(/^Points/);
    await hedda.keyboard.press("Enter");
    await hedda.getByRole("region", { name: "Points", exact: true }).waitFor();
    await reach(/^More/);
    await hedda.keyboard.press("Enter");
    await hedda.getByText("Must be met, else nothing counts").waitFor();
  }, 120_000);

  it("a file that is none is refused in a sentence, a part takes the place of the reference", async () => {
    await at(hedda, "part");
    await measured(hedda);
    const file = hedda.getByLabel("Reference part (document), or a STEP file");
    await file.setInputFiles({ name: "notes.json", mimeType: "application/json", buffer: Buffer.from("{}") });
    await hedda.locator("[data-station]").getByRole("alert").waitFor();
    const thick = JSON.stringify(gaugePlate()).replace('"depth":12', '"depth":15');
    await file.setInputFiles({ name: "thick.json", mimeType: "application/json", buffer: Buffer.from(thick) });
    await hedda.getByText("thick.json is the reference part now.").waitFor();
    await hedda.getByText(/55.287\.6 mm³/).waitFor({ timeout: 60_000 });
    await hedda.getByRole("button", { name: "Undo" }).click();
    await hedda.getByText(/44.230\.1 mm³/).waitFor({ timeout: 60_000 });
    await unfold(hedda, "Hints");
    await type(hedda.getByLabel(/^One a line/), "Begin with the plate.");
    await hedda.getByLabel("Number").focus();
    await hedda.getByText("1 hint").waitFor();
  }, 150_000);
});

import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Locator, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { cut, extrude, hole, part, poly, sketch, face, circ } from "@/core/part/testing/build";
import { withSketchesDefined } from "@/core/sizes/numbers";
import { BASE, Hand, openBrowser, pictureOnFailure, visit, type, typeMoment, station, measured } from "./harness";

/** The lid of a junction box: a step, a window, and two holes sunk in. */
const lid = () =>
  withSketchesDefined(
    part(
      sketch("s", "front", poly([[0, 0], [70, 0], [70, 10], [45, 10], [45, 22], [0, 22]])),
      extrude("b", "s", 40),
      sketch("w", "top", circ(22, -20, 6)),
      cut("c", "w", "through"),
      hole("h", face("b/side/l3"), 6, [[57, -20]], { head: { kind: "counterbore", diameter: 11, depth: 4 } }),
    ),
  ); // prettier-ignore

let browser: Browser, teacher: Page, student: Page;
beforeAll(async () => {
  browser = await openBrowser();
  teacher = await visit(browser, "Hedda Lark");
  student = await visit(browser, "Linnea Holt");
});
beforeEach(pictureOnFailure(() => [teacher, student]));
afterAll(() => browser.close());

const size = (page: Page, text: string): Locator =>
  page
    .locator("[data-dimension]")
    .filter({ has: page.locator(`text:text-is("${text}")`) })
    .first();
const middle = async (l: Locator): Promise<[number, number]> => {
  const b = (await l.boundingBox())!;
  return [b.x + b.width / 2, b.y + b.height / 2];
};
const saved = () => teacher.getByRole("status").filter({ hasText: "Kept on the server at" }).waitFor();

describe.sequential("a Sheet from the reference to the student", () => {
  it("is laid out by the program, and two sizes are moved", async () => {
    await teacher.getByRole("link", { name: "New exercise" }).click();
    await teacher.waitForURL("**/exercises/new*");
    await type(teacher.getByLabel("Number"), "WS-31");
    await type(teacher.getByLabel("Title", { exact: true }), "Junction lid");
    const file = join(mkdtempSync(join(tmpdir(), "caliper-")), "lid.json");
    writeFileSync(file, JSON.stringify(lid()));
    await teacher.getByLabel("Reference part (document)").setInputFiles(file);
    await teacher.waitForURL(/exercises\/[0-9a-f-]{36}\?/);
    // it is measured first, beside whatever else the grading process has to do
    await teacher.getByRole("link", { name: "Arrange the Sheet" }).first().click({ timeout: 80_000 });
    await teacher.waitForURL("**/sheet");
    await size(teacher, "70").waitFor();
    const hand = new Hand(teacher);
    for (const [text, by] of [
      ["70", [0, 30]],
      ["40", [30, 0]],
    ] as const) {
      const before = await middle(size(teacher, text).locator("text"));
      await hand.drag(before, [before[0] + by[0], before[1] + by[1]]);
      await expect
        .poll(async () => {
          const now = await middle(size(teacher, text).locator("text"));
          return Math.hypot(now[0] - before[0], now[1] - before[1]);
        })
        .toBeGreaterThan(15);
    }
    await saved();
  });

  it("what the proof names is mended", async () => {
    await teacher.getByText("It says all there is to know, and nothing twice.").waitFor();
    const [x, y] = await middle(size(teacher, "22").locator("text"));
    await new Hand(teacher).click(x, y);
    await teacher.getByRole("region", { name: "Chosen size" }).getByText("22").waitFor();
    await teacher.keyboard.press("Delete");
    await teacher.getByTestId("open-points").waitFor();
    expect(await teacher.getByTestId("open-points").textContent()).toMatch(/Nobody can find/);
    // what moves with that number is shown in the views
    await teacher.getByTestId("open-points").locator("li").first().hover();
    expect(await teacher.locator(".shown").getAttribute("d")).toMatch(/^M.*M/);
    await teacher.getByRole("button", { name: "Add 22" }).click();
    await teacher.getByText("It says all there is to know, and nothing twice.").waitFor();
    await size(teacher, "22").waitFor();
    await saved();
  });

  it("a section is drawn along a line, undone and drawn again", async () => {
    const top = (await teacher.locator('[data-view="top"] > .patch').boundingBox())!;
    const views = teacher.locator("[data-view]"),
      before = await views.count();
    await teacher.keyboard.press("a");
    const y = top.y + top.height / 2;
    await new Hand(teacher).click(top.x + 4, y);
    await teacher.getByText("Click where it ends, or where it steps.").waitFor();
    await new Hand(teacher).click(top.x + top.width - 4, y);
    await teacher.getByText("Enter draws the section").waitFor();
    await teacher.keyboard.press("Enter");
    await teacher.getByText("B–B").waitFor();
    expect(await views.count()).toBe(before + 1);
    await teacher.keyboard.press("Control+z");
    await expect.poll(() => views.count()).toBe(before);
    await teacher.keyboard.press("Control+y");
    await teacher.getByText("B–B").waitFor();
    expect(await teacher.locator(".pen-hatch").count()).toBeGreaterThan(3);
  });

  it("a size is added by clicking two things, toleranced, and a remark is pinned", async () => {
    await teacher.keyboard.press("w");
    const top = (await teacher.locator('[data-view="top"] > .patch').boundingBox())!;
    const hand = new Hand(teacher);
    await hand.click(top.x + 4, top.y + top.height * 0.8);
    await teacher.getByText("Click the second thing").waitFor();
    await hand.click(top.x + top.width - 5, top.y + top.height * 0.8);
    // this one stands there already
    await teacher.getByRole("alert").getByText("This size stands on the Sheet already.").waitFor();
    const chosen = teacher.getByRole("region", { name: "Chosen size" });
    await type(chosen.getByLabel("Tolerance, upwards"), "0.2");
    await teacher.keyboard.press("Enter");
    await size(teacher, "70 ±0.2").waitFor();
    await teacher.keyboard.press("e");
    await hand.click(top.x + top.width * 0.3, top.y + top.height * 0.8);
    await teacher.getByText("Click where its words shall stand.").waitFor();
    await hand.click(top.x + top.width * 0.3 - 60, top.y + top.height + 40);
    await type(teacher.getByLabel("Words of the remark"), "This face is machined first");
    await teacher.keyboard.press("Enter");
    await teacher.locator("[data-remark]").getByText("This face is machined first").waitFor();
    await saved();
  });

  it("all of it outlives the page, goes into the handout, and prints", async () => {
    await teacher.reload();
    await size(teacher, "70 ±0.2").waitFor();
    await teacher.getByText("B–B").waitFor();
    await teacher.getByRole("link", { name: "Back" }).click();
    await teacher.waitForURL(/exercises\/[0-9a-f-]{36}$/);
    await teacher.getByRole("img", { name: "The Sheet" }).getByText("B–B").waitFor();
    const pdf = await teacher.request.get(`${teacher.url().replace("/exercises/", "/api/exercises/")}/sheet?as=pdf`);
    expect([pdf.status(), (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, "%PDF-"]);
    await measured(teacher);
    await station(teacher, "Give out");
    await typeMoment(teacher.getByLabel(/^Due,/), "2031-05-04T18:00");
    await teacher.getByRole("button", { name: "Make a handout" }).click();
    await teacher.waitForURL("**/handouts/*");
    const download = teacher.waitForEvent("download");
    await teacher.getByRole("button", { name: "PNG" }).click();
    expect((await download).suggestedFilename()).toBe("WS-31 Junction lid.png");
    await teacher.goto(`${BASE}/courses`);
    const all = await teacher.getByRole("link", { name: "All Sheets as one PDF" }).first().getAttribute("href");
    const book = await (await teacher.request.get(`${BASE}${all}`)).body();
    expect(book.toString("latin1").match(/\/Type \/Page\b/g)!.length).toBeGreaterThan(5);
  });

  it("the student reads it: looks closely, ticks a size off, lays the own part over it", async () => {
    await student.goto(`${BASE}/courses`);
    await student.getByRole("row", { name: /WS-31/ }).getByRole("link", { name: "Begin" }).click();
    await student.waitForURL("**/bench/*");
    const sheet = student.getByLabel("The Sheet");
    await sheet.getByText("B–B").waitFor();
    await sheet.getByText("This face is machined first").waitFor();
    const [x, y] = await middle(size(student, "22"));
    await student.mouse.move(x, y);
    await student.mouse.wheel(0, -400);
    const width = () => sheet.locator("svg.sheet").evaluate((s: SVGSVGElement) => s.viewBox.baseVal.width);
    await expect.poll(width).toBeLessThan(350);
    await size(student, "22").locator("text").click();
    expect(await size(student, "22").getAttribute("class")).toMatch(/used/);
    // what it measures lights up in the Sheet's own lines
    expect(await size(student, "22").locator(".light").getAttribute("d")).toMatch(/^M.*M/);
    await student.getByLabel("Match view").selectOption("over");
    await student.getByText("There is no part yet to lay over the Sheet.").waitFor();
  });
});

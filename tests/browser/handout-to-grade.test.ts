import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { stlOf } from "@/core/formats/stl";
import { writeStep } from "@/core/kernel/exchange";
import { meshOf } from "@/core/kernel/mesh";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { openNodeKernel } from "@/worker/kernel";
import { gaugePlate } from "./gauge-plate";
import {
  BASE,
  gauge,
  Hand,
  kept,
  openBrowser,
  pictureOnFailure,
  visit,
  type,
  typeMoment,
  station,
  unfold,
  measured,
} from "./harness";

let browser: Browser, teacher: Page, student: Page;
beforeAll(async () => {
  browser = await openBrowser();
  teacher = await visit(browser, "Hedda Lark");
  student = await visit(browser, "Linnea Holt");
});
beforeEach(pictureOnFailure(() => [teacher, student]));
afterAll(() => browser.close());

describe.sequential("from a handout to a graded part", () => {
  it("the instructor writes an exercise, brings the reference and issues it", async () => {
    await teacher.getByRole("link", { name: "New exercise" }).click();
    await teacher.waitForURL("**/exercises/new*");
    await type(teacher.getByLabel("Number"), "WS-21");
    await type(teacher.getByLabel("Title", { exact: true }), "Gauge plate");
    const file = join(mkdtempSync(join(tmpdir(), "caliper-")), "plate.json");
    writeFileSync(file, JSON.stringify(gaugePlate()));
    await teacher.getByLabel("Reference part (document)").setInputFiles(file);
    await teacher.waitForURL(/exercises\/[0-9a-f-]{36}\?at=part/);
    await type(teacher.getByLabel(/^Brief/), "The plate the rain gauge stands on.");
    await teacher.getByText(/44.230\.1 mm³/).waitFor({ timeout: 60_000 });
    await teacher.getByLabel("The Sheet").getByText("⌀20").first().waitFor();
    // nobody needs to look for what the drawing leaves open: it says all there is
    expect(await teacher.getByTestId("rank").textContent()).toBe("6 of 6");
    // a figure beside the part: its volume after one of its numbers has changed
    await station(teacher, "Check");
    await unfold(teacher, "Just the figure");
    await teacher.getByRole("button", { name: "Ask for a figure" }).click();
    await type(teacher.getByLabel(/Question 1, as the student reads it/), "Volume of the plate when it is 15 thick");
    await teacher.getByLabel("Asks for").selectOption("volume");
    await teacher.getByRole("button", { name: "After a change" }).click();
    await teacher.getByLabel(/Number 1 that question 1/).selectOption({ label: "2 · Extrude: depth (12 mm)" });
    await type(teacher.getByLabel("Its new value in question 1"), "15 mm");
    await teacher.keyboard.press("Enter");
    // 15 × (80 × 50 − π 10²)
    await expect
      .poll(() => teacher.locator("[data-question=q1]").textContent(), { timeout: 30_000 })
      .toMatch(/55.287\.6 mm³ ± 0\.5 %/);
    await station(teacher, "Points");
    await teacher.getByLabel("Add a line").selectOption("answers");
    await type(teacher.getByLabel("Points for Just the figure"), "2");
    await teacher.keyboard.press("Enter");
    await measured(teacher);
    await station(teacher, "Give out");
    await typeMoment(teacher.getByLabel(/^Due,/), "2031-05-04T18:00");
    await teacher.getByLabel("a STEP file", { exact: true }).check();
    await teacher.getByLabel("a mesh file (STL, 3MF)").check();
    await teacher.getByRole("button", { name: "Make a handout" }).click();
    await teacher.waitForURL("**/handouts/*");
    await teacher.getByRole("heading", { name: "WS-21 Gauge plate" }).waitFor();
    await teacher.getByRole("img", { name: "The Sheet" }).waitFor();
  });

  it("the student sketches a dimensioned rectangle with a hole placed by relations, fully defined", async () => {
    await student.reload();
    await student.getByRole("row", { name: /WS-21/ }).getByRole("link", { name: "Begin" }).click();
    await student.waitForURL("**/bench/*");
    const hand = new Hand(student);
    await student.getByRole("button", { name: /^Sketch/ }).click();
    await student.getByRole("button", { name: /^top/ }).click();
    await student.getByTestId("sketch").waitFor();
    const [x, y] = await hand.point("origin");
    await hand.key("e");
    await hand.click(x, y);
    await hand.click(x + 190, y - 120);
    await hand.freedoms(2);
    // the first size scales the rough sketch
    await hand.dimension([await hand.curve("l1")], [x + 90, y + 45], "=100-20");
    await hand.freedoms(1);
    await hand.key("Home");
    const right = await hand.curve("l2");
    await hand.dimension([right], [right[0] + 50, right[1]], "50 mm");
    await hand.freedoms(0);
    await hand.key("Home");
    // a diagonal, and a circle whose centre finds its midpoint
    await hand.key("w");
    await hand.click(...(await hand.point("l1.start")));
    await hand.click(...(await hand.point("l2.end")));
    await hand.key("Escape");
    await hand.key("Escape");
    const [a, b] = [await hand.point("l1.start"), await hand.point("l2.end")];
    const middle: [number, number] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    await hand.click(a[0] * 0.7 + b[0] * 0.3, a[1] * 0.7 + b[1] * 0.3);
    await hand.key("[");
    await hand.key("r");
    await student.mouse.move(middle[0] + 4, middle[1] + 3, { steps: 4 });
    expect(await student.getByTestId("found").textContent()).toBe("midpoint");
    await hand.click(middle[0] + 3, middle[1] + 2);
    await hand.click(middle[0] + 40, middle[1] + 20);
    await hand.freedoms(1);
    expect(await student.locator('[data-curve="c1"]').getAttribute("data-loose")).toBe("true");
    const circle = await student.locator('[data-curve="c1"] path').first().boundingBox();
    await hand.dimension(
      [[circle!.x + circle!.width, circle!.y + circle!.height / 2]],
      [middle[0] + 90, middle[1] + 60],
      "20",
    );
    await hand.freedoms(0);
    expect(await student.locator('[data-curve="c1"]').getAttribute("data-loose")).toBe("false");
    await expect.poll(() => gauge(student, "Sketches fully defined").textContent()).toBe("1 of 1");
    // sizes used tick themselves on the Sheet
    await expect.poll(() => gauge(student, "Printed sizes used").textContent()).not.toMatch(/^0 /);
    await hand.key("1");
  });

  it("extrudes with a live preview and hands in", async () => {
    const hand = new Hand(student);
    await hand.key("w");
    await type(student.getByLabel("Depth"), "1");
    await expect.poll(() => gauge(student, "Volume").textContent(), { timeout: 15_000 }).toMatch(/3.685\.8/);
    await type(student.getByLabel("Depth"), "12 mm");
    await expect.poll(() => gauge(student, "Volume").textContent()).toMatch(/44.230\.1/);
    await student.getByLabel("Depth").press("Enter");
    await student.getByRole("form", { name: "Extrude" }).waitFor({ state: "detached" });
    await kept(student);
    // each by what the part shows, whether it was typed in a sketch or in a card
    await expect.poll(() => gauge(student, "Printed sizes used").textContent(), { timeout: 15_000 }).toBe("6 of 6");
    // the Sheet is looked at closely, and the part laid over it
    const paper = student.getByLabel("The Sheet", { exact: true });
    const shown = () => paper.locator("svg").getAttribute("viewBox");
    const opened = await shown();
    await paper.hover();
    await student.mouse.wheel(0, -400);
    await expect.poll(shown).not.toBe(opened);
    // the paper, A4 lying
    await paper.press("0");
    await expect.poll(shown).toBe("0 0 297 210");
    await student.getByLabel("Match view").selectOption("over");
    await expect.poll(() => paper.locator(".matched path").count(), { timeout: 15_000 }).toBeGreaterThan(6);
    await student.getByLabel("Match view").selectOption("off");
    await expect.poll(() => paper.locator(".matched").count()).toBe(0);
    const handout = new URL(student.url()).pathname.split("/").pop()!;
    for (const [as, head] of [
      ["pdf", "%PDF-"],
      ["dxf", "0\nSECTION"],
      ["svg", "<svg"],
    ] as const) {
      const file = await student.request.get(`${BASE}/api/handouts/${handout}/sheet?as=${as}`);
      expect((await file.body()).subarray(0, head.length).toString("latin1")).toBe(head);
    }
    // what goes out is shown once more, and what is still open
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
    const goes = student.getByRole("dialog", { name: "Hand in" });
    await goes.getByText("1 of 1 figures are not typed yet.").waitFor();
    await goes.getByRole("button", { name: "Go on working" }).click();
    const figure = student.getByLabel("Just the figure").getByLabel("Volume of the plate when it is 15 thick");
    await type(figure, "55.3 mm");
    await student.getByText("“mm” is no unit of a volume.").waitFor();
    await type(figure, "55.3 cm³");
    // what was typed is there again after the window was closed
    await student.reload();
    await expect.poll(() => figure.inputValue()).toBe("55.3 cm³");
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
    await goes.getByRole("img", { name: "Your part as it stands" }).waitFor();
    await goes.getByText(/Nothing is left open/).waitFor();
    await goes.getByRole("button", { name: "Go on working" }).click();
    await goes.waitFor({ state: "detached" });
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
    await goes.getByRole("button", { name: "Hand in now" }).click();
    await student.waitForURL("**/submissions/*");
    // the page follows the check by itself
    await expect
      .poll(
        () =>
          student
            .getByTestId("points")
            .textContent({ timeout: 100 })
            .catch(() => ""),
        { timeout: 30_000 },
      )
      .toBe("27 / 27");
    await student.getByText("The figure is right.").waitFor();
    expect(await student.getByText("Every face is where the drawing puts it (7 of 7).").count()).toBe(1);
    // no target of the reference is told beyond what the Sheet prints
    expect(await student.content()).not.toContain("wanted");
  });

  it("the instructor opens the result", async () => {
    await teacher.getByRole("link", { name: "Linnea Holt" }).click();
    await teacher.waitForURL("**/submissions/*");
    expect(await teacher.getByTestId("points").textContent()).toBe("27 / 27");
    await teacher.getByText(/wanted 44.230\.1 mm³/).waitFor();
    await teacher.getByRole("tab", { name: "Reference" }).click();
    expect(await teacher.getByRole("tab", { name: "Reference" }).getAttribute("aria-selected")).toBe("true");
  });

  it("takes a STEP file from elsewhere with a hole too wide; the student reads which size is wrong", async () => {
    const kernel = await openNodeKernel();
    const plate = JSON.parse(JSON.stringify(gaugePlate()).replace('"value":20}', '"value":21}')) as PartDocument;
    const body = rebuild(kernel, plate).body!;
    const path = join(mkdtempSync(join(tmpdir(), "caliper-")), "plate.step");
    writeFileSync(path, writeStep(kernel, body, "plate"));
    kernel.release(body.shape);
    await student.getByRole("link", { name: /Bench/ }).click();
    await student.waitForURL("**/bench/*");
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
    const goes = student.getByRole("dialog", { name: "Hand in" });
    await goes.getByLabel(/Or hand in a STEP file/).setInputFiles(path);
    await goes.getByRole("button", { name: "Hand in plate.step" }).click();
    await student.waitForURL("**/submissions/*");
    await student
      .getByText(/The diameter of the hole ⌀20 is 21 mm, printed 20 mm/)
      .first()
      .waitFor({ timeout: 30_000 });
    await student.getByText("The hole ⌀20 is 1 mm too wide.").waitFor();
    await student.getByText("All 6 sizes").click();
    expect(await student.getByTestId("sizes").locator("tr[data-state=missed]").count()).toBe(1);
  });

  it("takes a mesh too, and shows the instructor where it lies off", async () => {
    const kernel = await openNodeKernel();
    const plate = JSON.parse(JSON.stringify(gaugePlate()).replace('"value":20}', '"value":21}')) as PartDocument;
    const body = rebuild(kernel, plate).body!;
    const path = join(mkdtempSync(join(tmpdir(), "caliper-")), "plate.stl");
    writeFileSync(path, stlOf(meshOf(kernel, body, 0.02, 0.2), "plate"));
    kernel.release(body.shape);
    await student.getByRole("link", { name: /Bench/ }).click();
    await student.waitForURL("**/bench/*");
    await student.getByRole("button", { name: "Hand in", exact: true }).click();
    const goes = student.getByRole("dialog", { name: "Hand in" });
    await goes.getByLabel(/Or hand in a STEP file/).setInputFiles(path);
    await goes.getByRole("button", { name: "Hand in plate.stl" }).click();
    await student.waitForURL("**/submissions/*");
    await student.getByText(/The hole ⌀20 is up to 0\.5\d* mm off\./).waitFor({ timeout: 30_000 });
    await teacher.goto(student.url());
    await teacher.getByRole("tab", { name: "Deviation" }).click();
    await expect
      .poll(() => teacher.getByTestId("deviation-scale").textContent(), { timeout: 20_000 })
      .toMatch(/too little.*too much.*largest 0\.5/);
  });

  it("keeps the reference from the student: another's work and the picture are not there for them", async () => {
    const own = new URL(student.url()).pathname.split("/").pop()!;
    expect((await student.request.get(`${BASE}/api/submissions/${own}/picture`)).status()).toBe(404);
    const nobodys = "submission:00000000-0000-4000-8000-000000000000";
    const answer = await student.request.get(`${BASE}/api/news?on=${nobodys}`);
    expect(answer.status()).toBe(404);
    expect(((await answer.json()) as { sentence: string }).sentence).toMatch(/nothing here for you/);
    expect(
      (await student.request.put(`${BASE}/api/works/not-an-id`, { data: { document: {}, version: 1 } })).status(),
    ).toBe(404);
  });
});

import { randomUUID } from "node:crypto";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Papa from "papaparse";
import type { Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Exercise } from "@/core/check/exercise/exercise";
import { withOwnNumbers, type OwnNumbers } from "@/core/check/exercise/own-numbers";
import type { PartDocument } from "@/core/part/document";
import { College } from "./college";
import { gaugePlate } from "./gauge-plate";
import { isAccessible, kept, pictureOnFailure, paste, type, typeMoment, station, unfold, measured } from "./harness";

/** Thirty in the long run: each comes in by a letter, opens the Bench and hands in. */
const STUDENTS = process.env["CALIPER_LONG"] ? 30 : 4;
const email = (i: number) => `s${i + 1}@college.example`;
const ROSTER = ["Full name;E-mail", ...Array.from({ length: 30 }, (_, i) => `Student ${i + 1};${email(i)}`)].join("\n");

const college = new College();
let administrator: Page, teacher: Page;
let course = "",
  exercise = "",
  handout = "";
beforeAll(async () => {
  await college.open(3470, 2);
  administrator = await college.begin("Wilfreda Moss", "moss@college.example");
}, 180_000);
afterAll(() => college.close());
beforeEach(pictureOnFailure(() => [teacher, college.page]));

/** The part of a student as they should build it. */
async function ownPart(who: string): Promise<PartDocument> {
  const [found] = await college.asked<{ exercise: Exercise; numbers: OwnNumbers }>(
    `select h.exercise, o.numbers from own_parts o join handouts h on h.id = o.handout_id
     join people p on p.id = o.person_id where o.handout_id = $1 and p.email = $2`,
    [handout, who],
  );
  const own = withOwnNumbers(found!.exercise, found!.numbers);
  if (!own.ok) throw new Error(own.refusal.sentence);
  return own.value.reference;
}

describe.sequential("a term, from an empty database", () => {
  it("a course of thirty comes by a list", async () => {
    const p = administrator;
    await p.goto(`${college.address}/administration`);
    await type(p.getByLabel("New course"), "Part Modelling 1");
    await type(p.getByLabel("Term"), "Autumn");
    await type(p.getByLabel("Time zone"), "Europe/London");
    await type(p.getByLabel("Its instructor’s email"), "lark@college.example");
    await p.getByRole("button", { name: "Make it" }).click();
    await p.getByText("A letter with a way in is on its way").waitFor();
    teacher = await college.comesIn(administrator, "lark@college.example");
    await teacher.getByRole("link", { name: "People", exact: true }).click();
    await teacher.waitForURL("**/people");
    course = new URL(teacher.url()).pathname.split("/")[2]!;
    await paste(teacher.getByLabel("Roster"), ROSTER);
    await teacher.getByRole("button", { name: "Look at it" }).click();
    await teacher.getByRole("button", { name: "Take 30 in" }).click();
    await teacher.getByText("30 came into the course").waitFor();
  });
  it("an exercise gets a reference, tags, a series and numbers that differ from student to student", async () => {
    await teacher.goto(`${college.address}/exercises/new?course=${course}`);
    await type(teacher.getByLabel("Number", { exact: true }), "T-01");
    await type(teacher.getByLabel("Title", { exact: true }), "Gauge plate");
    const file = join(mkdtempSync(join(tmpdir(), "caliper-")), "plate.json");
    writeFileSync(file, JSON.stringify(gaugePlate()));
    await teacher.getByLabel("Reference part (document)").setInputFiles(file);
    await teacher.waitForURL(/exercises\/[0-9a-f-]{36}\?/);
    exercise = new URL(teacher.url()).pathname.split("/")[2]!;
    await type(teacher.getByLabel(/^Material, from the table/), "Aluminium 6082");
    await teacher.keyboard.press("Enter");
    await expect.poll(() => teacher.getByLabel("Density").inputValue()).toBe("2.7");
    await teacher.getByRole("button", { name: "Undo" }).click();
    await expect.poll(() => teacher.getByLabel("Density").inputValue()).toBe("7.85");
    await unfold(teacher, "In the library");
    await type(teacher.getByLabel("Tags, with commas between"), "plate, hole, plate");
    await unfold(teacher, "Series");
    await type(teacher.getByLabel("Series, if it belongs to one"), "Plates");
    await teacher.keyboard.press("Enter");
    await measured(teacher);
    await station(teacher, "Check");
    await unfold(teacher, "Own numbers");
    const own = teacher.getByRole("group", { name: "Own numbers" });
    await own.waitFor({ timeout: 60_000 });
    const vary = async (label: RegExp, values: string) => {
      const choice = own.getByLabel("Let a number vary");
      const option = choice.locator("option").filter({ hasText: label });
      await choice.selectOption({ value: (await option.getAttribute("value"))! });
      await type(own.getByRole("textbox").last(), values);
      await teacher.keyboard.press("Enter");
    };
    await vary(/is 80 mm long/, "80; 80.01");
    await own.getByText(/the tolerance cannot tell apart/).waitFor();
    await type(own.getByRole("textbox").last(), "70 to 90 by 2");
    await teacher.keyboard.press("Enter");
    await vary(/has diameter 20 mm/, "16 to 22 by 1");
    await own.getByText("77 different parts").waitFor();
    await measured(teacher);
    await isAccessible(teacher);
  });
  it("issued, each has a Sheet of their own, proved and drawn", async () => {
    await teacher.goto(`${college.address}/exercises/${exercise}?at=give`);
    await measured(teacher);
    await typeMoment(teacher.getByLabel(/^Due, by the clock/), "2031-06-01T18:00");
    await teacher.getByText("Tries, practice and what students see").click();
    await type(teacher.getByLabel("Tries, empty: any number"), "3");
    await teacher.getByRole("button", { name: "Make a handout" }).click();
    await teacher.waitForURL("**/handouts/*");
    handout = new URL(teacher.url()).pathname.split("/")[2]!;
    // two grading processes, each in a folder of its own, take their share
    const holders = new Set<string>();
    const made = async () => {
      const [now] = await college.asked<{ n: number; holders: string[] }>(
        `select (select count(*)::int from own_parts where handout_id = $1 and state = 'ready') as n,
           array(select distinct locked_by from graphile_worker._private_jobs where locked_by is not null) as holders`,
        [handout],
      );
      now!.holders.forEach((h) => holders.add(h));
      return now!.n;
    };
    await expect.poll(made, { timeout: 120_000, interval: 100 }).toBe(30);
    expect(holders.size).toBeGreaterThanOrEqual(2);
    await teacher.reload();
    expect(await teacher.getByRole("row", { name: /Student \d+ .*\d · \d+ mm/ }).count()).toBe(30);
    await isAccessible(teacher);
  }, 150_000);
  it("students read their Sheets, build and hand in; one builds what the neighbour's says", async () => {
    for (let i = 0; i < STUDENTS; i++) {
      const p = await college.comesIn(administrator, email(i));
      const link = p.getByRole("row", { name: /Gauge plate/ }).getByRole("link", { name: "Begin" });
      const address = (await link.getAttribute("href"))!;
      await p.request.get(college.address + address);
      const mark = (await (await p.request.get(`${college.address}/api/works/${handout}`)).json()) as object;
      const document = await ownPart(email(i === 1 ? 0 : i));
      const put = await p.request.put(`${college.address}/api/works/${handout}`, {
        data: { ...mark, id: randomUUID(), window: "test", document },
      });
      expect(put.ok()).toBe(true);
      await link.click();
      await p.waitForURL("**/bench/*");
      await p.getByRole("toolbar").waitFor();
      await kept(p);
      await p.getByRole("button", { name: "Hand in", exact: true }).click();
      await p.getByRole("dialog", { name: "Hand in" }).getByRole("button", { name: "Hand in now" }).click();
      await p.waitForURL("**/submissions/*");
      await p.context().close();
    }
    const checked = () =>
      college
        .asked<{ n: number }>("select count(*)::int as n from checks where state = 'checked'")
        .then((r) => r[0]!.n);
    await expect.poll(checked, { timeout: 120_000 }).toBe(STUDENTS);
  }, 600_000);
  it("the desk shows each against their own numbers, and whose Sheet a copy was built from", async () => {
    await teacher.goto(`${college.address}/handouts/${handout}`);
    await teacher.getByRole("link", { name: "Student 2", exact: true }).click();
    await teacher.waitForURL("**/submissions/*");
    await teacher.getByText("Built to the numbers of Student 1’s Sheet").waitFor();
    await teacher.getByText("Own numbers", { exact: true }).waitFor();
    await teacher.getByRole("button", { name: "Return several" }).click();
    await teacher.getByRole("button", { name: /^Return all \d+ that are checked/ }).click();
    const returned = () => college.asked<{ n: number }>("select count(*)::int as n from returned").then((r) => r[0]!.n);
    await expect.poll(returned, { timeout: 20_000 }).toBe(STUDENTS);
    const student = await college.signedIn(email(1));
    await student
      .getByRole("row", { name: /Gauge plate/ })
      .getByRole("link", { name: /\/ 25/ })
      .click();
    await student.getByText("built to the numbers of another Sheet of your class").waitFor();
    await isAccessible(student);
  });
  it("the gradebook is exported", async () => {
    const csv = await (await teacher.request.get(`${college.address}/api/courses/${course}/gradebook?as=csv`)).text();
    const [head, ...body] = Papa.parse<string[]>(csv.replace(/^\uFEFF/, "")).data;
    expect(head![3]).toMatch(/^T-01 Gauge plate/);
    const points = new Map(body.map((r) => [r[0], r[3]]));
    expect(points.get("Student 1")).toBe("25");
    expect(Number(points.get("Student 2"))).toBeLessThan(25);
    expect(points.get("Student 30")).toBe(STUDENTS === 30 ? "25" : "");
  });
  it("the calendar shows when it is due, and the library finds it", async () => {
    await teacher.goto(`${college.address}/courses/${course}/calendar?month=2031-06`);
    await teacher.getByRole("link", { name: /due 18:00/ }).waitFor();
    await isAccessible(teacher);
    const file = await (await teacher.request.get(`${college.address}/api/courses/${course}/calendar`)).text();
    expect(file).toContain("SUMMARY:T-01 Gauge plate is due");
    await teacher.goto(`${college.address}/library`);
    await teacher.getByLabel("Tag", { exact: true }).selectOption("hole");
    await teacher.getByRole("button", { name: "Search" }).click();
    await teacher.getByRole("link", { name: "Gauge plate" }).waitFor();
    await isAccessible(teacher);
    await type(teacher.getByLabel(/^Search number/), "no such thing");
    await teacher.getByRole("button", { name: "Search" }).click();
    await teacher.getByText("Nothing is like that").waitFor();
  });
  it("what changed stands in the revisions, and an earlier one is brought back", async () => {
    await teacher.goto(`${college.address}/exercises/${exercise}?at=points`);
    await type(teacher.getByLabel("Points for Mass"), "3");
    await teacher.keyboard.press("Enter");
    await teacher.getByText(/^Kept on the server at/).waitFor();
    await station(teacher, "Part");
    await teacher.getByRole("link", { name: "Revisions" }).click();
    await teacher.getByText("The line “Mass” gave 4 points and gives 3 points.").waitFor();
    await isAccessible(teacher);
    await teacher.getByRole("button", { name: "Bring it back" }).first().click();
    await teacher.getByText("The line “Mass” gave 3 points and gives 4 points.").waitFor();
  });
  it("a package goes out and comes in again, and a damaged one is refused", async () => {
    const out = await teacher.request.get(`${college.address}/api/exercises/${exercise}/package`);
    const folder = mkdtempSync(join(tmpdir(), "caliper-"));
    const file = join(folder, "plate.zip");
    writeFileSync(file, await out.body());
    await teacher.goto(`${college.address}/library`);
    await teacher.getByLabel(/^A package/).setInputFiles(file);
    await teacher.getByRole("button", { name: "Bring it in" }).click();
    await teacher.getByText("1 exercise is in the course now.").waitFor();
    const bad = join(folder, "bad.zip");
    writeFileSync(bad, (await out.body()).subarray(0, 200));
    await teacher.getByLabel(/^A package/).setInputFiles(bad);
    await teacher.getByRole("button", { name: "Bring it in" }).click();
    await teacher.getByText("This file is damaged").waitFor();
  });
  it("copied to a new term the course has its exercises, series and rules", async () => {
    await teacher.goto(`${college.address}/courses/${course}/people`);
    await type(teacher.getByLabel("New term"), "Spring");
    await teacher.getByRole("button", { name: "Copy the course" }).click();
    await teacher.getByText("There is a course for Spring now").waitFor();
    const spring = teacher.getByRole("heading", { name: /Part Modelling 1.*Spring/ });
    await teacher.goto(`${college.address}/courses`);
    await spring.waitFor();
    await teacher.locator("section").filter({ has: spring }).getByRole("link", { name: /T-01/ }).first().click();
    await teacher.waitForURL("**/exercises/*");
    await station(teacher, "Part");
    await unfold(teacher, "Series");
    expect(await teacher.getByLabel("Series, if it belongs to one").inputValue()).toBe("Plates");
    await measured(teacher);
    await station(teacher, "Check");
    await unfold(teacher, "Own numbers");
    await teacher.getByText("77 different parts").waitFor();
    await station(teacher, "Give out");
    expect(await teacher.getByLabel("Tries, empty: any number").inputValue()).toBe("3");
  });
  it("a follow-on begins with the student's own part", async () => {
    await teacher.goto(`${college.address}/exercises/${exercise}?at=part`);
    await unfold(teacher, "A follow-on: the same part, one size changed");
    const form = teacher.getByRole("form", { name: "Follow-on" });
    const option = form.locator("option").filter({ hasText: /depth/ });
    await form.getByLabel("What changes").selectOption({ value: (await option.getAttribute("value"))! });
    await type(form.getByLabel("is next"), "15");
    await form.getByRole("button", { name: "Make it" }).click();
    await teacher.waitForURL((u) => !u.pathname.endsWith(exercise));
    await teacher.getByRole("heading", { name: "T-01b Gauge plate, changed" }).waitFor();
    await measured(teacher);
    await station(teacher, "Give out");
    await typeMoment(teacher.getByLabel(/^Due, by the clock/), "2031-07-01T18:00");
    await teacher.getByRole("button", { name: "Make a handout" }).click();
    await teacher.waitForURL("**/handouts/*");
    const p = await college.signedIn(email(0));
    await p.getByRole("row", { name: /T-01b/ }).getByRole("link", { name: "Begin" }).click();
    await p.waitForURL("**/bench/*");
    await p.getByRole("button", { name: /^Suppress step 2/ }).waitFor();
  });
});

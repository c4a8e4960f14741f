// Takes one picture of each main view from the demo data into docs/screenshots. Starts what it needs by itself.
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium as browserPath, ensureModules, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

ensureSystem({ browser: true });
ensureModules();
process.chdir(ROOT);
const { build, closing, runProgram, startWeb, startWorker } = await import("./application.mjs");
const { chromium } = await import("playwright-core");
const stops = [];
const close = closing(stops);
const folder = join(ROOT, "docs/screenshots");
mkdirSync(folder, { recursive: true });
try {
  const postgres = await startPostgres("screenshots", { fresh: true, wishedPort: 54_520 });
  stops.push(postgres.stop);
  const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
  build();
  runProgram("src/demo/load.ts", env);
  await startWorker(env, { quiet: true });
  const web = await startWeb(env, 3_500, { quiet: true });
  const browser = await chromium.launch({
    executablePath: browserPath(),
    args: [
      "--no-sandbox",
      "--use-gl=angle",
      "--use-angle=swiftshader",
      "--enable-unsafe-swiftshader",
      "--disable-background-networking",
      "--no-first-run",
    ],
  });
  const visit = async (name, options = {}) => {
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce", ...options })
    ).newPage();
    await page.goto(web.address);
    if (name) {
      await page.getByRole("button", { name }).click();
      await page.waitForURL("**/courses");
    }
    return page;
  };
  const shot = async (page, name) => {
    await page.waitForTimeout(700);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const first = await visit();
  await shot(first, "sign-in");

  const caretaker = await visit("Wystan Grebe");
  await caretaker.goto(`${web.address}/running`);
  await shot(caretaker, "running");

  const teacher = await visit("Hedda Lark");
  await teacher.getByRole("link", { name: "People", exact: true }).click();
  await teacher.waitForURL("**/people");
  await shot(teacher, "people");
  await teacher.goto(`${web.address}/courses`);
  await teacher.getByRole("link", { name: "Tripod foot" }).first().click();
  await teacher.waitForURL("**/handouts/*");
  // every check done before anything is shown
  await teacher.waitForFunction(
    () => !document.querySelector(".loading") && document.querySelectorAll("tbody tr").length === 7,
    undefined,
    { timeout: 120_000 },
  );
  await shot(teacher, "handout");
  // one printed size is missed: the place, the line, and what is said of it
  await teacher.goto(`${web.address}/courses`);
  await teacher.getByRole("link", { name: "Gland plate" }).first().click();
  await teacher.waitForURL("**/handouts/*");
  await teacher.getByRole("link", { name: "To the Marking desk" }).click();
  await teacher.waitForURL("**/submissions/*");
  await teacher.getByText(/placed by|right form/).waitFor();
  await teacher.waitForTimeout(1500);
  await teacher.keyboard.press("ArrowDown");
  await teacher.getByLabel("Rubric").getByRole("heading", { name: "Ottoline Marsh" }).waitFor();
  await teacher.keyboard.press("6");
  await shot(teacher, "marking-desk");
  await teacher.goto(`${web.address}/courses`);
  await teacher.getByRole("link", { name: "Tripod foot" }).first().click();
  await teacher.waitForURL("**/handouts/*");
  await teacher.getByRole("link", { name: "Class view" }).click();
  await teacher.waitForURL("**/class");
  await teacher.locator(".recharts-bar-rectangle").first().waitFor();
  await shot(teacher, "class-view");
  await teacher.goto(`${web.address}/courses`);
  await teacher.getByRole("link", { name: "Gradebook" }).first().click();
  await teacher.waitForURL("**/gradebook");
  await shot(teacher, "gradebook");
  await teacher.goto(`${web.address}/courses`);
  await shot(teacher, "courses");
  await teacher.getByRole("link", { name: /WS-05/ }).click();
  await teacher.waitForURL("**/exercises/*");
  await teacher
    .getByRole("navigation", { name: "Stations" })
    .getByRole("button", { name: /^Points/ })
    .click();
  // the rubric is tried by itself
  await teacher.getByText(/one slip costs/).waitFor({ timeout: 120_000 });
  await shot(teacher, "exercise");
  await teacher.goto(`${web.address}/courses`);
  await teacher.getByRole("link", { name: /WS-09/ }).click();
  await teacher.getByRole("link", { name: "Arrange the Sheet" }).first().click();
  await teacher.waitForURL("**/sheet");
  await teacher.getByRole("region", { name: "Views" }).waitFor();
  await teacher.getByText("It says all there is to know").waitFor({ timeout: 60_000 });
  await shot(teacher, "drawing-board");

  const second = await visit("Alasdair Finch");
  await second.getByRole("link", { name: "All exercises" }).click();
  await second.waitForURL("**/library");
  await shot(second, "library");
  await second.goto(`${web.address}/courses`);
  await second.getByRole("link", { name: "Spacer of one's own" }).first().click();
  await second.waitForURL("**/handouts/*");
  await second.waitForFunction(() => !document.querySelector(".loading"), undefined, { timeout: 120_000 });
  await shot(second, "own-numbers");

  const student = await visit("Idris Fenwick");
  await student.getByRole("row", { name: /WS-08/ }).getByRole("link", { name: "Go on" }).click();
  await student.locator("[data-gauge=Volume]", { hasText: "mm³" }).waitFor({ timeout: 30_000 });
  await shot(student, "bench-solid");
  await student.getByRole("button", { name: /^Sketch on front/ }).click();
  await student.getByTestId("sketch").waitFor();
  await shot(student, "bench-sketch-loose");
  await student.keyboard.press("2");
  await student.getByRole("list", { name: "Proposals" }).waitFor();
  await shot(student, "bench-define-rest");
  await student.keyboard.press("Escape");
  await student.keyboard.press("1");
  await student.getByRole("button", { name: /^Extrude Add/ }).click();
  await student.getByRole("form", { name: "Extrude" }).waitFor();
  await shot(student, "bench-extrude");
  // solids: a hub looked into and measured, and one of its holes at work
  const builder = await visit("Barnaby Teal");
  await builder.getByRole("row", { name: /WS-02/ }).getByRole("link", { name: "Go on" }).click();
  await builder.locator("[data-gauge=Volume]", { hasText: "mm³" }).waitFor({ timeout: 30_000 });
  await builder.waitForTimeout(1000);
  await builder.getByRole("button", { name: /^Hole counterbored/ }).click();
  await builder.getByRole("form", { name: "Hole" }).waitFor();
  await builder.waitForTimeout(1500);
  await shot(builder, "bench-hole");
  const reader = await visit("Casimir Dunn");
  await reader.getByRole("row", { name: /WS-10/ }).getByRole("link", { name: /\// }).click();
  await reader.getByTestId("points").waitFor();
  await reader.getByText("here", { exact: true }).waitFor();
  await shot(reader, "student-result");

  const night = await visit("Ottoline Marsh", { colorScheme: "dark" });
  await night.getByRole("row", { name: /WS-05/ }).getByRole("link", { name: "Go on" }).click();
  await night.locator("[data-gauge=Volume]", { hasText: "in³" }).waitFor({ timeout: 30_000 });
  await shot(night, "bench-dark-inches");
  await browser.close();
} catch (e) {
  console.error(e instanceof Error ? e.stack : e);
  process.exitCode = 1;
}
await close();
process.exit();

import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, it } from "vitest";
import { BASE, isAccessible, openBrowser, pictureOnFailure, visit } from "./harness";

let browser: Browser, page: Page;
beforeAll(async () => {
  browser = await openBrowser();
});
afterAll(() => browser.close());
beforeEach(pictureOnFailure(() => [page]));

/** Goes to the first link of a kind on the page that is open. */
async function follow(p: Page, kind: string): Promise<void> {
  await p.goto(BASE + (await p.locator(`a[href^="/${kind}/"]`).first().getAttribute("href"))!);
}
const courses = (p: Page) => p.goto(`${BASE}/courses`);

/** Every page is looked through twice, and slowly. */
const PATIENCE = { timeout: 240_000 };

describe("nothing serious stands in anybody's way, in both themes", PATIENCE, () => {
  it("at the door and for who looks after the server", async () => {
    page = await visit(browser, "Wystan Grebe");
    for (const path of ["/courses", "/running", "/administration", "/account", "/no-such-page"]) {
      await page.goto(BASE + path);
      await isAccessible(page);
    }
    await page.context().clearCookies();
    await page.goto(BASE);
    await isAccessible(page);
  });
  it("for an instructor", async () => {
    page = await visit(browser, "Hedda Lark");
    await isAccessible(page);
    for (const kind of ["courses", "handouts", "exercises"]) {
      await courses(page);
      await follow(page, kind);
      await isAccessible(page);
    }
    const exercise = page.url();
    await page.goto(`${exercise}/bench`);
    await page.getByRole("img", { name: "Model" }).or(page.locator("[aria-label=Model]")).first().waitFor();
    await isAccessible(page);
    await page.goto(`${exercise}/sheet`);
    await page.locator("[data-dimension]").first().waitFor();
    await page.locator("[data-dimension] text").first().click();
    await page.getByRole("region", { name: "Chosen size" }).waitFor();
    await isAccessible(page);
    await courses(page);
    const course = (await page.locator('a[href$="/gradebook"]').first().getAttribute("href"))!;
    await page.goto(`${BASE}${course.replace("gradebook", "people")}`);
    await isAccessible(page);
    await courses(page);
    await page.getByRole("link", { name: "Counterweight" }).first().click();
    await page.waitForURL("**/handouts/*");
    const handout = page.url();
    for (const end of ["class", "live", "second-check"]) {
      await page.goto(`${handout}/${end}`);
      await isAccessible(page);
    }
    await page.goto(handout);
    await follow(page, "submissions");
    await page.locator("canvas").first().waitFor();
    await isAccessible(page);
  });
  it("for a student", async () => {
    page = await visit(browser, "Ottoline Marsh");
    await isAccessible(page);
    await follow(page, "bench");
    await page.locator("[aria-label=Model]").first().waitFor();
    await isAccessible(page);
    await courses(page);
    await follow(page, "submissions");
    await isAccessible(page);
  });
});

import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Browser, BrowserContext, Page } from "playwright-core";
import { circ, cut, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { BASE, kept, openBench, openBrowser, pictureOnFailure, type } from "./harness";

const plate = part(
  sketch("s", "top", rect(0, 0, 60, 40)),
  extrude("b", "s", 10),
  sketch("t", "top", circ(20, 20, 6)),
  cut("c", "t", "through"),
);

let browser: Browser, page: Page, context: BrowserContext;
beforeAll(async () => {
  browser = await openBrowser();
});
afterAll(() => browser.close());
beforeEach(pictureOnFailure(() => [page]));
beforeEach(async () => {
  await context?.close();
  page = (await openBench(browser, "Casimir Dunn", /WS-04/, plate)).page;
  context = page.context();
  await steps(page).nth(3).waitFor();
});

const steps = (p: Page) => p.getByRole("button", { name: /^(Suppress|Take up) step/ });
/** A change that is seen: a step is left out, or taken up again. */
const leaveOut = (n: number, p = page) => p.getByRole("button", { name: `Suppress step ${n}` }).click({ force: true });
const isLeftOut = (n: number, p = page) => p.getByRole("button", { name: `Take up step ${n}` }).waitFor();
const status = (p = page) => p.getByRole("status").first();
/** The same Bench in another tab of the same browser. */
const again = async (): Promise<Page> => {
  const other = await context.newPage();
  other.setDefaultTimeout(20_000);
  await other.goto(page.url());
  await steps(other).nth(3).waitFor();
  return other;
};

describe("a change", () => {
  it("is kept here without connection, says so, and goes to the server when there is one", async () => {
    await context.setOffline(true);
    await leaveOut(4);
    await expect.poll(() => status().textContent()).toMatch(/^Kept in this browser/);
    await context.setOffline(false);
    await kept(page);
    await page.reload();
    await isLeftOut(4);
  });
  describe("is kept on the page when there is news", () => {
    beforeEach(async () => {
      // news that comes through although nothing else does: the page is to be fetched anew
      await context.addInitScript(() => {
        window.EventSource = class {
          onmessage: ((e: { data: string }) => void) | undefined;
          readonly readyState = 1;
          private readonly timer = setInterval(() => this.onmessage?.({ data: "handout" }), 300);
          close() {
            clearInterval(this.timer);
          }
        } as never;
      });
      page = await again();
    });
    const isStillThere = async () => {
      await leaveOut(4);
      await expect.poll(() => status().textContent()).toMatch(/^Kept in this browser/);
      await context.setOffline(false);
      await page.unroute("**/*");
      await kept(page);
    };
    it("without connection", async () => {
      const failed = page.waitForEvent("requestfailed", { timeout: 20_000 });
      await context.setOffline(true);
      await failed;
      await page.waitForTimeout(1500);
      await isStillThere();
    });
    it("and the connection goes while the page is being fetched anew", async () => {
      const cut = new Promise<void>((resolve) => {
        void page.route("**/*", async (route) => {
          const headers = route.request().headers();
          if (!headers["rsc"] || headers["next-router-prefetch"]) return route.fallback();
          await context.setOffline(true);
          // without a connection the browser may have given the request up by itself
          await route.abort().catch(() => undefined);
          resolve();
        });
      });
      await cut;
      await page.waitForTimeout(1500);
      await isStillThere();
    });
    it("and a proxy answers just when the page is being fetched anew", async () => {
      const asked = new Promise<void>((resolve) => {
        void page.route("**/*", async (route) => {
          if (!route.request().headers()["rsc"]) return route.fallback();
          await route.fulfill({ status: 502, body: "Bad gateway" });
          resolve();
        });
      });
      await asked;
      await page.waitForTimeout(1500);
      await leaveOut(4);
      await page.unroute("**/*");
      await kept(page);
    });
    it("and a proxy answers for a server that is away", async () => {
      const asked = new Promise<void>((resolve) => {
        void page.route("**/*", async (route) => {
          await route.fulfill({ status: 502, body: "Bad gateway" });
          resolve();
        });
      });
      await asked;
      await page.waitForTimeout(1500);
      await isStillThere();
    });
  });
  it("made without connection outlives the closed window", async () => {
    await context.setOffline(true);
    await leaveOut(4);
    await expect.poll(() => status().textContent()).toMatch(/^Kept in this browser/);
    await page.close({ runBeforeUnload: false });
    await context.setOffline(false);
    page = await again();
    await isLeftOut(4);
    await kept(page);
  });
  it("is kept at the server's time, whatever the clock of the browser says", async () => {
    await context.addInitScript(() => {
      const own = Date.now;
      Date.now = () => own() + 3_600_000;
    });
    page = await again();
    await leaveOut(4);
    await kept(page);
    const told = /(\d\d):(\d\d)/.exec((await status().textContent())!)!;
    const minutes = Number(told[1]) * 60 + Number(told[2]);
    const now = new Date();
    const off = Math.abs(minutes - (now.getHours() * 60 + now.getMinutes()));
    expect(Math.min(off, 1440 - off)).toBeLessThanOrEqual(1);
  });
  it("on its slow way when the window closes is not lost", async () => {
    await page.route("**/api/works/*", async (route) => {
      await new Promise((r) => setTimeout(r, 30_000));
      await route.abort().catch(() => {});
    });
    await leaveOut(3);
    await expect.poll(() => status().textContent()).toMatch(/^Being sent/);
    const other = await context.newPage();
    const address = page.url();
    await page.close({ runBeforeUnload: false });
    page = other;
    await page.goto(address);
    await isLeftOut(3);
    await kept(page);
  });
  it("whose answer was lost goes on as if nothing had been", async () => {
    let cut = 0;
    await page.route("**/api/works/*", async (route) => {
      if (route.request().method() !== "PUT" || cut++) return route.continue();
      await route.fetch();
      await route.abort();
    });
    await leaveOut(4);
    await kept(page);
    await leaveOut(3);
    await kept(page);
    expect(cut).toBeGreaterThanOrEqual(3);
    await page.reload();
    await isLeftOut(3);
    await isLeftOut(4);
  });
  it("the server refuses for good is told with what to do, and nothing here is lost", async () => {
    await page.route("**/api/works/*", (route) =>
      route.request().method() === "PUT"
        ? route.fulfill({
            status: 413,
            contentType: "application/json",
            body: '{"sentence":"This is larger than 2 MB."}',
          })
        : route.continue(),
    );
    await leaveOut(4);
    await expect.poll(() => status().textContent()).toMatch(/larger than 2 MB.*server has what stood before/);
    await page.unroute("**/api/works/*");
    await leaveOut(3);
    await kept(page);
  });
});

describe("two windows", () => {
  it("the earlier is told as soon as the later has saved, and keeps what it had as a copy", async () => {
    const other = await again();
    await leaveOut(4, other);
    await kept(other);
    await page.bringToFront();
    await expect.poll(() => status().textContent()).toMatch(/changed in another window/);
    // it reads only
    await leaveOut(3);
    await page.getByText("Here it can be read only").first().waitFor();
    expect(await page.getByRole("button", { name: "Take up step 3" }).count()).toBe(0);
    await page.getByRole("button", { name: "Keep mine as a copy" }).click();
    await page.getByRole("button", { name: "Kept in the history" }).waitFor();
    await page.getByRole("button", { name: "Take theirs" }).click();
    await isLeftOut(4);
    await page.getByRole("button", { name: "History" }).click();
    await page.getByRole("list", { name: "Versions" }).getByText("From another window").first().waitFor();
  });
  it("somebody else who signs in in this browser does not get the work", async () => {
    const other = await context.newPage();
    await other.goto(BASE);
    await other.goto(`${BASE}/courses`);
    await other.getByRole("button", { name: "Sign out" }).click();
    await other.getByRole("button", { name: "Barnaby Teal" }).click();
    await other.waitForURL("**/courses");
    await page.bringToFront();
    await leaveOut(4);
    await expect.poll(() => status().textContent()).toMatch(/Barnaby Teal is signed in/);
  });
});

describe("the history", () => {
  it("a version is named, gone away from, compared and restored", async () => {
    await page.getByRole("button", { name: "History" }).click();
    const card = page.getByRole("dialog", { name: "History" });
    await type(card.getByLabel("Name of the version or variant"), "with the hole");
    await card.getByRole("button", { name: "Name this version" }).click();
    const row = card.getByRole("listitem").filter({ hasText: "with the hole" }).first();
    await row.waitFor();
    await page.keyboard.press("Escape");
    await leaveOut(4);
    await kept(page);
    await page.getByRole("button", { name: "History" }).click();
    await row.getByRole("button", { name: "Compare" }).click();
    await card
      .getByRole("table", { name: "Differences" })
      .getByText(/^step 4/)
      .waitFor();
    await row.getByRole("button", { name: "Restore" }).click();
    await page.getByRole("button", { name: "Suppress step 4" }).waitFor();
    await card.getByText("Before an older one was restored").first().waitFor();
  });
  it("a variant is branched off and gone back from", async () => {
    const name = `Other way ${Date.now() % 100_000}`;
    await page.getByRole("button", { name: "History" }).click();
    const card = page.getByRole("dialog", { name: "History" });
    await type(card.getByLabel("Name of the version or variant"), name);
    await card.getByRole("button", { name: "Branch off a variant" }).click();
    await card.getByRole("button", { name, pressed: true }).waitFor();
    await page.keyboard.press("Escape");
    await leaveOut(3);
    await kept(page);
    await page.getByRole("button", { name: "History" }).click();
    await card.getByRole("group", { name: "Variants" }).getByRole("button", { pressed: false }).first().click();
    await page.getByRole("button", { name: "Suppress step 3" }).waitFor();
  });
});

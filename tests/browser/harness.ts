import AxeBuilder from "@axe-core/playwright";
import { randomUUID } from "node:crypto";
import { writeFileSync } from "node:fs";
import type { Exercise } from "@/core/check/exercise/exercise";
import { emptyPart, type PartDocument } from "@/core/part/document";
import { chromium, type Browser, type Locator, type Page } from "playwright-core";
import { expect, type TestContext } from "vitest";
import { COOKIE } from "@/app/cookie";
import { one } from "@/server/database";
import { openSession } from "@/server/people/people";

export const BASE = process.env["CALIPER_URL"] ?? "http://127.0.0.1:3000";

const ARGS = [
  "--no-sandbox",
  "--use-gl=angle",
  "--use-angle=swiftshader",
  "--enable-unsafe-swiftshader",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--no-first-run",
  // there is no graphics card: a page painted without pretending one takes a sixth of the processor time
  "--disable-gpu-rasterization",
  "--disable-gpu-compositing",
  // each window compiles the kernel anew: the second compiler would work beside the tests all the time
  "--js-flags=--liftoff-only",
];

export const openBrowser = (): Promise<Browser> =>
  chromium.launch({ executablePath: process.env["CHROMIUM_PATH"] ?? "/usr/bin/chromium", args: ARGS });

/**
 * Types into a field as a hand does: clicks into it unless it has the keys already, takes what stands there, and types
 * key by key; what then stands in it must be what was typed.
 */
export async function type(field: Locator, text: string): Promise<void> {
  if (!(await field.evaluate((el) => el === document.activeElement))) await field.click();
  await field.press("Control+a");
  if (text) await field.pressSequentially(text);
  else await field.press("Delete");
  expect(await field.inputValue()).toBe(text);
}

/** A date and time as they are typed into the browser's own field: month, day, year, hour, minute, half of the day. */
export async function typeMoment(field: Locator, iso: string): Promise<void> {
  const [, year, month, day, hour, minute] = /^(\d+)-(\d+)-(\d+)T(\d+):(\d+)$/.exec(iso)!;
  const half = Number(hour) < 12 ? "AM" : "PM";
  const twelve = String(((Number(hour) + 11) % 12) + 1).padStart(2, "0");
  await field.focus();
  await field.pressSequentially(`${month}${day}${year}`);
  await field.press("Tab");
  await field.pressSequentially(`${twelve}${minute}${half}`);
  expect(await field.inputValue()).toBe(iso);
}

/** Puts a whole list or a long text into a field, as it is pasted. */
export async function paste(field: Locator, text: string): Promise<void> {
  // eslint-disable-next-line no-restricted-syntax -- pasting is what this is
  await field.fill(text);
}

const complaints = new WeakMap<Page, string[]>();

/** A new visitor with a window of their own, signed in as a demo person. Errors in the page fail the test. */
export async function visit(browser: Browser, name: string): Promise<Page> {
  const page = await newWindow(browser);
  await page.goto(BASE);
  await page.getByRole("button", { name }).click();
  await page.waitForURL("**/courses");
  return page;
}

/** The same for somebody who is no demo person: their session is opened beside the door. */
export async function enterAs(browser: Browser, personId: string): Promise<Page> {
  const page = await newWindow(browser);
  const { token } = await openSession(personId, "test");
  await page.context().addCookies([{ name: COOKIE, value: token, url: BASE }]);
  return page;
}

async function newWindow(browser: Browser): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    // painted on the processor: half the dots each way cost a quarter, and a hand sees no difference
    deviceScaleFactor: 0.5,
    reducedMotion: "reduce",
  });
  const page = await context.newPage();
  page.setDefaultTimeout(20_000);
  page.on("pageerror", (e) => {
    throw e;
  });
  // what a failed page complained of is told with its picture
  const said: string[] = [];
  complaints.set(page, said);
  page.on("console", (m) => m.type() === "error" && said.push(m.text().slice(0, 2000)));
  return page;
}

/** Drawing by hand: real mouse and keys over the sketch. */
export class Hand {
  constructor(readonly page: Page) {}

  async click(x: number, y: number): Promise<void> {
    await this.page.mouse.move(x - 3, y - 2);
    await this.page.mouse.move(x, y);
    await this.page.mouse.down();
    await this.page.mouse.up();
    await this.settled();
  }
  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.page.mouse.move(...from);
    await this.page.mouse.down();
    await this.page.mouse.move((from[0] + to[0]) / 2, (from[1] + to[1]) / 2, { steps: 6 });
    await this.page.mouse.move(...to, { steps: 6 });
    await this.page.mouse.up();
    await this.settled();
  }
  async key(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    await this.settled();
  }
  /** The drawing follows a change in the next frames. */
  async settled(): Promise<void> {
    await this.page.evaluate(
      () => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(r, 4)))),
    );
  }
  /** Keys one after the other: a tool, and its key again for another way of it. */
  async keys(keys: string): Promise<void> {
    for (const k of keys.split(" ")) await this.key(k);
  }
  /** A new sketch from the solid, looked at straight. */
  async sketchOn(plane: string): Promise<void> {
    await this.key("q");
    await this.page.getByRole("button", { name: new RegExp(`^${plane}`) }).click();
    await this.page.getByTestId("sketch").waitFor();
    await this.still();
  }
  /** Clicks at places from the origin, in pixels: right and up. */
  async places(...list: readonly (readonly [number, number])[]): Promise<void> {
    const [x, y] = await this.point("origin");
    for (const [i, j] of list) await this.click(x + i, y - j);
  }
  async pick(...refs: readonly string[]): Promise<void> {
    for (const r of refs)
      await this.click(
        ...(r === "x-axis" || r === "y-axis" || r.includes(".") || r === "origin" || /^p\d/.test(r)
          ? await this.at(r)
          : await this.on(r)),
      );
  }
  /** A point, or a place on an axis off the origin. */
  private async at(ref: string): Promise<[number, number]> {
    if (!ref.endsWith("-axis")) return this.point(ref);
    const [x, y] = await this.point("origin");
    return ref === "x-axis" ? [x - 215, y] : [x, y + 215];
  }
  /** A place on a curve, a third along its drawn path. */
  async on(id: string, share = 0.37): Promise<[number, number]> {
    await this.settled();
    return this.page
      .locator(`[data-curve="${id}"] path`)
      .last()
      .evaluate((el, t) => {
        const path = el as SVGPathElement,
          p = path.getPointAtLength(path.getTotalLength() * t),
          box = path.ownerSVGElement!.getBoundingClientRect();
        return [box.left + p.x, box.top + p.y];
      }, share);
  }
  /** The view has come to rest. */
  async still(): Promise<void> {
    const at = async () => JSON.stringify(await this.point("origin"));
    for (let before = "", now = await at(); before !== now; now = await at()) before = now;
  }
  /** Where a place in space (mm) stands on screen while the solid is looked at. */
  async space(x: number, y: number, z: number): Promise<[number, number]> {
    const layer = this.page.locator("[data-camera]"),
      box = (await layer.boundingBox())!;
    const [target, right, up, scale] = JSON.parse((await layer.getAttribute("data-camera"))!) as [
      number[],
      number[],
      number[],
      number,
    ];
    const d = [x, y, z].map((v, i) => v - target[i]!),
      along = (u: number[]) => d[0]! * u[0]! + d[1]! * u[1]! + d[2]! * u[2]!;
    return [box.x + box.width / 2 + along(right) * scale, box.y + box.height / 2 - along(up) * scale];
  }
  /** Clicks on the solid at a place in space, once what is meant shows under the pointer. */
  async touch(
    at: readonly [number, number, number],
    meant: RegExp | string,
    keys: "Shift" | undefined = undefined,
  ): Promise<void> {
    const layer = this.page.getByTestId("solid");
    await expect
      .poll(
        async () => {
          const [x, y] = await this.space(...at);
          await this.page.mouse.move(x - 2, y - 1);
          await this.page.mouse.move(x, y);
          await this.settled();
          return layer.getAttribute("data-hover");
        },
        { timeout: 15_000 },
      )
      .toMatch(meant);
    if (keys) await this.page.keyboard.down(keys);
    await this.page.mouse.down();
    await this.page.mouse.up();
    if (keys) await this.page.keyboard.up(keys);
    await this.settled();
  }
  /** The card of a step, opened by its key. */
  async card(key: string, name: string): Promise<Locator> {
    await this.key(key);
    const card = this.page.getByRole("form", { name });
    await card.waitFor();
    return card;
  }
  /** Accepts the open card once it is built and nothing stands in its way. */
  async accept(card: Locator): Promise<void> {
    await card.getByRole("button", { name: "Accept" }).click();
    await card.waitFor({ state: "detached" });
    await this.built();
  }
  /** The part is built and measured. */
  built = () => this.page.getByText("measuring …").waitFor({ state: "detached", timeout: 30_000 });
  volume = async () => Number((await gauge(this.page, "Volume").textContent())!.replace(/[^\d.]/g, ""));
  volumeNear = (want: number) => expect.poll(this.volume, { timeout: 20_000 }).toBeCloseTo(want, -1);
  /** The part lies in so many pieces. */
  pieces = (n: number) =>
    expect.poll(() => gauge(this.page, "Body").textContent(), { timeout: 20_000 }).toMatch(new RegExp(`^${n}\\D`));
  /** An empty part: everything is deleted, last first. */
  async clear(): Promise<void> {
    const steps = this.page.locator("[data-step]");
    for (let n = await steps.count(); n > 0; n--) {
      await steps.nth(n - 1).hover();
      await this.page.getByRole("button", { name: `Delete step ${n}` }).click();
      await expect.poll(() => steps.count()).toBe(n - 1);
    }
    await this.built();
  }
  /** A rectangle with its corner at the origin, drawn by hand and sized. */
  async rectangle(plane: string, width: string, height: string): Promise<void> {
    await this.sketchOn(plane);
    await this.key("e");
    await this.places([0, 0], [120, 90]);
    const [x, y] = await this.point("origin");
    await this.dimension([[x + 60, y]], [x + 60, y + 40], width);
    const right = await this.curve("l2");
    await this.dimension([right], [right[0] + 40, right[1]], height);
    await this.freedoms(0);
    await this.key("1");
  }
  curves = () => this.page.locator("[data-curve]").count();
  freedomsNow = async () => Number(await this.page.getByTestId("sketch").getAttribute("data-freedoms"));
  note = () => this.page.locator("[aria-live=polite]").textContent();
  private async centre(l: Locator): Promise<[number, number]> {
    await this.settled();
    const b = (await l.boundingBox())!;
    return [b.x + b.width / 2, b.y + b.height / 2];
  }
  /** Where a point of the sketch stands on screen. */
  point = (ref: string) => this.centre(this.page.locator(`[data-point="${ref}"]`));
  /** The middle of a curve's box: of a level or upright line a point on it. */
  curve = (id: string) => this.centre(this.page.locator(`[data-curve="${id}"] path`).first());
  /** Dimension over one or two places, number placed at the third, size typed. */
  async dimension(
    places: readonly (readonly [number, number])[],
    at: readonly [number, number],
    size: string,
  ): Promise<void> {
    await this.key("a");
    for (const p of places) await this.click(...p);
    await this.click(...at);
    await type(this.page.getByLabel("size", { exact: true }), size);
    await this.key("Enter");
    await this.page.getByLabel("size", { exact: true }).waitFor({ state: "detached" });
  }
  async freedoms(n: number): Promise<void> {
    await expect
      .poll(() => this.page.getByTestId("sketch").getAttribute("data-freedoms"), { timeout: 5000 })
      .toBe(String(n));
  }
}

/** A demo person's Bench of one handout. @param document what it begins with; left out: an empty part */
export async function openBench(
  browser: Browser,
  person: string,
  handout: RegExp,
  document?: PartDocument,
): Promise<Hand> {
  const page = await visit(browser, person);
  const link = page.getByRole("row", { name: handout }).getByRole("link", { name: /Begin|Go on/ });
  const address = (await link.getAttribute("href"))!;
  // the work is made when it is opened first
  await page.request.get(`${BASE}${address}`);
  const id = address.split("/").pop()!;
  const mark = (await (await page.request.get(`${BASE}/api/works/${id}`)).json()) as { owner: string };
  const { exercise } = await one<{ exercise: Exercise }>("select exercise from handouts where id = $1", [id]);
  const begun = document ?? emptyPart(exercise.title, exercise.units, exercise.material);
  const data = { ...mark, id: randomUUID(), window: "test", document: begun };
  const put = await page.request.put(`${BASE}/api/works/${id}`, { data });
  if (!put.ok()) throw new Error(`the document could not be put there: ${await put.text()}`);
  await link.click();
  await page.waitForURL("**/bench/*");
  await page.getByRole("toolbar").waitFor();
  return new Hand(page);
}

/** Waits until the Bench has sent everything to the server. */
export const kept = (page: Page) => page.getByText(/^Kept on the server/).waitFor();

export const gauge = (page: Page, name: string) => page.locator(`[data-gauge="${name}"]`);

/** What a run has to say beside passed and failed: printed at its end. */
export const report = (file: string, lines: readonly string[]): void =>
  writeFileSync(`test-results/${file}`, `${lines.join("\n")}\n`);

/** Keeps a picture of a page whose test failed, under test-results. */
export function pictureOnFailure(pages: () => readonly (Page | undefined)[]) {
  return ({ task, onTestFailed }: TestContext) =>
    onTestFailed(async () => {
      for (const [i, page] of pages().entries()) {
        if (!page) continue;
        for (const said of complaints.get(page) ?? []) console.log(`${task.name}: ${said}`);
        await page
          .screenshot({ path: `test-results/${task.name.slice(0, 50).replace(/\W+/g, "-")}-${i}.png` })
          .catch(() => undefined);
      }
    });
}

/** Nothing serious, in both themes: of what is there only the colours differ in the other. */
export async function isAccessible(p: Page): Promise<void> {
  for (const colorScheme of ["dark", "light"] as const) {
    await p.emulateMedia({ colorScheme });
    const asked = new AxeBuilder({ page: p });
    const { violations } = await (colorScheme === "dark" ? asked.withRules("color-contrast") : asked).analyze();
    const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
    expect(serious.map((v) => `${colorScheme} ${v.id}: ${v.nodes.map((n) => n.html).join(" ")}`)).toEqual([]);
  }
}

/** To a station of an exercise's page. */
export async function station(page: Page, name: "Part" | "Sheet" | "Check" | "Points" | "Give out"): Promise<void> {
  await page
    .getByRole("navigation", { name: "Stations" })
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();
  await page.getByRole("region", { name, exact: true }).waitFor();
}

/** Unfolds what few need; open already it stays so. */
export async function unfold(page: Page, title: string | RegExp): Promise<void> {
  const fold = page.locator("details").filter({ has: page.locator("summary").getByText(title, { exact: true }) });
  if ((await fold.first().getAttribute("open")) === null) await fold.first().locator("summary").click();
}

/** All of an exercise is on the server, and measured. */
export async function measured(page: Page, timeout = 60_000): Promise<void> {
  await page.getByText(/^Kept on the server/).waitFor();
  await expect.poll(() => page.getByText("The reference is being measured").count(), { timeout }).toBe(0);
}

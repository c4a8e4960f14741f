import { randomUUID } from "node:crypto";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { BASE, gauge, Hand, kept, openBrowser, pictureOnFailure, visit, type, station } from "./harness";

let browser: Browser;
let teacher: Page;
beforeAll(async () => {
  browser = await openBrowser();
  teacher = await visit(browser, "Hedda Lark");
});
beforeEach(pictureOnFailure(() => [teacher]));
afterAll(() => browser.close());

describe("the door", () => {
  it("takes a password and nothing but the right one", async () => {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${BASE}/courses`);
    expect(new URL(page.url()).pathname).toBe("/");
    await type(page.getByLabel("Email"), "idris.fenwick@saltmarsh.example");
    await type(page.getByLabel("Password"), "wrong");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.getByText("do not go together").waitFor();
    await type(page.getByLabel("Email"), "idris.fenwick@saltmarsh.example");
    await type(page.getByLabel("Password"), "demo-caliper");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL("**/courses");
    await page.getByText("Idris Fenwick").waitFor();
    await page.getByRole("button", { name: "Sign out" }).click();
    await page.waitForURL(`${BASE}/`);
    const news = `${BASE}/api/news?on=handout:00000000-0000-4000-8000-000000000000`;
    expect((await page.request.get(news)).status()).toBe(401);
  });
  it("a stranger's address answers with a plain page and 404", async () => {
    const page = await visit(browser, "Casimir Dunn");
    const answer = await page.goto(`${BASE}/submissions/00000000-0000-4000-8000-000000000000`);
    expect(answer!.status()).toBe(404);
    await page.getByRole("heading", { name: "There is nothing here for you" }).waitFor();
    await page.getByRole("link", { name: "To your courses" }).click();
    await page.waitForURL("**/courses");
  });
  it("a document that does not parse is refused with a sentence, and the one before stays", async () => {
    const page = await visit(browser, "Casimir Dunn");
    await page.getByRole("row", { name: /WS-08/ }).getByRole("link", { name: "Go on" }).click();
    await page.waitForURL("**/bench/*");
    const id = new URL(page.url()).pathname.split("/").pop()!;
    const answer = await page.request.put(`${BASE}/api/works/${id}`, {
      data: {
        ...((await (await page.request.get(`${BASE}/api/works/${id}`)).json()) as object),
        id: randomUUID(),
        window: "test",
        document: { format: "caliper-part" },
      },
    });
    expect(answer.status()).toBe(422);
    expect(((await answer.json()) as { sentence: string }).sentence).toMatch(/^The part document cannot be read/);
    expect(
      (
        await page.request.put(`${BASE}/api/works/${id}`, {
          headers: { "content-type": "application/json" },
          data: Buffer.from("{"),
        })
      ).status(),
    ).toBe(400);
    await page.reload();
    await expect.poll(() => gauge(page, "Volume").textContent(), { timeout: 15_000 }).toMatch(/in³/);
  });
  it("what cannot be kept is refused with a sentence and the right code, never an error", async () => {
    const page = await visit(browser, "Casimir Dunn");
    const address = await page
      .getByRole("row", { name: /WS-08/ })
      .getByRole("link", { name: /Go on|Begin/ })
      .getAttribute("href");
    const url = `${BASE}/api/works/${address!.split("/").pop()}`;
    const mark = (await (await page.request.get(url)).json()) as { version: number };
    const before = JSON.stringify(mark);
    const document = { format: "caliper-part", version: 1, name: "x", units: "mm", steps: [] };
    const body = (over: object) =>
      JSON.stringify({ ...mark, id: randomUUID(), window: "test", document: { ...document, ...over } });
    const put = async (data: string | Buffer, headers: Record<string, string> = {}) => {
      const r = await page.request.put(url, {
        data: Buffer.from(data),
        headers: { "content-type": "application/json", ...headers },
      });
      return [r.status(), ((await r.json()) as { sentence: string }).sentence] as const;
    };
    for (const [data, status, sentence, headers] of [
      [body({ name: "a\u0000b" }), 422, /cannot be kept/],
      [body({ name: "half a pair \ud83d" }), 422, /cannot be kept/],
      [Buffer.from([0x7b, 0xff, 0x7d]), 400, /not UTF-8/],
      [JSON.stringify({ ...mark, version: 3_000_000_000, id: randomUUID(), window: "t", document }), 422, /version/],
      [JSON.stringify({ ...mark, id: "'; drop table works", window: "t", document }), 422, /id/],
      [body({ name: "n".repeat(2_300_000) }), 413, /larger than 2 MB/],
      ["{}", 403, /another site/, { origin: "null" }],
      ["{}", 403, /another site/, { origin: "https://elsewhere.example" }],
    ] as const)
      await expect(put(data, headers), `${status}`).resolves.toEqual([status, expect.stringMatching(sentence)]);
    expect(JSON.stringify(await (await page.request.get(url)).json())).toBe(before);
  });
  it("pages carry a policy of their own, and answers with a person's data are not stored", async () => {
    const page = await visit(browser, "Casimir Dunn");
    const answer = (await page.reload())!;
    expect(answer.headers()["content-security-policy"]).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
    expect(answer.headers()["cache-control"]).toContain("no-store");
    const mark = await page.request.get(`${BASE}/api/news?on=work:00000000-0000-4000-8000-000000000000`);
    expect(mark.status()).toBe(404);
    const nowhere = "works/00000000-0000-4000-8000-000000000000";
    for (const path of ["health", nowhere]) {
      const { headers } = await fetch(`${BASE}/api/${path}`);
      expect(headers.get("content-security-policy"), path).toMatch(/^default-src 'none';.*frame-ancestors 'none'$/);
      expect(headers.get("x-frame-options"), path).toBe("DENY");
    }
    // of a stranger nothing large is read
    const large = { method: "PUT", body: "x".repeat(500_000), headers: { "content-type": "application/json" } };
    expect((await fetch(`${BASE}/api/${nowhere}`, large)).status).toBe(401);
  });
});

describe.sequential("the Marking desk", () => {
  it("shows what needs a look first, with evidence and the difference by place", async () => {
    await teacher.getByRole("row", { name: /WS-08/ }).getByRole("link").click();
    await teacher.waitForURL("**/handouts/*");
    const first = () => teacher.locator("tbody tr").first().textContent();
    const below = await first();
    // nothing needs anybody here; on the gland plate a student asks
    expect(below).not.toMatch(/asks a question/);
    await teacher.goto(`${BASE}/courses`);
    await teacher.getByRole("row", { name: /WS-09/ }).getByRole("link").click();
    await teacher.waitForURL("**/handouts/*");
    expect(await first()).toMatch(/Sunniva Rook.*asks a question/);
    await teacher.goto(`${BASE}/courses`);
    await teacher.getByRole("row", { name: /WS-08/ }).getByRole("link").click();
    await teacher.waitForURL("**/handouts/*");
    await teacher.getByRole("link", { name: "Ottoline Marsh" }).click();
    await teacher.waitForURL("**/submissions/*");
    await teacher.getByText("missing 835.7 mm³").first().waitFor();
    expect(await teacher.locator('[data-line="shape"]').textContent()).toMatch(
      /The hole ⌀18 is 2 mm too wide\. Missing 835\.7 mm³, nothing extra\. 8 of 11 faces coincide/,
    );
    // the place says what is there, the table every size that is printed
    await teacher.locator("[data-lump=changed]", { hasText: "hole ⌀18: ⌀ +2" }).waitFor();
    await teacher.getByText("All 11 sizes").click();
    expect(await teacher.getByTestId("sizes").locator("tr[data-state=missed]").textContent()).toMatch(/⌀18\s*20/);
  });
  it("goes to the next and back by the keyboard", async () => {
    await teacher.keyboard.press("ArrowDown");
    const shown = (name: string) => teacher.getByLabel("Rubric").getByRole("heading", { name }).waitFor();
    await shown("Perpetua Lowe");
    expect(await teacher.locator('[data-line="shape"]').textContent()).toMatch(/mirror image/);
    await teacher.keyboard.press("ArrowUp");
    await shown("Ottoline Marsh");
  });
  it("tells a part in the wrong unit", async () => {
    await teacher.getByRole("button", { name: /Casimir Dunn/ }).click();
    await teacher.getByLabel("Rubric").getByRole("heading", { name: "Casimir Dunn" }).waitFor();
    expect(await teacher.locator('[data-line="shape"]').textContent()).toMatch(
      /25\.4 times too large: inches and millimetres were confused/,
    );
    await teacher.getByText("right form, wrong size").waitFor();
  });
});

describe.sequential("an instructor at the Bench", () => {
  it("builds the reference of a new exercise by hand; its Sheet and targets follow", async () => {
    await teacher.goto(`${BASE}/courses`);
    await teacher.getByRole("link", { name: "New exercise" }).click();
    await teacher.waitForURL("**/exercises/new*");
    await type(teacher.getByLabel("Title", { exact: true }), "Bearing spacer");
    await teacher.getByRole("button", { name: "Build it in the Bench" }).click();
    await teacher.waitForURL("**/bench");
    // what can be said before there is a part is said first
    await teacher.getByRole("link", { name: "To the exercise" }).click();
    await teacher.getByText("The Sheet will stand here.").waitFor();
    await station(teacher, "Give out");
    expect(await teacher.getByRole("button", { name: "Make a handout" }).isDisabled()).toBe(true);
    await station(teacher, "Part");
    const density = teacher.getByLabel("Density");
    await type(density, "heavy");
    await density.press("Enter");
    await teacher.getByText("This is no number.").waitFor();
    expect(await density.inputValue()).toBe("heavy");
    await type(density, "8.47");
    await density.press("Enter");
    await teacher.getByText(/^Kept on the server at/).waitFor();
    await teacher.getByRole("link", { name: "Build the reference in the Bench" }).click();
    await teacher.waitForURL("**/bench");
    const hand = new Hand(teacher);
    await teacher.getByRole("button", { name: /^Sketch/ }).click();
    await teacher.getByRole("button", { name: /^top/ }).click();
    await teacher.getByTestId("sketch").waitFor();
    const [x, y] = await hand.point("origin");
    for (const r of [110, 60]) {
      await hand.keys("q r");
      await hand.click(x, y);
      await hand.click(x + r, y);
    }
    await hand.freedoms(2);
    await hand.dimension([[x + 78, y - 78]], [x + 120, y - 110], "32");
    await hand.freedoms(1);
    await hand.key("Home");
    const inner = (await teacher.locator('[data-curve="c2"] path').first().boundingBox())!;
    await hand.dimension(
      [[inner.x + inner.width, inner.y + inner.height / 2]],
      [inner.x + inner.width / 2 + 20, inner.y + 40],
      "18",
    );
    await hand.freedoms(0);
    await hand.key("1");
    await hand.key("w");
    await teacher.getByRole("button", { name: "Both ways" }).click();
    await type(teacher.getByLabel("Whole depth"), "7.5");
    await teacher.getByLabel("Whole depth").press("Enter");
    await expect.poll(() => gauge(teacher, "Volume").textContent(), { timeout: 15_000 }).toMatch(/4.123\.3/);
    await kept(teacher);
    await teacher.getByRole("link", { name: "To the exercise" }).click();
    await teacher.waitForURL(/exercises\/[^/]+$/);
    await station(teacher, "Part");
    await teacher.getByText(/4.123\.3 mm³/).waitFor();
    await teacher.getByLabel("The Sheet").getByText("⌀32").first().waitFor();
  });
});

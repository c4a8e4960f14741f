import Papa from "papaparse";
import type { Browser, Page, Response } from "playwright-core";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { makeClass, type MadeClass } from "@/cli/bench/class-of-thirty";
import { newLine } from "@/core/check/exercise/rubric";
import { SHOWS } from "@/core/check/exercise/terms";
import { bracketExercise, footExercise } from "@/demo/exercises";
import { closeDatabase, one, rows } from "@/server/database";
import { until } from "../worker/sample";
import { BASE, enterAs, isAccessible, openBrowser, pictureOnFailure, type } from "./harness";

let browser: Browser;
const pages: Page[] = [];
const enter = async (person: string): Promise<Page> => {
  const page = await enterAs(browser, person);
  pages.push(page);
  return page;
};
beforeAll(async () => {
  browser = await openBrowser();
});
beforeEach(pictureOnFailure(() => pages.slice(-2)));
afterAll(async () => {
  await browser.close();
  await closeDatabase();
});

/** All that was handed in is checked. */
const allChecked = (c: MadeClass) =>
  until(async () => {
    const { n } = await one<{ n: number }>(
      `select count(*)::int as n from submissions s join checks c on c.submission_id = s.id
       where s.handout_id = $1 and c.state in ('queued', 'checking')`,
      [c.handout],
    );
    return n === 0;
  }, 55_000);
const progress = (p: Page) => p.getByTestId("progress").textContent();
/** The rubric pane shows whoever is chosen in the queue. */
const settled = async (p: Page) => {
  const at = await p.locator("[data-desk]").getAttribute("data-desk");
  await p.locator(`[data-shown="${at}"]`).waitFor();
  return at!;
};
const sent = (p: Page) => expect.poll(() => p.getByText("Being sent …").count()).toBe(0);

describe.sequential("an evening of marking", () => {
  const many = 9;
  let c: MadeClass, teacher: Page;
  beforeAll(async () => {
    const hand = { ...newLine("hand", 2), id: "order", title: "Order of the steps" };
    const exercise = { ...footExercise(), number: "EV-01" };
    c = await makeClass({ ...exercise, rubric: [...exercise.rubric, hand] }, many, {
      shows: { ...SHOWS, when: "returned" },
    });
    await allChecked(c);
    teacher = await enter(c.teacher);
  });

  it("goes from first to last by the keyboard alone", async () => {
    const p = teacher;
    await p.goto(`${BASE}/handouts/${c.handout}`);
    await p.getByRole("link", { name: "To the Marking desk" }).focus();
    await p.keyboard.press("Enter");
    await p.waitForURL("**/submissions/*");
    const seen = new Set<string>();
    let commented = 0;
    for (let i = 0; i < many; i++) {
      seen.add(await settled(p));
      // the line marked by hand, then a remark on the first line that was missed
      await p.keyboard.press("7");
      await p.keyboard.press("f");
      await p.getByLabel("Points for Order of the steps").waitFor();
      await p.keyboard.press("Enter");
      const missed = p.locator("[data-line]:has([aria-label=missed])").first();
      if (await missed.count()) {
        const nth = await missed.locator("kbd").first().textContent();
        await p.keyboard.press(nth!);
        await p.keyboard.press("c");
        await p.getByLabel("Comment", { exact: true }).waitFor();
        await p.keyboard.type("Compare this with the Sheet.");
        await p.keyboard.press("Enter");
        commented++;
      }
      await p.keyboard.press("Enter");
    }
    expect(seen.size).toBe(many);
    expect(commented).toBeGreaterThan(3);
    await expect.poll(() => progress(p)).toBe(`${many} of ${many} looked at`);
    await sent(p);
  });

  it("overrules a line with a reason, takes it back, and offers the reason again", async () => {
    const p = teacher;
    // up to somebody whose shape was missed
    for (let i = 0; i < many; i++) {
      await settled(p);
      if (await p.locator('[data-line="shape"] [aria-label=missed]').count()) break;
      await p.keyboard.press("ArrowUp");
    }
    const points = () => p.getByTestId("points").textContent();
    const before = await points();
    await p.keyboard.press("5");
    await p.keyboard.press("f");
    await p.getByLabel("Why: the student reads it").waitFor();
    await p.keyboard.type("Counted once already.");
    await p.keyboard.press("Enter");
    await p.getByText("Counted once already.").first().waitFor();
    expect(await points()).not.toBe(before);
    await p.keyboard.press("m");
    await expect.poll(points).toBe(before);
    await p.keyboard.press("f");
    await p.getByRole("list", { name: "Remarks of yours" }).getByText("Counted once already.").waitFor();
    await p.keyboard.press("Alt+1");
    await p.keyboard.press("Enter");
    await expect.poll(points).not.toBe(before);
    await sent(p);
    await p.reload();
    await settled(p);
    expect(await points()).not.toBe(before);
    await p.getByText(/^History/).click();
    await p.getByText(/“Shape” gets what the program gives/).waitFor();
  });

  it("shows every view, and nothing serious stands in anybody's way", async () => {
    const p = teacher;
    for (const view of ["Reference", "Submission", "Edges", "Section", "Deviation", "Numbers", "Tries", "Sheet"]) {
      await p.getByRole("tab", { name: view }).click();
      await p.getByRole("tabpanel", { name: view }).waitFor();
    }
    expect(await p.locator(".size-wrong").count()).toBeGreaterThan(0);
    await p.getByRole("tab", { name: "Steps" }).click();
    await p
      .getByRole("img", { name: /^Sketch/ })
      .first()
      .waitFor();
    const slider = p.getByLabel("How it was built");
    await slider.focus();
    // the desk's own arrows stay out of a slider that is being moved
    for (let i = 0; i < 20 && (await slider.inputValue()) !== "2"; i++) await p.keyboard.press("ArrowLeft");
    await p.getByText(/^2 of \d+: Extrude/).waitFor();
    await isAccessible(p);
    await p.getByRole("tab", { name: "Difference" }).click();
    await isAccessible(p);
  });

  it("pins a comment to a place of the part, and to one of the Sheet", async () => {
    const p = teacher;
    for (const [tab, place, where] of [
      ["Submission", "Comparison", "On the part:"],
      ["Sheet", "The Sheet", "On the Sheet:"],
    ] as const) {
      await p.getByRole("tab", { name: tab }).click();
      await p.keyboard.press("p");
      const box = (await p.getByLabel(place, { exact: true }).boundingBox())!;
      await p.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
      await p.getByLabel("Comment on this place").waitFor();
      await p.keyboard.type(`Look here, ${tab}.`);
      await p.keyboard.press("Enter");
      await p.getByLabel("Comments").getByText(where).waitFor();
    }
    expect(await p.locator(".sheet-pins circle").count()).toBe(1);
    await p.getByRole("tab", { name: "Difference" }).click();
    await p.locator('[data-lump="pin"]').getByText("Look here, Submission.").waitFor();
  });

  it("keeps decisions made without a connection, over a reload too", async () => {
    const p = teacher;
    await p.context().setOffline(true);
    await p.keyboard.press("x");
    await p.getByText(/not sent: Kept in this browser/).waitFor();
    const at = await p.locator("[data-desk]").getAttribute("data-desk");
    await p.context().setOffline(false);
    await p.getByText(/not sent/).waitFor({ state: "detached", timeout: 30_000 });
    const accepted = () =>
      one<{ at: Date | null }>("select accepted_at as at from checks where submission_id = $1", [at]).then((r) => r.at);
    await expect.poll(accepted).toBeNull();
    await p.keyboard.press("Enter");
    await sent(p);
  });

  it("returns all, and each student reads what was meant for them and nothing else", async () => {
    const worst = await one<{ id: string; person_id: string }>(
      `select s.id, s.person_id from submissions s join checks c on c.submission_id = s.id
       where s.handout_id = $1 order by c.points, s.id limit 1`,
      [c.handout],
    );
    const student = await enter(worst.person_id);
    const traffic: string[] = [];
    const read = async (r: Response) => traffic.push(await r.text().catch(() => ""));
    const reading: Promise<unknown>[] = [];
    // the stream of news has no end; it tells topics alone
    const isRead = (r: Response) => /html|component|json/.test(r.headers()["content-type"] ?? "");
    student.on("response", (r) => !isRead(r) || r.url().includes("/api/news") || void reading.push(read(r)));
    const look = async () => {
      traffic.length = 0;
      await student.goto(`${BASE}/courses`);
      await student.goto(`${BASE}/submissions/${worst.id}`);
      await student.getByRole("heading", { level: 1 }).waitFor();
      await student.waitForTimeout(1500);
      await Promise.all(reading);
      return traffic.join("\n");
    };
    const before = await look();
    expect(before.length).toBeGreaterThan(5_000);
    expect(before).toMatch(/when your instructor returns it/);
    // no remark, no points, no sentence, no place, and nothing of the reference
    for (const secret of [
      /Compare this with/,
      /Counted once/,
      /wanted/,
      /fully defined/,
      /facesMatched/,
      /"at":\[-?\d/,
    ])
      expect(before).not.toMatch(secret);
    await teacher.getByRole("button", { name: "Return several" }).click();
    await teacher.getByRole("button", { name: /^Return all \d+ that are checked/ }).click();
    // it can be taken back for ten seconds, and then it goes
    const held = teacher.getByText(new RegExp(`^${many} returned in \\d+ s`));
    await held.waitFor();
    await teacher.getByRole("button", { name: /^Take it back/ }).click();
    await held.waitFor({ state: "detached" });
    expect(await look()).toMatch(/when your instructor returns it/);
    await teacher.getByRole("button", { name: "Return several" }).click();
    await teacher.getByRole("button", { name: /^Return all \d+ that are checked/ }).click();
    await teacher.getByText(new RegExp(`^${many} returned\\.$`)).waitFor();
    const after = await look();
    expect(after).toMatch(/Compare this with the Sheet\./);
    for (const secret of [/wanted \d/, /facesMatched/, /"reference"/, /motion/]) expect(after).not.toMatch(secret);
    await student.getByTestId("next").waitFor();
    await isAccessible(student);
    const own = await student.request.get(`${BASE}/api/submissions/${worst.id}/own-picture`);
    expect(Object.keys((await own.json()) as object)).toEqual(["submission"]);
    for (const path of ["desk", "picture"])
      expect((await student.request.get(`${BASE}/api/submissions/${worst.id}/${path}`)).status()).toBe(404);
  });

  it("a question is asked, answered, and closed; one back to the student returns to the queue", async () => {
    const one_ = await one<{ id: string; person_id: string }>(
      "select id, person_id from submissions where handout_id = $1 order by id limit 1",
      [c.handout],
    );
    const student = await enter(one_.person_id);
    await student.goto(`${BASE}/submissions/${one_.id}`);
    await type(student.getByLabel("Ask about this result"), "Why does the hole count twice?");
    await student.getByRole("button", { name: "Send the question" }).click();
    await student.getByText("Your instructor has it.").waitFor();
    const p = teacher;
    await p.goto(`${BASE}/submissions/${one_.id}`);
    await settled(p);
    await p.getByText("asks a question").first().waitFor();
    await p.keyboard.press("q");
    await p.getByLabel("Your answer").waitFor();
    await p.keyboard.type("Once by its size, once by its shape.");
    await p.keyboard.press("Enter");
    await student.getByText("Once by its size, once by its shape.").waitFor();
    await expect.poll(() => p.getByText("asks a question").count()).toBe(0);
    await sent(p);
    await p.keyboard.press("q");
    await p.getByLabel(/^A question back/).waitFor();
    await p.keyboard.type("Did you read the note?");
    await p.keyboard.press("Enter");
    await student.getByText("Your instructor asks").waitFor();
    await type(student.getByLabel("Your answer"), "I did not.");
    await student.getByRole("button", { name: "Send the answer" }).click();
    await p.getByText("asks a question").first().waitFor();
    await p.getByRole("button", { name: "Nothing more to say" }).click();
    await expect.poll(() => p.getByText("asks a question").count()).toBe(0);
    await sent(p);
  });

  it("the class view opens the submissions behind a bar, and names the commonest faults", async () => {
    const p = teacher;
    await p.goto(`${BASE}/handouts/${c.handout}/class`);
    const faults = p.getByRole("region", { name: "For the next lesson" });
    expect(await faults.getByRole("listitem").count()).toBe(3);
    await p
      .getByRole("figure", { name: /^Points/ })
      .locator(".recharts-bar-rectangle")
      .last()
      .click();
    const behind = p.getByRole("region", { name: "Submissions behind it" });
    await behind.getByRole("link").first().waitFor();
    await isAccessible(p);
  });

  it("the gradebook is sorted, searched, exported, and read back", async () => {
    const p = teacher;
    await p.goto(`${BASE}/courses/${c.course}/gradebook`);
    await p.getByRole("button", { name: "Average" }).click();
    const averages = async () =>
      (await p.locator(".gradebook tbody tr td:last-child").allTextContents()).map((t) => Number.parseFloat(t));
    const shown = await averages();
    expect([...shown].sort((a, b) => b - a)).toEqual(shown);
    await type(p.getByLabel("Find a student or group"), c.students[0]!.name);
    expect(await p.locator(".gradebook tbody tr").count()).toBe(1);
    await isAccessible(p);
    const csv = await (await p.request.get(`${BASE}/api/courses/${c.course}/gradebook?as=csv`)).text();
    const [head, ...body] = Papa.parse<string[]>(csv.replace(/^\uFEFF/, "")).data;
    expect(head![3]).toBe("EV-01 Tripod foot (of 27)");
    const standing = await rows<{ name: string; points: number }>(
      `select p.name, c.points from submissions s join checks c on c.submission_id = s.id
       join people p on p.id = s.person_id where s.handout_id = $1`,
      [c.handout],
    );
    expect(new Map(body.map((r) => [r[0], Number(r[3])]))).toEqual(new Map(standing.map((s) => [s.name, s.points])));
    const json = (await (await p.request.get(`${BASE}/api/courses/${c.course}/gradebook?as=json`)).json()) as {
      students: { name: string; results: { points: number }[] }[];
    };
    expect(json.students.map((s) => [s.name, s.results[0]!.points])).toEqual(body.map((r) => [r[0], Number(r[3])]));
    for (const query of ["as=pdf", `as=pdf&student=${c.students[1]!.id}`]) {
      const pdf = await (await p.request.get(`${BASE}/api/courses/${c.course}/gradebook?${query}`)).body();
      expect(pdf.subarray(0, 5).toString()).toBe("%PDF-");
    }
    const nobody = await p.request.get(`${BASE}/api/courses/${c.course}/gradebook?as=pdf&student=x`);
    expect(nobody.status()).toBe(404);
  });

  it("a second check with a changed rubric shows who changes by how much before it is applied", async () => {
    const p = teacher;
    await p.goto(`${BASE}/exercises/${c.exercise}?at=points`);
    await type(p.getByLabel("Points for Volume"), "8");
    await p.keyboard.press("Enter");
    await p.getByText(/^Kept on the server at/).waitFor();
    await expect
      .poll(
        () =>
          one<{ ok: boolean }>("select prepared_version = version as ok from exercises where id = $1", [
            c.exercise,
          ]).then((r) => r.ok),
        { timeout: 60_000 },
      )
      .toBe(true);
    const points = () =>
      rows<{ id: string; points: number }>(
        `select s.id, c.points from submissions s join checks c on c.submission_id = s.id where s.handout_id = $1
         order by s.id`,
        [c.handout],
      );
    const before = await points();
    await p.goto(`${BASE}/handouts/${c.handout}/second-check`);
    await type(p.getByLabel(/^Why/), "The volume counts eight.");
    await p.getByRole("button", { name: "See what would change" }).click();
    await p.getByTestId("summary").waitFor({ timeout: 60_000 });
    expect(await points()).toEqual(before);
    expect(
      await p
        .getByRole("table", { name: "Changes" })
        .getByText(/Volume: /)
        .count(),
    ).toBeGreaterThan(2);
    await isAccessible(p);
    await p.getByRole("button", { name: "Apply it" }).click();
    await p.getByText(/^Applied to 9/).waitFor();
    const after = await points();
    const gained = after.filter((a, i) => a.points === before[i]!.points + 5).length;
    expect(gained).toBeGreaterThan(2);
    // what was overruled stands, and the returned ones wait to be returned anew
    const history = await rows("select 1 from reports where recheck_id is not null and submission_id = any($1)", [
      after.map((a) => a.id),
    ]);
    expect(history).toHaveLength(many);
    await p.goto(`${BASE}/handouts/${c.handout}`);
    await p.getByText("other points than returned").first().waitFor();
  });
});

describe.sequential("a lesson", () => {
  let c: MadeClass, teacher: Page, students: Page[];
  beforeAll(async () => {
    const exercise = { ...bracketExercise(), number: "LE-01" };
    c = await makeClass(exercise, 3, { practice: { shows: "sentences", most: 3 } }, () => false);
    teacher = await enter(c.teacher);
    students = [await enter(c.students[0]!.id), await enter(c.students[1]!.id)];
  });

  it("is watched live while two students work", async () => {
    await teacher.goto(`${BASE}/handouts/${c.handout}/live`);
    const count = () => teacher.getByTestId("live-count").textContent();
    expect(await count()).toMatch(/0 of 3 have opened it/);
    for (const s of students) {
      await s.goto(`${BASE}/bench/${c.handout}`);
      await s.getByRole("toolbar").waitFor();
    }
    await expect.poll(count).toMatch(/2 of 3 have opened it/);
    const [first] = students as [Page];
    // a right part, saved from elsewhere in the same Bench's name
    const mark = (await (await first.request.get(`${BASE}/api/works/${c.handout}`)).json()) as { version: number };
    const document = { ...bracketExercise().reference };
    const put = await first.request.put(`${BASE}/api/works/${c.handout}`, {
      data: { ...mark, id: crypto.randomUUID(), window: "test", document },
    });
    expect(put.ok()).toBe(true);
    await first.reload();
    await first.getByRole("toolbar").waitFor();
    const card = teacher.locator(`[data-student="${c.students[0]!.name}"]`);
    await expect.poll(() => card.textContent()).toMatch(/[2-9] steps|\d\d steps/);
    await card.getByLabel("sign off at the desk").check();
    await card.getByText(/signed off by Maud Sterling/).waitFor();
    expect(await count()).toMatch(/1 signed off/);
    await isAccessible(teacher);
  });

  it("is practised until it is right, as often as is allowed", async () => {
    const [, s] = students as [Page, Page];
    const put = async (change: (d: ReturnType<typeof bracketExercise>["reference"]) => object) => {
      const mark = (await (await s.request.get(`${BASE}/api/works/${c.handout}`)).json()) as object;
      const data = { ...mark, id: crypto.randomUUID(), window: "test", document: change(bracketExercise().reference) };
      expect((await s.request.put(`${BASE}/api/works/${c.handout}`, { data })).ok()).toBe(true);
      await s.reload();
      await s.getByRole("toolbar").waitFor();
    };
    await put((d) => ({ ...d, steps: d.steps.slice(0, 2) }));
    await s.getByRole("button", { name: /^Check first/ }).click();
    const found = s.getByTestId("practice");
    await expect.poll(() => found.textContent(), { timeout: 60_000 }).toMatch(/lines are not met yet/);
    const card = s.getByRole("region", { name: "Check before handing in" });
    await card
      .locator('[data-line="sizes"]')
      .getByText(/printed/)
      .waitFor();
    expect(await card.getByText(/\d+ \/ \d+/).count()).toBe(0);
    await put((d) => d);
    await s.getByRole("button", { name: /^Check first \(2 left\)/ }).click();
    await expect.poll(() => found.textContent(), { timeout: 60_000 }).toMatch(/Every line .*is met/);
    await isAccessible(s);
    expect(await rows("select 1 from submissions where handout_id = $1", [c.handout])).toEqual([]);
  });
});

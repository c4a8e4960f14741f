import type { Page } from "playwright-core";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { College } from "./college";
import { isAccessible, pictureOnFailure, paste, type } from "./harness";

const college = new College();
const { visitor, signedIn, choose, letterTo } = {
  visitor: (path?: string) => college.visitor(path),
  signedIn: (email: string, password?: string) => college.signedIn(email, password),
  choose: college.choose,
  letterTo: (p: Page, email: string) => college.letterTo(p, email),
};
let address: string;
beforeAll(async () => {
  await college.open(3460);
  ({ address } = college);
}, 120_000);
afterAll(() => college.close());
beforeEach(pictureOnFailure(() => [college.page]));
afterEach(college.leave);

const ROSTER = [
  "Full name;E-mail;Group",
  ...Array.from({ length: 27 }, (_, i) => `Student ${i + 1};s${i + 1}@college.example;${i % 2 ? "1b" : "1a"}`),
  '"Grünfeld, Jörg";jörg-not-an-address;1a',
  '"Grünfeld, Jörg";joerg@college.example;1a',
  "Zoë Ångström;zoe@college.example;1b",
  "Student 1 again;S1@college.example;1a",
].join("\n");
let invitation = "",
  code = "",
  course = "";

describe.sequential("a first term, from an empty database", () => {
  it("the first visit makes the administrator, and only the first", async () => {
    const p = await visitor();
    await p.getByRole("heading", { name: "Nobody is here yet" }).waitFor();
    await isAccessible(p);
    await type(p.getByLabel("Your name"), "Wilfreda Moss");
    await type(p.getByLabel("Email"), "moss@college.example");
    await type(p.getByLabel("Password"), "short");
    await p.getByRole("button", { name: "Begin" }).click();
    await p.getByText("Ten characters at least", { exact: false }).nth(1).waitFor();
    await choose(p);
    await p.getByRole("button", { name: "Begin" }).click();
    await p.waitForURL("**/courses");
    await (await visitor()).getByRole("button", { name: "Sign in" }).waitFor();
  });
  it("makes a course, whose instructor comes in by a letter", async () => {
    const p = await signedIn("moss@college.example");
    await p.getByRole("link", { name: "People and courses" }).first().click();
    await type(p.getByLabel("New course"), "Part Modelling 1");
    await type(p.getByLabel("Term"), "Autumn");
    await type(p.getByLabel("Time zone"), "Europe/Berlin");
    await type(p.getByLabel("Its instructor’s email"), "lark@college.example");
    await p.getByRole("button", { name: "Make it" }).click();
    await p.getByText("A letter with a way in is on its way").waitFor();
    await isAccessible(p);
    const key = await letterTo(p, "lark@college.example");
    const q = await visitor(key);
    await isAccessible(q);
    await choose(q);
    await q.getByRole("button", { name: "Keep it and come in" }).click();
    await q.waitForURL("**/courses");
    await q.getByRole("heading", { name: /Part Modelling 1/ }).waitFor();
    // the link worked once
    await (await visitor(key)).getByRole("heading", { name: "This link holds no more" }).waitFor();
  });
  it("thirty students come by a list, with a wrong row, one twice, umlauts and a comma", async () => {
    const p = await signedIn("lark@college.example");
    await p.getByRole("link", { name: "People", exact: true }).click();
    await p.waitForURL("**/people");
    course = new URL(p.url()).pathname.split("/")[2]!;
    await paste(p.getByLabel("Roster"), ROSTER);
    await p.getByRole("button", { name: "Look at it" }).click();
    const faults = p.getByRole("list", { name: "Rows that cannot be taken" });
    await faults.getByText("Row 29: “jörg-not-an-address” is no email address.").waitFor();
    await faults.getByText("Row 32: s1@college.example stands in row 2 already.").waitFor();
    expect(await faults.getByRole("listitem").count()).toBe(2);
    await p.getByRole("button", { name: "Take 29 in" }).click();
    await p.getByText("29 came into the course; 29 of them are new here").waitFor();
    await p.getByRole("cell", { name: "Grünfeld, Jörg", exact: true }).waitFor();
    // the same list again changes nothing
    await paste(p.getByLabel("Roster"), ROSTER);
    await p.getByRole("button", { name: "Look at it" }).click();
    await p.getByRole("cell", { name: "in the course already" }).first().waitFor();
    await p.getByRole("button", { name: "Take 29 in" }).click();
    await p.getByText("0 came into the course; 0 of them are new here").waitFor();
    await isAccessible(p);
  });
  it("an assistant is invited by a link, and a code is written on the board", async () => {
    const p = await signedIn("lark@college.example");
    await p.goto(`${address}/courses/${course}/people`);
    await p.getByLabel("as", { exact: true }).selectOption("assistant");
    await p.getByRole("button", { name: "Make a link" }).click();
    invitation = await p.getByLabel("The link").inputValue();
    await p.getByRole("button", { name: "Open the course by a code" }).click();
    code = (await p.locator("b.figures").textContent())!;
    // a student moves to another group
    await type(p.getByLabel("Search"), "Zoë");
    await p.getByLabel("Group of Zoë Ångström").selectOption({ label: "1a" });
    await expect.poll(() => p.locator("[aria-busy=true]").count()).toBe(0);
    await p.reload();
    await type(p.getByLabel("Search"), "Zoë");
    expect(await p.getByLabel("Group of Zoë Ångström").locator("option:checked").textContent()).toBe("1a");
    // the only instructor cannot leave
    await type(p.getByLabel("Search"), "lark");
    await p.getByRole("button", { name: /Take lark out/ }).click();
    await p.getByText("A course needs an instructor").waitFor();
    const q = await visitor(invitation);
    await q.getByText("You are invited as an assistant.").waitFor();
    await isAccessible(q);
    await type(q.getByLabel("Your name"), "Perrin Vale");
    await type(q.getByLabel("Email"), "vale@college.example");
    await choose(q);
    await q.getByRole("button", { name: "Come in" }).click();
    await q.waitForURL("**/courses");
    await q.getByRole("heading", { name: /Part Modelling 1/ }).waitFor();
    // who marks makes no exercises and sees no list of people
    expect(await q.getByRole("link", { name: /New exercise|^People$/ }).count()).toBe(0);
    expect((await q.goto(`${address}/courses/${course}/people`))!.status()).toBe(404);
    await (await visitor(invitation)).getByRole("heading", { name: "This link holds no more" }).waitFor();
  });
  it("a student from the list comes in, another by the code, and sees only the course", async () => {
    const p = await signedIn("moss@college.example");
    const key = await letterTo(p, "joerg@college.example");
    const q = await visitor(key);
    await choose(q);
    await q.getByRole("button", { name: "Keep it and come in" }).click();
    await q.waitForURL("**/courses");
    expect((await q.goto(`${address}/administration`))!.status()).toBe(404);
    // somebody with an account and no course types the code, once wrongly
    await p.goto(`${address}/courses`);
    await type(p.getByLabel("Code of a course"), "WRONG1");
    await p.getByRole("button", { name: "Come in" }).click();
    await p.getByText("No course is open under this code").waitFor();
    await type(p.getByLabel("Code of a course"), code.toLowerCase());
    await p.getByRole("button", { name: "Come in" }).click();
    await p.getByRole("heading", { name: /Part Modelling 1/ }).waitFor();
  });
  it("a forgotten password is chosen anew, and old sessions end", async () => {
    const old = await signedIn("joerg@college.example");
    const p = await visitor("/forgot");
    await isAccessible(p);
    await type(p.getByLabel("Email"), "joerg@college.example");
    await p.getByRole("button", { name: "Send me a link" }).click();
    await p.getByText("a letter with a link is on its way").waitFor();
    const key = await letterTo(await signedIn("moss@college.example"), "joerg@college.example");
    const q = await visitor(key);
    await choose(q, "quite another one");
    await q.getByRole("button", { name: "Keep it and come in" }).click();
    await q.waitForURL("**/courses");
    await old.goto(`${address}/courses`);
    await old.getByRole("button", { name: "Sign in" }).waitFor();
    await q.goto(`${address}/account`);
    await q.getByText("You sign in as joerg@college.example.").waitFor();
    await isAccessible(q);
  });
  it("who leaves is out at once, and has everything again when they come back", async () => {
    const student = await signedIn("joerg@college.example", "quite another one");
    const p = await signedIn("lark@college.example");
    await p.goto(`${address}/courses/${course}/people`);
    await type(p.getByLabel("Search"), "Jörg");
    await p.getByRole("button", { name: "Take Grünfeld, Jörg out" }).click();
    await p.getByText("has left; their work stays").waitFor();
    await student.reload();
    await student.getByText("You are in no course yet").waitFor();
    await p.getByRole("button", { name: "Bring Grünfeld, Jörg back" }).click();
    await p.getByRole("button", { name: "Take Grünfeld, Jörg out" }).waitFor();
    await student.reload();
    await student.getByRole("heading", { name: /Part Modelling 1/ }).waitFor();
  });
  it("the course is copied to a new term without its people", async () => {
    const p = await signedIn("lark@college.example");
    await p.goto(`${address}/courses/${course}/people`);
    await type(p.getByLabel("New term"), "Spring");
    await p.getByRole("button", { name: "Copy the course" }).click();
    await p.getByText("There is a course for Spring now").waitFor();
    await p.goto(`${address}/courses`);
    await p
      .getByRole("heading", { name: /Part Modelling 1.*Spring/ })
      .getByRole("link", { name: "People" })
      .click();
    await p.getByRole("row", { name: /lark@college.example/ }).waitFor();
    expect(await p.getByRole("table", { name: "People" }).getByRole("row").count()).toBe(2);
  });
});

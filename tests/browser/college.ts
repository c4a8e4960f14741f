import { spawn, type ChildProcess } from "node:child_process";
import { cpSync, mkdtempSync, rmSync, symlinkSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { randomUUID } from "node:crypto";
import pg from "pg";
import type { Browser, BrowserContext, Page } from "playwright-core";
import { openBrowser, type } from "./harness";

export const PASS = "three words will do";

/** A college of its own: an empty database, web and workers on it as `npm run web` and `npm run worker` start them. */
export class College {
  page!: Page;
  private readonly name = `college_${randomUUID().slice(0, 8)}`;
  private readonly admin = new pg.Client({ connectionString: process.env["DATABASE_URL"] });
  private readonly parts: ChildProcess[] = [];
  private readonly folders: string[] = [];
  private readonly contexts: BrowserContext[] = [];
  private browser!: Browser;
  address = "";

  get database(): string {
    const url = new URL(process.env["DATABASE_URL"]!);
    url.pathname = `/${this.name}`;
    return url.href;
  }

  /** @param workers how many grading processes, each in a folder of its own as on machines of their own */
  async open(port: number, workers = 0): Promise<void> {
    await this.admin.connect();
    await this.admin.query(`create database ${this.name}`);
    const said = await this.start("web", /running at (\S+)/, port);
    this.address = said[1]!;
    for (let i = 0; i < workers; i++) await this.start("worker", /grading process is running/, port, this.folder());
    this.browser = await openBrowser();
  }

  /** The program once more, elsewhere. */
  private folder(): string {
    const folder = mkdtempSync(join(tmpdir(), "caliper-elsewhere-"));
    this.folders.push(folder);
    for (const name of ["src", "scripts", "package.json", "package-lock.json", "tsconfig.json"])
      cpSync(name, join(folder, name), { recursive: true });
    symlinkSync(join(process.cwd(), "node_modules"), join(folder, "node_modules"));
    return folder;
  }

  private async start(part: string, ready: RegExp, port: number, cwd = process.cwd()): Promise<RegExpExecArray> {
    const child = spawn(process.execPath, ["scripts/start.mjs", part], {
      cwd,
      env: { ...process.env, DATABASE_URL: this.database, PORT: String(port), CALIPER_DEMO: "0", LOG_LEVEL: "error" },
      stdio: ["pipe", "pipe", "pipe"],
    });
    this.parts.push(child);
    let said = "";
    for (const s of [child.stdout, child.stderr]) s.on("data", (d) => (said = (said + String(d)).slice(-20_000)));
    for (;;) {
      const found = ready.exec(said);
      if (found) return found;
      if (child.exitCode !== null) throw new Error(said);
      await new Promise((r) => setTimeout(r, 100));
    }
  }

  async close(): Promise<void> {
    await this.browser?.close();
    for (const child of this.parts) {
      const gone = new Promise((r) => child.once("exit", r));
      child.kill("SIGTERM");
      await gone;
    }
    for (const folder of this.folders) rmSync(folder, { recursive: true, force: true });
    await this.admin.query(`drop database ${this.name} with (force)`);
    await this.admin.end();
  }

  /** What stands in its database. */
  async asked<T extends pg.QueryResultRow>(sql: string, values: unknown[] = []): Promise<T[]> {
    const client = new pg.Client({ connectionString: this.database });
    await client.connect();
    try {
      return (await client.query<T>(sql, values)).rows;
    } finally {
      await client.end();
    }
  }

  /** Closes all windows. */
  leave = (): Promise<unknown> => Promise.all(this.contexts.splice(0).map((c) => c.close()));

  /** Somebody at a machine of their own. */
  async visitor(path = "/"): Promise<Page> {
    const context = await this.browser.newContext({
      viewport: { width: 1280, height: 800 },
      deviceScaleFactor: 0.5,
      reducedMotion: "reduce",
    });
    this.contexts.push(context);
    this.page = await context.newPage();
    this.page.setDefaultTimeout(20_000);
    await this.page.goto(path.startsWith("http") ? path : this.address + path);
    return this.page;
  }

  async signedIn(email: string, password = PASS): Promise<Page> {
    const p = await this.visitor();
    await type(p.getByLabel("Email"), email);
    await type(p.getByLabel("Password"), password);
    await p.getByRole("button", { name: "Sign in" }).click();
    await p.waitForURL("**/courses");
    return p;
  }

  choose = async (p: Page, password = PASS): Promise<void> => {
    await type(p.getByLabel("Password"), password);
    await type(p.getByLabel("The same again"), password);
  };

  /** Whoever comes first looks after the server. */
  async begin(name: string, email: string): Promise<Page> {
    const p = await this.visitor();
    await type(p.getByLabel("Your name"), name);
    await type(p.getByLabel("Email"), email);
    await this.choose(p);
    await p.getByRole("button", { name: "Begin" }).click();
    await p.waitForURL("**/courses");
    return p;
  }

  /** The newest letter to somebody, as the administrator reads it. @returns where its link leads */
  async letterTo(p: Page, email: string): Promise<string> {
    await p.goto(`${this.address}/administration`);
    await p
      .getByRole("button", { name: new RegExp(`to ${email},`) })
      .first()
      .click();
    const body = await p.locator("pre").first().textContent();
    return new URL(/https?:\S+\/key\/\S+/.exec(body!)![0]).pathname;
  }

  /** Somebody comes in by the letter they got. */
  async comesIn(administrator: Page, email: string): Promise<Page> {
    const p = await this.visitor(await this.letterTo(administrator, email));
    await this.choose(p);
    await p.getByRole("button", { name: "Keep it and come in" }).click();
    await p.waitForURL("**/courses");
    return p;
  }
}

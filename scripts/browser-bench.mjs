// Figures of the application in headless Chromium, for the benches: it is built, started with the demo, and handed
// over.
import { chromium as browserPath, ensureSystem, ROOT } from "./machine.mjs";
import { startPostgres } from "./postgres.mjs";

/** The demo's submissions are checked first: on two cores the grading would be measured with the page. */
async function allChecked(url) {
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  while ((await client.query("select 1 from checks where state in ('queued', 'checking') limit 1")).rowCount)
    await new Promise((r) => setTimeout(r, 500));
  await client.end();
}

/** @param work gets the browser, the address, and how to tell a figure; its failure ends the program with 1 */
export async function measureInBrowser(bench, args, work) {
  ensureSystem({ browser: true });
  process.chdir(ROOT);
  const { build, closing, runProgram, startWeb, startWorker } = await import("./application.mjs");
  const { chromium } = await import("playwright-core");
  const stops = [],
    close = closing(stops);
  const figure = (name, metric, value, unit) =>
    process.stdout.write(
      `${JSON.stringify({ bench, case: name, metric, value: Math.round(value * 1000) / 1000, unit })}\n`,
    );
  let code = 0;
  try {
    const postgres = await startPostgres("bench", { fresh: true, wishedPort: 54_620 });
    stops.push(postgres.stop);
    const env = { DATABASE_URL: postgres.url, CALIPER_DEMO: "1" };
    build();
    runProgram("src/demo/load.ts", env);
    await startWorker(env, { quiet: true });
    await allChecked(postgres.url);
    const web = await startWeb(env, 3_600, { quiet: true });
    const browser = await chromium.launch({
      executablePath: browserPath(),
      args: [
        "--no-sandbox",
        "--use-gl=angle",
        "--use-angle=swiftshader",
        "--enable-unsafe-swiftshader",
        // there is no graphics card: a page that is painted as if there were one measures the painting, not the page
        "--disable-gpu-rasterization",
        "--disable-gpu-compositing",
        ...args,
        "--disable-background-networking",
        "--no-first-run",
      ],
    });
    /** A new window, signed in, on the Bench of one handout. */
    const bench = async (person, handout) => {
      const page = await (
        await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" })
      ).newPage();
      await page.goto(web.address);
      await page.getByRole("button", { name: person }).click();
      await page.waitForURL("**/courses");
      const link = page.getByRole("row", { name: handout }).getByRole("link", { name: /Begin|Go on/ });
      return { page, link };
    };
    await work({ bench, browser, env, address: web.address, run: runProgram, figure });
    await browser.close();
  } catch (e) {
    console.error(e instanceof Error ? e.message : e);
    code = 1;
  }
  await close();
  process.exit(code);
}

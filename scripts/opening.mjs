// How long it takes from a click on a handout until its part is seen, picked and changed, three seconds after the
// handouts are there; again in the same tab; and again on a network that lets everything wait: JSON lines for npm run
// bench.
import { measureInBrowser } from "./browser-bench.mjs";

const RUNS = 5;
/** What a bad network adds to every answer. */
const DELAY_MS = 8_000;

await measureInBrowser("opening", [], async ({ bench, figure }) => {
  const figures = new Map();
  const note = (name, ms) => figures.set(name, [...(figures.get(name) ?? []), ms]);
  for (let run = 0; run < RUNS; run++) {
    // a window of its own: nothing is cached
    const { page, link } = await bench("Barnaby Teal", /WS-02/);
    const until = (what) => page.waitForFunction(what, undefined, { polling: 20, timeout: 60_000 });
    // the part as it was is enough to look at; what is built stands in the Bench's own layer
    const seen = () => until(() => Number(document.querySelector("[data-shaded]")?.getAttribute("data-shaded")) > 0);
    const measured = () =>
      until(
        () =>
          document.querySelector("[data-gauge=Volume]")?.textContent.includes("mm³") &&
          !document.querySelector("[aria-label=Gauges]").textContent.includes("measuring"),
      );
    const picked = async () => {
      const view = await page.getByRole("application", { name: "Model" }).boundingBox();
      for (let i = 0; !(await page.locator("[data-reading]").count()); i++) {
        await page.mouse.click(view.x + view.width / 2 + (i % 5) * 8, view.y + view.height / 2 - 60);
        await page.waitForTimeout(20);
      }
    };
    // the handouts are looked through for a moment
    await page.waitForTimeout(3000);
    let start = performance.now();
    const since = () => performance.now() - start;
    await link.click();
    await seen();
    note("first", since());
    await picked();
    note("first pick", since());
    await page.keyboard.press("w");
    const depth = page.getByRole("form").getByLabel("Depth");
    await depth.waitFor();
    await depth.press("9");
    await measured();
    note("first edit", since());
    await page.keyboard.press("Escape");
    await measured();
    await page.goBack();
    await link.waitFor();
    start = performance.now();
    await link.click();
    await seen();
    note("again, as it was", since());
    await page.getByRole("toolbar").waitFor();
    await measured();
    note("again, built", since());
    await page.goBack();
    await link.waitFor();
    await page.route("**/*", async (r) => {
      await new Promise((go) => setTimeout(go, DELAY_MS));
      await r.continue().catch(() => {});
    });
    start = performance.now();
    await link.click();
    await seen();
    note(`again, network at ${DELAY_MS / 1000} s`, since());
    await page.context().close();
  }
  const middle = (list) => list.sort((a, b) => a - b)[RUNS >> 1];
  for (const [name, list] of figures) figure("anemometer-hub", name, middle(list), "ms");
});

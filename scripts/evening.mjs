// npm run bench -- marking: an evening of marking with a stopwatch, and the gradebook of 30 students and 20 handouts.
import { measureInBrowser } from "./browser-bench.mjs";

/** What a person takes to look at one submission: simulated. */
const READING_S = 8;
/** So long is waited in its place: what is fetched ahead has arrived by then on any network. */
const PAUSE_MS = 1_500;

const percentile = (list, share) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];

await measureInBrowser("marking", ["--disable-gpu-rasterization", "--disable-gpu-compositing"], async (world) => {
  const { browser, env, address, run, figure } = world;
  const told = `${process.cwd()}/.data/evening.json`;
  run("src/cli/bench/evening.ts", env, [told]);
  const { readFileSync } = await import("node:fs");
  const made = JSON.parse(readFileSync(told, "utf8"));
  const page = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" })
  ).newPage();
  await page.context().addCookies([{ name: "caliper-session", value: made.token, url: address }]);

  await page.goto(`${address}/handouts/${made.handout}`);
  await page.getByRole("link", { name: "To the Marking desk" }).click();
  await page.waitForURL("**/submissions/*");
  const shown = () =>
    page.evaluate(
      () =>
        new Promise((resolve) => {
          const look = () => {
            const at = document.querySelector("[data-desk]")?.getAttribute("data-desk");
            const isThere = at && document.querySelector(`[data-shown="${at}"]`);
            // painted: the frame after the one that draws it
            if (isThere) requestAnimationFrame(() => requestAnimationFrame(() => resolve(at)));
            else requestAnimationFrame(look);
          };
          look();
        }),
    );
  await shown();
  // the stopwatch runs in the page: from the key to the frame in which the next one is painted
  await page.evaluate(() => {
    window.took = [];
    window.addEventListener(
      "keydown",
      (e) => {
        if (e.key !== "Enter" || e.target.closest("textarea, input")) return;
        const began = performance.now(),
          was = document.querySelector("[data-desk]").dataset.desk;
        const look = () => {
          const at = document.querySelector("[data-desk]").dataset.desk;
          if (at === was || !document.querySelector(`[data-shown="${at}"]`)) return requestAnimationFrame(look);
          requestAnimationFrame(() => requestAnimationFrame(() => window.took.push(performance.now() - began)));
        };
        requestAnimationFrame(look);
      },
      { capture: true },
    );
  });
  const seen = new Set();
  for (let i = 0; i < made.many; i++) {
    seen.add(await shown());
    await page.waitForTimeout(PAUSE_MS);
    // every third gets a remark on the first line that was missed
    if (i % 3 === 1) {
      const nth = await page
        .locator("[data-line]:has([aria-label=missed]) kbd")
        .first()
        .textContent({ timeout: 500 })
        .catch(() => undefined);
      if (nth) {
        await page.keyboard.press(nth);
        await page.keyboard.press("c");
        await page.keyboard.type("Compare this with the Sheet.");
        await page.keyboard.press("Enter");
      }
    }
    await page.keyboard.press("Enter");
    if (i < made.many - 1) {
      await page.waitForFunction(
        (was) => document.querySelector("[data-desk]")?.getAttribute("data-desk") !== was,
        [...seen].at(-1),
      );
      await shown();
    }
  }
  const steps = (await page.evaluate(() => window.took)).slice(0, made.many - 1);
  if (seen.size !== made.many) throw new Error(`only ${seen.size} of ${made.many} were shown`);
  await page.getByText(`${made.many} of ${made.many} looked at`).waitFor();
  figure("step on", "p50", percentile(steps, 0.5), "ms");
  figure("step on", "p95", percentile(steps, 0.95), "ms");
  const own = steps.reduce((a, b) => a + b, 0) / 1000;
  figure("30 submissions", `with ${READING_S} s of reading each`, (made.many * READING_S + own) / 60, "min");

  await page.goto(`${address}/courses/${made.wide}/gradebook`);
  await page.locator(".gradebook tbody tr").first().waitFor();
  /** Lengths of the frames while something is done, ms. */
  const frames = (what) =>
    page.evaluate(async (source) => {
      const lengths = [];
      let last = performance.now(),
        isOver = false;
      const tick = (now) => {
        lengths.push(now - last);
        last = now;
        if (!isOver) requestAnimationFrame(tick);
      };
      requestAnimationFrame(tick);
      await new Function(`return (async () => { ${source} })()`)();
      isOver = true;
      return lengths.slice(1);
    }, what);
  const nap = "await new Promise((r) => setTimeout(r, 90));";
  const scrolling = await frames(`
    const box = document.querySelector("[aria-label='Students against handouts']");
    for (let i = 0; i < 40; i++) { box.scrollTop = (i * 37) % box.scrollHeight; box.scrollLeft = (i * 29) % 400;
      await new Promise((r) => requestAnimationFrame(r)); }`);
  const sorting = await frames(`
    const heads = [...document.querySelectorAll(".gradebook thead button")];
    for (let i = 0; i < 24; i++) { heads[i % heads.length].click(); ${nap} }`);
  figure("gradebook 30 × 20, scrolled", "frame p95", percentile(scrolling, 0.95), "ms");
  figure("gradebook 30 × 20, sorted", "frame p95", percentile(sorting, 0.95), "ms");
});

// How long it takes from a click on a handout to its shaded part, three seconds after the handouts are there: JSON
// lines for npm run bench.
import { measureInBrowser } from "./browser-bench.mjs";

await measureInBrowser("opening", [], async ({ bench, figure }) => {
  const first = [],
    second = [];
  for (let run = 0; run < 5; run++) {
    // a window of its own: nothing is cached
    const { page, link } = await bench("Barnaby Teal", /WS-02/);
    const shaded = async () => {
      const start = performance.now();
      await link.click();
      await page.waitForFunction(
        () => Number(document.querySelector("[data-shaded]")?.getAttribute("data-shaded")) > 0,
        undefined,
        { polling: 20, timeout: 60_000 },
      );
      return performance.now() - start;
    };
    // the handouts are looked through for a moment
    await page.waitForTimeout(3000);
    first.push(await shaded());
    // and the part is looked at, at least until it is measured
    await page.waitForFunction(
      () => document.querySelector("[data-gauge=Volume]")?.textContent.includes("mm³"),
      undefined,
      { timeout: 60_000 },
    );
    await page.goBack();
    await link.waitFor();
    second.push(await shaded());
    await page.context().close();
  }
  const middle = (list) => list.sort((a, b) => a - b)[2];
  figure("anemometer-hub", "first", middle(first), "ms");
  figure("anemometer-hub", "second", middle(second), "ms");
});

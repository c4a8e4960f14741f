import { beforeAll, describe, expect, it } from "vitest";
import { meshOf } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { rebuild } from "@/core/part/rebuild";
import { SOLIDS } from "@/core/part/testing/solids";
import { openNodeKernel } from "@/worker/kernel";
import { comparedPictures, partPicture } from "./picture";

let kernel: Kernel;
const bodies: [string, Solid][] = [];
beforeAll(async () => {
  kernel = await openNodeKernel();
  for (const { name, ways } of SOLIDS) {
    const { body } = rebuild(kernel, ways[0]!);
    if (body) bodies.push([name, body]);
  }
});

/** Every number of a path's data. */
const numbersIn = (svg: string): number[] =>
  [...svg.matchAll(/ d="([^"]*)"/g)].flatMap((m) => (m[1]!.match(/-?[\d.]+/g) ?? []).map(Number));

describe("a part as a line drawing", () => {
  it("is small, follows the theme, lies within its frame, and is the same each time", () => {
    expect(bodies.length).toBeGreaterThan(5);
    for (const [name, body] of bodies) {
      const svg = partPicture(kernel, body, name)!;
      expect([name, svg.length < 20_000, svg.includes("NaN")]).toEqual([name, true, false]);
      expect(svg).toContain("prefers-color-scheme:dark");
      const numbers = numbersIn(svg);
      expect([name, numbers.length > 4]).toEqual([name, true]);
      // radii may be larger than what is drawn of them; no place lies beyond the frame
      const places = [...svg.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
      for (const [x, y] of places) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(128);
        expect(y).toBeGreaterThanOrEqual(0);
        expect(y).toBeLessThanOrEqual(96);
      }
      expect(partPicture(kernel, body, name)).toBe(svg);
    }
  });
  it("hatches what is missing one way and what is extra the other, within the size", () => {
    const [name, body] = bodies[0]!;
    const mesh = meshOf(kernel, body, 0.01, 0.02);
    const none = comparedPictures(kernel, body, name, {})!;
    expect(none.hatched).toBe(none.plain);
    const missing = comparedPictures(kernel, body, name, { missing: mesh })!,
      both = comparedPictures(kernel, body, name, { missing: mesh, extra: mesh })!;
    expect(missing.plain).toBe(none.plain);
    expect([missing.hatched.includes("url(#m)"), missing.hatched.includes("url(#e)")]).toEqual([true, false]);
    expect([both.hatched.includes("url(#e)"), both.hatched.length < 20_000]).toEqual([true, true]);
  });
  it("says what it is to whoever cannot see it, whatever that holds", () => {
    const [, body] = bodies[0]!;
    const svg = partPicture(kernel, body, 'Hub <"A" & B>')!;
    expect(svg).toContain("<title>Hub &#60;&#34;A&#34; &#38; B&#62;</title>");
  });
});

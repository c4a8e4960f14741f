import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import type { Kernel } from "@/core/kernel/opencascade";
import { tripodFoot, vaneArm } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { readPart, type PartDocument } from "./document";
import { IS_LONG } from "./testing/chosen";

const runs = IS_LONG ? 1000 : 20;
let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

type Path = (string | number)[];
/** Every place in a document where a number, a word or a list stands. */
function places(value: unknown, at: Path = []): Path[] {
  if (Array.isArray(value)) return [at, ...value.flatMap((v, i) => places(v, [...at, i]))];
  if (value && typeof value === "object") return Object.entries(value).flatMap(([k, v]) => places(v, [...at, k]));
  return [at];
}
function changed(document: PartDocument, path: Path, to: unknown): unknown {
  const copy = structuredClone(document) as unknown as Record<string | number, never>;
  let at = copy;
  for (const k of path.slice(0, -1)) at = at[k]!;
  (at as Record<string | number, unknown>)[path[path.length - 1]!] = to;
  return copy;
}
const junk = fc.oneof(
  fc.integer({ min: -200, max: 200 }),
  fc.double({ min: -50, max: 50, noNaN: true }),
  fc.constantFrom("12 mm", "1/0", "l1", "l2.end", "origin", "cut", "add", "through", "circle", true, null, [], "=(1+"),
  fc.string({ maxLength: 6 }),
);

describe("mutated documents", () => {
  it("are refused, or build with every trouble a sentence on a step", () => {
    let built = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(tripodFoot(), vaneArm()),
        fc.array(fc.tuple(fc.nat(), junk), { minLength: 1, maxLength: 2 }),
        (d, changes) => {
          const mutated = changes.reduce<unknown>((at, [n, to]) => {
            const all = places(at).filter((p) => p.length > 1 && p[0] === "steps");
            return all.length ? changed(at as PartDocument, all[n % all.length]!, to) : at;
          }, d);
          const r = readPart(mutated);
          if (!r.ok) {
            expect(r.refusal.sentence).toMatch(/\.$/);
            return;
          }
          const m = measurePart(kernel, r.value);
          built++;
          for (const s of m.built.steps) if (s.refusal) expect(s.refusal.sentence).toMatch(/[.:]/);
          if (m.properties) expect(Number.isFinite(m.properties.volume)).toBe(true);
          kernel.release(m.solid?.shape);
        },
      ),
      { numRuns: runs, seed: 21 },
    );
    expect(built).toBeGreaterThan(runs / 20);
  });
});

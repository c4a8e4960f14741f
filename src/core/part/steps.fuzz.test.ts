import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { modelOf, type Model } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { roughVolume } from "@/core/kernel/properties";
import { openNodeKernel } from "@/worker/kernel";
import { readPart, type PartDocument } from "./document";
import { Rebuilder } from "./rebuild";
import { edgeRef, faceRef } from "./reference/make";
import type { Step } from "./steps/kinds";
import { circ, line, part, rect, sketch } from "./testing/build";
import { SOLIDS } from "./testing/solids";
import { IS_LONG } from "./testing/chosen";

const LIMIT_MS = 20_000;
let kernel: Kernel,
  builds = 0;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
/** The library's heap never shrinks: a grown instance is replaced, as the application does. */
async function fresh(): Promise<void> {
  if (kernel.heapBytes > 400 * 1_048_576) kernel = await openNodeKernel();
}

/** A number from a list of random ones. */
class Dice {
  private at = 0;
  constructor(private readonly rolls: readonly number[]) {}
  below(n: number): number {
    return Math.floor(this.rolls[this.at++ % this.rolls.length]! * n) % n;
  }
  size(from: number, to: number): number {
    return Math.round((from + this.rolls[this.at++ % this.rolls.length]! * (to - from)) * 100) / 100;
  }
  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
}

/** A step that a person might add to what there is, made of what can be picked on it. */
function nextSteps(d: PartDocument, m: Model, dice: Dice): Step[] {
  const n = d.steps.length,
    id = (kind: string) => `${kind}${n}`;
  const flat = m.faces.flatMap((f, i) => (f.carrier.kind === "plane" ? [i] : [])),
    edges = m.edges.map((_, i) => i);
  const face = () => faceRef(m, dice.of(flat))!,
    some = () => [...new Set([dice.of(edges), dice.of(edges)])].map((e, i) => ({ id: `e${i}`, on: edgeRef(m, e)! }));
  const plane = dice.of(["front", "top", "right"] as const),
    x = dice.size(-40, 40),
    y = dice.size(-40, 40);
  const outline = dice.below(2) ? rect(x, y, x + dice.size(3, 50), y + dice.size(3, 50)) : circ(x, y, dice.size(2, 25));
  const by = dice.size(0.2, 12);
  switch (dice.below(12)) {
    case 0:
      return [
        sketch(id("s"), { base: plane, offset: dice.size(-30, 30) }, outline),
        {
          id: id("x"),
          kind: "extrude",
          sketch: id("s"),
          operation: dice.of(["add", "cut", "separate"]),
          extent: { kind: "depth", depth: dice.size(1, 40) },
          ...(dice.below(2) ? { reverse: true } : {}),
        },
      ];
    case 1:
      return [
        sketch(id("s"), plane, outline),
        {
          id: id("x"),
          kind: "extrude",
          sketch: id("s"),
          operation: dice.of(["cut", "keep"]),
          extent: { kind: "through" },
          ...(dice.below(3) ? {} : { draft: dice.size(-10, 10) }),
        },
      ];
    case 2:
      return [
        sketch(id("s"), plane, outline),
        {
          id: id("r"),
          kind: "revolve",
          sketch: id("s"),
          operation: dice.of(["add", "cut"]),
          about: { axis: dice.of(["x", "y", "z"]) },
          turn: dice.below(2) ? { kind: "whole" } : { kind: "angle", angle: dice.size(5, 355) },
        },
      ];
    case 3:
      return [
        {
          id: id("h"),
          kind: "hole",
          on: face(),
          points: [{ id: "p1", at: [x, y] }],
          diameter: by,
          head: dice.of([
            { kind: "plain" },
            { kind: "counterbore", diameter: by * 2, depth: by },
            { kind: "countersink", diameter: by * 2, angle: 90 },
          ]),
          extent: dice.of([{ kind: "through" }, { kind: "depth", depth: dice.size(2, 30) }]),
        },
      ];
    case 4:
      return [{ id: id("f"), kind: "fillet", groups: [{ radius: by, edges: some() }] }];
    case 5:
      return [
        {
          id: id("c"),
          kind: "chamfer",
          groups: [
            {
              size: dice.of([
                { kind: "equal", distance: by },
                { kind: "two", first: by, second: by / 2 },
                { kind: "angle", distance: by, angle: 30 },
              ]),
              edges: some(),
            },
          ],
        },
      ];
    case 6:
      return [
        {
          id: id("k"),
          kind: "shell",
          thickness: dice.size(0.3, 6),
          open: [face()],
          ...(dice.below(3) ? {} : { outward: true }),
        },
      ];
    case 7:
      return [{ id: id("m"), kind: "mirror", of: { body: true }, about: dice.below(2) ? { datum: plane } : face() }];
    case 8:
      return [
        sketch(id("s"), { base: plane, offset: dice.size(-20, 20) }, [
          line("w1", [x, y], [x + by, y + 5]),
          line("w2", [x + by, y + 5], [x + 2 * by, dice.size(-40, 40)]),
        ]),
        {
          id: id("w"),
          kind: "extrude",
          sketch: id("s"),
          operation: dice.of(["add", "cut"]),
          extent: { kind: "depth", depth: dice.size(1, 30) },
          thin: {
            thickness: dice.size(0.3, 5),
            side: dice.of(["inside", "outside", "middle"]),
            ends: { "w1.start": dice.of(["first", "next", "square"]), "w2.end": dice.of(["first", "next"]) },
          },
        },
      ];
    case 9:
      return [
        {
          id: id("g"),
          kind: "extrude",
          face: face(),
          operation: dice.of(["add", "cut"]),
          extent: { kind: "depth", depth: by },
          ...(dice.below(2) ? { reverse: true } : {}),
          ...(dice.below(4) ? {} : { draft: dice.size(-8, 8) }),
        },
      ];
    case 10:
      return [
        sketch(id("s"), { base: plane, offset: dice.size(-60, 60) }, outline),
        {
          id: id("x"),
          kind: "extrude",
          sketch: id("s"),
          operation: "add",
          extent: { kind: "face", face: faceRef(m, dice.below(m.faces.length))!, offset: dice.size(-3, 3) },
          ...(dice.below(2) ? { reverse: true } : {}),
        },
      ];
    default: {
      const last = [...d.steps].reverse().find((s) => ["extrude", "hole", "revolve"].includes(s.kind))!;
      return [
        {
          id: id("p"),
          kind: "pattern",
          of: { steps: [last.id] },
          way: dice.below(2)
            ? {
                kind: "rows",
                first: {
                  along: { axis: dice.of(["x", "y", "z"]) },
                  count: 2 + dice.below(3),
                  by: "step",
                  distance: dice.size(3, 40),
                },
              }
            : { kind: "ring", about: { axis: "z" }, count: 2 + dice.below(5), by: "total", angle: 360 },
        },
      ];
    }
  }
}

/** Builds, and looks at what came of it: every trouble a sentence, every body with a volume. */
function build(r: Rebuilder, d: PartDocument): Model | undefined {
  const start = process.cpuUsage(),
    part = r.run(d);
  builds++;
  expect(process.cpuUsage(start).user / 1000).toBeLessThan(LIMIT_MS);
  for (const s of part.steps) {
    if (s.refusal) expect(s.refusal.sentence).toMatch(/[.:]/);
    for (const l of s.lost ?? []) expect(l.sentence).toMatch(/\.$/);
  }
  if (!part.body) return undefined;
  expect(part.body.names.length).toBeGreaterThan(0);
  expect(Number.isFinite(roughVolume(kernel, part.body.shape))).toBe(true);
  return modelOf(kernel, part.body);
}

describe("random sequences of steps", () => {
  it("build, or say in a sentence what is wrong, and never leave the part without a shape", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.double({ min: 0, max: 0.999999, noNaN: true }), { minLength: 40, maxLength: 40 }),
        async (rolls) => {
          await fresh();
          const dice = new Dice(rolls),
            r = new Rebuilder(kernel);
          let d = part(sketch("s", "top", rect(0, 0, dice.size(20, 60), dice.size(20, 60))), {
            id: "b",
            kind: "extrude",
            sketch: "s",
            operation: "add",
            extent: { kind: "depth", depth: dice.size(5, 40) },
          });
          let m = build(r, d);
          for (let i = 0; i < 4 && m && m.edges.length; i++) {
            const next = { ...d, steps: [...d.steps, ...nextSteps(d, m, dice)] },
              read = readPart(next);
            expect(read.ok || read.refusal.sentence).toBe(true);
            d = next;
            m = build(r, d) ?? m;
          }
          r.close();
        },
      ),
      { numRuns: IS_LONG ? 1000 : 12, seed: 4 },
    );
    expect(builds).toBeGreaterThan(40);
  });
});

describe("mutated documents of solids", () => {
  const all = SOLIDS.flatMap((s) => s.ways);
  const junk = fc.oneof(
    fc.double({ min: -100, max: 100, noNaN: true }),
    fc.constantFrom(
      "12 mm",
      "1/0",
      "b/end",
      "b/side/l1|b/end",
      "s",
      "cut",
      "keep",
      "through",
      "z",
      true,
      null,
      [],
      "=(1+",
      "=w",
      "90°",
    ),
    fc.string({ maxLength: 6 }),
  );
  type Path = (string | number)[];
  const places = (v: unknown, at: Path = []): Path[] =>
    Array.isArray(v)
      ? [at, ...v.flatMap((x, i) => places(x, [...at, i]))]
      : v && typeof v === "object"
        ? Object.entries(v).flatMap(([k, x]) => places(x, [...at, k]))
        : [at];
  it("are refused, or build with every trouble a sentence on a step", async () => {
    let built = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...all),
        fc.array(fc.tuple(fc.nat(), junk), { minLength: 1, maxLength: 2 }),
        async (d, changes) => {
          await fresh();
          const copy = structuredClone(d) as unknown as Record<string | number, never>;
          for (const [n, to] of changes) {
            const list = places(copy).filter((p) => p.length > 1 && p[0] === "steps"),
              path = list[n % list.length]!;
            let at = copy;
            for (const k of path.slice(0, -1)) at = at[k]!;
            (at as Record<string | number, unknown>)[path[path.length - 1]!] = to;
          }
          const read = readPart(copy);
          if (!read.ok) {
            expect(read.refusal.sentence).toMatch(/\.$/);
            return;
          }
          const r = new Rebuilder(kernel);
          build(r, read.value);
          r.close();
          built++;
        },
      ),
      { numRuns: IS_LONG ? 1000 : 80, seed: 5 },
    );
    expect(built).toBeGreaterThan(IS_LONG ? 100 : 3);
  });
});

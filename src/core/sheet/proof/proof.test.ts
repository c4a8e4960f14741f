import { beforeAll, describe, expect, it } from "vitest";
import { referenceExercises } from "@/cli/bench/reference-parts";
import type { Kernel } from "@/core/kernel/opencascade";
import { disturbed, proposedSizes, rankSizes, type RankTable } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import type { Lettering } from "@/core/sizes/lettering";
import { openNodeKernel } from "@/worker/kernel";
import { proofOf, type Proof } from "./proof";
import { fewer } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

type Subject = { sizes: readonly Size[]; rank: (sizes: readonly Size[], l?: Lettering) => RankTable };
const made = new Map<string, Subject>();
const exercises = referenceExercises();
function subject(name: string): Subject {
  let s = made.get(name);
  if (!s) {
    const e = exercises.find(([n]) => n === name)![1];
    const r = disturbed(kernel, e.reference);
    if (!r.ok) throw new Error(r.refusal.sentence);
    const { body, changes } = r.value;
    made.set(
      name,
      (s = {
        sizes: proposedSizes(r.value),
        rank: (sizes, l = { unit: e.units }) => rankSizes(body, changes, sizes, l),
      }),
    );
  }
  return s;
}
const prove = (table: RankTable): Proof =>
  proofOf({ table, texts: new Map(), unplaced: [], volume: 20_000, tolerance: 0.005, endingInside: [] });
const kinds = (p: Proof) => [...new Set(p.points.map((x) => x.kind))];

describe.each(fewer(exercises, 2).map(([name]) => name))("the proof of %s", (name) => {
  it("is silent where all is printed once", () => {
    const { sizes, rank } = subject(name);
    expect(prove(rank(sizes)).points.map((p) => p.sentence)).toEqual([]);
  });
  it("names what is missing when a size is taken away, among few", () => {
    const { sizes, rank } = subject(name);
    const whole = rank(sizes);
    for (const gone of sizes.slice(0, 4)) {
      const row = whole.sizes.find((s) => s.id === gone.id)!.rows;
      const followed = whole.numbers.filter((_, i) => row.some((r) => r[i] !== 0)).map((n) => n.id);
      if (!followed.length) continue;
      const p = prove(rank(sizes.filter((s) => s !== gone)));
      expect(kinds(p)).toEqual(["missing"]);
      const named = p.points.flatMap((x) => x.numbers);
      // numbers that only act together are told by how many ways are open
      if (named.length) expect(named.some((n) => followed.includes(n))).toBe(true);
    }
  });
  it("names the very size that is said twice", () => {
    const { sizes, rank } = subject(name);
    const one = sizes.find((s) => s.kind === "distance") ?? sizes[0]!;
    const p = prove(rank([...sizes, { ...one, id: "again" }]));
    expect(p.points.map((x) => [x.kind, ...x.sizes])).toEqual([["twice", "again"]]);
  });
});

it("a number rounded too far is named with what the mass may be off", () => {
  const { sizes, rank } = subject("vane-arm");
  const p = prove(rank(sizes, { unit: "in", digits: 1 }));
  expect(p.attainable).toBeGreaterThan(0.0025);
  const [rounded] = p.points.filter((x) => x.kind === "rounded");
  expect(rounded!.sentence).toMatch(/may be off by .* %, and 0\.5 % is allowed/);
  expect(rounded!.sizes.length).toBeGreaterThan(0);
});

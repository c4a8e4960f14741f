import { describe, expect, it } from "vitest";
import { readQuantity } from "@/core/units/quantity";
import type { HoleStep } from "./schema";
import { fromTable, HOLE_TABLES } from "./tables";

const table = (id: string) => HOLE_TABLES.find((t) => t.id === id)!;
const row = (id: string, name: string) => table(id).rows.find((r) => r.name === name)!;
const mm = (text: unknown): number => {
  const r = readQuantity(text as string, "length", "mm");
  return r.ok ? r.value : NaN;
};
const bare: HoleStep = {
  id: "h",
  kind: "hole",
  points: [],
  diameter: 3,
  head: { kind: "plain" },
  extent: { kind: "through" },
};

describe("tables of holes", () => {
  it.each(HOLE_TABLES.flatMap((t) => t.rows.map((r) => [t.id, r.name, r] as const)))(
    "%s %s holds sizes that can be read, heads wider than their bores",
    (_, __, r) => {
      const bore = mm(r.diameter);
      expect(bore).toBeGreaterThan(0.5);
      if (r.fine) expect(mm(r.fine)).toBeLessThan(bore);
      if (r.coarse) expect(mm(r.coarse)).toBeGreaterThan(bore);
      if (r.head && r.head.kind !== "plain") expect(mm(r.head.diameter)).toBeGreaterThan(bore);
    },
  );
  it.each(HOLE_TABLES.map((t) => [t.id, t] as const))("%s names every row once", (_, t) =>
    expect(new Set(t.rows.map((r) => r.name)).size).toBe(t.rows.length),
  );
  it.each([
    ["clearance", "M8", "medium", 9],
    ["clearance", "M8", "fine", 8.4],
    ["clearance", "M8", "coarse", 10],
    ["clearance", "M20", "medium", 22],
    ["tapping", "M6", "medium", 5],
    ["tapping", "M10x1", "medium", 9],
    ["iso-228", "G 1/2", "medium", 19],
    ["iso-7", "Rc 1/2", "medium", 18.25],
    ["unc", "1/4-20 UNC", "medium", 0.201 * 25.4],
    ["inch-clearance", "1/4 in", "medium", (9 / 32) * 25.4],
    ["inch-drills", "3/8 in", "medium", 9.525],
  ] as const)("%s %s %s is %f mm", (id, name, fit, want) =>
    expect(mm(fromTable(bare, table(id), row(id, name), fit).diameter)).toBeCloseTo(want, 9),
  );
  it("a cap screw's head lies flush, with room around it", () => {
    const h = fromTable(bare, table("iso-4762"), row("iso-4762", "M6"), "medium");
    expect(h.head.kind === "counterbore" && [mm(h.head.diameter), mm(h.head.depth)]).toEqual([11.5, 6.4]);
    expect(h.from).toEqual({ table: "iso-4762", row: "M6", fit: "medium" });
  });
  it("another row puts away what the last one brought", () => {
    const tapped = fromTable(bare, table("tapping"), row("tapping", "M8"), "medium");
    expect(tapped.thread).toEqual({ name: "M8" });
    const sunk = fromTable(tapped, table("iso-10642"), row("iso-10642", "M5"), "medium");
    expect(sunk.thread).toBeUndefined();
    expect(sunk.head).toEqual({ kind: "countersink", diameter: "11.2 mm", angle: 90 });
  });
});

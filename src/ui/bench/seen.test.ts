import "fake-indexeddb/auto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { circ, extrude, part, rect, sketch } from "@/core/part/testing/build";
import type { PartDocument } from "@/core/part/document";
import { keepSeen, markOf, readSeen } from "./seen";
import { NOTHING } from "./slices/building";

const box = (h: number) => part(sketch("s", "top", rect(0, 0, 40, 30)), extrude("e", "s", h));
/** The same with its fields in another order. */
const turned = (v: unknown): unknown => {
  if (Array.isArray(v)) return v.map(turned);
  if (typeof v !== "object" || v === null) return v;
  return Object.fromEntries(
    Object.entries(v)
      .reverse()
      .map(([k, w]) => [k, turned(w)]),
  );
};

it("a document has one mark whatever the order of its fields, and another document another", () =>
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 999 }), fc.integer({ min: 1, max: 999 }), (a, b) => {
      expect(markOf(turned(box(a)) as PartDocument)).toBe(markOf(box(a)));
      if (a !== b) expect(markOf(box(a))).not.toBe(markOf(box(b)));
    }),
  ));
it("what was seen is its owner's alone, and only the parts seen last are kept", async () => {
  const about = { heading: "WS-01", sheet: undefined };
  for (let i = 0; i < 30; i++) {
    await keepSeen("me", `/part/${i}`, box(i + 1), NOTHING, about);
    await new Promise((r) => setTimeout(r, 2));
  }
  expect(await readSeen("another", "/part/29")).toBeUndefined();
  expect(await readSeen("me", "/part/0")).toBeUndefined();
  const seen = await readSeen("me", "/part/29");
  expect([seen?.heading, seen?.steps, seen?.of]).toEqual(["WS-01", ["Sketch on top", "Extrude"], markOf(box(30))]);
  const all = await Promise.all(Array.from({ length: 30 }, (_, i) => readSeen("me", `/part/${i}`)));
  expect(all.filter(Boolean).length).toBe(24);
});
it("another sketch is another mark", () => {
  const disc = part(sketch("s", "top", circ(0, 0, 20)), extrude("e", "s", 5));
  expect(markOf(disc)).not.toBe(markOf(box(5)));
});

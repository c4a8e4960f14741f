import { expect, it } from "vitest";
import { extrude, part, rect, sketch } from "@/core/part/testing/build";
import type { StepMode } from "../state";
import { keptCard } from "./kept-card";

const base = part(sketch("sketch1", "top", rect(0, 0, 40, 30)), extrude("extrude1", "sketch1", 10));
const mode = (change: Partial<StepMode>): StepMode => ({
  kind: "step",
  draft: extrude("extrude2", "sketch1", 4),
  fresh: true,
  at: 2,
  opening: 1,
  past: [],
  future: [],
  ...change,
});
function world(owner = "me") {
  const kept = new Map<string, string>();
  const shelf = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  };
  return { kept, card: keptCard(owner, "/part", () => shelf), other: keptCard("another", "/part", () => shelf) };
}

it("a card comes back as it was, for its owner alone, until it is forgotten", () => {
  const { card, other } = world();
  card.write(mode({}));
  expect(card.read(base)).toEqual({ draft: extrude("extrude2", "sketch1", 4), fresh: true, at: 2 });
  expect(other.read(base)).toBeUndefined();
  card.forget();
  expect(card.read(base)).toBeUndefined();
});
it("a card whose place or ground is gone is not opened", () => {
  const { card } = world();
  // accepted in another window meanwhile
  card.write(mode({ draft: extrude("extrude1", "sketch1", 4) }));
  expect(card.read(base)).toBeUndefined();
  // its step was deleted
  card.write(mode({ draft: extrude("extrude9", "sketch1", 4), fresh: false, at: 1 }));
  expect(card.read(base)).toBeUndefined();
  // what it stands on was deleted
  card.write(mode({ draft: extrude("extrude2", "sketch7", 4) }));
  expect(card.read(base)).toBeUndefined();
  // the part became shorter: it goes to its end
  card.write(mode({ at: 9 }));
  expect(card.read(base)?.at).toBe(2);
});
it("what cannot be read, and a browser that keeps nothing, are no harm", () => {
  const { card, kept } = world();
  kept.set([...kept.keys()][0] ?? "caliper-card me /part", "{");
  expect(card.read(base)).toBeUndefined();
  const barred = keptCard("me", "/part", () => {
    throw new Error("storage is barred");
  });
  barred.write(mode({}));
  barred.forget();
  expect(barred.read(base)).toBeUndefined();
});

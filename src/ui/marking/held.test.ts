import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { HELD_MS, Holding, type Held } from "./held";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function world() {
  const sent: string[] = [];
  const told: (Held | undefined)[] = [];
  const box = new Holding((h) => told.push(h));
  return { sent, told, box, hold: (name: string) => box.hold(name, () => sent.push(name)) };
}

it("what is held goes out after ten seconds, once", () => {
  const w = world();
  w.hold("a");
  vi.advanceTimersByTime(HELD_MS - 1);
  expect(w.sent).toEqual([]);
  vi.advanceTimersByTime(HELD_MS);
  expect(w.sent).toEqual(["a"]);
  expect(w.told.at(-1)).toBeUndefined();
});
it("what is taken back never goes out", () => {
  const w = world();
  w.hold("a");
  expect(w.box.takeBack()).toBe(true);
  vi.advanceTimersByTime(2 * HELD_MS);
  expect(w.sent).toEqual([]);
  expect(w.box.takeBack()).toBe(false);
});
it("another, and the end of the page, send at once what is held", () => {
  const w = world();
  w.hold("a");
  w.hold("b");
  expect(w.sent).toEqual(["a"]);
  w.box.flush();
  expect(w.sent).toEqual(["a", "b"]);
  vi.advanceTimersByTime(2 * HELD_MS);
  expect(w.sent).toEqual(["a", "b"]);
});

import { describe, expect, it } from "vitest";
import type { Curve } from "./sketch";
import { wordsFor } from "./words";

const line = (id: string, start: [number, number], end: [number, number]): Curve => ({ id, kind: "line", start, end });
const circle = (id: string, centre: [number, number], radius: number): Curve => ({
  id,
  kind: "circle",
  centre,
  radius,
});
const words = (...curves: Curve[]) => wordsFor({ curves }, "mm");

describe("what a sketch's things are called", () => {
  const box = [
    line("l1", [0, 0], [60, 0]),
    line("l2", [60, 0], [60, 40]),
    line("l3", [60, 40], [0, 40]),
    line("l4", [0, 40], [0, 0]),
  ];
  it("lines of a rectangle by way and side, holes by size", () => {
    const call = words(...box, circle("c1", [20, 20], 5), circle("c2", [40, 20], 4));
    expect(call("l1")).toBe("the level line at the bottom");
    expect(call("l2")).toBe("the upright line at the right");
    expect(call("c1")).toBe("the circle ⌀10");
    expect(call("c2.centre")).toBe("the centre of the circle ⌀8");
    expect(call("l3.start")).toBe("the right end of the level line at the top");
    expect(call("l4.end")).toBe("the lower end of the upright line at the left");
    expect(call("origin")).toBe("the origin");
  });
  it("twins in one place are counted off, in the unit of the document", () => {
    const row = [5, 10, 15].map((x, i) => circle(`c${i}`, [x, 1], 1));
    const call = wordsFor({ curves: [...row, line("l1", [0, 0], [200, 0]), line("l2", [0, 0], [0, 200])] }, "in");
    expect(row.map((c) => call(c.id))).toEqual(
      ["1st", "2nd", "3rd"].map((n) => `the circle ⌀0.0787 at the bottom left, ${n} from the left`),
    );
  });
  it("every curve has words of its own, and none holds an id", () => {
    const many = Array.from({ length: 40 }, (_, i) => circle(`c${i}`, [(i * 7) % 23, (i * 11) % 17], 1 + (i % 3)));
    const call = words(...box, ...many);
    const all = [...box, ...many].map((c) => call(c.id));
    expect(new Set(all).size).toBe(all.length);
    expect(all.filter((w) => /\b[cl]\d/.test(w))).toEqual([]);
  });
});

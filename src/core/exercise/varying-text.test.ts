import { describe, expect, it } from "vitest";
import { readVarying, varyingAround, varyingText } from "./varying-text";

const depth = { id: "d", step: "b", label: "2 · Extrude: depth", quantity: "length" as const, value: 20 };
const read = (text: string, units: "mm" | "in" = "mm") => readVarying(text, depth, units);
const values = (text: string, units?: "mm" | "in") => {
  const r = read(text, units);
  return r.ok ? r.value.values : r.refusal.sentence;
};

describe("own numbers as they are typed", () => {
  it.each([
    ["20 to 40 by 4", { from: 20, to: 40, step: 4 }],
    ["20; 24,5; 28", { of: [20, 24.5, 28] }],
    ["20, 24, 28", { of: [20, 24, 28] }],
    ["1 cm to 2 cm by 2 mm", { from: 10, to: 20, step: 2 }],
  ])("%s", (text, expected) => expect(values(text)).toEqual(expected));
  it("are inches where the exercise is in inches", () =>
    expect(values("1/2 to 1 by 1/8", "in")).toEqual({ from: 12.7, to: 25.4, step: 3.175 }));
  it.each([
    ["40 to 20 by 4", /from less to more/],
    ["20", /at least two/],
    ["20; wide", /2 · Extrude: depth/],
  ])("%s is refused in a sentence", (text, sentence) => expect(values(text)).toMatch(sentence));
  it("come back as they were typed", () => {
    for (const text of ["20 to 40 by 4", "20; 24.5; 28"]) {
      const r = read(text);
      if (!r.ok) throw new Error(r.refusal.sentence);
      expect(read(varyingText(r.value, "length", "mm"))).toEqual(r);
    }
  });
  it("begin as two round values", () => {
    const around = (value: number, units: "mm" | "in" = "mm") =>
      varyingAround({ ...depth, value } as never, units).values;
    expect(around(24)).toEqual({ of: [24, 26] });
    expect(around(3)).toEqual({ of: [3, 4] });
    expect(around(25.4, "in")).toEqual({ of: [25.4, 25.4 + 3.175] });
  });
});

import { expect, it } from "vitest";
import { typedNumber, withNumberTaken } from "./take-size";

it.each([
  ["", false, "142", "142"],
  ["10", true, "142", "142"],
  ["142", false, "38", "=142-38"],
  ["=142-38", false, "27", "=142-38-27"],
  ["=142+", false, "8", "=142+8"],
  ["=(94-", false, "31", "=(94-31"],
] as const)("%s, all of it chosen: %s, takes %s to %s", (text, isWhole, number, after) =>
  expect(withNumberTaken(text, isWhole, number)).toBe(after),
);

it("is typed in the unit of the part, angles in degrees", () => {
  const d = { id: "s", text: "", kind: "distance" as const, values: [25.4] };
  expect(typedNumber(d, "in")).toBe("1");
  expect(typedNumber(d, "mm")).toBe("25.4");
  expect(typedNumber({ ...d, kind: "angle", values: [Math.PI / 6] }, "mm")).toBe("30");
});

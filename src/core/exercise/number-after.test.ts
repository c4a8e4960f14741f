import { expect, it } from "vitest";
import { numberAfter } from "./number-after";

it.each([
  [["WS-07", "WS-12", "T-1"], "WS-13"],
  [["WS-09"], "WS-10"],
  [["7", "9"], "10"],
  [["A-1", "B-5"], "A-2"],
  [["spacer", ""], ""],
  [[], ""],
])("after %j comes %s", (numbers, next) => expect(numberAfter(numbers)).toBe(next));

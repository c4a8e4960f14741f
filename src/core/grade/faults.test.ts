import { expect, it } from "vitest";
import type { Report } from "@/core/check/check";
import type { Evidence } from "@/core/check/kinds/kinds";
import { IDENTITY } from "@/core/geometry/rigid";
import { commonFaults } from "./faults";

const report = (...evidence: object[]): Report => ({ version: 1, kernel: "k", evidence: evidence as Evidence[] });
const size = (id: string, state: string) => ({
  id,
  state,
  text: `⌀${id}`,
  name: `the diameter of the hole ⌀${id}`,
  values: [],
});
const sizes = (...list: object[]) => ({ check: "sizes", verdict: "missed", off: list.length, sizes: list });
const shape = (finding: string, ...features: object[]) => ({
  check: "shape",
  verdict: "missed",
  finding,
  motion: IDENTITY,
  features,
});
const gone = (name: string) => ({ name, state: "missing", at: [0, 0, 0] });

it("tells what most share first, each once a report, and what is basic before what follows", () => {
  const faults = commonFaults([
    report(sizes(size("9", "missed"), size("18", "lost")), shape("differs", gone("the fillet R6"))),
    report(sizes(size("9", "missed")), shape("differs", gone("the fillet R6"))),
    report(sizes(size("9", "missed"), size("30", "met"))),
    report(shape("mirrored")),
  ]);
  expect(faults).toEqual([
    { text: "the diameter of the hole ⌀9, printed ⌀9, is not as printed", who: [0, 1, 2] },
    { text: "the fillet R6 is missing", who: [0, 1] },
    { text: "the part is the mirror image of what is drawn", who: [3] },
  ]);
});
it("of a part in the wrong unit tells that and nothing else", () => {
  const faults = commonFaults([report(shape("scaled", gone("a hole")), sizes(size("9", "missed")))], 9);
  expect(faults.map((f) => f.text)).toEqual(["the part has the right form in the wrong unit"]);
});
it("a hole whose diameter is told is not told again by its shape", () => {
  const changed = { name: "the hole ⌀9", state: "changed", at: [0, 0, 0], grown: 1 };
  const faults = commonFaults([report(sizes(size("9", "missed")), shape("differs", changed))], 9);
  expect(faults).toHaveLength(1);
});
it("has nothing to tell of a class that has everything right", () => {
  expect(commonFaults([report(shape("same")), report()])).toEqual([]);
});

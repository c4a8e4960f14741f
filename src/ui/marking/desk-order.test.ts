import { describe, expect, it } from "vitest";
import type { QueueRow } from "@/server/marking/desk-queue";
import { groupOf, inOrder, passes } from "./desk-order";

const row = (name: string, more: Partial<QueueRow> = {}): QueueRow => ({
  personId: name,
  name,
  group: null,
  submission: `s-${name}`,
  attempt: 1,
  state: "checked",
  points: 20,
  of: 25,
  needs: [],
  isAccepted: false,
  isReturned: false,
  turn: null,
  lacking: "",
  seenAt: null,
  picture: null,
  ...more,
});

describe("the queue", () => {
  it("begins with what needs a person, the most urgent first, and ends with nothing handed in", () => {
    const rows = [
      row("Absent", { submission: null, state: null }),
      row("Back", { isReturned: true }),
      row("Plain"),
      row("Near", { needs: ["near"] }),
      row("Asks", { needs: ["question", "near"] }),
      row("Broken", { state: "failed", needs: ["failed"] }),
      row("Busy", { state: "checking" }),
      row("Done", { isAccepted: true }),
      row("Waits", { turn: "student" }),
    ];
    expect(inOrder(rows).map((r) => r.name)).toEqual([
      "Broken",
      "Asks",
      "Near",
      "Plain",
      "Waits",
      "Done",
      "Busy",
      "Back",
      "Absent",
    ]);
  });
  it("does not hide among the returned what needs a person again", () => {
    expect(groupOf(row("x", { isReturned: true, needs: ["changed"] }))).toBe("Needs you");
  });
  it.each([
    ["needs", { needs: ["hand"] as const }, true],
    ["needs", {}, false],
    ["open", { isAccepted: true }, false],
    ["open", { submission: null }, false],
    ["below", { points: 25 }, false],
    ["below", {}, true],
    ["returned", { isReturned: true }, true],
  ] as const)("filtered by %s, %j: %s", (filter, more, wanted) => {
    expect(passes(row("Linnea Holt", more as Partial<QueueRow>), filter, "")).toBe(wanted);
  });
  it("is searched by names and groups, however they are typed", () => {
    const linnea = row("Linnea Holt", { group: "Tuesday" });
    expect(["linn", " HOLT ", "tues", ""].map((t) => passes(linnea, "all", t))).toEqual([true, true, true, true]);
    expect(passes(linnea, "all", "Teal")).toBe(false);
  });
});

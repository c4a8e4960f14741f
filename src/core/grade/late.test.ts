import { describe, expect, it } from "vitest";
import { isClosed, lateSeconds, pointsAfter, rulesText, spanText, type DueRules } from "./late";

const due = new Date("2026-12-01T18:00:00Z");
const rules = (r: Partial<DueRules> = {}): DueRules => ({
  due_at: due,
  grace_minutes: 0,
  after_due: "late",
  points_a_day: 0,
  ...r,
});
const after = (minutes: number) => new Date(due.getTime() + minutes * 60_000);

describe("lateness", () => {
  it.each([
    ["before", -1, 0, 0],
    ["at the moment", 0, 0, 0],
    ["a minute after", 1, 0, 60],
    ["within the grace", 10, 10, 0],
    ["beyond the grace all of it counts", 11, 10, 660],
  ])("%s", (_, minutes, grace, wanted) =>
    expect(lateSeconds(rules({ grace_minutes: grace }), after(minutes))).toBe(wanted),
  );
  it("closes only what is refused", () => {
    expect(isClosed(rules({ after_due: "refuse" }), after(1))).toBe(true);
    expect(isClosed(rules({ after_due: "refuse", grace_minutes: 5 }), after(5))).toBe(false);
    expect(isClosed(rules(), after(1))).toBe(false);
  });
  it.each([
    ["a grace does not outlast the closing", { grace_minutes: 60, closes_at: after(30) }, 31, true],
    ["before it closes it takes what is late", { grace_minutes: 10, closes_at: after(30) }, 30, false],
    ["more time than until it closes holds", { due_at: after(120), closes_at: after(30) }, 100, false],
    ["and then no longer", { due_at: after(120), closes_at: after(30) }, 121, true],
  ] as const)("%s", (_, r, minutes, wanted) => expect(isClosed(rules(r), after(minutes))).toBe(wanted));
});

it.each([
  [0, 20],
  [1, 17],
  [86_400, 17],
  [86_401, 14],
  [30 * 86_400, 0],
])("%d s late leave %d of 20 points at 3 a day", (late, left) =>
  expect(pointsAfter(rules({ after_due: "points", points_a_day: 3 }), { points: 20 }, late)).toBe(left),
);

it.each([
  [5, "1 min"],
  [720, "12 min"],
  [3600, "1 h"],
  [19_200, "5 h 20 min"],
  [86_400, "1 day"],
  [183_600, "2 days 3 h"],
])("%d s are %s", (s, text) => expect(spanText(s)).toBe(text));

it.each([
  [{ after_due: "refuse" as const }, "Nothing is taken after it was due."],
  [
    { after_due: "points" as const, points_a_day: 1, grace_minutes: 15 },
    "For what comes more than 15 min after it was due, each day begun costs 1 point.",
  ],
  [{}, "What comes after it was due is marked late."],
])("says its rules", (r, text) => expect(rulesText(rules(r))).toBe(text));

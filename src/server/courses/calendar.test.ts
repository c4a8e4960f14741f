import { describe, expect, it } from "vitest";
import { calendarFile, type CalendarEntry } from "./calendar";
import { clockIn, momentIn } from "./moments";

const entry: CalendarEntry = {
  handout: "0b7b4d6e-6a4f-4c5c-9a53-0f2f2a1b9c77",
  number: "WS-04",
  title: "Spacer; turned, with a long title that goes on and on so that its line must be folded – überall",
  what: "due",
  day: "2026-12-01",
  time: "18:00",
  at: "2026-12-01T18:00:00.000Z",
  isDone: false,
  isWithdrawn: false,
};

describe("a calendar file", () => {
  const text = calendarFile(
    "Part Modelling 1",
    [entry, { ...entry, what: "opens", isWithdrawn: true }],
    "https://c.example",
  );
  it("has an event for each entry that is not withdrawn, ended as the standard wants", () => {
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(1);
    expect(text).toContain("DTSTART:20261201T180000Z\r\n");
    expect(text.endsWith("END:VCALENDAR\r\n")).toBe(true);
    expect(text.replace(/\r\n/g, "")).not.toContain("\n");
  });
  it.each(["\r", "\n", "\r\n"])("a title with %j in it breaks no line", (end) => {
    const broken = calendarFile("Course", [{ ...entry, title: `one${end}two` }], "https://c.example");
    expect(broken.replace(/\r\n /g, "")).toMatch(/SUMMARY:.*one\\ntwo/);
    expect(broken.replace(/\r\n/g, "")).not.toMatch(/[\r\n]/);
  });
  it("folds lines after 75 octets, and unfolded they say it all, with commas as they must be", () => {
    for (const line of text.split("\r\n")) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    expect(text.replace(/\r\n /g, "")).toContain("SUMMARY:WS-04 Spacer\\; turned\\, with a long title");
  });
});

it("a clock's time is what it was made of, also over the change to summer time", () => {
  for (const local of ["2026-12-01T18:00", "2026-07-01T08:30", "2027-03-28T03:15"])
    expect(clockIn("Europe/London", (momentIn("Europe/London", local) as { value: Date }).value)).toBe(local);
  expect(clockIn("Europe/London", null)).toBe("");
});

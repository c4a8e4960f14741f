import { expect, it } from "vitest";
import { momentIn } from "./moments";

const at = (zone: string, local: string) => {
  const r = momentIn(zone, local);
  return r.ok ? [r.value.toISOString(), r.notice] : r.refusal.sentence;
};

it.each([
  ["Europe/London", "2026-12-01T18:00", "2026-12-01T18:00:00.000Z"],
  ["Europe/London", "2026-07-01T18:00", "2026-07-01T17:00:00.000Z"],
  ["America/New_York", "2026-12-01T18:00", "2026-12-01T23:00:00.000Z"],
  ["Asia/Kolkata", "2026-12-01T18:00", "2026-12-01T12:30:00.000Z"],
  ["Pacific/Apia", "2026-12-31T23:59", "2026-12-31T10:59:00.000Z"],
])("in %s %s is %s", (zone, local, wanted) => expect(at(zone, local)).toEqual([wanted, undefined]));

it.each(["", "tomorrow", "2026-06-31T10:00", "2026-13-01T10:00", "2026-12-01", "2026-12-01T25:00"])(
  "“%s” is no moment",
  (text) => expect(at("Europe/London", text)).toBe("This is no date and time."),
);

// west and east of Greenwich, by an hour and by half an hour, at night and at midnight
it.each([
  ["Europe/London", "2026-10-25T01:30", "2026-10-25T01:30:00.000Z"],
  ["Europe/Berlin", "2026-10-25T02:30", "2026-10-25T01:30:00.000Z"],
  ["America/New_York", "2026-11-01T01:30", "2026-11-01T06:30:00.000Z"],
  ["Australia/Lord_Howe", "2026-04-05T01:45", "2026-04-04T15:15:00.000Z"],
])("in %s %s comes twice: the later is taken, and said", (zone, local, wanted) => {
  const [moment, notice] = at(zone, local) as [string, string];
  expect(moment).toBe(wanted);
  expect(notice).toContain(`${local.slice(11)} comes twice: the later is meant`);
});

it.each([
  ["Europe/London", "2026-03-29T01:30"],
  ["Europe/Berlin", "2026-03-29T02:00"],
  ["America/New_York", "2026-03-08T02:59"],
  ["Australia/Lord_Howe", "2026-10-04T02:15"],
  ["Africa/Cairo", "2026-04-24T00:30"],
])("in %s %s never comes: refused, and said", (zone, local) =>
  expect(at(zone, local)).toContain(`${local.slice(11)} never comes`),
);

import { expect, it } from "vitest";
import { momentIn } from "./moments";

it.each([
  ["Europe/London", "2026-12-01T18:00", "2026-12-01T18:00:00.000Z"],
  ["Europe/London", "2026-07-01T18:00", "2026-07-01T17:00:00.000Z"],
  ["America/New_York", "2026-12-01T18:00", "2026-12-01T23:00:00.000Z"],
  ["Asia/Kolkata", "2026-12-01T18:00", "2026-12-01T12:30:00.000Z"],
])("in %s %s is %s", (zone, local, wanted) => expect(momentIn(zone, local)?.toISOString()).toBe(wanted));

it.each(["", "tomorrow", "2026-06-31T10:00", "2026-13-01T10:00", "2026-12-01"])("“%s” is no moment", (text) =>
  expect(momentIn("Europe/London", text)).toBeUndefined(),
);

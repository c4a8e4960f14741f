import { expect, it } from "vitest";
import { elsewhere } from "./local-time";

const NOON = "2026-11-30T17:00:00Z";
it("a time that the reader's clock shows otherwise is told by both clocks", () => {
  expect(elsewhere(NOON, "Europe/Berlin", "Europe/London")).toBe(" your time (18:00 in Europe/Berlin)");
  expect(elsewhere(NOON, "America/New_York", "Europe/London")).toBe(" your time (12:00 in America/New York)");
});
it("nothing is added where both show the same", () => {
  expect(elsewhere(NOON, "Europe/London", "Europe/London")).toBe("");
  expect(elsewhere(NOON, "Europe/Lisbon", "Europe/London")).toBe("");
});

import { TZDate } from "@date-fns/tz";

const LOCAL = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})$/;

/** What a clock of a time zone shows at a moment, as it is typed: "2026-12-01T18:00"; empty for none. */
export function clockIn(zone: string, at: Date | null): string {
  if (!at) return "";
  const local = new TZDate(at.getTime(), zone);
  const two = (n: number) => String(n).padStart(2, "0");
  const day = `${local.getFullYear()}-${two(local.getMonth() + 1)}-${two(local.getDate())}`;
  return `${day}T${two(local.getHours())}:${two(local.getMinutes())}`;
}

/** The moment a clock of a time zone shows: "2026-12-01T18:00" in "Europe/London". Undefined for what is no date. */
export function momentIn(zone: string, local: string): Date | undefined {
  const m = LOCAL.exec(local);
  if (!m) return undefined;
  const [year, month, day, hour, minute] = m.slice(1).map(Number) as [number, number, number, number, number];
  const at = new TZDate(year, month - 1, day, hour, minute, zone);
  // the 31st of June would silently be the 1st of July
  const isThere = at.getMonth() === month - 1 && at.getDate() === day;
  return isThere && !Number.isNaN(at.getTime()) ? new Date(at.getTime()) : undefined;
}

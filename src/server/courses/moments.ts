import { TZDate } from "@date-fns/tz";
import { done, refuse, type Outcome } from "@/core/units/refusal";

const LOCAL = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})$/;

/** What a clock of a time zone shows at a moment, as it is typed: "2026-12-01T18:00"; empty for none. */
export function clockIn(zone: string, at: Date | null): string {
  if (!at) return "";
  const local = new TZDate(at.getTime(), zone);
  const two = (n: number) => String(n).padStart(2, "0");
  const day = `${local.getFullYear()}-${two(local.getMonth() + 1)}-${two(local.getDate())}`;
  return `${day}T${two(local.getHours())}:${two(local.getMinutes())}`;
}

const DAY_MS = 86_400_000;

/** Every moment at which a clock of a zone shows a date and time: one; two or none where the clock is changed. */
function momentsAt(zone: string, local: string, asUtc: number): number[] {
  // how far the clock is from UTC the day before and the day after
  const offsets = [-DAY_MS, DAY_MS].map((by) => -new TZDate(asUtc + by, zone).getTimezoneOffset() * 60_000);
  const found = offsets.map((offset) => asUtc - offset).filter((at) => clockIn(zone, new Date(at)) === local);
  return [...new Set(found)].sort((a, b) => a - b);
}

/**
 * The moment a clock of a time zone shows: "2026-12-01T18:00" in "Europe/London". Of an hour that comes twice the later
 * is taken, and said; one that never comes is refused, like what is no date.
 */
export function momentIn(zone: string, local: string): Outcome<Date> {
  const noDate = refuse("no-date", "This is no date and time.");
  const m = LOCAL.exec(local);
  if (!m) return noDate;
  const [year, month, day, hour, minute] = m.slice(1).map(Number) as [number, number, number, number, number];
  const asUtc = Date.UTC(year, month - 1, day, hour, minute);
  // the 31st of June would silently be the 1st of July
  if (new Date(asUtc).toISOString().slice(0, 16) !== local) return noDate;
  const found = momentsAt(zone, local, asUtc);
  const last = found.at(-1);
  if (last === undefined)
    return refuse("no-hour", `That night the clocks of ${zone} are put forward: ${local.slice(11)} never comes.`);
  return done(new Date(last), twiceText(zone, new Date(last)));
}

/** What is to be said of a moment whose hour comes twice: the clocks are put back. Undefined of any other. */
export function twiceText(zone: string, at: Date | null): string | undefined {
  const local = clockIn(zone, at);
  if (!at || momentsAt(zone, local, Date.parse(`${local}Z`)).length < 2) return undefined;
  return `That night the clocks of ${zone} are put back, and ${local.slice(11)} comes twice: the later is meant.`;
}

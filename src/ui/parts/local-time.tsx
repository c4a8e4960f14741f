"use client";

import { useSyncExternalStore } from "react";

const never = () => () => {};

/**
 * A moment in the reader's own time zone; the server leaves it blank.
 * @param zone the zone in which it was set: where the reader's clock shows another time, both are told
 */
export function LocalTime({ iso, short, zone }: { iso: string; short?: boolean; zone?: string | undefined }) {
  const text = useSyncExternalStore(
    never,
    () => {
      const own = new Intl.DateTimeFormat(
        "en-GB",
        short
          ? { weekday: "short", hour: "2-digit", minute: "2-digit" }
          : { weekday: "short", day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" },
      ).format(new Date(iso));
      return zone ? `${own}${elsewhere(iso, zone)}` : own;
    },
    () => "",
  );
  return <time dateTime={iso}>{text}</time>;
}

/** " your time (18:00 in Europe/Berlin)" where a zone's clock shows another time than the reader's; else nothing. */
export function elsewhere(iso: string, zone: string, own = Intl.DateTimeFormat().resolvedOptions().timeZone): string {
  const clock = (timeZone: string) =>
    new Intl.DateTimeFormat("en-GB", { timeZone, day: "numeric", hour: "2-digit", minute: "2-digit" });
  const at = new Date(iso);
  if (clock(own).format(at) === clock(zone).format(at)) return "";
  const there = new Intl.DateTimeFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit" }).format(at);
  return ` your time (${there} in ${zone.replaceAll("_", " ")})`;
}

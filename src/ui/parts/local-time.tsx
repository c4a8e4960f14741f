"use client";

import { useSyncExternalStore } from "react";

const never = () => () => {};

/** A moment in the reader's own time zone; the server leaves it blank. */
export function LocalTime({ iso, short }: { iso: string; short?: boolean }) {
  const text = useSyncExternalStore(
    never,
    () =>
      new Intl.DateTimeFormat(
        "en-GB",
        short
          ? { weekday: "short", hour: "2-digit", minute: "2-digit" }
          : { weekday: "short", day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" },
      ).format(new Date(iso)),
    () => "",
  );
  return <time dateTime={iso}>{text}</time>;
}

"use client";

import { useEffect, useState } from "react";
import { spanText } from "@/core/grade/late";
import { LocalTime } from "./local-time";

export interface Due {
  /** When it is due, and what the server's clock said when the page was made: the reader's own may be wrong. */
  readonly at: string;
  readonly now: string;
  readonly rules: string;
  /** From when on nothing is taken; left out: it stays open. */
  readonly closes?: string | undefined;
  /** The zone its times were set in. */
  readonly zone: string;
}

const TICK_MS = 30_000;

/** How long there is, by the server's clock. */
export function TimeLeft({ at, now, rules, closes, zone }: Due) {
  const [left, setLeft] = useState(() => (Date.parse(at) - Date.parse(now)) / 1000);
  useEffect(() => {
    // this browser's clock only counts on from the server's
    const begun = performance.now(),
      first = (Date.parse(at) - Date.parse(now)) / 1000;
    const timer = setInterval(() => setLeft(first - (performance.now() - begun) / 1000), TICK_MS);
    return () => clearInterval(timer);
  }, [at, now]);
  return (
    <span title={rules} className={left < 3600 ? "text-accent" : ""}>
      due <LocalTime iso={at} zone={zone} />, {left > 0 ? `${spanText(left)} left` : `${spanText(-left)} ago`}
      {closes && (
        <>
          , closes <LocalTime iso={closes} zone={zone} />
        </>
      )}
    </span>
  );
}

import { plainNumber } from "@/core/units/quantity";

/** So much room as people say it: kilobytes, megabytes, gigabytes. */
export function bytesText(bytes: number): string {
  if (bytes < 1e6) return `${plainNumber(bytes / 1e3, 0)} kB`;
  return bytes < 1e9 ? `${plainNumber(bytes / 1e6, 1)} MB` : `${plainNumber(bytes / 1e9, 1)} GB`;
}

/** Room that is filled so far is running short: that is told before it is at its end. */
const NEARLY = 0.8;
export const isNearlyFull = (filled: number, most: number): boolean => filled >= NEARLY * most;

import { plainNumber } from "@/core/units/quantity";

/** So much room as people say it: kilobytes, megabytes, gigabytes. */
export function bytesText(bytes: number): string {
  if (bytes < 1e6) return `${plainNumber(bytes / 1e3, 0)} kB`;
  return bytes < 1e9 ? `${plainNumber(bytes / 1e6, 1)} MB` : `${plainNumber(bytes / 1e9, 1)} GB`;
}

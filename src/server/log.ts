import { randomBytes } from "node:crypto";

/**
 * Writes a fault down under a number that the person is shown. Messages of the database quote what was sent: only the
 * code and where it happened go into the log, no names and no documents.
 */
export function logged(fault: unknown): string {
  const number = `F-${randomBytes(3).toString("hex")}`;
  const e = fault instanceof Error ? fault : new Error("no error");
  const code = (fault as { code?: unknown }).code;
  const isOfDatabase = typeof code === "string" && "severity" in e;
  const message = isOfDatabase ? "" : ` ${e.message.slice(0, 200)}`;
  const where = (e.stack ?? "")
    .split("\n")
    .filter((l) => l.startsWith("    at "))
    .slice(0, 6);
  console.error([`${number} ${e.name}${typeof code === "string" ? ` ${code}` : ""}${message}`, ...where].join("\n"));
  return number;
}

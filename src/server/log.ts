import { randomBytes } from "node:crypto";
import pino from "pino";

const LEVELS = ["debug", "info", "warn", "error", "silent"];
const wished = process.env["LOG_LEVEL"] ?? "info";

/** Lines of JSON on standard output; no names, no addresses, no documents. LOG_LEVEL says how much. */
export const log = pino({
  // one that is none is told when the settings are checked
  level: LEVELS.includes(wished) ? wished : "info",
  base: { pid: process.pid },
  timestamp: pino.stdTimeFunctions.isoTime,
});

/** Says that a process is ready, whatever the level: whoever started it waits for that. */
export const ready = (what: string): void => log.child({}, { level: "info" }).info(`${what} ready`);

/** What of a fault may be written down: messages of the database quote what was sent. */
function told(fault: unknown): object {
  const e = fault instanceof Error ? fault : new Error("no error");
  const code = (fault as { code?: unknown } | undefined)?.code;
  const isOfDatabase = typeof code === "string" && "severity" in e;
  return {
    kind: e.name,
    ...(typeof code === "string" && { code }),
    ...(!isOfDatabase && { message: e.message.slice(0, 200) }),
    where: (e.stack ?? "")
      .split("\n")
      .filter((l) => l.startsWith("    at "))
      .slice(0, 6)
      .map((l) => l.trim()),
  };
}

/** Writes a fault down under a number that the person is shown. */
export function logged(fault: unknown): string {
  const number = `F-${randomBytes(3).toString("hex")}`;
  log.error({ number, ...told(fault) }, "fault");
  return number;
}

/** Writes down that something outside failed, and goes on. @param what it was doing */
export const noted = (what: string, fault: unknown): void => log.warn(told(fault), what);

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gi;
const LONG_WORD = /[\w-]{24,}/g;

/** An address as it may be written down: what names a thing or opens a door stands for itself, questions go. */
export const pathOf = (url: string): string =>
  (url.split("?")[0] ?? "").replace(UUID, ":id").replace(LONG_WORD, ":key").slice(0, 120);

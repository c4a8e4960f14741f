import { z } from "zod";

/** What can be set from outside, for the web and the grading process alike; docs/running.md tells of each. */
const Environment = z.object({
  DATABASE_URL: z
    .string()
    .regex(/^postgres(ql)?:\/\//, "is an address that begins with postgres://")
    .optional(),
  /** Where people reach the web server: letters link to it. */
  CALIPER_ADDRESS: z.url("is an address such as https://caliper.example").optional(),
  CALIPER_DEMO: z.enum(["0", "1"], "is 1 or 0").optional(),
  CALIPER_SECURE_COOKIE: z.enum(["0", "1"], "is 1 or 0").optional(),
  /** What the histories of all parts may fill. */
  CALIPER_HISTORY_GB: z.coerce.number("is a number of gigabytes").positive().max(100_000).default(50),
  PORT: z.coerce.number("is a number").int().min(1).max(65_535).optional(),
  HOST: z.string().max(200).optional(),
  LOG_LEVEL: z.enum(["debug", "info", "warn", "error", "silent"], "is debug, info, warn, error or silent").optional(),
  SMTP_URL: z
    .string()
    .regex(/^smtps?:\/\//, "is an address that begins with smtp:// or smtps://")
    .optional(),
  MAIL_FROM: z.string().max(200).default("Rusty Caliper <no-reply@localhost>"),
});
type EnvironmentSettings = z.infer<typeof Environment>;

/** The settings, checked. @throws Error with a sentence for each that is wrong */
export function environment(from: Record<string, string | undefined> = process.env): EnvironmentSettings {
  const r = Environment.safeParse(Object.fromEntries(Object.entries(from).filter(([, v]) => v !== "")));
  if (r.success) return r.data;
  throw new Error(r.error.issues.map((i) => `${i.path.join(".")} ${i.message}.`).join("\n"));
}

import { z } from "zod";
import { plainText } from "@/core/units/text";

/** What people type about themselves, a course or an invitation: the same rules on the page and on the server. */
export const NAME = plainText().trim().min(1, "Type a name.").max(120, "That is longer than 120 characters.");
export const EMAIL = z.email("That is no email address.").max(200, "That is longer than 200 characters.");
const PASSWORD = z
  .string()
  .min(10, "Ten characters at least: three words will do.")
  .max(200, "That is longer than 200 characters.");
export const ROLE = z.enum(["student", "assistant", "instructor"]);

/** Typed twice, so that a slip does not lock its owner out. */
const twice = <T extends { password: string; again: string }>(v: T) => v.password === v.again;
const NOT_TWICE = { path: ["again"], message: "This is not the same." };

export const FirstPerson = z
  .object({ name: NAME, email: EMAIL, password: PASSWORD, again: plainText() })
  .refine(twice, NOT_TWICE);
export const NewPassword = z.object({ password: PASSWORD, again: plainText() }).refine(twice, NOT_TWICE);
export const ChangePassword = z
  .object({ old: plainText().min(1, "Type the password you have.").max(200), password: PASSWORD, again: plainText() })
  .refine(twice, NOT_TWICE);
export const Rename = z.object({ name: NAME });
export const Reminder = z.object({ email: EMAIL });
export const Code = z.object({ code: plainText().trim().min(4, "Type the code of the course.").max(20) });

const zones = new Set(Intl.supportedValuesOf("timeZone").concat("UTC"));
export const NewCourse = z.object({
  title: plainText().trim().min(1, "Type what the course is called.").max(120),
  term: plainText().trim().max(40),
  timeZone: plainText().refine((zone) => zones.has(zone), "There is no such time zone."),
  email: EMAIL,
});
export const CopyCourse = z.object({ term: plainText().trim().min(1, "Type the new term.").max(40) });
export const Invite = z.object({
  role: ROLE,
  group: z.union([z.uuid(), z.literal("")]),
  days: z.coerce.number("Type a number of days.").int().min(1, "One day at least.").max(180, "180 days at most."),
  uses: z.coerce.number("Type how many.").int().min(1, "One at least.").max(500, "500 at most."),
});
export const GroupName = z.object({ name: plainText().trim().min(1, "Type a name for the group.").max(60) });
export const MemberChange = z.object({
  person: z.uuid(),
  role: ROLE,
  group: z.union([z.uuid(), z.literal("")]),
  hasLeft: z.boolean(),
});
/** A roster as pasted, or read from a file. */
export const RosterText = z.object({ text: plainText().min(1, "Paste a roster or choose a file.").max(500_000) });

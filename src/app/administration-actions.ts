"use server";

import { revalidatePath } from "next/cache";
import { z } from "zod";
import { CopyCourse, NewCourse } from "@/core/roster/forms";
import type { Outcome } from "@/core/units/refusal";
import { copyCourse, makeCourse } from "@/server/courses/courses";
import { transaction } from "@/server/database";
import { isProved, personByEmail } from "@/server/people/people";
import { removeCourse, removePerson } from "@/server/upkeep/removal";
import { enrol, enrolByAddress, welcomeNew } from "@/server/people/roster";
import type { Answer } from "@/ui/parts/zod-form";
import { administrating, allowed } from "./visitor";
import { plainText } from "@/core/units/text";

/** Makes a course with its first instructor, who is made too where they are new. */
export async function newCourse(values: unknown): Promise<Answer> {
  await administrating();
  const r = NewCourse.safeParse(values);
  if (!r.success) return { sentence: "Something in this form cannot be read. Look at each field." };
  const { email, ...about } = r.data;
  const known = await personByEmail(email);
  const course = await makeCourse(about);
  const of = { id: course, title: about.title };
  if (known) await transaction((client) => enrolByAddress(of, known, "instructor", null, client));
  else await welcomeNew(of, email);
  revalidatePath("/administration");
  return {
    done:
      known && (await isProved(known.id))
        ? `${about.title} is there, and ${known.name} teaches it.`
        : `${about.title} is there. A letter with a way in is on its way to ${email}.`,
  };
}

const TakenAway = z.object({ id: z.uuid(), name: plainText().max(200), typed: plainText().max(200) });

/** Takes a person or a course away with all that is theirs, where its name was typed. */
async function takeAway(values: unknown, remove: (id: string) => Promise<Outcome<void>>): Promise<Answer> {
  await administrating();
  const r = TakenAway.safeParse(values);
  if (!r.success) return { sentence: "Choose whom or what to take away." };
  const { id, name, typed } = r.data;
  if (typed.trim() !== name) return { sentence: `Type “${name}” to be sure: it cannot be undone.` };
  const done = await remove(id);
  revalidatePath("/administration");
  return done.ok
    ? { done: `${name} is taken away. The points stay, without a name.` }
    : { sentence: done.refusal.sentence };
}
export const takePersonAway = async (values: unknown): Promise<Answer> => takeAway(values, removePerson);
export const takeCourseAway = async (values: unknown): Promise<Answer> => takeAway(values, removeCourse);

/** The same course for a new term: exercises and rules, no people but whoever copies it. */
export async function copyForTerm(course: string, values: unknown): Promise<Answer> {
  const { person } = await allowed("course.people", course);
  const r = CopyCourse.safeParse(values);
  if (!r.success) return { sentence: "Type the new term." };
  const made = await copyCourse(course, r.data.term);
  await enrol(made, person.id, "instructor", null);
  revalidatePath("/courses");
  return { done: `There is a course for ${r.data.term} now, with the same exercises and nobody in it but you.` };
}

"use server";

import { revalidatePath } from "next/cache";
import Papa from "papaparse";
import { GroupName, Invite, MemberChange, RosterText } from "@/core/roster/forms";
import { readRoster, type Roster, type RosterPreview } from "@/core/roster/roster";
import { courseTitle } from "@/server/courses/courses";
import { invite, openByCode, withdraw } from "@/server/people/invitations";
import { changeMember, dropGroup, knownOf, makeGroup, takeIn } from "@/server/people/roster";
import type { Answer } from "@/ui/parts/zod-form";
import { allowed, sentId } from "./visitor";

const UNREADABLE: Answer = { sentence: "Something in this form cannot be read. Look at each field." };
const again = (course: string) => revalidatePath(`/courses/${course}/people`);

const read = (text: string): Roster => readRoster(Papa.parse<string[]>(text, { skipEmptyLines: "greedy" }).data);

/** Reads a roster and says what taking it in would do; nothing is changed. */
export async function previewRoster(course: string, text: string): Promise<RosterPreview> {
  await allowed("course.people", course);
  const r = RosterText.safeParse({ text });
  if (!r.success) return { sentence: r.error.issues[0]!.message };
  const roster = read(r.data.text);
  const emails = roster.lines.map((l) => l.email);
  return { roster, known: await knownOf(course, emails) };
}

/** Takes a roster in as it was previewed: all of the rows that can be taken, or none. */
export async function takeRoster(course: string, text: string): Promise<Answer> {
  await allowed("course.people", course);
  const r = RosterText.safeParse({ text });
  if (!r.success) return UNREADABLE;
  const { lines } = read(r.data.text);
  if (!lines.length) return { sentence: "There is nobody to take in." };
  const sum = await takeIn({ id: course, title: await courseTitle(course) }, lines);
  again(course);
  return { done: `${sum.enrolled} came into the course; ${sum.people} of them are new here and get a letter.` };
}

/** @returns the path of the link, which is shown once */
export async function makeInvitation(course: string, values: unknown): Promise<Answer & { path?: string }> {
  const { person } = await allowed("course.people", course);
  const r = Invite.safeParse(values);
  if (!r.success) return UNREADABLE;
  const { role, group, days, uses } = r.data;
  const token = await invite(course, person, { role, groupId: group || null, days, mostUses: uses });
  again(course);
  return { done: "Here is the link. It is shown once; whoever has it can come in.", path: `/join/${token}` };
}

export async function withdrawInvitation(course: string, id: string): Promise<void> {
  await allowed("course.people", course);
  await withdraw(course, sentId(id));
  again(course);
}

export async function setCode(course: string, isOpen: boolean): Promise<void> {
  await allowed("course.people", course);
  await openByCode(course, isOpen === true);
  again(course);
}

export async function addGroup(course: string, values: unknown): Promise<Answer> {
  await allowed("course.people", course);
  const r = GroupName.safeParse(values);
  if (!r.success) return UNREADABLE;
  await makeGroup(course, r.data.name);
  again(course);
  return { done: `There is a group ${r.data.name} now.` };
}

export async function removeGroup(course: string, id: string): Promise<void> {
  await allowed("course.people", course);
  await dropGroup(course, sentId(id));
  again(course);
}

export async function setMember(course: string, values: unknown): Promise<Answer> {
  await allowed("course.people", course);
  const r = MemberChange.safeParse(values);
  if (!r.success) return UNREADABLE;
  const { person, role, group, hasLeft } = r.data;
  const done = await changeMember(course, person, { role, groupId: group || null, hasLeft });
  again(course);
  return done ? {} : { sentence: "A course needs an instructor. Make somebody else one first." };
}

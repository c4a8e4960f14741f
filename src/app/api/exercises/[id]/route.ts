import { z } from "zod";
import { plainText } from "@/core/units/text";
import { changesSince, changeThings } from "@/server/exercises/changes";
import { measuringOf } from "@/server/exercises/exercises";
import { body, endpoint, must, mustBe, Refused, VERSION } from "../../endpoint";

/** Things by their places; what they are is read with the exercise they make. */
const ThingsSchema = z
  .record(plainText().min(1).max(400), z.unknown())
  .refine((things) => Object.keys(things).length <= 3000, "at most 3000 things at once");

const Save = z.object({ id: z.uuid(), document: ThingsSchema, version: VERSION, owner: z.uuid() });

/** Changes things of an exercise; others may have changed other things meanwhile. */
export const PUT = endpoint<{ id: string }>("exercise.edit", "id", async (person, { id }, request) => {
  const { document, owner, ...save } = await body(request, Save);
  mustBe(person, owner);
  const { odds, ...changed } = must(await changeThings(id, document, { ...save, by: person.id }));
  if (odds.length) throw new Refused(409, "Somebody else changed the same meanwhile.", changed);
  return { ...changed, at: new Date().toISOString() };
});

/**
 * What has changed since a version; asked for it, also what is known of its reference where that is of another version
 * than told. `?since=12&measured=11`
 */
export const GET = endpoint<{ id: string }>("exercise.edit", "id", async (_, { id }, request) => {
  const asked = new URL(request.url).searchParams;
  const since = VERSION.safeParse(Number(asked.get("since") ?? 0));
  if (!since.success) throw new Refused(422, "Say since which version.");
  const told = asked.get("measured");
  return {
    ...(await changesSince(id, since.data)),
    ...(told !== null && { measuring: await measuringOf(id, Number(told)) }),
  };
});

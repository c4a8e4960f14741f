import { z } from "zod";
import { readPart } from "@/core/part/document";
import { KnownSteps } from "@/core/part/known-steps";
import { rememberShown, saveWork, workMark } from "@/server/works/works";
import { body, endpoint, must, mustBe, Refused, VERSION } from "../../endpoint";
import { Shown } from "../../shown";
import { plainText } from "@/core/units/text";

const Save = z.object({
  id: z.uuid(),
  document: z.unknown(),
  version: VERSION,
  window: plainText().max(40),
  owner: z.uuid(),
});

/** Of all parts that are being worked on. */
const known = new KnownSteps();

export const PUT = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout }, request) => {
  const { document, owner, ...save } = await body(request, Save);
  mustBe(person, owner);
  const saved = await saveWork(handout, person.id, { ...save, document: must(readPart(document, known)) });
  if (!saved.ok && !saved.version)
    throw new Refused(409, "This part has not been opened yet. Open the Bench of this handout first.");
  if (!saved.ok)
    throw new Refused(
      409,
      "This part was saved in another window meanwhile. What you have here is kept in its history.",
      {
        version: saved.version,
      },
    );
  return { version: saved.version, at: new Date().toISOString() };
});

/** Which version stands: a window that may have missed something asks. */
export const GET = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout }) => {
  return { ...(await workMark(handout, person.id)), owner: person.id };
});

/** How a version looks, for the history. */
export const POST = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout }, request) => {
  const { version, ...shown } = await body(request, Shown.extend({ version: VERSION }));
  await rememberShown(handout, person.id, version, shown);
});

import { z } from "zod";
import { changeHistory, variantsOf } from "@/server/works/history";
import { countsOf, filledBy, MOST_BYTES, MOST_KEPT, MOST_NAMED, versionsOf } from "@/server/works/versions";
import { body, endpoint, mustBe, Refused, VERSION } from "../../../endpoint";
import { Shown } from "../../../shown";
import { plainText } from "@/core/units/text";

const Name = plainText().trim().min(1, "needs a name").max(60);
const Change = z.intersection(
  z.object({ id: z.uuid(), version: VERSION, window: plainText().max(40), owner: z.uuid() }),
  z.discriminatedUnion("do", [
    z.object({ do: z.literal("name"), name: Name, shown: Shown.optional() }),
    z.object({ do: z.literal("restore"), of: z.uuid() }),
    z.object({ do: z.literal("unname"), of: z.uuid() }),
    z.object({ do: z.literal("branch"), name: Name }),
    z.object({ do: z.literal("switch"), name: Name }),
  ]),
);

const SENTENCES = {
  "not-opened": "This part has not been opened yet. Open the Bench of this handout first.",
  "too-many-named": `${MOST_NAMED} versions of this part have a name, and more are not kept. Take one away first.`,
  "too-much": `Your named versions fill ${MOST_BYTES / 1e6} MB, and more are not kept. Take names away first.`,
  "server-full": "The server has no room left for named versions. Tell whoever looks after it; your part is kept.",
  "other-version": "This part was saved in another window meanwhile. Look at it first.",
  "not-there": "This is not in your history any more.",
  taken: "There is a variant of this name already. Choose another.",
  "too-many": "There are as many variants as can be kept. Give one of them up first.",
};

export const GET = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout }) => {
  const [versions, variants, counts, bytes] = await Promise.all([
    versionsOf(handout, person.id),
    variantsOf(handout, person.id),
    countsOf(handout, person.id),
    filledBy(person.id),
  ]);
  const most = { named: MOST_NAMED, parted: MOST_KEPT.parted, bytes: MOST_BYTES };
  return { versions, variants, counts: { ...counts, bytes }, most };
});

export const POST = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout }, request) => {
  const { owner, ...change } = await body(request, Change);
  mustBe(person, owner);
  const r = await changeHistory(handout, person.id, change);
  if (!r.ok) throw new Refused(r.code === "other-version" || r.code === "not-opened" ? 409 : 422, SENTENCES[r.code]);
  return { version: r.version, variant: r.variant, document: r.document };
});

import { z } from "zod";
import { forgetRemark } from "@/server/marking/marking";
import { body, endpoint } from "../../../endpoint";
import { plainText } from "@/core/units/text";

const Remark = z.strictObject({ about: plainText().max(40), text: plainText().max(400) });

/** Takes one of one's own remarks out of those that are offered. */
export const DELETE = endpoint<{ id: string }>("submission.mark", "id", async (person, _, request) => {
  await forgetRemark(person.id, await body(request, Remark, 4000));
});

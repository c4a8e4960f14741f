import { randomUUID } from "node:crypto";
import { z } from "zod";
import { returnAll } from "@/server/marking/marking";
import { body, endpoint, must } from "../../../endpoint";

/** Returns what is checked with nothing open, or all that is checked. */
export const POST = endpoint<{ id: string }>("handout.mark", "id", async (person, { id }, request) => {
  const { which } = await body(request, z.strictObject({ which: z.enum(["clear", "all"]) }), 1000);
  return { returned: must(await returnAll(id, person, which, randomUUID)) };
});

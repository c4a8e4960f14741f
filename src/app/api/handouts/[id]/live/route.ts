import { handout } from "@/server/handouts/handouts";
import { liveOn } from "@/server/marking/live";
import { endpoint } from "../../../endpoint";

/** The class while it works. */
export const GET = endpoint<{ id: string }>("handout.mark", "id", async (_, { id }) => ({
  now: new Date().toISOString(),
  rows: await liveOn(await handout(id)),
}));

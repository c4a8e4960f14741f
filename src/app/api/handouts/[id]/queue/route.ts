import { deskQueue } from "@/server/marking/desk-queue";
import { endpoint } from "../../../endpoint";

/** The class on a handout as the Marking desk lists it. */
export const GET = endpoint<{ id: string }>("handout.mark", "id", async (_, { id }) => ({
  queue: await deskQueue(id),
}));

import { deskSubmission } from "@/server/marking/desk";
import { endpoint } from "../../../endpoint";

/** All that the Marking desk shows of a submission. */
export const GET = endpoint<{ id: string }>("submission.mark", "id", (_, { id }) => deskSubmission(id));

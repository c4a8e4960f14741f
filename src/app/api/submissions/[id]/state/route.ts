import { permit } from "@/server/permissions";
import { submission } from "@/server/submissions";
import { endpoint } from "../../../endpoint";

export const GET = endpoint<{ id: string }>(async (person, { id }) => {
  await permit(person, "submission.view", id);
  const s = await submission(id);
  return { busy: s.state === "queued" || s.state === "checking", mark: `${s.state}:${s.progress}` };
});

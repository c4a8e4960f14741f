import { classOn, handout } from "@/server/handouts";
import { permit } from "@/server/permissions";
import { endpoint } from "../../../endpoint";

/** A short mark that changes when anything on the page would. */
export const GET = endpoint<{ id: string }>(async (person, { id }) => {
  const role = await permit(person, "handout.view", id);
  const h = await handout(id);
  const rows = role === "instructor" ? await classOn(id) : [];
  const busy = (!h.sheet && !h.trouble) || rows.some((r) => r.state === "queued" || r.state === "checking");
  return {
    busy,
    mark: [h.sheet ? 1 : 0, h.trouble ?? "", ...rows.map((r) => `${r.submission}:${r.state}:${r.progress}`)].join("|"),
  };
});

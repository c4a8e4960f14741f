import { exercise } from "@/server/exercises";
import { permit } from "@/server/permissions";
import { endpoint } from "../../../endpoint";

export const GET = endpoint<{ id: string }>(async (person, { id }) => {
  await permit(person, "exercise.edit", id);
  const e = await exercise(id);
  return { busy: e.prepared_version < e.version, mark: `${e.version}:${e.prepared_version}` };
});

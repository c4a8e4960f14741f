import { forStudent, handout } from "@/server/handouts/handouts";
import { handoutOf } from "@/server/handouts/own-parts";
import { standingWork } from "@/server/works/works";
import type { Ahead } from "@/ui/bench/ahead";
import { endpoint } from "../../../endpoint";

/** A part as it stands, and its Sheet, before its Bench is opened. */
export const GET = endpoint<{ handout: string }>("handout.work", "handout", async (person, { handout: id }) => {
  const work = await standingWork(id, person.id);
  if (!work) return null satisfies Ahead;
  const { number, title, sheet } = forStudent(await handoutOf(await handout(id), person.id));
  return { document: work.document, heading: `${number} ${title}`, sheet: sheet?.svg } satisfies Ahead;
});

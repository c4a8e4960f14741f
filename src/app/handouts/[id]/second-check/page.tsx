import { handout } from "@/server/handouts/handouts";
import { appliedRechecks, changesOf, openRecheck, progressOf, revisionsOf } from "@/server/marking/rechecks";
import { SecondCheckPage } from "@/ui/course/second-check";
import { applySecondCheck, beginSecondCheck, dropSecondCheck } from "../../../marking-actions";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("handout.teach", id);
  const [h, open, applied, revisions] = await Promise.all([
    handout(id),
    openRecheck(id),
    appliedRechecks(id),
    revisionsOf(id),
  ]);
  const trial = open && {
    why: open.why,
    by: open.by_name,
    madeAt: open.made_at.toISOString(),
    revision: open.revision,
    ...(await progressOf(open.id)),
    changes: await changesOf(open.id),
  };
  return (
    <SecondCheckPage
      person={person}
      handout={{ id, number: h.exercise.number, title: h.exercise.title, course: h.course }}
      revisions={{
        markedBy: revisions.marked_by,
        now: revisions.now,
        isMeasured: revisions.is_measured,
        exercise: revisions.exercise_id,
      }}
      trial={trial}
      applied={applied.map((a) => ({
        id: a.id,
        why: a.why,
        by: a.by_name,
        at: a.made_at.toISOString(),
        revision: a.revision,
      }))}
      acts={{
        begin: beginSecondCheck.bind(null, id),
        apply: applySecondCheck.bind(null, id),
        drop: dropSecondCheck.bind(null, id),
      }}
    />
  );
}

import { rulesText } from "@/core/grade/late";
import { redirect } from "next/navigation";
import { classOn, handout } from "@/server/handouts";
import { ClassTable } from "@/ui/course/class-table";
import { changeMarking, checkHandoutAgain, giveTime } from "../../exercise-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person, role } = await allowed("handout.view", id);
  if (role === "student") redirect(`/bench/${id}`);
  const h = await handout(id);
  const rows = (await classOn(id)).map(({ handed_in_at, seen_at, extended_to, ...r }) => ({
    ...r,
    extendedTo: extended_to?.toISOString() ?? null,
    handedInAt: handed_in_at?.toISOString() ?? null,
    seenAt: seen_at?.toISOString() ?? null,
  }));
  return (
    <ClassTable
      person={person}
      handout={{
        id,
        number: h.exercise.number,
        title: h.exercise.title,
        course: h.course,
        dueAt: h.due_at.toISOString(),
        sheet: h.sheet?.svg ?? null,
        trouble: h.trouble,
        revision: h.revision,
        rules: rulesText(h),
        timeZone: h.time_zone,
      }}
      rows={rows}
      acts={role === "instructor" ? { again: checkHandoutAgain, giveTime, changeMarking } : undefined}
      terms={{
        attempts_most: h.attempts_most,
        counts: h.counts,
        shows: h.shows,
        practice: h.practice,
        weight: h.weight,
        hold_back: h.hold_back,
      }}
    />
  );
}

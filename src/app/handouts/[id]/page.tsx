import { rulesText } from "@/core/grade/late";
import { redirect } from "next/navigation";
import { numbersThatMayVary, ownNumbersText } from "@/core/check/exercise/own-numbers";
import { audienceOf, choicesIn } from "@/server/handouts/handout-terms";
import { classOn, handout } from "@/server/handouts/handouts";
import { clockIn, twiceText } from "@/server/courses/moments";
import { copiesOn } from "@/server/handouts/copied-parts";
import { ownPartsOf } from "@/server/handouts/own-parts";
import { ClassTable } from "@/ui/course/class-table";
import { changeMarking, changeWhen, checkHandoutAgain, giveTime, withdrawHandout } from "../../handout-actions";
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
  const own = new Map((await ownPartsOf(id)).map((o) => [o.person_id, o]));
  const varies = h.exercise.varies ?? [];
  const numbers = varies.length ? numbersThatMayVary(h.exercise) : [];
  const copies = varies.length ? await copiesOn(id) : undefined;
  const said = [h.opens_at, h.due_at, h.closes_at].flatMap((at) => twiceText(h.time_zone, at) ?? []);
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
        rules: [rulesText(h), ...said].join(" "),
        opensAt: h.opens_at?.toISOString() ?? null,
        closesAt: h.closes_at?.toISOString() ?? null,
        isWithdrawn: h.withdrawn_at !== null,
        timeZone: h.time_zone,
      }}
      rows={rows.map((r) => {
        const part = own.get(r.person_id);
        const text = part && ownNumbersText(part.numbers, numbers, h.exercise.units);
        return { ...r, own: part && { ...part, text: text!, builtFrom: copies?.get(r.person_id) } };
      })}
      varying={varies.map((v) => numbers.find((n) => n.id === v.number)?.label ?? v.number)}
      times={{
        opens: clockIn(h.time_zone, h.opens_at),
        due: clockIn(h.time_zone, h.due_at),
        closes: clockIn(h.time_zone, h.closes_at),
        audience: await audienceOf(id),
      }}
      choices={await choicesIn(h.course_id)}
      acts={
        role === "instructor"
          ? { again: checkHandoutAgain, giveTime, changeMarking, changeWhen, withdraw: withdrawHandout }
          : undefined
      }
      terms={{
        graceMinutes: h.grace_minutes,
        afterDue: h.after_due,
        pointsADay: h.points_a_day,
        ...(h.attempts_most && { attemptsMost: h.attempts_most }),
        counts: h.counts,
        shows: h.shows,
        ...(h.practice && { practice: h.practice }),
        weight: h.weight,
        holdBack: h.hold_back,
      }}
    />
  );
}

import { deskSubmission, headOf } from "@/server/marking/desk";
import { deskQueue } from "@/server/marking/desk-queue";
import { handout, type Handout } from "@/server/handouts/handouts";
import { markedBy, remarksOf } from "@/server/marking/marking";
import { studentView } from "@/server/marking/results";
import { handoutOf } from "@/server/handouts/own-parts";
import { submission } from "@/server/tries/submissions";
import { MarkingDesk } from "@/ui/marking/desk";
import type { DeskHandout } from "@/ui/marking/desk-data";
import { StudentResult } from "@/ui/marking/student-result";
import { exerciseFromSubmission } from "../../library-actions";
import { checkSubmissionAgain } from "../../handout-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person, role } = await allowed("submission.view", id);
  const s = await submission(id);
  const h = await handout(s.handout_id);
  if (role === "student") {
    const own = await handoutOf(h, person.id);
    const { number, title, units } = h.exercise;
    return (
      <StudentResult
        person={person}
        heading={{ number, title, course: h.course, handout: h.id }}
        state={headOf(s)}
        view={await studentView(id, own)}
        units={units}
        // taken back, its result can be read, and nothing else
        sheet={h.withdrawn_at ? undefined : own.sheet?.svg}
        isWithdrawn={h.withdrawn_at !== null}
      />
    );
  }
  const [first, queue, remarks] = await Promise.all([deskSubmission(id), deskQueue(h.id), remarksOf(person.id)]);
  return (
    <MarkingDesk
      key={h.id}
      me={{ id: person.id, name: person.name }}
      handout={deskHandout(h)}
      queue={queue}
      first={first}
      remarks={remarks}
      again={checkSubmissionAgain}
      makeExercise={role === "instructor" ? exerciseFromSubmission : undefined}
    />
  );
}

function deskHandout(h: Handout): DeskHandout {
  const exercise = markedBy(h);
  return {
    id: h.id,
    number: exercise.number,
    title: exercise.title,
    course: h.course,
    exercise,
    sheet: h.sheet,
    rules: {
      dueAt: h.due_at.toISOString(),
      grace_minutes: h.grace_minutes,
      after_due: h.after_due,
      points_a_day: h.points_a_day,
    },
  };
}

import { courseTitle, timeZoneOf } from "@/server/courses/courses";
import { clockIn } from "@/server/courses/moments";
import { choicesIn } from "@/server/handouts/handout-terms";
import { exercise, handoutsOfExercise, measuringOf } from "@/server/exercises/exercises";
import { rubricsOf } from "@/server/exercises/rubrics";
import { ExercisePage } from "@/ui/exercise/exercise-page";
import { STATIONS } from "@/ui/exercise/standing";
import { issue } from "../../handout-actions";
import { makeFollowOn } from "../../library-actions";
import { keepRubricFor } from "../../exercise-actions";
import { allowed, askedText } from "../../visitor";

export const dynamic = "force-dynamic";

interface Asked {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ at?: string | string[] }>;
}

export default async function Page({ params, searchParams }: Asked) {
  const { id } = await params;
  const asked = askedText((await searchParams).at);
  const { person } = await allowed("exercise.edit", id);
  const { document, version, course_id: course } = await exercise(id);
  const zone = await timeZoneOf(id);
  const handouts = (await handoutsOfExercise(id)).map((h) => ({ id: h.id, due: dueText(zone, h.due_at) }));
  return (
    <ExercisePage
      person={person}
      course={{ id: course, title: await courseTitle(course) }}
      opening={{ id, exercise: document, version, owner: person.id, measuring: await measuringOf(id) }}
      given={{ times: handouts.length, due: handouts[0]?.due }}
      issued={{
        timeZone: zone,
        choices: await choicesIn(course),
        handouts,
        issue,
        followOn: makeFollowOn,
        keepRubric: keepRubricFor.bind(null, id),
        times: { opens: "", due: inAWeek(zone), closes: "", audience: undefined },
      }}
      templates={await rubricsOf(course)}
      at={STATIONS.find((s) => s === asked)}
    />
  );
}

/** A moment by the clock of a course, as it is read: "Tue 1 Dec, 18:00". */
const dueText = (zone: string, at: Date): string =>
  at.toLocaleString("en-GB", {
    timeZone: zone,
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

const WEEK_MS = 7 * 24 * 3_600_000;
/** Where nothing is said a handout is due a week from today, at the end of the day's work. */
const inAWeek = (zone: string): string => `${clockIn(zone, new Date(Date.now() + WEEK_MS)).slice(0, 10)}T18:00`;

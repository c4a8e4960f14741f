import { timeZoneOf } from "@/server/courses/courses";
import { choicesIn, lastTermsOf, type KeptTerms } from "@/server/handouts/handout-terms";
import { SHOWS } from "@/core/grade/shows";
import { exercise } from "@/server/exercises/exercises";
import { ExerciseForm } from "@/ui/exercise/exercise-form";
import { rubricsOf, triedOf } from "@/server/exercises/rubrics";
import { issue } from "../../handout-actions";
import { makeFollowOn } from "../../library-actions";
import { keepRubricFor, takeFromReference, tryRubricOn, updateExercise } from "../../exercise-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("exercise.edit", id);
  const row = await exercise(id);
  return (
    <ExerciseForm
      person={person}
      id={id}
      version={row.version}
      exercise={row.document}
      prepared={row.prepared}
      preparing={row.preparing}
      timeZone={await timeZoneOf(id)}
      choices={await choicesIn(row.course_id)}
      {...shownTerms(await lastTermsOf(id))}
      isCurrent={row.prepared_version >= row.version}
      save={updateExercise}
      issue={issue}
      followOn={makeFollowOn}
      takeFromReference={takeFromReference}
      templates={await rubricsOf(row.course_id)}
      tried={await triedOf(id, { ...row.document, wanted: undefined })}
      tryRubric={tryRubricOn.bind(null, id)}
      keepRubric={keepRubricFor.bind(null, id)}
    />
  );
}

/** The terms it was issued with last, as the form begins with them. */
const shownTerms = (t: KeptTerms | undefined) =>
  t && {
    times: {
      opens: "",
      due: "",
      closes: "",
      grace: t.graceMinutes ?? 10,
      after: t.afterDue ?? ("late" as const),
      pointsADay: t.pointsADay ?? 1,
      audience: undefined,
    },
    terms: {
      attempts_most: t.attemptsMost ?? null,
      counts: t.counts ?? ("last" as const),
      shows: t.shows ?? SHOWS,
      practice: t.practice ?? null,
      weight: t.weight ?? 1,
      hold_back: t.holdBack ?? false,
    },
  };

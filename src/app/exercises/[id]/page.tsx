import { timeZoneOf } from "@/server/courses";
import { exercise } from "@/server/exercises";
import { ExerciseForm } from "@/ui/exercise/exercise-form";
import { rubricsOf, triedOf } from "@/server/rubrics";
import { issue, keepRubricFor, takeFromReference, tryRubricOn, updateExercise } from "../../exercise-actions";
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
      isCurrent={row.prepared_version >= row.version}
      save={updateExercise}
      issue={issue}
      takeFromReference={takeFromReference}
      templates={await rubricsOf(row.course_id)}
      tried={await triedOf(id, { ...row.document, wanted: undefined })}
      tryRubric={tryRubricOn.bind(null, id)}
      keepRubric={keepRubricFor.bind(null, id)}
    />
  );
}

import { newExerciseIn } from "@/server/exercises/exercises";
import { rubricsOf } from "@/server/exercises/rubrics";
import { ExerciseForm } from "@/ui/exercise/exercise-form";
import { createFromForm } from "../../exercise-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ course?: string }> }) {
  const { course = "" } = await searchParams;
  const { person } = await allowed("course.teach", course);
  return (
    <ExerciseForm
      person={person}
      course={course}
      exercise={await newExerciseIn(course)}
      templates={await rubricsOf(course)}
      save={createFromForm}
    />
  );
}

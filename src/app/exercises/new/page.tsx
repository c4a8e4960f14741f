import { courseTitle } from "@/server/courses/courses";
import { newExerciseIn } from "@/server/exercises/exercises";
import { NewExercise } from "@/ui/exercise/new-exercise";
import { createFromForm } from "../../exercise-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ course?: string }> }) {
  const { course = "" } = await searchParams;
  const { person } = await allowed("course.teach", course);
  const { number } = await newExerciseIn(course);
  const title = await courseTitle(course);
  return <NewExercise person={person} course={{ id: course, title }} number={number} create={createFromForm} />;
}

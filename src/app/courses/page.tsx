import { coursesOf, handoutsOf } from "@/server/courses";
import { exercisesOf } from "@/server/exercises";
import { CourseList } from "@/ui/course/course-list";
import { signOut } from "../actions";
import { signedIn } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  const person = await signedIn();
  const courses = await Promise.all(
    (await coursesOf(person)).map(async (c) => ({
      ...c,
      handouts: (await handoutsOf(c.id, person)).map((h) => ({ ...h, due_at: h.due_at.toISOString() })),
      exercises:
        c.role === "instructor"
          ? (await exercisesOf(c.id)).map(({ id, document }) => ({
              id,
              number: document.number,
              title: document.title,
            }))
          : [],
    })),
  );
  return <CourseList person={person} courses={courses} signOut={signOut} />;
}

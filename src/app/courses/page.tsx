import { coursesOf, handoutsOf } from "@/server/courses/courses";
import { exerciseTitlesOf } from "@/server/exercises/exercises";
import { isAdministrator } from "@/server/people/people";
import { CourseList } from "@/ui/course/course-list";
import { joinByCode } from "../account-actions";
import { signOut } from "../actions";
import { signedIn } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  const person = await signedIn();
  const courses = await Promise.all(
    (await coursesOf(person)).map(async (row) => ({
      ...row,
      handouts: (await handoutsOf(row.id, person)).map(({ closes_at: _, ...h }) => ({
        ...h,
        due_at: h.due_at.toISOString(),
        opens_at: h.opens_at?.toISOString() ?? null,
        withdrawn_at: h.withdrawn_at?.toISOString() ?? null,
        worked_at: h.worked_at?.toISOString() ?? null,
        isAhead: h.opens_at !== null && h.opens_at > new Date(),
      })),
      exercises: row.role === "instructor" ? await exerciseTitlesOf(row.id) : [],
    })),
  );
  return (
    <CourseList
      person={person}
      courses={courses}
      signOut={signOut}
      join={joinByCode}
      isAdministrator={await isAdministrator(person)}
    />
  );
}

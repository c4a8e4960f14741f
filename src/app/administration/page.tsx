import { allCourses, peopleLike } from "@/server/courses/courses";
import { environment } from "@/server/environment";
import { letters } from "@/server/people/outbox";
import { courseText } from "@/ui/parts/course-text";
import { AdministrationPage } from "@/ui/people/administration-page";
import { restingCourses } from "@/server/upkeep/removal";
import { newCourse, takeCourseAway, takePersonAway } from "../administration-actions";
import { administrating, askedText } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ q?: string | string[] }> }) {
  const person = await administrating();
  const wanted = askedText((await searchParams).q);
  const [courses, people, post, resting] = await Promise.all([
    allCourses(),
    peopleLike(wanted),
    letters(),
    restingCourses(2),
  ]);
  return (
    <AdministrationPage
      person={person}
      courses={courses}
      people={people}
      wanted={wanted}
      letters={post.map(({ made_at, sent_at, ...l }) => ({
        ...l,
        madeAt: made_at.toISOString(),
        sentAt: sent_at?.toISOString() ?? null,
      }))}
      hasMail={environment().SMTP_URL !== undefined}
      resting={resting.map((c) => ({ id: c.id, name: courseText(c) }))}
      newCourse={newCourse}
      takePersonAway={takePersonAway}
      takeCourseAway={takeCourseAway}
    />
  );
}

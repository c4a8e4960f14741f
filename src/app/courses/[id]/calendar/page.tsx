import { calendarOf } from "@/server/courses/calendar";
import { courseAbout } from "@/server/courses/courses";
import { clockIn } from "@/server/courses/moments";
import { CalendarPage } from "@/ui/course/calendar";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ month?: string | string[] }>;
}) {
  const { id } = await params;
  const { person, role } = await allowed("course.view", id);
  const { title, term, time_zone } = await courseAbout(id);
  const today = clockIn(time_zone, new Date()).slice(0, 10);
  const { month } = await searchParams;
  const shown = typeof month === "string" && /^20\d\d-(0[1-9]|1[0-2])$/.test(month) ? month : today.slice(0, 7);
  return (
    <CalendarPage
      person={person}
      course={{ id, title, term, timeZone: time_zone }}
      month={shown}
      today={today}
      entries={await calendarOf(id, time_zone, person)}
      isStudent={role === "student"}
    />
  );
}

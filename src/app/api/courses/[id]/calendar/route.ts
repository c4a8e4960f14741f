import { calendarFile, calendarOf } from "@/server/courses/calendar";
import { courseAbout } from "@/server/courses/courses";
import { environment } from "@/server/environment";
import { endpoint } from "../../../endpoint";

/** The course's dates for one's own calendar. */
export const GET = endpoint<{ id: string }>("course.view", "id", async (person, { id }, request) => {
  const { title, time_zone } = await courseAbout(id);
  const address = environment().CALIPER_ADDRESS ?? new URL(request.url).origin;
  return new Response(calendarFile(title, await calendarOf(id, time_zone, person), address.replace(/\/$/, "")), {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": 'attachment; filename="course.ics"',
      "cache-control": "no-store",
    },
  });
});

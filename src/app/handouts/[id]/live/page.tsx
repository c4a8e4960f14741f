import { handout } from "@/server/handouts/handouts";
import { liveOn } from "@/server/marking/live";
import { LivePage } from "@/ui/course/live";
import { signOffAtDesk } from "../../../marking-actions";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person, role } = await allowed("handout.mark", id);
  const h = await handout(id);
  return (
    <LivePage
      person={person}
      handout={{ id, number: h.exercise.number, title: h.exercise.title, course: h.course }}
      start={{ now: new Date().toISOString(), rows: await liveOn(h) }}
      mayTeach={role === "instructor"}
      signOff={signOffAtDesk.bind(null, id)}
    />
  );
}

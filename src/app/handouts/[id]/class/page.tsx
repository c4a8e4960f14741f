import { classView } from "@/server/marking/class-view";
import { handout } from "@/server/handouts/handouts";
import { markedBy } from "@/server/marking/marking";
import { ClassViewPage } from "@/ui/course/class-view";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person, role } = await allowed("handout.mark", id);
  const h = await handout(id);
  const { number, title, massUnit } = markedBy(h);
  return (
    <ClassViewPage
      person={person}
      handout={{ id, number, title, course: h.course }}
      view={await classView(h)}
      massUnit={massUnit}
      mayTeach={role === "instructor"}
    />
  );
}

import { handout } from "@/server/handouts/handouts";
import { sameWorkOn } from "@/server/marking/same-work";
import { SameWorkPage } from "@/ui/course/same-work";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("handout.teach", id);
  const h = await handout(id);
  const { number, title } = h.exercise;
  return <SameWorkPage person={person} handout={{ id, number, title, course: h.course }} found={await sameWorkOn(h)} />;
}

import { courseAbout } from "@/server/courses/courses";
import { gradebookOf } from "@/server/marking/gradebook";
import { GradebookPage } from "@/ui/course/gradebook";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("course.mark", id);
  const [{ title, term }, book] = await Promise.all([courseAbout(id), gradebookOf(id)]);
  return <GradebookPage person={person} course={{ id, title, term }} book={book} />;
}

import { forStudent, handout, openWork } from "@/server/handouts";
import { latestSubmission } from "@/server/submissions";
import { Bench } from "@/ui/bench/bench";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ handout: string }> }) {
  const { handout: id } = await params;
  const { person } = await allowed("handout.work", id);
  const h = await handout(id);
  const [work, last] = await Promise.all([openWork(h, person.id), latestSubmission(id, person.id)]);
  const { course, dueAt, sheet, trouble, number, title } = forStudent(h);
  return (
    <Bench
      document={work.document}
      version={work.version}
      saveTo={`/api/works/${id}`}
      heading={`${number} ${title}`}
      detail={course}
      dueAt={dueAt}
      sheet={sheet}
      sheetTrouble={trouble}
      watch={`/api/handouts/${id}/state`}
      handIn={`/api/handouts/${id}/hand-in`}
      mayDefine={h.may_define}
      lastSubmission={last ? last.id : null}
    />
  );
}

import { dueFor, forStudent, handout } from "@/server/handouts/handouts";
import { handoutOf } from "@/server/handouts/own-parts";
import { hintsFor } from "@/server/handouts/hints";
import { practising } from "@/server/works/practices";
import { openWork } from "@/server/works/works";
import { rulesText, triesText } from "@/core/grade/late";
import { latestSubmission } from "@/server/tries/submissions";
import { Bench } from "@/ui/bench/bench";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ handout: string }> }) {
  const { handout: id } = await params;
  const { person } = await allowed("handout.work", id);
  const h = await handoutOf(await handout(id), person.id);
  const work = await openWork(h, person.id);
  const [hints, last, due, practice] = await Promise.all([
    hintsFor(h, person.id),
    latestSubmission(id, person.id),
    dueFor(h, person.id),
    h.practice ? practising(h, person.id) : undefined,
  ]);
  const { course, sheet, trouble, number, title, figures } = forStudent(h);
  return (
    <Bench
      document={work.document}
      version={work.version}
      saveTo={`/api/works/${id}`}
      heading={`${number} ${title}`}
      detail={course}
      owner={person.id}
      due={{
        at: due.toISOString(),
        closes: h.closes_at?.toISOString(),
        now: new Date().toISOString(),
        zone: h.time_zone,
        rules: [rulesText(h), triesText(h)].filter(Boolean).join(" "),
      }}
      history={{ url: `/api/works/${id}/history` }}
      sheet={sheet}
      sheetTrouble={trouble}
      watch={`handout:${id},work:${id}`}
      handIn={`/api/handouts/${id}/hand-in`}
      practice={practice && { url: `/api/handouts/${id}/practice`, start: practice }}
      mayDefine={h.may_define}
      mayUse={h.may_use ?? undefined}
      accepts={h.accepts}
      figures={figures}
      massUnit={figures.massUnit}
      hints={{ first: hints, url: `/api/handouts/${id}/hints` }}
      lastSubmission={last ? last.id : null}
      tries={{ used: last?.tries ?? 0, most: h.attempts_most }}
    />
  );
}

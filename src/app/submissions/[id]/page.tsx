import type { Report } from "@/core/check/check";
import type { CheckedSize } from "@/core/check/kinds/sizes/kind";
import { classOn, handout } from "@/server/handouts";
import { latestReport, submission } from "@/server/submissions";
import { MarkingDesk } from "@/ui/marking/marking-desk";
import { StudentResult } from "@/ui/marking/student-result";
import { checkSubmissionAgain } from "../../exercise-actions";
import { allowed } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person, role } = await allowed("submission.view", id);
  const s = await submission(id);
  const [h, report] = await Promise.all([handout(s.handout_id), latestReport(id)]);
  const heading = { number: h.exercise.number, title: h.exercise.title, course: h.course, handout: h.id };
  const state = {
    id,
    person: s.person,
    attempt: s.attempt,
    state: s.state,
    progress: s.progress,
    trouble: s.trouble,
    handedInAt: s.handed_in_at.toISOString(),
    lateSeconds: s.late_seconds,
    hintsOpened: s.hints_opened,
    points: s.points,
  };
  if (role === "student") {
    // what the student is sent: points and their own sentences, nothing of the report behind them
    const grade = report && {
      points: report.grade.points,
      of: report.grade.of,
      lines: report.grade.lines.map(({ id: line, check, title, points, of, verdict, studentSentence }) => ({
        id: line,
        check,
        title,
        points,
        of,
        verdict,
        sentence: studentSentence,
      })),
    };
    return (
      <StudentResult
        person={person}
        heading={heading}
        state={state}
        grade={grade ?? null}
        sizes={sizesIn(report?.report)}
        units={h.exercise.units}
      />
    );
  }
  const queue = (await classOn(h.id)).flatMap((r) =>
    r.submission
      ? [
          {
            id: r.submission,
            name: r.name,
            state: r.state!,
            points: r.points,
            of: r.grade?.of ?? null,
            trouble: r.trouble,
          },
        ]
      : [],
  );
  const shape = report?.report.evidence.find((e) => e.check === "shape");
  const sizes = sizesIn(report?.report);
  return (
    <MarkingDesk
      person={person}
      heading={heading}
      units={h.exercise.units}
      state={state}
      queue={queue}
      again={checkSubmissionAgain}
      report={
        report
          ? {
              grade: report.grade,
              kernel: report.kernel,
              createdAt: report.created_at.toISOString(),
              shape: shape?.check === "shape" ? shape : null,
              sizes,
            }
          : null
      }
    />
  );
}

/** What was found of the sizes that the Sheet prints: the student may see all of it. */
function sizesIn(report: Report | undefined): readonly CheckedSize[] {
  const e = report?.evidence.find((found) => found.check === "sizes");
  return e?.check === "sizes" && e.scale === undefined ? e.sizes : [];
}

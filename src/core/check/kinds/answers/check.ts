import { ON_THE_LIMIT } from "../../tolerance";
import { readFigure } from "./read";
import type { CheckContext } from "../context";
import type { AnswersEvidence, CheckedAnswer } from "./kind";

/** Every figure that the student typed against the right one. */
export function checkAnswers({ exercise, answers, wanted }: CheckContext): AnswersEvidence {
  const list = (exercise.questions ?? []).flatMap((q): CheckedAnswer[] => {
    const right = wanted[q.id];
    if (!right) return [];
    const typed = answers[q.id]?.trim() ?? "",
      { value, quantity } = right;
    const read = typed ? readFigure(typed, quantity, exercise) : undefined;
    const given = read?.ok ? read.value : undefined;
    const isRight = given !== undefined && Math.abs(given - value) <= Math.abs(value) * q.tolerance + ON_THE_LIMIT;
    return [
      {
        id: q.id,
        title: q.title,
        typed,
        wanted: value,
        quantity,
        tolerance: q.tolerance,
        isRight,
        ...(given !== undefined && { given }),
        ...(read && !read.ok && { trouble: read.refusal.sentence }),
      },
    ];
  });
  const off = list.filter((a) => !a.isRight).length;
  return { check: "answers", verdict: off ? "missed" : "met", off, answers: list };
}

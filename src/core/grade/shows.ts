import { SHOWS, type Practice, type Shows } from "@/core/check/exercise/terms";
import type { Verdict } from "@/core/check/kinds/kind";
import type { Comment, Decided } from "./decision";
import type { Deduction, Mark, MarkedLine } from "./mark";

/** A line as it is sent to the student. */
export interface ShownLine {
  readonly id: string;
  readonly check?: MarkedLine["check"];
  readonly title: string;
  readonly points?: number;
  readonly of?: number;
  readonly verdict?: Verdict;
  readonly sentence?: string;
  readonly bonus?: boolean;
  /** Why a person gave other points. */
  readonly reason?: string;
  readonly comments: readonly string[];
}
/** What a student is sent of a mark. */
export interface ShownMark {
  readonly points?: number;
  readonly of?: number;
  readonly lines: readonly ShownLine[];
  readonly deductions: readonly Deduction[];
  /** About the whole, and pinned to places. */
  readonly comments: readonly Pick<Comment, "text" | "pin">[];
}

const VERDICTS: Record<Verdict, string> = {
  met: "As asked for.",
  missed: "Not as asked for.",
  unknown: "Your instructor looks at this.",
};

/** Of a mark what may be shown. Comments and reasons are only shown of what was returned. */
export function shownMark(mark: Mark, shows: Shows, { comments }: Pick<Decided, "comments">): ShownMark {
  const about = (line: string) => comments.filter((c) => c.line === line).map((c) => c.text);
  return {
    ...(shows.points && { points: mark.points, of: mark.of }),
    lines: mark.lines.map((l) => shownLine(l, shows, about(l.id))),
    deductions: shows.points ? mark.deductions : [],
    comments: comments.filter((c) => !c.line).map(({ text, pin }) => ({ text, pin })),
  };
}

function shownLine(line: MarkedLine, shows: Shows, comments: readonly string[]): ShownLine {
  return {
    id: line.id,
    check: line.check,
    title: line.title,
    ...(shows.points && { points: line.points, of: line.of, ...(line.bonus && { bonus: true }) }),
    ...(shows.verdicts && { verdict: line.verdict }),
    ...(shows.sentences && { sentence: sentenceFor(line, shows) }),
    ...(shows.sentences && line.overruled?.reason && { reason: line.overruled.reason }),
    comments,
  };
}

function sentenceFor(l: MarkedLine, shows: Shows): string {
  if (shows.targets) return l.sentence;
  if (shows.numbers) return l.studentSentence;
  return shows.verdicts ? VERDICTS[l.verdict] : "";
}

/** What a practice check may show. */
export const practiceShows = ({ shows }: Practice): Shows => ({
  ...SHOWS,
  points: shows === "all",
  sentences: shows !== "fails",
  numbers: shows !== "fails",
  places: shows === "all",
});

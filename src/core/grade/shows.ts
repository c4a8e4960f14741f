import type { Verdict } from "@/core/check/kinds/kind";
import type { Comment, Decided } from "./decision";
import type { Deduction, Mark, MarkedLine } from "./mark";

/** What a student may see of a result, and when. */
export interface Shows {
  /** As soon as it is checked, or when it is returned. */
  readonly when: "checked" | "returned";
  readonly points: boolean;
  readonly verdicts: boolean;
  readonly sentences: boolean;
  /** What was measured on their part. */
  readonly numbers: boolean;
  /** Where on their part something is wrong. */
  readonly places: boolean;
  /** What was wanted, also where the Sheet does not print it. */
  readonly targets: boolean;
}

export const SHOWS: Shows = {
  when: "checked",
  points: true,
  verdicts: true,
  sentences: true,
  numbers: true,
  places: true,
  targets: false,
};

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

/** How far a student may check before handing in: that a line fails, also why, or all with points. */
export interface Practice {
  readonly shows: "fails" | "sentences" | "all";
  /** How often; left out: as often as they like. */
  readonly most?: number | undefined;
}

/** What a practice check may show. */
export const practiceShows = ({ shows }: Practice): Shows => ({
  ...SHOWS,
  points: shows === "all",
  sentences: shows !== "fails",
  numbers: shows !== "fails",
  places: shows === "all",
});

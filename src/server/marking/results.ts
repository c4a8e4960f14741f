import type { Report } from "@/core/check/check";
import { sizeSentence, type CheckedSize } from "@/core/check/kinds/sizes/kind";
import { findingText } from "@/core/check/findings/finding";
import type { Vec3 } from "@/core/geometry/vector";
import { decided } from "@/core/grade/decision";
import type { Shows } from "@/core/check/exercise/terms";
import type { ShownMark } from "@/core/grade/shows";
import { rows } from "../database";
import type { Handout } from "../handouts/handouts";
import { historyOf, shownTo } from "./marking";
import { builtFromAnother } from "../handouts/copied-parts";
import { ownPart } from "../handouts/own-parts";
import { pictureOf, reportOf, submission, type Submission } from "../tries/submissions";
import type { PackedMesh } from "../files/pictures";

/** A place on the student's own part where something is wrong. */
export interface ShownPlace {
  /** The check it belongs to. */
  readonly check: "shape" | "sizes";
  readonly text: string;
  readonly at: Vec3;
}

/** What a student reads of a result: nothing in it that may not be shown. */
export interface StudentView {
  readonly mark: ShownMark | undefined;
  readonly returnedAt: string | undefined;
  readonly sizes: readonly CheckedSize[];
  readonly places: readonly ShownPlace[];
  readonly talk: readonly {
    readonly id: string;
    readonly from: "student" | "instructor";
    readonly by: string;
    readonly at: string;
    readonly text: string;
    readonly attempt?: number | undefined;
  }[];
  readonly turn: "student" | "instructor" | undefined;
  readonly tries: readonly {
    readonly id: string;
    readonly attempt: number;
    readonly handedInAt: string;
    readonly points: number | null;
    readonly of: number | null;
    /** The own part as it was handed in, by the hash of its drawing; null or empty: none. */
    readonly picture: string | null;
  }[];
  /** The part is right by another Sheet of the class, and not by the student's own. */
  readonly isAnothers: boolean;
  /** What is shown, when. */
  readonly when: Shows["when"];
}

export async function studentView(id: string, handout: Handout): Promise<StudentView> {
  const s = await submission(id);
  const [shown, history, tries] = await Promise.all([shownTo(id), historyOf(id), triesOf(s.handout_id, s.person_id)]);
  const { talk, turn } = decided(history);
  const found = shown?.report ? (await reportOf(shown.report))?.report : undefined;
  const { shows } = handout;
  const mayNumbers = shows.sentences && shows.numbers;
  return {
    mark: shown?.mark,
    returnedAt: shown?.returnedAt,
    sizes: mayNumbers && shows.verdicts ? sizesIn(found, shows) : [],
    places: found && shows.places && shows.verdicts && mayNumbers ? placesIn(found, handout) : [],
    talk,
    turn,
    tries,
    isAnothers: mayNumbers && shows.verdicts ? await isAnothers(s, found) : false,
    when: shows.when,
  };
}

async function isAnothers(s: Submission, report: Report | undefined): Promise<boolean> {
  const own = await ownPart(s.handout_id, s.person_id);
  const whose = { handoutId: s.handout_id, personId: s.person_id };
  return own !== undefined && (await builtFromAnother(whose, own, report)) !== undefined;
}

/** Tries of a student, the newest first, with what they see of the points. */
const triesOf = async (handoutId: string, personId: string) =>
  (
    await rows<{
      id: string;
      attempt: number;
      handed_in_at: Date;
      points: number | null;
      of: number | null;
      picture: string | null;
    }>(
      `select s.id, s.attempt, s.handed_in_at, c.shown_points as points, c.shown_of as of,
         case when r.id is not null then coalesce(r.plain, h.pictured) end as picture
       from submissions s join handouts h on h.id = s.handout_id join checks c on c.submission_id = s.id
       left join reports r on r.id = c.report_id
       where s.handout_id = $1 and s.person_id = $2 order by s.attempt desc`,
      [handoutId, personId],
    )
  ).map(({ handed_in_at, ...r }) => ({ ...r, handedInAt: handed_in_at.toISOString() }));

/** What was found of the sizes that the Sheet prints; places stay away where they are not shown. */
function sizesIn(report: Report | undefined, shows: Shows): readonly CheckedSize[] {
  const e = report?.evidence.find((f) => f.check === "sizes");
  if (e?.check !== "sizes" || e.scale !== undefined) return [];
  return shows.places ? e.sizes : e.sizes.map(({ at: _, ...rest }) => rest);
}

/** More than these nobody mends at once. */
const MOST_PLACES = 8;

function placesIn(report: Report, { exercise }: Handout): ShownPlace[] {
  const lettering = { unit: exercise.units };
  const all = report.evidence.flatMap((e): ShownPlace[] => {
    if (e.check === "shape")
      return (e.features ?? []).map((f) => ({ check: "shape", text: findingText(f, lettering), at: f.at }));
    // what is missing altogether is told by its shape
    if (e.check === "sizes" && e.scale === undefined)
      return e.sizes.flatMap((s) =>
        s.state === "lost"
          ? []
          : s.at
            ? [{ check: "sizes" as const, text: sizeSentence(s, exercise.units), at: s.at }]
            : [],
      );
    return [];
  });
  return all.slice(0, MOST_PLACES);
}

/** The student's own part as it was checked, and nothing of the reference; undefined where places are not shown. */
export async function ownPicture(id: string, h: Handout): Promise<{ submission: PackedMesh } | undefined> {
  const shown = h.shows.places ? await shownTo(id) : undefined;
  const own = shown && (await pictureOf(id, shown.report))?.submission;
  return own && { submission: own };
}

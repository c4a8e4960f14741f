import type { Report } from "@/core/check/check";
import { commonFaults } from "@/core/grade/faults";
import type { Grade } from "@/core/grade/grade";
import { rows } from "../database";
import type { Handout } from "../handouts/handouts";
import { markedBy } from "./marking";

/** One student's submission that counts, as the class view counts it. */
export interface ClassPart {
  readonly submission: string;
  readonly person: string;
  readonly points: number;
  /** Of its part, g; null where nothing was measured. */
  readonly mass: number | null;
  readonly attempts: number;
  /** At work before handing in, minutes. */
  readonly minutes: number | null;
  /** The part with what is missing and extra, by the hash of its drawing; null or empty: none. */
  readonly picture: string | null;
  /** What is wrong with it, the gravest first, in a few words; empty where nothing is. */
  readonly wrong: string;
}
export interface Missed {
  readonly id: string;
  readonly title: string;
  /** Submissions that lost points there, or have another size. */
  readonly who: readonly string[];
}
export interface ClassView {
  readonly parts: readonly ClassPart[];
  readonly of: number;
  readonly mass: { readonly wanted: number; readonly tolerance: number } | undefined;
  readonly lines: readonly Missed[];
  readonly sizes: readonly Missed[];
  readonly faults: readonly { readonly text: string; readonly who: readonly string[] }[];
}

interface Row {
  readonly id: string;
  readonly person: string;
  readonly points: number;
  readonly report: Report;
  readonly grade: Grade;
  readonly attempt: number;
  readonly worked: number | null;
  readonly picture: string | null;
}

/** How a class did on a handout: by the submission of each that counts. */
export async function classView(handout: Handout): Promise<ClassView> {
  const list = await rows<Row>(
    `select s.id, p.name as person, c.points, r.report, r.grade, s.attempt, w.worked_seconds as worked,
       coalesce(r.hatched, h.pictured) as picture
     from counting_tries k join handouts h on h.id = k.handout_id join submissions s on s.id = k.counting
     join people p on p.id = k.person_id join checks c on c.submission_id = s.id join reports r on r.id = c.report_id
     left join works w on w.handout_id = s.handout_id and w.person_id = s.person_id
     where k.handout_id = $1 order by p.name`,
    [handout.id],
  );
  const exercise = markedBy(handout);
  const amount = list.flatMap((r) => r.report.evidence.find((e) => e.check === "mass") ?? [])[0];
  const wanted = amount?.check === "mass" ? amount.wanted : undefined;
  return {
    parts: list.map((row) => {
      const mass = row.report.evidence.find((e) => e.check === "mass");
      return {
        submission: row.id,
        person: row.person,
        points: row.points,
        // each against their own target, where numbers are their own
        mass: mass?.check === "mass" && mass.measured > 0 ? (mass.measured * (wanted ?? 0)) / mass.wanted : null,
        attempts: row.attempt,
        minutes: row.worked ? Math.round(row.worked / 60) : null,
        picture: row.picture,
        wrong: wrongIn(row.grade),
      };
    }),
    of: list[0]?.grade.of ?? exercise.rubric.reduce((s, l) => s + (l.bonus ? 0 : l.points), 0),
    mass: wanted === undefined ? undefined : { wanted, tolerance: exercise.tolerances.mass },
    lines: exercise.rubric.map((l) => ({
      id: l.id,
      title: l.title,
      who: list
        .filter((r) => r.grade.lines.some((g) => g.id === l.id && g.check !== "hand" && g.points < g.of))
        .map((r) => r.id),
    })),
    sizes: sizesMissed(list),
    faults: commonFaults(list.map((r) => r.report)).map((f) => ({
      text: f.text,
      who: f.who.map((i) => list[i]!.id),
    })),
  };
}

/** Lines that lost points, those that lost most first. */
function wrongIn({ lines }: Grade): string {
  const lost = lines.filter((l) => l.check !== "hand" && l.points < l.of);
  return lost
    .sort((a, b) => b.of - b.points - (a.of - a.points))
    .map((l) => l.title)
    .join(", ");
}

/** Every printed size that somebody has not, those missed most first. */
function sizesMissed(list: readonly Row[]): Missed[] {
  const missed = new Map<string, { id: string; title: string; who: string[] }>();
  for (const row of list)
    for (const e of row.report.evidence) {
      if (e.check !== "sizes" || e.scale !== undefined) continue;
      for (const s of e.sizes) {
        if (s.state !== "missed" && s.state !== "lost") continue;
        const known = missed.get(s.id) ?? { id: s.id, title: `${s.text}: ${s.name}`, who: [] };
        known.who.push(row.id);
        missed.set(s.id, known);
      }
    }
  return [...missed.values()].sort((a, b) => b.who.length - a.who.length || a.title.localeCompare(b.title));
}

import type { Report } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { FiguresEvidence } from "@/core/check/kinds/figures/kind";
import { builtFrom, numbersThatMayVary, ownNumbersText, type Signature } from "@/core/check/exercise/own-numbers";
import { row, rows } from "../database";
import type { Handout } from "./handouts";
import type { OwnPart } from "./own-parts";

/** Own numbers as the Marking desk shows them. */
export interface DeskOwn {
  readonly text: string;
  readonly sheet: Handout["sheet"];
  /** Whose Sheet the part was built from, where that is another's. */
  readonly builtFrom: string | undefined;
}

/** One student's own numbers beside what was found; undefined where all have the same. */
export async function ownOnDesk(
  { handoutId, personId }: { readonly handoutId: string; readonly personId: string },
  report: Report | undefined,
): Promise<DeskOwn | undefined> {
  const own = await row<OwnPart & { exercise: Exercise }>(
    `select o.numbers, o.state, o.trouble, o.sheet, o.targets, coalesce(h.marking, h.exercise) as exercise
     from own_parts o join handouts h on h.id = o.handout_id where o.handout_id = $1 and o.person_id = $2`,
    [handoutId, personId],
  );
  if (!own) return undefined;
  const { exercise, numbers, sheet } = own;
  return {
    text: ownNumbersText(numbers, numbersThatMayVary(exercise), exercise.units),
    sheet,
    builtFrom: (await builtFromAnother({ handoutId, personId }, own, report))?.name,
  };
}

/** The student whose Sheet a part was built from instead of one's own. */
export async function builtFromAnother(
  { handoutId, personId }: { readonly handoutId: string; readonly personId: string },
  own: Pick<OwnPart, "targets">,
  report: Report | undefined,
): Promise<{ readonly name: string } | undefined> {
  const figures = report?.evidence.flatMap((e) => (e.check === "figures" ? [e] : []))[0];
  if (!figures?.off || !own.targets) return undefined;
  const others = await rows<{ name: string; signature: Signature }>(
    `select p.name, o.targets->'signature' as signature from own_parts o join people p on p.id = o.person_id
     where o.handout_id = $1 and o.person_id <> $2 and o.targets is not null order by o.place`,
    [handoutId, personId],
  );
  const found = builtFrom(
    figures,
    own.targets.signature,
    others.map((o) => o.signature),
  );
  return found === undefined ? undefined : others[found];
}

/** Of a class: whose Sheet each part that counts was built from, where that is another's. @returns names by person */
export async function copiesOn(handoutId: string): Promise<ReadonlyMap<string, string>> {
  const list = await rows<{ person_id: string; name: string; signature: Signature; figures: FiguresEvidence | null }>(
    `select o.person_id, p.name, o.targets->'signature' as signature,
       jsonb_path_query_first(r.report->'evidence', '$[*] ? (@.check == "figures")') as figures
     from own_parts o join people p on p.id = o.person_id
     left join counting_tries k on k.handout_id = o.handout_id and k.person_id = o.person_id
     left join tries t on t.submission_id = k.counting left join reports r on r.id = t.report_id
     where o.handout_id = $1 and o.targets is not null order by o.place`,
    [handoutId],
  );
  const found = list.flatMap((own): [string, string][] => {
    if (!own.figures?.off) return [];
    const others = list.filter((o) => o !== own);
    const at = builtFrom(
      own.figures,
      own.signature,
      others.map((o) => o.signature),
    );
    return at === undefined ? [] : [[own.person_id, others[at]!.name]];
  });
  return new Map(found);
}

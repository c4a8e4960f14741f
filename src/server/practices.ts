import type { Exercise } from "@/core/check/exercise";
import { decided } from "@/core/grade/decision";
import type { Grade } from "@/core/grade/grade";
import { markOf } from "@/core/grade/mark";
import { practiceShows, shownMark, type ShownMark } from "@/core/grade/shows";
import type { PartDocument } from "@/core/part/document";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, rows, transaction } from "./database";
import type { OwnNumbers } from "@/core/check/own-numbers";
import type { Handout } from "./handouts";
import { ownExercise } from "./own-parts";
import { enqueue, PRIORITY } from "./queue";
import type { Work } from "./works";

/** A check before handing in, as the student sees it. */
export interface PracticeView {
  readonly id: string;
  readonly state: "queued" | "checking" | "checked" | "failed";
  readonly progress: string;
  readonly trouble: string | null;
  /** Of which version of the part. */
  readonly version: number;
  readonly mark: ShownMark | undefined;
}
export interface Practising {
  /** How many checks are left; null: any number. */
  readonly left: number | null;
  readonly last: PracticeView | undefined;
}

/**
 * Queues a check of the part as it stands, where the handout allows one more. Asked again under the same id, as when an
 * answer was lost, it is the same check.
 */
export async function practise(
  h: Handout,
  personId: string,
  asked: { readonly id: string; readonly version: number },
): Promise<Outcome<Practising>> {
  const { practice } = h;
  if (!practice) return refuse("no-practice", "This handout is checked when it is handed in.");
  return transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`${h.id}:${personId}`]);
    const before = await row("select 1 from practices where id = $1 and person_id = $2", [asked.id, personId], client);
    if (!before) {
      const counted = await one<{ n: number; open: number }>(
        `select (count(*) filter (where state <> 'failed'))::int as n,
           (count(*) filter (where state in ('queued', 'checking')))::int as open
         from practices where handout_id = $1 and person_id = $2`,
        [h.id, personId],
        client,
      );
      if (counted.open) return refuse("busy", "A check is under way already.");
      if (practice.most !== undefined && counted.n >= practice.most)
        return refuse("no-more", "All checks before handing in are used.");
      const work = await row<Work>(
        "select document, version from works where handout_id = $1 and person_id = $2",
        [h.id, personId],
        client,
      );
      if (!work?.document.steps.length) return refuse("empty", "There is nothing to check yet.");
      if (work.version !== asked.version)
        return refuse(
          "other-version",
          "The server holds another version of this part. Wait until it is kept, then try again.",
        );
      await client.query(
        "insert into practices (id, handout_id, person_id, document, work_version) values ($1, $2, $3, $4, $5)",
        [asked.id, h.id, personId, work.document, work.version],
      );
      // what was practised is looked at once: old ones are thinned to the last few
      await client.query(
        `update practices set document = '{}' 
         where handout_id = $1 and person_id = $2 and state in ('checked', 'failed')`,
        [h.id, personId],
      );
      const place = { priority: PRIORITY.practice, lane: `person:${personId}:0` };
      await enqueue({ task: "practise", practice: asked.id }, place, client);
    }
    return done(await practising(h, personId, client));
  });
}

/** The newest check before handing in, and how many are left. */
export async function practising(
  h: Handout,
  personId: string,
  client?: Parameters<typeof row>[2],
): Promise<Practising> {
  const last = await row<Omit<PracticeView, "mark"> & { grade: Grade | null }>(
    `select id, state, progress, trouble, work_version as version, grade from practices
     where handout_id = $1 and person_id = $2 order by made_at desc limit 1`,
    [h.id, personId],
    client,
  );
  const { n } = await one<{ n: number }>(
    "select count(*)::int as n from practices where handout_id = $1 and person_id = $2 and state <> 'failed'",
    [h.id, personId],
    client,
  );
  const most = h.practice?.most;
  return {
    left: most === undefined ? null : Math.max(0, most - n),
    last: last && {
      id: last.id,
      state: last.state,
      progress: last.progress,
      trouble: last.trouble,
      version: last.version,
      mark: h.practice && last.grade ? shownPractice(last.grade, h) : undefined,
    },
  };
}

function shownPractice(grade: Grade, h: Handout): ShownMark {
  const nothing = decided([]);
  const mark = markOf({
    grade,
    checkedAt: undefined,
    decided: nothing,
    rules: h,
    lateSeconds: 0,
    returned: undefined,
  });
  return shownMark(mark, practiceShows(h.practice!), nothing);
}

interface PracticeInput {
  readonly document: PartDocument;
  readonly exercise: Exercise;
  readonly initials: string;
  readonly state: string;
}

/** What a check before handing in needs. */
export async function practiceInput(id: string) {
  const found = await row<PracticeInput & { numbers: OwnNumbers | null }>(
    `select p.document, coalesce(h.marking, h.exercise) as exercise, q.initials, p.state, o.numbers
     from practices p join handouts h on h.id = p.handout_id join people q on q.id = p.person_id
     left join own_parts o on o.handout_id = h.id and o.person_id = p.person_id where p.id = $1`,
    [id],
  );
  return found && { ...found, exercise: ownExercise(found.exercise, found.numbers) };
}

/** Says how it stands; one that has ended stays as it is. */
export const sayPractice = (
  id: string,
  state: PracticeView["state"],
  said: { progress?: string; trouble?: string; grade?: Grade } = {},
) =>
  rows(
    `update practices set state = $2, progress = $3, trouble = $4, grade = $5
     where id = $1 and state in ('queued', 'checking')`,
    [id, state, said.progress ?? "", said.trouble ?? null, said.grade ?? null],
  );

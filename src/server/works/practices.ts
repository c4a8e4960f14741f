import type { Exercise } from "@/core/check/exercise/exercise";
import { decided } from "@/core/grade/decision";
import type { Grade } from "@/core/grade/grade";
import { markOf } from "@/core/grade/mark";
import { practiceShows, shownMark, type ShownMark } from "@/core/grade/shows";
import type { PartDocument } from "@/core/part/document";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, transaction } from "../database";
import type { OwnNumbers } from "@/core/check/exercise/own-numbers";
import type { Handout } from "../handouts/handouts";
import { ownExercise } from "../handouts/own-parts";
import { PRIORITY } from "../queue";
import { beginRun, openRun, stepRun, type Subject, type Ticket } from "../tries/runs";
import type { Work } from "./works";

/** A check before handing in, as the student sees it. */
interface PracticeView {
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
        `select (count(*) filter (where r.state <> 'failed'))::int as n,
           (count(*) filter (where r.state in ('queued', 'running')))::int as open
         from practices p join runs r on r.practice_id = p.id where p.handout_id = $1 and p.person_id = $2`,
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
      await client.query(`update practices set document = '{}' where handout_id = $1 and person_id = $2 and id <> $3`, [
        h.id,
        personId,
        asked.id,
      ]);
      const place = { priority: PRIORITY.practice, lane: `person:${personId}:0` };
      await openRun(practiceOf(asked.id), place, client);
    }
    return done(await practising(h, personId, client));
  });
}

/** The newest check before handing in, and how many are left. */
export async function practising(
  handout: Handout,
  personId: string,
  client?: Parameters<typeof row>[2],
): Promise<Practising> {
  const last = await row<Omit<PracticeView, "mark"> & { grade: Grade | null }>(
    `select p.id, case r.state when 'running' then 'checking' when 'done' then 'checked' when 'replaced' then 'failed'
       else r.state end as state, r.progress, r.trouble, p.work_version as version, p.grade
     from practices p join runs r on r.practice_id = p.id
     where p.handout_id = $1 and p.person_id = $2 order by p.made_at desc limit 1`,
    [handout.id, personId],
    client,
  );
  const { n } = await one<{ n: number }>(
    `select count(*)::int as n from practices p join runs r on r.practice_id = p.id
     where p.handout_id = $1 and p.person_id = $2 and r.state <> 'failed'`,
    [handout.id, personId],
    client,
  );
  const most = handout.practice?.most;
  return {
    left: most === undefined ? null : Math.max(0, most - n),
    last: last && {
      id: last.id,
      state: last.state,
      progress: last.progress,
      trouble: last.trouble,
      version: last.version,
      mark: handout.practice && last.grade ? shownPractice(last.grade, handout) : undefined,
    },
  };
}

function shownPractice(grade: Grade, handout: Handout): ShownMark {
  const nothing = decided([]);
  const mark = markOf({
    grade,
    checkedAt: undefined,
    decided: nothing,
    rules: handout,
    lateSeconds: 0,
    returned: undefined,
  });
  return shownMark(mark, practiceShows(handout.practice!), nothing);
}

const practiceOf = (id: string): Subject => ({ kind: "practice", practice_id: id });
const REVISION = `(select coalesce(h.marking_revision, h.revision) from practices p
  join handouts h on h.id = p.handout_id where p.id = r.practice_id)`;

interface PracticeInput {
  readonly document: PartDocument;
  readonly exercise: Exercise;
  readonly initials: string;
}

/** Begins a check before handing in, and gives what it needs; undefined where it is no longer wanted. */
export async function beginPractice(id: string) {
  const ticket = await beginRun(practiceOf(id), "starting", REVISION);
  const found =
    ticket &&
    (await row<PracticeInput & { numbers: OwnNumbers | null }>(
      `select p.document, coalesce(h.marking, h.exercise) as exercise, q.initials, o.numbers
       from practices p join handouts h on h.id = p.handout_id join people q on q.id = p.person_id
       left join own_numbers o on o.handout_id = h.id and o.person_id = p.person_id where p.id = $1`,
      [id],
    ));
  return found && { ticket, input: { ...found, exercise: ownExercise(found.exercise, found.numbers) } };
}

/** Ends it with a grade, or in trouble; one that has ended stays as it is. */
export const finishPractice = (
  ticket: Ticket,
  id: string,
  found: { readonly grade: Grade } | { readonly trouble: string },
): Promise<void> =>
  transaction(async (client) => {
    if ("trouble" in found) return void (await stepRun(ticket, "fail", found, client));
    if (await stepRun(ticket, "finish", {}, client))
      await client.query("update practices set grade = $2 where id = $1", [id, found.grade]);
  });

import type pg from "pg";
import type { Exercise } from "@/core/check/exercise/exercise";
import { decided, isTalk, TALK, type Decided, type Decision, type Entry, type Word } from "@/core/grade/decision";
import type { Grade } from "@/core/grade/grade";
import type { DueRules } from "@/core/grade/late";
import { markOf, type Mark } from "@/core/grade/mark";
import type { Shows } from "@/core/check/exercise/terms";
import { shownMark, type ShownMark } from "@/core/grade/shows";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { database, one, row, rows, transaction } from "../database";
import type { Person } from "../people/people";
import type { SubmissionState } from "../tries/life";
import { lockTries } from "../tries/runs";

type Client = pg.Pool | pg.PoolClient;

/** Everything a mark is made of, and the mark. */
export interface Marking {
  readonly grade: Grade | undefined;
  readonly checkedAt: string | undefined;
  readonly history: readonly Entry[];
  readonly decided: Decided;
  readonly mark: Mark;
  readonly returned: { readonly points: number; readonly of: number; readonly at: string } | undefined;
  readonly rules: DueRules;
  readonly lateSeconds: number;
  /** What its student may see. */
  readonly shows: Shows;
  /** How its check stands. */
  readonly state: SubmissionState;
}

interface Standing extends DueRules {
  readonly grade: Grade | null;
  readonly checked_at: Date | null;
  readonly late_seconds: number;
  readonly shows: Shows;
  readonly state: SubmissionState;
  readonly returned_points: number | null;
  readonly returned_of: number | null;
  readonly returned_at: Date | null;
}

/**
 * What was decided about a submission, and what was said with its student about it and their other tries, oldest first:
 * a question belongs to the work on a handout, and another try does not answer it.
 */
export const historyOf = async (submissionId: string, client: Client = database()): Promise<Entry[]> =>
  (
    await rows<{ id: string; by_name: string; what: Decision | Word; made_at: Date; attempt: number | null }>(
      `select e.id, e.by_name, e.what, e.made_at, case when o.id <> s.id then o.attempt end as attempt
       from submissions s
       join submissions o on o.id = s.id or (o.handout_id = s.handout_id and o.person_id = s.person_id)
       join entries e on e.submission_id = o.id
       where s.id = $1 and (o.id = s.id or e.what->>'do' = any($2)) order by e.n`,
      [submissionId, TALK],
      client,
    )
  ).map((e) => ({
    id: e.id,
    at: e.made_at.toISOString(),
    by: e.by_name,
    what: e.what,
    ...(e.attempt !== null && { attempt: e.attempt }),
  }));

/** Ids of a student's other tries on the same handout. */
const otherTries = async (submissionId: string, client: Client): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      `select o.id from submissions s join submissions o on o.handout_id = s.handout_id and o.person_id = s.person_id
       where s.id = $1 and o.id <> s.id order by o.id`,
      [submissionId],
      client,
    )
  ).map((o) => o.id);

/** Works a submission's mark out of its newest report and its history. */
export async function markingOf(submissionId: string, client: Client = database()): Promise<Marking> {
  const standing = await one<Standing>(
    `select r.grade, r.created_at as checked_at, s.late_seconds, h.due_at, h.grace_minutes, h.after_due, h.points_a_day,
       h.shows, c.state, t.points as returned_points, t.out_of as returned_of, t.made_at as returned_at
     from submissions s join handouts h on h.id = s.handout_id join checks c on c.submission_id = s.id
     left join reports r on r.id = c.report_id
     left join lateral (
       select points, out_of, made_at from returned where submission_id = s.id order by made_at desc limit 1
     ) t on true
     where s.id = $1`,
    [submissionId],
    client,
  );
  const history = await historyOf(submissionId, client);
  const stands = decided(history);
  const grade = standing.grade ?? undefined,
    checkedAt = standing.checked_at?.toISOString();
  const mark = markOf({
    grade,
    checkedAt,
    decided: stands,
    rules: standing,
    lateSeconds: standing.late_seconds,
    returned: standing.returned_points ?? undefined,
  });
  const returned =
    standing.returned_points === null
      ? undefined
      : { points: standing.returned_points, of: standing.returned_of!, at: standing.returned_at!.toISOString() };
  const { late_seconds: lateSeconds, shows, state } = standing;
  return { grade, checkedAt, history, decided: stands, mark, returned, rules: standing, lateSeconds, shows, state };
}

/** The mark by another grade, or by other decisions, under the same rules; nothing of it was returned. */
export const markWith = (m: Marking, other: Partial<Pick<Marking, "grade" | "checkedAt" | "decided">>): Mark =>
  markOf({ ...m, ...other, returned: undefined });

/** What the program alone gives: seen before anything was returned. */
const machineMark = (m: Marking): Mark => markWith(m, { decided: decided([]) });

/** Writes what follows from a report and decisions beside the check, so that lists need not work it out. */
export async function remark(submissionId: string, client: pg.PoolClient): Promise<Marking> {
  const marking = await markingOf(submissionId, client);
  const isShown =
    marking.grade !== undefined &&
    marking.shows.points &&
    (marking.returned !== undefined || marking.shows.when === "checked");
  // what was given back stands as it was, until it is given back again
  const shown = marking.returned ?? { points: machineMark(marking).points, of: marking.mark.of };
  // while it waits for its check nobody needs to look
  const needs = marking.mark.needs.filter((n) => n !== "failed" || marking.state === "failed");
  await client.query(
    `update tries set points = $2, out_of = $3, needs = $4, accepted_at = $5, returned_at = $6, turn = $7,
       shown_points = $8, shown_of = $9, changed_at = now() where submission_id = $1`,
    [
      submissionId,
      marking.grade ? marking.mark.points : null,
      marking.grade ? marking.mark.of : null,
      needs,
      marking.decided.acceptedAt ?? null,
      marking.returned?.at ?? null,
      marking.decided.turn ?? null,
      isShown ? shown.points : null,
      isShown ? shown.of : null,
    ],
  );
  return marking;
}

/** Works out anew what follows for every submission of a handout: its terms have changed. */
export async function remarkAll(handoutId: string): Promise<void> {
  const all = await rows<{ id: string }>("select id from submissions where handout_id = $1", [handoutId]);
  for (const { id } of all) await remarkOne(id);
}

/** Works out anew what follows for one submission. */
export const remarkOne = (submissionId: string): Promise<void> =>
  transaction(async (client) => {
    await lockTries([submissionId], client);
    await remark(submissionId, client);
  });

/** An entry as the browser sends it, under an id of its own. */
interface NewEntry {
  readonly id: string;
  readonly what: Decision | Word;
}

/**
 * Writes entries into a submission's history and marks it anew; those written before, since an answer was lost, are
 * not written again. All of them, or none.
 */
export async function decide(
  submissionId: string,
  person: Person,
  entries: readonly NewEntry[],
): Promise<Outcome<Marking>>;
/** The same, where something still holds once nobody else can change it. @returns undefined where it does not */
export async function decide(
  submissionId: string,
  person: Person,
  entries: readonly NewEntry[],
  holds: (m: Marking) => boolean,
): Promise<Outcome<Marking | undefined>>;
export async function decide(
  submissionId: string,
  person: Person,
  entries: readonly NewEntry[],
  holds?: (m: Marking) => boolean,
): Promise<Outcome<Marking | undefined>> {
  return transaction(async (client) => {
    const others = entries.some((e) => isTalk(e.what)) ? await otherTries(submissionId, client) : [];
    await lockTries([submissionId, ...others], client);
    const before = await markingOf(submissionId, client);
    if (holds && !holds(before)) return done(undefined);
    const known = new Set(before.history.map((e) => e.id));
    const fresh = entries.filter((e) => !known.has(e.id));
    for (const { what } of fresh) {
      const fault = faultOf(what, before.mark);
      if (fault) return fault;
      if (what.do === "return" && (await isHeldBack(submissionId, client)))
        return refuse("held-back", "Nothing is returned before all submissions of this handout were looked at.");
    }
    for (const { id, what } of fresh) {
      await client.query(
        "insert into entries (id, submission_id, person_id, by_name, what) values ($1, $2, $3, $4, $5)",
        [id, submissionId, person.id, person.name, what],
      );
      await remember(person.id, before.mark, what, client);
    }
    if (fresh.some((e) => e.what.do === "return")) await giveBack(submissionId, client);
    // whose turn it is to say something holds for every try
    for (const other of others) await remark(other, client);
    return done(await remark(submissionId, client));
  });
}

function faultOf(what: Decision | Word, mark: Mark): ReturnType<typeof refuse> | undefined {
  if (what.do !== "overrule") return undefined;
  const line = mark.lines.find((l) => l.id === what.line);
  if (!line) return refuse("no-line", "The rubric has no such line any more. Reload to see the one that counts.");
  if (what.points > line.of) return refuse("too-many", `“${line.title}” has ${line.of} points and no more.`);
  const isReasoned = what.reason !== "" || line.check === "hand";
  return isReasoned
    ? undefined
    : refuse("no-reason", `Say why “${line.title}” gets other points: the student reads it.`);
}

/** Whether others of the handout have not been looked at yet, and that is what returning waits for. */
const isHeldBack = async (submissionId: string, client: Client): Promise<boolean> =>
  (await row(
    `select 1 from submissions s join handouts h on h.id = s.handout_id and h.hold_back
     join counting_tries k on k.handout_id = h.id and k.person_id <> s.person_id
     join tries t on t.submission_id = k.counting
     where s.id = $1 and t.accepted_at is null and t.returned_at is null limit 1`,
    [submissionId],
    client,
  )) !== undefined;

/** Freezes what the student is given. */
async function giveBack(submissionId: string, client: pg.PoolClient): Promise<void> {
  const m = await markingOf(submissionId, client);
  await client.query(
    `insert into returned (submission_id, mark, points, out_of, report_id)
     values ($1, $2, $3, $4, (select report_id from tries where submission_id = $1))`,
    [submissionId, shownMark(m.mark, m.shows, m.decided), m.mark.points, m.mark.of],
  );
}

/** So many remarks of a person are kept, those used last. */
const MOST_REMARKS = 400;

/** What somebody writes is offered again on lines like it. */
async function remember(personId: string, mark: Mark, what: Decision | Word, client: Client): Promise<void> {
  const text = what.do === "comment" ? what.text : what.do === "overrule" ? what.reason : "";
  if (!text || text.length > 400) return;
  const line = "line" in what ? mark.lines.find((l) => l.id === what.line) : undefined;
  await client.query(
    `insert into remarks (person_id, about, text) values ($1, $2, $3)
     on conflict (person_id, about, text) do update set uses = remarks.uses + 1, used_at = now()`,
    [personId, line?.check ?? "", text],
  );
  await client.query(
    `delete from remarks where person_id = $1 and used_at < (
       select used_at from remarks where person_id = $1 order by used_at desc offset ${MOST_REMARKS} limit 1)`,
    [personId],
  );
}

export interface Remark {
  /** The kind of check it was used on; '' for the whole. */
  readonly about: string;
  readonly text: string;
}
/** A person's own remarks, those used most first. */
export const remarksOf = (personId: string) =>
  rows<Remark>("select about, text from remarks where person_id = $1 order by uses desc, used_at desc limit 100", [
    personId,
  ]);
export const forgetRemark = (personId: string, r: Remark) =>
  rows("delete from remarks where person_id = $1 and about = $2 and text = $3", [personId, r.about, r.text]);

/**
 * Returns the submissions of a handout that count and are checked: those with nothing open, or all. Pressed twice, or
 * by two at once, each is returned once.
 * @returns how many
 */
export async function returnAll(
  handoutId: string,
  person: Person,
  which: "clear" | "all",
  newId: () => string,
): Promise<Outcome<number>> {
  const waiting = await rows<{ id: string }>(
    `select c.submission_id as id from counting_tries k join checks c on c.submission_id = k.counting
     where k.handout_id = $1 and c.state = 'checked' and (c.returned_at is null or 'changed' = any(c.needs))
       and ($2 = 'all' or c.needs <@ '{changed}') order by c.submission_id`,
    [handoutId, which],
  );
  let count = 0;
  for (const { id } of waiting) {
    const isOpen = (m: Marking) => m.returned === undefined || m.mark.needs.includes("changed");
    const r = await decide(id, person, [{ id: newId(), what: { do: "return" } }], isOpen);
    if (!r.ok) return r;
    if (r.value) count++;
  }
  return done(count);
}

/** What a student sees of a submission. */
export interface Shown {
  readonly mark: ShownMark;
  readonly returnedAt: string | undefined;
  /** The report that the mark was made of; undefined: none, or not known any more. */
  readonly report: string | undefined;
}

/**
 * What a student sees of their submission now: what was given back last, with the report of that time; before that, the
 * current one. Undefined where nothing may be seen yet.
 */
export async function shownTo(submissionId: string): Promise<Shown | undefined> {
  const last = await row<{ mark: ShownMark; made_at: Date; report: string | null }>(
    `select r.mark, r.made_at, coalesce(r.report_id, t.report_id) as report
     from returned r join tries t on t.submission_id = r.submission_id
     where r.submission_id = $1 order by r.made_at desc limit 1`,
    [submissionId],
  );
  if (last) return { mark: last.mark, returnedAt: last.made_at.toISOString(), report: last.report ?? undefined };
  const m = await markingOf(submissionId);
  if (m.shows.when !== "checked" || !m.grade) return undefined;
  const { report } = await one<{ report: string }>("select report_id as report from tries where submission_id = $1", [
    submissionId,
  ]);
  return { mark: shownMark(machineMark(m), m.shows, { comments: [] }), returnedAt: undefined, report };
}

/** What a handout is marked by now. */
export const markedBy = (h: { readonly exercise: Exercise; readonly marking: Exercise | null }): Exercise =>
  h.marking ?? h.exercise;

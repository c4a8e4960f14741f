import type pg from "pg";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, rows, transaction } from "../database";

/** What stands for somebody who is no longer there; `name_of` in the database says the same. */
const GONE = "somebody who has left";

/** The marks that count, kept without names, of submissions that a condition chooses. */
const keepGrades = (client: pg.PoolClient, where: string, id: string) =>
  client.query(
    `insert into grades_kept (course, term, handout, points, out_of, handed_in_month)
     select k.title, k.term, concat_ws(' ', h.exercise->>'number', h.exercise->>'title'), c.points, c.out_of,
       date_trunc('month', s.handed_in_at)::date
     from submissions s join handouts h on h.id = s.handout_id join courses k on k.id = h.course_id
     join checks c on c.submission_id = s.id join standings n on n.counting = s.id
     where ${where} and c.state = 'checked'`,
    [id],
  );

/**
 * Takes a person away with all that is theirs: account, parts, submissions, results, questions. What stays: the points
 * without their name, and what they decided about others, by somebody who has left.
 */
export const removePerson = (id: string): Promise<Outcome<void>> =>
  transaction(async (client) => {
    const person = await row<{ administrator: boolean }>(
      "select administrator from people where id = $1 for update",
      [id],
      client,
    );
    if (!person) return refuse("gone", "This person is not here any more.");
    const others = await one<{ n: number }>(
      "select count(*)::int as n from people where administrator and id <> $1",
      [id],
      client,
    );
    if (person.administrator && !others.n)
      return refuse("last", "Somebody has to look after the server: make another administrator first.");
    const alone = await row<{ title: string }>(
      `select c.title from enrolments e join courses c on c.id = e.course_id
       where e.person_id = $1 and e.role = 'instructor' and e.left_at is null and not exists (
         select 1 from enrolments o where o.course_id = e.course_id and o.role = 'instructor' and o.left_at is null
           and o.person_id <> $1) limit 1`,
      [id],
      client,
    );
    if (alone)
      return refuse("last-instructor", `${alone.title} has no other instructor: give it one, or take it away first.`);
    await client.query("select allow_deleting()");
    await keepGrades(client, "s.person_id = $1", id);
    await client.query("update entries set by_name = $2 where person_id = $1", [id, GONE]);
    await client.query("update rechecks set by_name = $2 where made_by = $1", [id, GONE]);
    await client.query("delete from people where id = $1", [id]);
    return done(undefined);
  });

/** Rows that one statement takes away with all that follows them: far within the time it may take. */
const AT_ONCE = 500;

/** Takes what hangs on a course's handouts away in pieces: a course of years in one statement would run out of time. */
async function emptyHandouts(client: pg.PoolClient, courseId: string): Promise<void> {
  for (const table of ["submissions", "practices", "works", "runs"])
    for (let went = AT_ONCE; went === AT_ONCE;) {
      const gone = await client.query(
        `delete from ${table} where ctid = any(array(
           select t.ctid from ${table} t join handouts h on h.id = t.handout_id
           where h.course_id = $1 limit ${AT_ONCE}))`,
        [courseId],
      );
      went = gone.rowCount ?? 0;
    }
}

/** Takes a course away with its exercises, handouts and all that was made for them; its points stay without names. */
export const removeCourse = (id: string): Promise<Outcome<void>> =>
  transaction(async (client) => {
    const course = await row("select 1 from courses where id = $1 for update", [id], client);
    if (!course) return refuse("gone", "This course is not here any more.");
    await client.query("select allow_deleting()");
    await keepGrades(client, "h.course_id = $1", id);
    await emptyHandouts(client, id);
    await client.query("delete from courses where id = $1", [id]);
    return done(undefined);
  });

/** Line drawings that nothing shows any more. */
const UNSHOWN = `hash not in (
  select unnest(array[plain, hatched]) from reports where plain > ''
  union all select unnest(array[plain, hatched]) from trials where plain > ''
  union all select pictured from handouts where pictured is not null
  union all select pictured from exercise_revisions where pictured is not null
  union all select pictured from exercises where pictured is not null)`;

/** Takes away at once what was drawn of parts that are gone; nothing may be checked meanwhile. */
export const dropUnshown = (client: pg.PoolClient) => client.query(`delete from line_pictures where ${UNSHOWN}`);

/** How long what is only of use for a while is kept; docs/running.md lists it. */
const KEPT: readonly (readonly [what: string, gone: string])[] = [
  ["sessions", "expires_at < now()"],
  ["keys", "coalesce(used_at, expires_at) < now() - interval '30 days'"],
  ["invitations", "coalesce(withdrawn_at, expires_at) < now() - interval '90 days'"],
  ["outbox", "sent_at < now() - interval '90 days'"],
  ["door_tries", "expire < extract(epoch from now()) * 1000"],
  ["practices", "made_at < now() - interval '400 days'"],
  ["line_pictures", `made_at < now() - interval '2 days' and ${UNSHOWN}`],
  ["rechecks", "state = 'dropped' and ended_at < now() - interval '30 days'"],
];

/** Throws away what is past its time. Run each night by a grading process. @returns rows that went, by table */
export async function sweep(): Promise<Record<string, number>> {
  const gone: Record<string, number> = {};
  for (const [table, condition] of KEPT) {
    const { n } = await one<{ n: number }>(
      `with went as (delete from ${table} where ${condition} returning 1) select count(*)::int as n from went`,
    );
    if (n) gone[table] = n;
  }
  return gone;
}

/** Courses in which nothing was due for so many years, for whoever decides what goes. */
export const restingCourses = (years: number) =>
  rows<{ id: string; title: string; term: string; last: Date }>(
    `select id, title, term, last from (
       select c.id, c.title, c.term,
         greatest(c.created_at, (select max(h.due_at) from handouts h where h.course_id = c.id)) as last
       from courses c) resting
     where last < now() - make_interval(years => $1) order by last`,
    [years],
  );

import type pg from "pg";
import { USUAL_TERMS, type GivenTerms } from "@/core/check/exercise/terms";
import { one, row, rows, transaction } from "../database";
import { giveOwnParts } from "./own-parts";
import { groupsOf } from "../people/roster";

/** On what terms a handout is given. */
export interface Terms extends GivenTerms {
  readonly dueAt: Date;
  readonly opensAt?: Date | undefined;
  readonly closesAt?: Date | undefined;
  /** Groups and single students it is for; left out: everybody. */
  readonly audience?: Audience | undefined;
}
interface Audience {
  readonly groups: readonly string[];
  readonly people: readonly string[];
}

/**
 * Issues an exercise: exactly the revision whose Sheet and targets were measured is frozen with them, at once.
 * @param version the one that was looked at; left out: whatever it is now
 * @param issue an id of the form it came from: sent again, it is the same handout
 * @returns undefined where the exercise is another version, not measured yet, or in trouble
 */
export const issueHandout = (
  exerciseId: string,
  rules: Terms,
  version?: number,
  issue?: string,
): Promise<string | undefined> =>
  transaction(async (client) => {
    if (!issue) return issueIn(client, exerciseId, rules, version);
    // pressed twice, the second waits and finds what the first has made
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`issue:${issue}`]);
    const made = await row<{ id: string }>(
      "select id from handouts where issue_id = $1 and exercise_id = $2",
      [issue, exerciseId],
      client,
    );
    if (made) return made.id;
    const id = await issueIn(client, exerciseId, rules, version);
    if (id) await client.query("update handouts set issue_id = $2 where id = $1", [id, issue]);
    return id;
  });

async function issueIn(
  client: pg.PoolClient,
  exerciseId: string,
  rules: Terms,
  version?: number,
): Promise<string | undefined> {
  const made = await row<{ id: string; varies: boolean }>(
    `insert into handouts (exercise_id, course_id, exercise, revision, sheet, due_at, may_define, grace_minutes,
       after_due, points_a_day, accepts, drawing, attempts_most, counts, shows, practice, weight, hold_back, targets,
       opens_at, closes_at, may_use, for_all, pictured)
     select id, course_id,
       jsonb_strip_nulls(jsonb_build_object('sizes', prepared->'sizes', 'wanted', prepared->'wanted'))
         || (document - 'terms'),
       version, prepared->'sheet', $2, $3, $5, $6, $7, $8, prepared->'drawing', $9, $10, $11, $12, $13, $14,
       jsonb_build_object('volume', prepared->'volume', 'area', prepared->'area', 'mass', prepared->'mass'),
       $15, $16, $17, $18, pictured
       from exercises
     where id = $1 and prepared_version = version and prepared ? 'sheet' and ($4::int is null or version = $4)
     returning id, exercise->'varies' is not null as varies`,
    [
      exerciseId,
      rules.dueAt,
      rules.mayDefine ?? USUAL_TERMS.mayDefine,
      version ?? null,
      rules.graceMinutes ?? 0,
      rules.afterDue ?? USUAL_TERMS.afterDue,
      pointsADay(rules),
      rules.accepts ?? USUAL_TERMS.accepts,
      rules.attemptsMost ?? null,
      rules.counts ?? USUAL_TERMS.counts,
      rules.shows ?? USUAL_TERMS.shows,
      rules.practice ?? null,
      rules.weight ?? USUAL_TERMS.weight,
      rules.holdBack ?? USUAL_TERMS.holdBack,
      rules.opensAt ?? null,
      rules.closesAt ?? null,
      rules.mayUse ?? null,
      rules.audience === undefined,
    ],
    client,
  );
  if (!made) return undefined;
  await giveTo(client, made.id, rules.audience);
  if (made.varies) await giveOwnParts(made.id, client);
  return made.id;
}

/** Only where being late costs points. */
const pointsADay = (t: GivenTerms): number => (t.afterDue === "points" ? (t.pointsADay ?? 0) : 0);

/** Says whom a handout is for; groups and students of other courses are left out. */
async function giveTo(client: pg.PoolClient, id: string, audience: Audience | undefined): Promise<void> {
  await client.query("delete from handout_audience where handout_id = $1", [id]);
  await client.query("update handouts set for_all = $2 where id = $1", [id, audience === undefined]);
  if (!audience) return;
  await client.query(
    `insert into handout_audience (handout_id, group_id)
     select h.id, g.id from handouts h join groups g on g.course_id = h.course_id where h.id = $1 and g.id = any($2)`,
    [id, audience.groups],
  );
  await client.query(
    `insert into handout_audience (handout_id, person_id)
     select h.id, e.person_id from handouts h join enrolments e on e.course_id = h.course_id and e.role = 'student'
     where h.id = $1 and e.person_id = any($2)`,
    [id, audience.people],
  );
}

/** How many students of an exercise's course a handout would be for. */
export const studentsOf = async (exerciseId: string, audience: Audience | undefined): Promise<number> =>
  (
    await one<{ n: number }>(
      `select count(*)::int as n from exercises x
       join enrolments e on e.course_id = x.course_id and e.role = 'student' and e.left_at is null
       where x.id = $1 and ($2 or e.group_id = any($3) or e.person_id = any($4))`,
      [exerciseId, audience === undefined, audience?.groups ?? [], audience?.people ?? []],
    )
  ).n;

/** Groups and students of a course, to be chosen from. */
export async function choicesIn(courseId: string) {
  const [groups, students] = await Promise.all([
    groupsOf(courseId),
    rows<{ id: string; name: string }>(
      `select p.id, p.name from enrolments e join people p on p.id = e.person_id
       where e.course_id = $1 and e.role = 'student' and e.left_at is null order by p.name`,
      [courseId],
    ),
  ]);
  return { groups, students };
}

/** When a handout is given, and to whom. */
export type Times = Pick<
  Terms,
  "dueAt" | "opensAt" | "closesAt" | "graceMinutes" | "afterDue" | "pointsADay" | "audience"
>;

/** Changes when a handout opens, is due and closes, and whom it is for. What was handed in keeps its lateness. */
export const changeTimes = (id: string, times: Times): Promise<void> =>
  transaction(async (client) => {
    const { varies } = await one<{ varies: boolean }>(
      `update handouts set due_at = $2, opens_at = $3, closes_at = $4, grace_minutes = $5, after_due = $6,
         points_a_day = $7
       where id = $1 returning exercise->'varies' is not null as varies`,
      [
        id,
        times.dueAt,
        times.opensAt ?? null,
        times.closesAt ?? null,
        times.graceMinutes ?? 0,
        times.afterDue ?? USUAL_TERMS.afterDue,
        pointsADay(times),
      ],
      client,
    );
    await giveTo(client, id, times.audience);
    if (varies) await giveOwnParts(id, client);
  });

/** Whom a handout is for; undefined: everybody. */
export async function audienceOf(id: string): Promise<Audience | undefined> {
  const { for_all } = await one<{ for_all: boolean }>("select for_all from handouts where id = $1", [id]);
  if (for_all) return undefined;
  const list = await rows<{ group_id: string | null; person_id: string | null }>(
    "select group_id, person_id from handout_audience where handout_id = $1",
    [id],
  );
  return {
    groups: list.flatMap((a) => a.group_id ?? []),
    people: list.flatMap((a) => a.person_id ?? []),
  };
}

/** Takes a handout back from its students, or gives it out again. Nothing that was made is lost. */
export const withdraw = (id: string, isBack: boolean) =>
  rows("update handouts set withdrawn_at = case when $2 then now() end where id = $1", [id, isBack]);

/** Changes how a handout is marked and what its students see; what was handed in is marked by the caller. */
export const changeTerms = (id: string, t: Omit<Terms, "dueAt">) =>
  rows(
    `update handouts set attempts_most = $2, counts = $3, shows = $4, practice = $5, weight = $6, hold_back = $7
     where id = $1`,
    [
      id,
      t.attemptsMost ?? null,
      t.counts ?? USUAL_TERMS.counts,
      t.shows ?? USUAL_TERMS.shows,
      t.practice ?? null,
      t.weight ?? USUAL_TERMS.weight,
      t.holdBack ?? USUAL_TERMS.holdBack,
    ],
  );

/** Gives a student of the course more time, or takes it back. @returns false where they are no student of it */
export async function extend(handoutId: string, personId: string, dueAt: Date | undefined): Promise<boolean> {
  if (!dueAt) {
    await rows("delete from extensions where handout_id = $1 and person_id = $2", [handoutId, personId]);
    return true;
  }
  const made = await row(
    `insert into extensions (handout_id, person_id, due_at)
     select h.id, e.person_id, $3 from handouts h
     join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
     where h.id = $1 and e.person_id = $2
     on conflict (handout_id, person_id) do update set due_at = excluded.due_at returning person_id`,
    [handoutId, personId, dueAt],
  );
  return made !== undefined;
}

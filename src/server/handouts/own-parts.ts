import type pg from "pg";
import type { Exercise } from "@/core/check/exercise/exercise";
import {
  isAlike,
  checkVarying,
  ownNumbersAt,
  withOwnNumbers,
  type OwnNumbers,
  type Signature,
} from "@/core/check/exercise/own-numbers";
import type { Targets } from "@/core/check/exercise/prepare";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { one, row, rows, transaction } from "../database";
import type { Handout } from "./handouts";
import { PRIORITY } from "../queue";
import { beginRun, openRun, stepRun, type Subject, type Ticket } from "../tries/runs";

/** A student's own part of a handout. */
export interface OwnPart {
  readonly numbers: OwnNumbers;
  readonly state: "making" | "ready" | "trouble";
  readonly trouble: string | null;
  readonly sheet: Handout["sheet"];
  readonly targets: OwnTargets | null;
}
interface OwnTargets extends Pick<Targets, "volume" | "area" | "mass"> {
  readonly signature: Signature;
}

const BEING_MADE = "Your own numbers are being put on the Sheet. It comes by itself in a moment.";

const NOT_MADE = "Your own numbers could not be made into a part. Your instructor sees this too.";

/**
 * The students of a handout who have no part of their own yet get the next places in the row, and the worker measures
 * them. Asked twice, or by two at once, nobody has two.
 * @param only one student, who has come later
 */
export async function giveOwnParts(handoutId: string, client: pg.PoolClient, only?: string): Promise<void> {
  await client.query("select pg_advisory_xact_lock(hashtext($1))", [`own:${handoutId}`]);
  const h = await one<{ exercise: Exercise }>(
    "select coalesce(marking, exercise) as exercise from handouts where id = $1",
    [handoutId],
    client,
  );
  const without = await rows<{ person_id: string }>(
    `select e.person_id from handouts h
     join enrolments e on e.course_id = h.course_id and e.role = 'student' and e.left_at is null
     where h.id = $1 and ($2::uuid is null or e.person_id = $2) and is_for(h.id, h.for_all, e.person_id, e.group_id)
       and not exists (select 1 from own_numbers o where o.handout_id = h.id and o.person_id = e.person_id)
     order by e.joined_at, e.person_id`,
    [handoutId, only ?? null],
    client,
  );
  let place = await nextPlace(handoutId, client);
  for (const { person_id } of without) {
    const numbers = ownNumbersAt(h.exercise, handoutId, place);
    // more students than parts: who comes last is told, and the instructor sees it
    if (!numbers) break;
    const run = await openRun(ownOf(handoutId, person_id), { priority: PRIORITY.ownPart }, client);
    await client.query(
      "insert into own_numbers (handout_id, person_id, place, numbers, run_id) values ($1, $2, $3, $4, $5)",
      [handoutId, person_id, place++, JSON.stringify(numbers), run],
    );
  }
}

const ownOf = (handout: string, person: string): Subject => ({
  kind: "own-part",
  handout_id: handout,
  person_id: person,
});
const REVISION = "(select coalesce(h.marking_revision, h.revision) from handouts h where h.id = r.handout_id)";

const nextPlace = async (handoutId: string, client: pg.PoolClient): Promise<number> =>
  (
    await one<{ next: number }>(
      "select coalesce(max(place) + 1, 0)::int as next from own_numbers where handout_id = $1",
      [handoutId],
      client,
    )
  ).next;

/** Whether there are different parts enough for a class. */
export async function enoughParts(exercise: Exercise, students: number): Promise<Outcome<void>> {
  if (!exercise.varies?.length) return done(undefined);
  const parts = checkVarying(exercise);
  if (!parts.ok) return parts;
  if (parts.value >= students) return done(undefined);
  return refuse(
    "too-few",
    `Own numbers give ${parts.value} different parts, and there are ${students} students. Let more numbers vary, or ` +
      "give them more values.",
  );
}

/** A handout as one student has it: with their own numbers where it has such. */
export async function handoutOf(handout: Handout, personId: string): Promise<Handout> {
  if (!handout.exercise.varies?.length) return handout;
  let own = await ownPart(handout.id, personId);
  if (!own) {
    // who has come later gets theirs when they open it
    await transaction((client) => giveOwnParts(handout.id, client, personId));
    own = await ownPart(handout.id, personId);
  }
  if (!own)
    return {
      ...handout,
      sheet: null,
      trouble: "There are not enough different parts for everybody. Tell your instructor.",
    };
  const trouble = own.state === "making" ? BEING_MADE : NOT_MADE;
  // what is right is worked out when it is checked; what is asked for is the same for all
  const exercise = { ...ownExercise(handout.exercise, own.numbers), wanted: handout.exercise.wanted };
  return { ...handout, exercise, sheet: own.sheet, trouble: own.sheet ? null : trouble };
}

export const ownPart = (handoutId: string, personId: string) =>
  row<OwnPart>(
    "select numbers, state, trouble, sheet, targets from own_parts where handout_id = $1 and person_id = $2",
    [handoutId, personId],
  );

/** The exercise that somebody's part is measured by. @param numbers none: the same for all */
export function ownExercise(exercise: Exercise, numbers: OwnNumbers | null): Exercise {
  if (!numbers) return exercise;
  const own = withOwnNumbers(exercise, numbers);
  // where a changed reference has lost the number, it is measured by what there is
  return own.ok ? own.value : exercise;
}

/** Begins measuring somebody's part; undefined where it was done. */
export const beginOwnPart = (handoutId: string, personId: string): Promise<Ticket | undefined> =>
  beginRun(ownOf(handoutId, personId), "starting", REVISION);

/** What the worker needs to measure somebody's part. */
export const ownPartInput = (handoutId: string, personId: string) =>
  one<{ exercise: Exercise; numbers: OwnNumbers; place: number }>(
    `select coalesce(h.marking, h.exercise) as exercise, o.numbers, o.place
     from own_numbers o join handouts h on h.id = o.handout_id
     where o.handout_id = $1 and o.person_id = $2`,
    [handoutId, personId],
  );

/**
 * Writes what was measured on somebody's part, where it is still wanted and the exercise is still the one that it was
 * measured by. @returns false where another student of the handout has the same part by other numbers: a symmetric part
 * turned over, say
 */
export const saveOwnPart = (ticket: Ticket, handoutId: string, personId: string, t: Targets): Promise<boolean> =>
  transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`own:${handoutId}`]);
    const { now } = await one<{ now: number }>(
      "select coalesce(marking_revision, revision) as now from handouts where id = $1 for share",
      [handoutId],
      client,
    );
    // a corrected exercise has opened a run of its own
    if (now !== ticket.revision) return true;
    const others = await rows<{ signature: Signature }>(
      `select targets->'signature' as signature from own_numbers
       where handout_id = $1 and person_id <> $2 and targets is not null`,
      [handoutId, personId],
      client,
    );
    const had = await row(
      "select 1 from own_numbers where handout_id = $1 and person_id = $2 and sheet is not null",
      [handoutId, personId],
      client,
    );
    if (!had && others.some((o) => isAlike(o.signature, t.signature))) return false;
    if (!(await stepRun(ticket, "finish", {}, client))) return true;
    await client.query(
      `update own_numbers set revision = $3, sheet = $4, drawing = $5, targets = $6, changed_at = now()
       where handout_id = $1 and person_id = $2`,
      [
        handoutId,
        personId,
        ticket.revision,
        t.sheet,
        t.drawing,
        { volume: t.volume, area: t.area, mass: t.mass, signature: t.signature },
      ],
    );
    return true;
  });

/** So many places are tried before a person has to look. */
const MOST_PLACES = 8;

/**
 * Numbers that cannot be built, or whose Sheet leaves something open, give way to the next in the row; a part that was
 * given out already keeps its own. @returns whether there are others to be tried
 */
export const passOver = (
  ticket: Ticket,
  handoutId: string,
  personId: string,
  tried: number,
  why: string,
): Promise<boolean> =>
  transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtext($1))", [`own:${handoutId}`]);
    const o = await one<{ sheet: unknown; exercise: Exercise }>(
      `select o.sheet, h.exercise from own_numbers o join handouts h on h.id = o.handout_id
       where o.handout_id = $1 and o.person_id = $2`,
      [handoutId, personId],
      client,
    );
    const place = await nextPlace(handoutId, client);
    const numbers = o.sheet || tried >= MOST_PLACES ? undefined : ownNumbersAt(o.exercise, handoutId, place);
    if (!numbers) {
      await stepRun(ticket, "fail", { trouble: why }, client);
      return false;
    }
    await client.query("update own_numbers set place = $3, numbers = $4 where handout_id = $1 and person_id = $2", [
      handoutId,
      personId,
      place,
      JSON.stringify(numbers),
    ]);
    return true;
  });

/** After a change of what a handout is marked by: every own part is measured by it, and stands as it is until then. */
export async function measureAnew(handoutId: string, client: pg.PoolClient): Promise<void> {
  const parts = await rows<{ person_id: string }>(
    "select person_id from own_numbers where handout_id = $1 order by place",
    [handoutId],
    client,
  );
  for (const { person_id } of parts) {
    const run = await openRun(ownOf(handoutId, person_id), { priority: PRIORITY.ownPart }, client);
    await client.query("update own_numbers set run_id = $3 where handout_id = $1 and person_id = $2", [
      handoutId,
      person_id,
      run,
    ]);
  }
}

/** How the parts of a class stand. */
export const ownPartsOf = (handoutId: string) =>
  rows<{ person_id: string; numbers: OwnNumbers; state: OwnPart["state"]; trouble: string | null }>(
    "select person_id, numbers, state, trouble from own_parts where handout_id = $1",
    [handoutId],
  );

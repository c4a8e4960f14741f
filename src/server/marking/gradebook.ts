import { rows } from "../database";

/** A handout as a column of the gradebook. */
interface GradebookHandout {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly dueAt: string;
  readonly of: number;
  readonly weight: number;
}
/** How a student stands on a handout. */
export type CellState =
  "returned" | "looked at" | "checked" | "needs you" | "being checked" | "at work" | "not opened" | "missing";
export interface GradebookCell {
  readonly handout: string;
  readonly state: CellState;
  readonly points: number | null;
  readonly of: number | null;
  readonly submission: string | null;
  readonly attempts: number;
  readonly isLate: boolean;
  /** The part with what is missing and extra, by the hash of its drawing; null or empty: none. */
  readonly picture: string | null;
}
export interface GradebookStudent {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly group: string | null;
  /** By handout; those that are not for them have none. */
  readonly cells: Readonly<Record<string, GradebookCell>>;
  /** Share of what could be had, weighted, over what counts; null where nothing counts yet. */
  readonly average: number | null;
}
export interface Gradebook {
  readonly handouts: readonly GradebookHandout[];
  readonly students: readonly GradebookStudent[];
}

interface Found {
  readonly person_id: string;
  readonly name: string;
  readonly email: string;
  readonly group_name: string | null;
  readonly handout_id: string;
  readonly submission: string | null;
  readonly attempts: number | null;
  readonly state: string | null;
  readonly points: number | null;
  readonly out_of: number | null;
  readonly late: boolean | null;
  readonly needs: readonly string[] | null;
  readonly accepted: boolean | null;
  readonly returned: boolean | null;
  readonly opened: boolean;
  readonly is_over: boolean;
  readonly picture: string | null;
}

/** Students against handouts: of each the try that counts by the handout's rule. */
export async function gradebookOf(courseId: string): Promise<Gradebook> {
  const handouts = (
    await rows<{ id: string; number: string; title: string; due_at: Date; of: number; weight: number }>(
      `select h.id, h.exercise->>'number' as number, h.exercise->>'title' as title, h.due_at, h.weight,
         (select coalesce(sum((l->>'points')::float), 0)
          from jsonb_array_elements(coalesce(h.marking, h.exercise)->'rubric') l
          where coalesce((l->>'bonus')::boolean, false) is false) as of
       from handouts h where h.course_id = $1 and h.withdrawn_at is null order by h.due_at, number, h.id`,
      [courseId],
    )
  ).map(({ due_at, ...h }) => ({ ...h, dueAt: due_at.toISOString() }));
  const found = await rows<Found>(
    `select p.id as person_id, p.name, p.email, g.name as group_name, k.handout_id,
       s.id as submission, k.tries as attempts, c.state, c.points, c.out_of, s.late_seconds > 0 as late, c.needs,
       c.accepted_at is not null as accepted, c.returned_at is not null as returned,
       w.person_id is not null as opened, coalesce(x.due_at, h.due_at) < now() as is_over,
       case when r.id is not null then coalesce(r.hatched, h.pictured) end as picture
     from counting_tries k join handouts h on h.id = k.handout_id
     join people p on p.id = k.person_id left join groups g on g.id = k.group_id
     left join submissions s on s.id = k.counting
     left join checks c on c.submission_id = s.id left join reports r on r.id = c.report_id
     left join works w on w.handout_id = h.id and w.person_id = p.id
     left join extensions x on x.handout_id = h.id and x.person_id = p.id
     where k.course_id = $1 and h.withdrawn_at is null
     order by p.name, p.id`,
    [courseId],
  );
  // a course without handouts has students all the same
  const people = await rows<{ id: string; name: string; email: string; group_name: string | null }>(
    `select p.id, p.name, p.email, g.name as group_name from enrolments e join people p on p.id = e.person_id
     left join groups g on g.id = e.group_id
     where e.course_id = $1 and e.role = 'student' and e.left_at is null order by p.name, p.id`,
    [courseId],
  );
  const byPerson = new Map<string, Map<string, Found>>();
  for (const f of found) {
    const own = byPerson.get(f.person_id) ?? new Map<string, Found>();
    byPerson.set(f.person_id, own.set(f.handout_id, f));
  }
  const students = people.map((p) => {
    const own = byPerson.get(p.id);
    const cells = Object.fromEntries([...(own ?? [])].map(([handout, f]) => [handout, cellOf(handout, f)]));
    return { id: p.id, name: p.name, email: p.email, group: p.group_name, cells, average: averageOf(cells, handouts) };
  });
  return { handouts, students };
}

function cellOf(handout: string, found: Found): GradebookCell {
  return {
    handout,
    state: stateOf(found),
    points: found.points,
    of: found.out_of,
    submission: found.submission,
    attempts: found.attempts ?? 0,
    isLate: found.late ?? false,
    picture: found.picture,
  };
}

function stateOf(found: Found): CellState {
  if (!found.submission) {
    if (found.is_over) return "missing";
    return found.opened ? "at work" : "not opened";
  }
  if (found.state === "queued" || found.state === "checking") return "being checked";
  if (found.needs?.length) return "needs you";
  if (found.returned) return "returned";
  return found.accepted ? "looked at" : "checked";
}

/** What was handed in counts, and what is missing counts as nothing; what is still open does not count yet. */
function averageOf(cells: GradebookStudent["cells"], handouts: readonly GradebookHandout[]): number | null {
  let [sum, weights] = [0, 0];
  for (const { id, weight, of } of handouts) {
    const c = cells[id];
    if (!c || (c.points === null ? c.state !== "missing" : !(c.of ?? of))) continue;
    sum += (weight * (c.points ?? 0)) / (c.of || of || 1);
    weights += weight;
  }
  return weights ? sum / weights : null;
}

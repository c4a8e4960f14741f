import { strToU8, zipSync } from "fflate";
import { one, rows } from "./database";

const pretty = (x: unknown) => strToU8(JSON.stringify(x, null, 2));
/** A name that every file system takes. */
const plain = (text: string) => text.replace(/[^\p{L}\p{N} ._-]/gu, "").trim() || "part";

/**
 * Everything the server holds of a person, as a zip: readable JSON, and their parts as documents. What others wrote
 * about them and they were shown goes along; nothing that was not returned.
 */
export async function personData(id: string): Promise<Uint8Array<ArrayBuffer>> {
  const person = await one<{ name: string }>(
    "select name, email, initials, created_at, administrator from people where id = $1",
    [id],
  );
  const courses = await rows(
    `select c.title, c.term, e.role, g.name as "group", e.joined_at, e.left_at
     from enrolments e join courses c on c.id = e.course_id left join groups g on g.id = e.group_id
     where e.person_id = $1 order by e.joined_at`,
    [id],
  );
  const works = await rows<{ handout: string; document: unknown }>(
    `select concat_ws(' ', h.exercise->>'number', h.exercise->>'title') as handout, w.variant, w.version, w.opened_at,
       w.changed_at, round(w.worked_seconds) as worked_seconds, w.hints_opened, w.document
     from works w join handouts h on h.id = w.handout_id where w.person_id = $1 order by w.opened_at`,
    [id],
  );
  const versions = await rows<{ handout: string; made_at: Date; document: unknown }>(
    `select concat_ws(' ', h.exercise->>'number', h.exercise->>'title') as handout, v.kind, v.name, v.variant,
       v.made_at, v.document
     from work_versions v join handouts h on h.id = v.handout_id where v.person_id = $1 order by v.made_at`,
    [id],
  );
  const submissions = await rows<{ handout: string; attempt: number; document: unknown }>(
    `select concat_ws(' ', h.exercise->>'number', h.exercise->>'title') as handout, s.attempt, s.handed_in_at,
       s.late_seconds, s.answers, c.state, c.shown_points, c.shown_of, s.document,
       (select t.mark from returned t where t.submission_id = s.id order by t.made_at desc limit 1) as returned
     from submissions s join handouts h on h.id = s.handout_id join checks c on c.submission_id = s.id
     where s.person_id = $1 order by s.handed_in_at`,
    [id],
  );
  const said = await rows("select what, made_at from entries where person_id = $1 order by n", [id]);
  const sessions = await rows("select opened_at, expires_at, agent from sessions where person_id = $1", [id]);
  const letters = await rows("select address, subject, made_at, sent_at from outbox where person_id = $1", [id]);
  const files: Record<string, Uint8Array> = {};
  const without = <T extends { document: unknown }>(list: readonly T[], folder: string, name: (x: T) => string) =>
    list.map(({ document, ...rest }, i) => {
      const file = `${folder}/${plain(name(list[i]!))}.json`;
      files[file] = pretty(document);
      return { ...rest, file };
    });
  const about = {
    person,
    courses,
    works: without(works, "parts", (w) => w.handout),
    versions: without(versions, "versions", (v) => `${v.handout} ${v.made_at.toISOString().replace(/[:.]/g, "-")}`),
    submissions: without(submissions, "handed-in", (s) => `${s.handout} try ${s.attempt}`),
    decidedAndSaid: said,
    sessions,
    letters,
  };
  return zipSync({ "about.json": pretty(about), ...files }) as Uint8Array<ArrayBuffer>;
}

import { setImmediate as breath } from "node:timers/promises";
import { strToU8, Zip, ZipDeflate } from "fflate";
import { one, rows } from "../database";

/** A name that every file system takes. */
const plain = (text: string) => text.replace(/[^\p{L}\p{N} ._-]/gu, "").trim() || "part";
const moment = (at: Date) => at.toISOString().replace(/[:.]/g, "-");
const HANDOUT = "concat_ws(' ', h.exercise->>'number', h.exercise->>'title') as handout";

/** A kind of documents that are kept of a person: what is told of each, and where its document lies. */
interface Kind {
  readonly as: string;
  readonly folder: string;
  /** One row a document, without it: `key` finds it again, `file` names it. */
  readonly list: string;
  readonly document: string;
  readonly name: (row: Row) => string;
}
type Row = Record<string, unknown> & { readonly key: string; readonly handout: string; readonly at: Date };

const KINDS: readonly Kind[] = [
  {
    as: "works",
    folder: "parts",
    list: `select w.handout_id as key, ${HANDOUT}, w.variant, w.version, w.opened_at as at, w.changed_at,
        round(w.worked_seconds) as worked_seconds, w.hints_opened
      from works w join handouts h on h.id = w.handout_id where w.person_id = $1 order by w.opened_at`,
    document: "select document::text as text from works where handout_id = $2 and person_id = $1",
    name: (r) => r.handout,
  },
  {
    as: "variants",
    folder: "variants",
    list: `select v.handout_id || ' ' || v.name as key, ${HANDOUT}, v.name, v.changed_at as at
      from work_variants v join handouts h on h.id = v.handout_id where v.person_id = $1 order by v.changed_at`,
    document: `select document::text as text from work_variants
      where handout_id || ' ' || name = $2 and person_id = $1`,
    name: (r) => `${r.handout} ${String(r["name"])}`,
  },
  {
    as: "versions",
    folder: "versions",
    list: `select v.id as key, ${HANDOUT}, v.kind, v.name, v.variant, v.made_at as at
      from work_versions v join handouts h on h.id = v.handout_id where v.person_id = $1 order by v.made_at`,
    document: "select document::text as text from work_versions where id = $2 and person_id = $1",
    name: (r) => `${r.handout} ${moment(r.at)}`,
  },
  {
    as: "submissions",
    folder: "handed-in",
    list: `select s.id as key, ${HANDOUT}, s.attempt, s.handed_in_at as at, s.late_seconds, s.answers, c.state,
        c.shown_points, c.shown_of,
        (select t.mark from returned t where t.submission_id = s.id order by t.made_at desc limit 1) as returned
      from submissions s join handouts h on h.id = s.handout_id join checks c on c.submission_id = s.id
      where s.person_id = $1 order by s.handed_in_at`,
    document: "select document::text as text from submissions where id = $2 and person_id = $1",
    name: (r) => `${r.handout} try ${String(r["attempt"])}`,
  },
  {
    as: "practices",
    folder: "checked-before",
    list: `select p.id as key, ${HANDOUT}, p.work_version, p.made_at as at, r.state, p.grade
      from practices p join handouts h on h.id = p.handout_id join runs r on r.practice_id = p.id
      where p.person_id = $1 order by p.made_at`,
    document: "select document::text as text from practices where id = $2 and person_id = $1",
    name: (r) => `${r.handout} ${moment(r.at)}`,
  },
];

/** What has no document of its own. */
const LISTS: Readonly<Record<string, string>> = {
  courses: `select c.title, c.term, e.role, g.name as "group", e.joined_at, e.left_at, e.promised
    from enrolments e join courses c on c.id = e.course_id left join groups g on g.id = e.group_id
    where e.person_id = $1 order by e.joined_at`,
  ownNumbers: `select ${HANDOUT}, o.numbers, o.state
    from own_parts o join handouts h on h.id = o.handout_id where o.person_id = $1 order by h.due_at`,
  extensions: `select ${HANDOUT}, x.due_at
    from extensions x join handouts h on h.id = x.handout_id where x.person_id = $1 order by x.due_at`,
  signOffs: `select ${HANDOUT}, name_of(o.made_by) as by_name, o.made_at
    from sign_offs o join handouts h on h.id = o.handout_id where o.person_id = $1 order by o.made_at`,
  decidedAndSaid: "select what, made_at from entries where person_id = $1 order by n",
  remarks: "select about, text, uses, used_at from remarks where person_id = $1 order by used_at",
  sessions: "select opened_at, expires_at, agent from sessions where person_id = $1",
  letters: "select address, subject, made_at, sent_at from outbox where person_id = $1",
};

/** So much is pressed between two breaths of the event loop, bytes. */
const AT_ONCE = 256_000;

/** Names that were not given yet: of two alike the second is numbered. */
function namer(): (name: string) => string {
  const taken = new Set<string>();
  return (name) => {
    let own = name;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${name} ${n}`;
    taken.add(own.toLowerCase());
    return own;
  };
}

async function* filesOf(id: string): AsyncGenerator<readonly [name: string, text: string]> {
  const about: Record<string, unknown> = {
    person: await one("select name, email, initials, created_at, administrator from people where id = $1", [id]),
  };
  for (const [name, sql] of Object.entries(LISTS)) about[name] = await rows(sql, [id]);
  for (const kind of KINDS) {
    const list = await rows<Row>(kind.list, [id]);
    const free = namer();
    const told: unknown[] = [];
    for (const { key, ...row } of list) {
      const file = `${kind.folder}/${free(plain(kind.name({ key, ...row } as Row)))}.json`;
      const [document] = await rows<{ text: string }>(kind.document, [id, key]);
      // it may have been thinned out meanwhile
      if (!document) continue;
      told.push({ ...row, file });
      yield [file, document.text];
    }
    about[kind.as] = told;
  }
  yield ["about.json", JSON.stringify(about, null, 2)];
}

/**
 * Everything the server holds of a person, as a zip: readable JSON, and their parts as documents. What others wrote
 * about them and they were shown goes along; nothing that was not returned. It comes piece by piece, one document at a
 * time, and lets others work in between.
 */
export async function* personData(id: string): AsyncGenerator<Uint8Array<ArrayBuffer>> {
  let ready: Uint8Array<ArrayBuffer>[] = [];
  const zip = new Zip((fault, piece) => {
    if (fault) throw fault;
    ready.push(piece as Uint8Array<ArrayBuffer>);
  });
  for await (const [name, text] of filesOf(id)) {
    const file = new ZipDeflate(name, { level: 6 });
    zip.add(file);
    const bytes = strToU8(text);
    for (let at = 0; ; at += AT_ONCE) {
      const isLast = at + AT_ONCE >= bytes.length;
      file.push(bytes.subarray(at, at + AT_ONCE), isLast);
      await breath();
      if (isLast) break;
    }
    yield* ready;
    ready = [];
  }
  zip.end();
  yield* ready;
}

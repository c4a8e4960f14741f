import { createHash, randomBytes } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";
import type pg from "pg";
import { database, one, row, rows, transaction } from "../database";
import { hashing } from "./doors";

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly email: string;
}

/** 2 is Argon2id in the library's enumeration, which isolated modules cannot read. */
const ARGON2ID = 2;
const SESSION_DAYS = 14;

export const hashPassword = (password: string): Promise<string> =>
  hashing(() => hash(password, { algorithm: ARGON2ID, memoryCost: 19456, timeCost: 2, parallelism: 1 }));
/** What the database holds of a token. */
export const fingerprint = (token: string) => createHash("sha256").update(token).digest();
export const newToken = () => randomBytes(32).toString("base64url");

/** The person with this email and password, or undefined; takes as long for an unknown email. */
export async function personByPassword(email: string, password: string): Promise<Person | undefined> {
  // people of the demo have a password that everybody knows
  const found = await row<Person & { password_hash: string | null }>(
    "select id, name, email, password_hash from people where email = lower($1) and (not demo or $2)",
    [email, isDemoMode()],
  );
  const known = found?.password_hash ?? (await decoy());
  const right = await hashing(() => verify(known, password).catch(() => false));
  return right && found?.password_hash ? { id: found.id, name: found.name, email: found.email } : undefined;
}

let decoyHash: Promise<string> | undefined;
const decoy = () => (decoyHash ??= hashPassword(randomBytes(12).toString("hex")));

export const personByEmail = (email: string) =>
  row<Person>("select id, name, email from people where email = lower($1)", [email]);

/** "Ottoline de la Marsh" -> "OM": for the names of files and parts. */
export function initialsOf(name: string): string {
  const words = name
    .trim()
    .split(/\s+/)
    .filter((w) => /^\p{Lu}/u.test(w));
  const [first = name.trim(), last] = [words[0], words.length > 1 ? words.at(-1) : undefined];
  return ((first[0] ?? "") + (last?.[0] ?? "")).toUpperCase();
}

/** Makes a person; one with this address already is left as they are. @returns undefined where there was one */
export const makePerson = (
  p: {
    readonly name: string;
    readonly email: string;
    readonly passwordHash?: string;
    readonly administrator?: boolean;
    readonly demo?: boolean;
  },
  client: pg.Pool | pg.PoolClient = database(),
) =>
  row<Person>(
    `insert into people (name, email, password_hash, administrator, initials, demo, proved_at)
     values ($1, lower($2), $3, $4, $5, $6, case when $4 or $6 then now() end)
     on conflict (email) do nothing returning id, name, email`,
    [p.name, p.email, p.passwordHash ?? null, p.administrator ?? false, initialsOf(p.name), p.demo ?? false],
    client,
  );

/** Whether there is anybody yet: the first visit makes the administrator. */
export const isEmpty = async (): Promise<boolean> =>
  !isDemoMode() && (await row("select 1 from people where not demo limit 1")) === undefined;

/** Makes the first person, who looks after the server; two at once make one. @returns undefined where there is one */
export const makeFirst = (name: string, email: string, passwordHash: string): Promise<Person | undefined> =>
  transaction(async (client) => {
    await client.query("lock table people in share row exclusive mode");
    if (!(await isEmpty())) return undefined;
    // from now on the server holds something: nobody of the demo looks after it
    await client.query("update people set administrator = false where demo");
    return makePerson({ name, email, passwordHash, administrator: true }, client);
  });

export const setPassword = (personId: string, passwordHash: string) =>
  rows("update people set password_hash = $2 where id = $1", [personId, passwordHash]);

export const rename = (personId: string, name: string) =>
  rows("update people set name = $2, initials = $3 where id = $1", [personId, name, initialsOf(name)]);

/** Demo people can sign in with one click, in demo mode only. */
export const isDemoMode = (): boolean => process.env["CALIPER_DEMO"] === "1";
export const demoPeople = () =>
  isDemoMode()
    ? rows<Person & { role: string }>(
        `select p.id, p.name, p.email, coalesce(min(e.role), 'administrator') as role from people p
           left join enrolments e on e.person_id = p.id where p.demo group by p.id
           order by min(e.role) nulls last, p.name`,
      )
    : Promise.resolve([]);
export const demoPerson = (id: string) =>
  isDemoMode()
    ? row<Person>("select id, name, email from people where demo and id = $1", [id])
    : Promise.resolve(undefined);

/** Opens a session. @returns the token for the cookie; the database holds only its fingerprint */
export async function openSession(personId: string, agent = ""): Promise<{ token: string; days: number }> {
  const token = newToken();
  await rows("delete from sessions where expires_at < now()");
  await rows(
    `insert into sessions (token_hash, person_id, agent, expires_at)
     values ($1, $2, $3, now() + make_interval(days => $4))`,
    [fingerprint(token), personId, agent.slice(0, 200), SESSION_DAYS],
  );
  return { token, days: SESSION_DAYS };
}

export interface Session {
  readonly id: string;
  readonly agent: string;
  readonly opened_at: Date;
  /** The one that asks. */
  readonly own: boolean;
}
export const sessionsOf = (personId: string, token: string) =>
  rows<Session>(
    `select id, agent, opened_at, token_hash = $2 as own from sessions
     where person_id = $1 and expires_at > now() order by opened_at desc limit 100`,
    [personId, fingerprint(token)],
  );
/** Ends one session of a person, or all but the one that asks. */
export const endSessions = (personId: string, which: { readonly id: string } | { readonly allBut: string }) =>
  rows(`delete from sessions where person_id = $1 and (id = $2 or ($3::bytea is not null and token_hash <> $3))`, [
    personId,
    "id" in which ? which.id : null,
    "allBut" in which ? fingerprint(which.allBut) : null,
  ]);

export const personOfSession = (token: string) =>
  row<Person>(
    `select p.id, p.name, p.email from sessions s join people p on p.id = s.person_id
       where s.token_hash = $1 and s.expires_at > now() and (not p.demo or $2)`,
    [fingerprint(token), isDemoMode()],
  );
/** Whether somebody looks after the server. */
export const isAdministrator = async (person: Person): Promise<boolean> =>
  (await row("select 1 from people where id = $1 and administrator", [person.id])) !== undefined;

/** What is told when a session ends. */
export const sessionTopic = (token: string) => `session:${fingerprint(token).toString("hex")}`;

export const closeSession = (token: string) => rows("delete from sessions where token_hash = $1", [fingerprint(token)]);

/** How long a way back in holds, and a first way in. */
const KEY_HOURS = { reset: 2, first: 24 * 14 } as const;

/** A key that lets its holder choose a password, once. */
export async function makeKey(
  personId: string,
  kind: keyof typeof KEY_HOURS,
  client: pg.Pool | pg.PoolClient = database(),
): Promise<string> {
  const token = newToken();
  await rows(
    "insert into keys (token_hash, person_id, expires_at) values ($1, $2, now() + make_interval(hours => $3))",
    [fingerprint(token), personId, KEY_HOURS[kind]],
    client,
  );
  return token;
}
export const personOfKey = (token: string) =>
  row<Person>(
    `select p.id, p.name, p.email from keys k join people p on p.id = k.person_id
     where k.token_hash = $1 and k.used_at is null and k.expires_at > now()`,
    [fingerprint(token)],
  );
/** Whether somebody has shown that their address is theirs, or cannot come in before they do. */
export const isProved = async (personId: string, client: pg.Pool | pg.PoolClient = database()): Promise<boolean> =>
  (await row(
    "select 1 from people where id = $1 and (proved_at is not null or password_hash is null)",
    [personId],
    client,
  )) !== undefined;

/**
 * Uses a key: all of the person's are spent by it, and every session ends. It came by a letter: the address is theirs,
 * and what was promised to it holds. @returns undefined when it is spent
 */
export async function useKey(token: string, passwordHash: string): Promise<Person | undefined> {
  const used = await row<{ person_id: string }>(
    `with spent as (
       update keys set used_at = now() where token_hash = $1 and used_at is null and expires_at > now()
       returning person_id
     ), others as (
       update keys set used_at = now() where person_id in (select person_id from spent) and token_hash <> $1
         and used_at is null
     ), ended as (
       delete from sessions where person_id in (select person_id from spent)
     ), kept as (
       update enrolments set promised = false, left_at = null
       where promised and person_id in (select person_id from spent)
     )
     update people set password_hash = $2, proved_at = coalesce(proved_at, now())
     where id in (select person_id from spent) returning id as person_id`,
    [fingerprint(token), passwordHash],
  );
  return used && one<Person>("select id, name, email from people where id = $1", [used.person_id]);
}

import { createHash, randomBytes } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";
import { row, rows } from "./database";
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

/** The person with this email and password, or undefined; takes as long for an unknown email. */
export async function personByPassword(email: string, password: string): Promise<Person | undefined> {
  const found = await row<Person & { password_hash: string }>(
    "select id, name, email, password_hash from people where email = lower($1)",
    [email],
  );
  const known = found?.password_hash ?? (await decoy());
  const right = await hashing(() => verify(known, password).catch(() => false));
  return right && found ? { id: found.id, name: found.name, email: found.email } : undefined;
}

let decoyHash: Promise<string> | undefined;
const decoy = () => (decoyHash ??= hashPassword(randomBytes(12).toString("hex")));

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
export async function openSession(personId: string): Promise<{ token: string; days: number }> {
  const token = randomBytes(32).toString("base64url");
  await rows("delete from sessions where expires_at < now()");
  await rows(
    "insert into sessions (token_hash, person_id, expires_at) values ($1, $2, now() + make_interval(days => $3))",
    [fingerprint(token), personId, SESSION_DAYS],
  );
  return { token, days: SESSION_DAYS };
}

export const personOfSession = (token: string) =>
  row<Person>(
    `select p.id, p.name, p.email from sessions s join people p on p.id = s.person_id
       where s.token_hash = $1 and s.expires_at > now()`,
    [fingerprint(token)],
  );
/** Whether somebody looks after the server. */
export const isAdministrator = async (person: Person): Promise<boolean> =>
  (await row("select 1 from people where id = $1 and administrator", [person.id])) !== undefined;

export const closeSession = (token: string) => rows("delete from sessions where token_hash = $1", [fingerprint(token)]);

import pg from "pg";
import { noted } from "./log";

let pool: pg.Pool | undefined;

export function connectionString(): string {
  const url = process.env["DATABASE_URL"];
  if (!url) throw new Error("DATABASE_URL is not set: start the application with npm run demo.");
  return url;
}

/** One pool for the process; development reloads must not open another. */
export function database(): pg.Pool {
  const shared = globalThis as { caliperPool?: pg.Pool };
  pool ??= shared.caliperPool ??= opened();
  return pool;
}

/** At the end of a program or a test; whoever asks afterwards opens it anew. */
export async function closeDatabase(): Promise<void> {
  const closing = pool;
  pool = (globalThis as { caliperPool?: pg.Pool }).caliperPool = undefined;
  await closing?.end();
}

function opened(): pg.Pool {
  const made = new pg.Pool({
    connectionString: connectionString(),
    max: 10,
    statement_timeout: 15_000,
    // a database that is not there is told soon, so that pages can say so
    connectionTimeoutMillis: 5_000,
    keepAlive: true,
  });
  // a connection lost while nobody uses it is made anew by the next who does
  made.on("error", (e) => noted("database", e));
  return made;
}

/** Codes of the network and of PostgreSQL (classes 08 and 57P, 53300) that say: nobody there, for now. */
const AWAY = /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|EHOSTUNREACH|08\d{3}|57P0[123]|53300)$/;
/** What node-postgres says without a code. */
const LOST = /^(Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection)/;

/** Whether something failed because the database is away, is being started, or has no room: it will be there again. */
export function isAway(fault: unknown): boolean {
  const { code, message = "" } = (fault ?? {}) as { code?: unknown; message?: string };
  return (typeof code === "string" && AWAY.test(code)) || LOST.test(message);
}

/** An id that something else has already: nobody makes one twice by accident. */
export class Taken extends Error {}

/** Whether something could not be written since its id is used elsewhere. */
export const isTaken = (fault: unknown): boolean =>
  fault instanceof Taken || (fault as { code?: unknown } | undefined)?.code === "23505";

/** Rows of a parameterised query. */
export async function rows<T extends pg.QueryResultRow>(
  sql: string,
  values: readonly unknown[] = [],
  client: pg.Pool | pg.PoolClient = database(),
): Promise<T[]> {
  return (await client.query<T>(sql, values as unknown[])).rows;
}

/** A statement that comes by the hundred a second: parsed and planned once for each connection, under its name. */
export async function prepared<T extends pg.QueryResultRow>(
  name: string,
  text: string,
  values: readonly unknown[],
): Promise<T | undefined> {
  return (await database().query<T>({ name, text, values: values as unknown[] })).rows[0];
}

export async function row<T extends pg.QueryResultRow>(
  sql: string,
  values: readonly unknown[] = [],
  client: pg.Pool | pg.PoolClient = database(),
): Promise<T | undefined> {
  return (await rows<T>(sql, values, client))[0];
}

/** The row that a statement cannot fail to give: it was just made, or the caller made sure of it. */
export async function one<T extends pg.QueryResultRow>(
  sql: string,
  values: readonly unknown[] = [],
  client: pg.Pool | pg.PoolClient = database(),
): Promise<T> {
  const found = await row<T>(sql, values, client);
  if (!found) throw new Error(`No row came of: ${sql}`);
  return found;
}

/** Everything in `work` happens or nothing does. */
export async function transaction<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await database().connect();
  let lost: Error | undefined;
  const hear = (e: Error) => (lost = e);
  client.on("error", hear);
  try {
    await client.query("begin");
    const result = await work(client);
    await client.query("commit");
    return result;
  } catch (e) {
    // where the connection is lost the server rolls back by itself
    await client.query("rollback").catch((r: Error) => (lost ??= r));
    throw e;
  } finally {
    client.off("error", hear);
    client.release(lost);
  }
}

import pg from "pg";

let pool: pg.Pool | undefined;

export function connectionString(): string {
  const url = process.env["DATABASE_URL"];
  if (!url) throw new Error("DATABASE_URL is not set: start the application with npm run demo.");
  return url;
}

/** One pool for the process; development reloads must not open another. */
export function database(): pg.Pool {
  const shared = globalThis as { caliperPool?: pg.Pool };
  pool ??= shared.caliperPool ??= new pg.Pool({
    connectionString: connectionString(),
    max: 10,
    statement_timeout: 15_000,
  });
  return pool;
}

/** Rows of a parameterised query. */
export async function rows<T extends pg.QueryResultRow>(
  sql: string,
  values: readonly unknown[] = [],
  client: pg.Pool | pg.PoolClient = database(),
): Promise<T[]> {
  return (await client.query<T>(sql, values as unknown[])).rows;
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
  try {
    await client.query("begin");
    const result = await work(client);
    await client.query("commit");
    return result;
  } catch (e) {
    await client.query("rollback");
    throw e;
  } finally {
    client.release();
  }
}

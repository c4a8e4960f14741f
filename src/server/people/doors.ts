import { availableParallelism } from "node:os";
import { RateLimiterPostgres } from "rate-limiter-flexible";
import { database } from "../database";

/** Wrong tries that cost nothing: fingers slip. A whole class may sit behind one address. */
const FREE = { account: 4, address: 40 } as const;
const LONGEST_WAIT_S = 900;
/** Wrong tries are forgotten after a quiet while. */
const MEMORY_S = 3600;

let shared: { readonly fails: RateLimiterPostgres; readonly shut: RateLimiterPostgres } | undefined;
const limiters = () =>
  (shared ??= {
    fails: new RateLimiterPostgres({
      ...STORE,
      storeClient: database(),
      keyPrefix: "fails",
      points: 1e6,
      duration: MEMORY_S,
    }),
    shut: new RateLimiterPostgres({ ...STORE, storeClient: database(), keyPrefix: "shut", points: 1, duration: 1 }),
  });
const STORE = { tableName: "door_tries", tableCreated: true, clearExpiredByTimeout: false } as const;

const keysOf = (email: string, address: string): readonly (readonly [keyof typeof FREE, string])[] => [
  ["account", `account ${email.toLowerCase().slice(0, 200)}`],
  ["address", `address ${address.slice(0, 60)}`],
];

/** How long somebody has to wait before the next try, seconds; 0: not at all. */
export async function doorShutFor(email: string, address: string): Promise<number> {
  const waits = await Promise.all(
    keysOf(email, address).map(async ([, key]) => {
      const r = await limiters().shut.get(key);
      return r && r.consumedPoints > 1 ? r.msBeforeNext / 1000 : 0;
    }),
  );
  return Math.ceil(Math.max(0, ...waits));
}

/** A wrong try: each doubles the wait, of the account and of the address. */
export async function wrongTry(email: string, address: string): Promise<void> {
  const { fails, shut } = limiters();
  for (const [kind, key] of keysOf(email, address)) {
    const { consumedPoints } = await fails.penalty(key, 1);
    const over = consumedPoints - FREE[kind];
    if (over > 0) await shut.block(key, Math.min(2 ** over, LONGEST_WAIT_S));
  }
}

/** The right password: the account begins anew. */
export async function rightTry(email: string): Promise<void> {
  const [[, key]] = keysOf(email, "") as [readonly ["account", string]];
  await Promise.all([limiters().fails.delete(key), limiters().shut.delete(key)]);
}

/** Hashing takes a processor for a tenth of a second; others must not wait for a whole class signing in. */
const AT_ONCE = Math.max(1, Math.min(2, availableParallelism() - 1));
const MOST_WAITING = 200;
let busy = 0;
const waiting: (() => void)[] = [];

/** Runs hashing, few at once. @throws Crowded when too many wait already */
export async function hashing<T>(work: () => Promise<T>): Promise<T> {
  if (busy >= AT_ONCE) {
    if (waiting.length >= MOST_WAITING) throw new Crowded();
    await new Promise<void>((r) => waiting.push(r));
  }
  busy++;
  try {
    return await work();
  } finally {
    busy--;
    waiting.shift()?.();
  }
}
export class Crowded extends Error {
  constructor() {
    super("Very many people are signing in at this moment. Try again in a minute.");
  }
}

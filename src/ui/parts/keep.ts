import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { PartDocument } from "@/core/part/document";

/** A change on its way to the server, under an id of its own: the document as it then is. */
export interface Waiting<D = PartDocument> {
  readonly id: string;
  readonly document: D;
  /** The version of the server it stands on. */
  readonly version: number;
}

/** What of a part waits in this browser: the change that may have arrived already, and the newest. */
export interface Keep<D = PartDocument> {
  read(): Promise<readonly Waiting<D>[]>;
  write(waiting: readonly Waiting<D>[]): Promise<void>;
}

interface Shelf extends DBSchema {
  waiting: { key: string; value: { readonly waiting: readonly Waiting<unknown>[]; readonly at: number } };
}
const NAME = "rusty-caliper";

let shelf: Promise<IDBPDatabase<Shelf>> | undefined;
const opened = (): Promise<IDBPDatabase<Shelf>> => {
  shelf ??= openDB<Shelf>(NAME, 1, { upgrade: (db) => void db.createObjectStore("waiting") });
  // a browser that refuses once may not the next time
  shelf.catch(() => (shelf = undefined));
  return shelf;
};

/**
 * Keeps in IndexedDB what waits, per person and part. Writes follow each other; of those that pile up only the last is
 * done.
 */
export function browserKeep<D = PartDocument>(owner: string, part: string): Keep<D> {
  const key = `${owner} ${part}`;
  let running: Promise<void> = Promise.resolve(),
    next: { readonly waiting: readonly Waiting<D>[]; readonly done: Promise<void> } | undefined;
  return {
    read: async () => ((await (await opened()).get("waiting", key))?.waiting ?? []) as readonly Waiting<D>[],
    write(waiting) {
      if (next) {
        (next as { waiting: readonly Waiting<D>[] }).waiting = waiting;
        return next.done;
      }
      const turn = { waiting, done: Promise.resolve() };
      next = turn;
      turn.done = running
        .catch(() => {})
        .then(async () => {
          next = undefined;
          const db = await opened();
          if (turn.waiting.length) await db.put("waiting", { waiting: turn.waiting, at: Date.now() }, key);
          else await db.delete("waiting", key);
        });
      running = turn.done;
      return turn.done;
    },
  };
}

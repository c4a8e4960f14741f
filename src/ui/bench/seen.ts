import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { PartDocument } from "@/core/part/document";
import { titleOf } from "@/core/part/steps/kinds";
import type { Built } from "./kernel/messages";

/** A part as it was seen last in this browser, with all that was measured of it. */
export interface Seen {
  /** Which document it was built from. */
  readonly of: string;
  readonly built: Built;
  readonly heading: string;
  /** Steps by their titles. */
  readonly steps: readonly string[];
  readonly sheet: string | undefined;
  readonly at: number;
}

interface Shelf extends DBSchema {
  seen: { key: string; value: Seen };
}
/** So many parts are kept, those seen last. */
const MOST = 24;

let shelf: Promise<IDBPDatabase<Shelf>> | undefined;
const opened = (): Promise<IDBPDatabase<Shelf>> => {
  shelf ??= openDB<Shelf>("rusty-caliper-seen", 1, { upgrade: (db) => void db.createObjectStore("seen") });
  shelf.catch(() => (shelf = undefined));
  return shelf;
};
const keyOf = (owner: string, part: string) => `${owner} ${part}`;

/** The same document gives the same text, whatever order its fields come in. */
function plainText(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(plainText).join()}]`;
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "";
  const fields = Object.entries(value).filter(([, v]) => v !== undefined);
  return `{${fields
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([k, v]) => `${JSON.stringify(k)}:${plainText(v)}`)
    .join()}}`;
}

/** A mark that two different documents hardly share (FNV-1a, twice with different starts). */
export function markOf(document: PartDocument): string {
  const text = plainText(document);
  let [a, b] = [0x811c9dc5, 0x9747b28c];
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
    b = Math.imul(b ^ text.charCodeAt(i), 0x01000193) + i;
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}${text.length}`;
}

/** What was seen of a part; nothing where the browser keeps nothing. */
export const readSeen = async (owner: string, part: string): Promise<Seen | undefined> => {
  try {
    return await (await opened()).get("seen", keyOf(owner, part));
  } catch {
    return undefined;
  }
};

/** Keeps how a part looks; a browser that refuses keeps nothing, and nothing else happens. */
export async function keepSeen(
  owner: string,
  part: string,
  document: PartDocument,
  built: Built,
  about: { readonly heading: string; readonly sheet: string | undefined },
): Promise<void> {
  try {
    const db = await opened();
    const seen: Seen = {
      of: markOf(document),
      built: { ...built, id: 0, edges: [], under: undefined },
      steps: document.steps.map(titleOf),
      ...about,
      at: Date.now(),
    };
    await db.put("seen", seen, keyOf(owner, part));
    const keys = await db.getAllKeys("seen");
    if (keys.length <= MOST) return;
    const all = await Promise.all(keys.map(async (k) => [k, (await db.get("seen", k))?.at ?? 0] as const));
    for (const [k] of all.sort((x, y) => x[1] - y[1]).slice(0, keys.length - MOST)) await db.delete("seen", k);
  } catch {
    // it is only seen a moment later next time
  }
}

const ME = "caliper-me";
/** Who is signed in in this tab: nobody sees what another kept. */
export const tellWho = (person: string) => sessionStorage.setItem(ME, person);
export const whoIsHere = (): string | undefined => sessionStorage.getItem(ME) ?? undefined;

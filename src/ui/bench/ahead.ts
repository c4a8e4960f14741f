import type { PartDocument } from "@/core/part/document";
import { browserKeep } from "../parts/keep";
import { buildBeforehand } from "./kernel/client";
import { keepSeen } from "./seen";

/** What is built ahead; null: the part has not been opened yet. */
export type Ahead = { readonly document: PartDocument; readonly heading: string; readonly sheet?: string } | null;

/** What could not be built ahead is not tried again for so long. */
const AGAIN_MS = 10_000;

/** Parts that this page has built ahead, or is at. */
const begun = new Set<string>();

/**
 * Builds a part before its Bench is opened, and keeps how it looks: then it is seen at once, and its kernel has it. Not
 * where changes of it wait in this browser, which the server does not know. What goes wrong costs nothing but time.
 * @returns whether something was built
 */
export async function buildAhead(me: string, handout: string): Promise<boolean> {
  const part = `/api/works/${handout}`,
    key = `${me} ${part}`;
  if (begun.has(key)) return false;
  begun.add(key);
  try {
    if ((await browserKeep(me, part).read()).length) return false;
    const answer = await fetch(`${part}/ahead`);
    const ahead = answer.ok ? ((await answer.json()) as Ahead) : null;
    const built = ahead && (await buildBeforehand(ahead.document));
    if (built) {
      await keepSeen(me, part, ahead.document, built, { heading: ahead.heading, sheet: ahead.sheet });
      return true;
    }
  } catch {
    // it is seen a moment later
  }
  setTimeout(() => begun.delete(key), AGAIN_MS);
  return false;
}

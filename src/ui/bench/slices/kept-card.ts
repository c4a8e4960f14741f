import { z } from "zod";
import type { PartDocument } from "@/core/part/document";
import { StepSchema, usesOf, type Step } from "@/core/part/steps/kinds";
import type { StepMode } from "../state";

const KeptSchema = z.object({ draft: StepSchema, fresh: z.boolean(), at: z.number().int().nonnegative() });

/** The open card, kept in this browser until it is accepted or left: a page may be closed over it. */
export interface KeptCard {
  write(mode: StepMode): void;
  forget(): void;
  /** The card as it was kept, where the part still has a place for it. */
  read(document: PartDocument): { readonly draft: Step; readonly fresh: boolean; readonly at: number } | undefined;
}

type Shelf = Pick<Storage, "getItem" | "setItem" | "removeItem">;

/** @param shelf where the browser keeps things; what it refuses is not kept, and nothing else happens */
export function keptCard(owner: string, part: string, shelf: () => Shelf): KeptCard {
  const key = `caliper-card ${owner} ${part}`;
  const tried = <T>(what: () => T): T | undefined => {
    try {
      return what();
    } catch {
      return undefined;
    }
  };
  return {
    write: ({ draft, fresh, at }) => tried(() => shelf().setItem(key, JSON.stringify({ draft, fresh, at }))),
    forget: () => tried(() => shelf().removeItem(key)),
    read(document) {
      const text = tried(() => shelf().getItem(key));
      const found = text ? tried(() => KeptSchema.parse(JSON.parse(text))) : undefined;
      if (!found) return undefined;
      const { draft, fresh } = found;
      const ids = document.steps.map((s) => s.id);
      const place = ids.indexOf(draft.id);
      // the part has gone on in another window: what the card stood on, or its place, may be gone
      if (fresh ? place >= 0 : place < 0) return undefined;
      const at = fresh ? Math.min(found.at, ids.length) : place;
      const before = new Set(ids.slice(0, at));
      return usesOf(draft).every((id) => before.has(id)) ? { draft, fresh, at } : undefined;
    },
  };
}

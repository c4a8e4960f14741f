import type { PartDocument } from "@/core/part/document";
import { row, rows, transaction } from "../database";
import {
  countsOf,
  filledBy,
  keepVersion,
  MOST_BYTES,
  MOST_NAMED,
  roomNow,
  versionDocument,
  type Shown,
} from "./versions";
import { put, type Standing } from "./works";

/** The ways of one work; one of them stands on the Bench. */
export const variantsOf = (handoutId: string, personId: string) =>
  rows<{ name: string; stands: boolean }>(
    `select name, false as stands from work_variants where handout_id = $1 and person_id = $2
     union select variant, true from works where handout_id = $1 and person_id = $2 order by name`,
    [handoutId, personId],
  );

/** What can be done with the history; each goes out from a version, under an id of its own, like a save. */
export type HistoryChange = { readonly id: string; readonly version: number; readonly window: string } & (
  | {
      readonly do: "name";
      readonly name: string;
      readonly shown?: Shown | undefined;
    }
  | { readonly do: "restore"; readonly of: string }
  /** A version loses its name: it is thinned like any other from then on. */
  | { readonly do: "unname"; readonly of: string }
  | { readonly do: "branch"; readonly name: string }
  | { readonly do: "switch"; readonly name: string }
);

const MOST_VARIANTS = 12;

export type Changed =
  | { readonly ok: true; readonly version: number; readonly variant: string; readonly document: PartDocument }
  | {
      readonly ok: false;
      readonly code:
        | "not-opened"
        | "other-version"
        | "not-there"
        | "taken"
        | "too-many"
        | "too-many-named"
        | "too-much"
        | "server-full";
    };

/**
 * Names what stands, restores an old version as a new one, branches a variant off, or goes over to another. Nothing
 * that stood is lost by it: it stays in the history or in its variant.
 */
export async function changeHistory(
  handoutId: string,
  personId: string,
  change: HistoryChange,
  mostBytes = MOST_BYTES,
): Promise<Changed> {
  return transaction(async (client): Promise<Changed> => {
    const now = await row<Standing>(
      `select document, version, variant, changed_at, saves, picture, numbers, true as spell_over from works
       where handout_id = $1 and person_id = $2 for update`,
      [handoutId, personId],
      client,
    );
    if (!now) return { ok: false, code: "not-opened" };
    const as = (version: number, of: Pick<Standing, "variant" | "document"> = now): Changed => ({
      ok: true,
      version,
      variant: of.variant,
      document: of.document,
    });
    // the answer was lost: what it made stands
    if (now.saves.some((s) => s.id === change.id)) return as(now.version);
    if (now.version !== change.version) return { ok: false, code: "other-version" };
    if (change.do === "name") {
      const { name, shown } = change;
      const { named } = await countsOf(handoutId, personId, client);
      if (named >= MOST_NAMED) return { ok: false, code: "too-many-named" };
      if ((await filledBy(personId, client)) >= mostBytes) return { ok: false, code: "too-much" };
      if ((await roomNow(client)).isFull) return { ok: false, code: "server-full" };
      await keepVersion(client, handoutId, personId, { ...now, ...shown, kind: "named", name, saveId: change.id });
      return as(now.version);
    }
    if (change.do === "unname") {
      const was = await row(
        `update work_versions set kind = 'spell', name = null
         where handout_id = $1 and person_id = $2 and id = $3 and kind = 'named' returning id`,
        [handoutId, personId, change.of],
        client,
      );
      return was ? as(now.version) : { ok: false, code: "not-there" };
    }
    if (change.do === "restore") {
      const old = await versionDocument(handoutId, personId, change.of, client);
      if (!old) return { ok: false, code: "not-there" };
      await keepVersion(client, handoutId, personId, {
        ...now,
        kind: "before",
        name: "Before an older one was restored",
      });
      return as(await put(client, handoutId, personId, now, { ...change, ...old }), { ...now, ...old });
    }
    const others = await rows<{ name: string; document: PartDocument }>(
      "select name, document from work_variants where handout_id = $1 and person_id = $2",
      [handoutId, personId],
      client,
    );
    const there = others.find((v) => v.name === change.name);
    if (change.do === "branch" && (there || change.name === now.variant)) return { ok: false, code: "taken" };
    if (change.do === "branch" && others.length + 1 >= MOST_VARIANTS) return { ok: false, code: "too-many" };
    if (change.do === "switch" && !there) return { ok: false, code: "not-there" };
    // what stands stays behind under its variant's name
    await client.query(
      `insert into work_variants (handout_id, person_id, name, document) values ($1, $2, $3, $4)
       on conflict (handout_id, person_id, name) do update set document = excluded.document, changed_at = now()`,
      [handoutId, personId, now.variant, now.document],
    );
    await client.query("delete from work_variants where handout_id = $1 and person_id = $2 and name = $3", [
      handoutId,
      personId,
      change.name,
    ]);
    const next = { document: there?.document ?? now.document, variant: change.name };
    return as(await put(client, handoutId, personId, now, { ...change, ...next }), next);
  });
}

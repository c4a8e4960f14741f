import { createHash } from "node:crypto";
import type pg from "pg";
import type { LinePictures } from "@/core/sheet/picture";
import { database, row } from "../database";

/** Keeps a line drawing by what is in it. @returns what it is asked for by */
export async function keepLinePicture(svg: string, client: pg.Pool | pg.PoolClient = database()): Promise<string> {
  const hash = createHash("sha256").update(svg).digest("hex").slice(0, 40);
  await client.query("insert into line_pictures (hash, svg) values ($1, $2) on conflict do nothing", [hash, svg]);
  return hash;
}

/** How a checked part is pictured: null where it looks like the reference, empty where it could not be drawn. */
export interface KeptLines {
  readonly plain: string | null;
  readonly hatched: string | null;
}

export const NOT_DRAWN: KeptLines = { plain: "", hatched: "" };

/** Keeps the drawings of a checked part. */
export async function keepLines(
  lines: LinePictures | null | undefined,
  client: pg.Pool | pg.PoolClient = database(),
): Promise<KeptLines> {
  if (lines === null) return { plain: null, hatched: null };
  if (!lines) return NOT_DRAWN;
  return {
    plain: await keepLinePicture(lines.plain, client),
    hatched: await keepLinePicture(lines.hatched, client),
  };
}

/** A line drawing by its hash. */
export const linePicture = async (hash: string): Promise<string | undefined> =>
  (await row<{ svg: string }>("select svg from line_pictures where hash = $1", [hash]))?.svg;

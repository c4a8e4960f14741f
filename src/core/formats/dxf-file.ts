import { refuse, done, type Outcome } from "@/core/units/refusal";

/** A group code and what stands under it. */
export type Pair = readonly [code: number, value: string];

/** One entity; the vertices of an old polyline belong to it. */
export interface Entity {
  readonly kind: string;
  readonly pairs: readonly Pair[];
  readonly vertices: Entity[];
}

/** Entities that are put into the drawing as one; `head` holds where they are taken hold of. */
export interface Block {
  readonly head: Entity;
  readonly entities: readonly Entity[];
}

/** An ASCII DXF file, cut into what the reader asks for. */
interface DxfFile {
  readonly entities: readonly Entity[];
  /** What INSERT puts somewhere, by name in capitals. */
  readonly blocks: ReadonlyMap<string, Block>;
  /** Names of layers that are frozen or switched off, in capitals: their case is nothing. */
  readonly hiddenLayers: ReadonlySet<string>;
  /** $INSUNITS; 0 where the file states none. */
  readonly unitCode: number;
}

const MAX_TEXT = 20e6;

/** The first number under a group code. */
export function numberOf(e: Entity, code: number, otherwise = NaN): number {
  const found = e.pairs.find(([c]) => c === code);
  const v = found ? Number(found[1]) : otherwise;
  return Number.isFinite(v) ? v : otherwise;
}
export const textOf = (e: Entity, code: number): string => e.pairs.find(([c]) => c === code)?.[1] ?? "";

/** Cuts a file into entities, and reads of its header and tables what matters for curves. */
export function readDxfFile(text: string): Outcome<DxfFile> {
  if (text.length > MAX_TEXT) return refuse("too-large", "The DXF file is larger than 20 MB.");
  const rows = text.split(/\r\n|\r|\n/);
  const pairs: Pair[] = [];
  for (let i = 0; i + 1 < rows.length; i += 2) {
    const code = Number(rows[i]);
    if (!Number.isInteger(code))
      return refuse("bad-dxf", `This is no ASCII DXF file: line ${i + 1} holds no group code.`);
    pairs.push([code, rows[i + 1]!.trim()]);
  }
  const start = sectionStart(pairs, "ENTITIES");
  if (start === undefined) return refuse("bad-dxf", "This is no DXF file: it has no section of entities.");
  const unitAt = pairs.findIndex(([c, v]) => c === 9 && v === "$INSUNITS");
  return done({
    entities: entitiesFrom(pairs, start),
    blocks: blocksIn(pairs),
    hiddenLayers: hiddenLayers(pairs),
    unitCode: unitAt < 0 ? 0 : Number(pairs[unitAt + 1]?.[1] ?? 0) || 0,
  });
}

function sectionStart(pairs: readonly Pair[], name: string): number | undefined {
  const at = pairs.findIndex(([c, v]) => c === 2 && v === name);
  return at < 0 ? undefined : at + 1;
}

function entitiesFrom(pairs: readonly Pair[], start: number): Entity[] {
  const list: Entity[] = [];
  let open: Entity | undefined;
  let own: Pair[] = [];
  for (const [code, value] of pairs.slice(start)) {
    if (code !== 0) {
      own.push([code, value]);
      continue;
    }
    if (value === "ENDSEC" || value === "EOF") break;
    own = [];
    if (value === "SEQEND") {
      open = undefined;
      continue;
    }
    const e: Entity = { kind: value, pairs: own, vertices: [] };
    if (value === "VERTEX" && open) open.vertices.push(e);
    else {
      list.push(e);
      open = value === "POLYLINE" ? e : undefined;
    }
  }
  return list;
}

/** Layers of the tables that are frozen (bit 1 of code 70) or off (a negative colour). */
function hiddenLayers(pairs: readonly Pair[]): Set<string> {
  const start = sectionStart(pairs, "TABLES");
  const layers = start === undefined ? [] : entitiesFrom(pairs, start).filter((e) => e.kind === "LAYER");
  const isHidden = (e: Entity) => (numberOf(e, 70, 0) & 1) === 1 || numberOf(e, 62, 7) < 0;
  return new Set(layers.filter(isHidden).map((e) => textOf(e, 2).toUpperCase()));
}

function blocksIn(pairs: readonly Pair[]): Map<string, Block> {
  const start = sectionStart(pairs, "BLOCKS"),
    blocks = new Map<string, { head: Entity; entities: Entity[] }>();
  let open: { head: Entity; entities: Entity[] } | undefined;
  for (const e of start === undefined ? [] : entitiesFrom(pairs, start)) {
    if (e.kind === "BLOCK") blocks.set(textOf(e, 2).toUpperCase(), (open = { head: e, entities: [] }));
    else if (e.kind === "ENDBLK") open = undefined;
    else open?.entities.push(e);
  }
  return blocks;
}

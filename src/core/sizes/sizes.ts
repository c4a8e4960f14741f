import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { sizedBody, type SizedBody } from "./body";
import { disturbances, standsAs, type Disturbance } from "./disturb";
import { foreignDisturbances } from "./foreign";
import { asLettered, roundingOf, type Lettering } from "./lettering";
import { withSketchesDefined, type DrivingNumber } from "./numbers";
import { letteringFor } from "./printed";
import { proposeSizes, type ProposedSize } from "./propose";
import { isNothing, Span, weightsOf, type Row } from "./rank";
import { threadNotes } from "./threads";
import { follow, impliedRows, shapeRank, volumeRow } from "./table";
import type { Size } from "./kinds/kinds";

/** How the sizes of a reference follow the numbers it was made with; plain data, kept with the exercise. */
export interface RankTable {
  readonly numbers: readonly DrivingNumber[];
  readonly sizes: readonly {
    readonly id: string;
    /** For each number of the size, how it follows each driving number. */
    readonly rows: readonly (readonly number[])[];
  }[];
  /** How many ways the shape can change, and how many the sizes tell, with what is drawn in one line. */
  readonly ways: number;
  readonly told: number;
  /** Driving numbers that nobody can find from the sizes, by place among `numbers`. */
  readonly hidden: readonly number[];
  /** Ids of sizes that only repeat what others say. */
  readonly repeating: readonly string[];
  /** Ids of sizes that cannot be read on the reference. */
  readonly lost: readonly string[];
  /** By how much the printed sizes, rounded as they are lettered, leave the volume open; mm³. */
  readonly uncertain: number;
  /** By how much each size that is rounded does, the most first; left out in tables of before. mm³ */
  readonly rounding?: readonly { readonly id: string; readonly open: number }[] | undefined;
  /** Sizes that only repeat what others say, and after rounding say another number; left out in tables of before. */
  readonly contradicting?: readonly string[] | undefined;
}

/** The sizes of a reference and their table. */
interface ReferenceSizes {
  readonly sizes: readonly Size[];
  readonly table: RankTable;
}

/** A reference whose numbers have been disturbed. */
export interface Disturbed {
  readonly reference: PartDocument;
  readonly body: SizedBody;
  readonly changes: readonly Disturbance[];
}

/** Builds a reference and disturbs its numbers. @param tell numbers done, numbers in all */
export function disturbed(
  kernel: Kernel,
  reference: PartDocument,
  tell: (done: number, of: number) => void = () => {},
): Outcome<Disturbed> {
  const built = rebuild(kernel, reference);
  if (!built.body) return refuse("bad-reference", "The part has no solid, so there is nothing to size.");
  const body = sizedBody(kernel, built.body);
  const faces = body.surfaces.flatMap((s) => s.keys);
  kernel.release(built.body.shape);
  const defined = withSketchesDefined(reference);
  // what was drawn loosely may lie a hair beside what defining makes of it: then it stays loose
  const document = defined !== reference && standsAs(kernel, defined, body) ? defined : reference;
  const changes = [...disturbances(kernel, document, body, faces, tell), ...foreignDisturbances(document, body)];
  return done({ reference, body, changes });
}

/** The sizes a drawing of a part should print, with their table. @param tell numbers done, numbers in all */
export function sizesOf(
  kernel: Kernel,
  reference: PartDocument,
  tell?: (done: number, of: number) => void,
): Outcome<ReferenceSizes> {
  const r = disturbed(kernel, reference, tell);
  if (!r.ok) return r;
  const { body, changes } = r.value;
  const proposed = proposeSizes(body, changes);
  const table = tableOf(body, changes, proposed, [], { unit: reference.units });
  return done({ sizes: [...proposed.map((p) => p.size), ...threadNotes(reference, body)], table });
}

/** The sizes a drawing of a disturbed reference should print. */
export const proposedSizes = ({ reference, body, changes }: Disturbed): readonly Size[] => [
  ...proposeSizes(body, changes).map((p) => p.size),
  ...threadNotes(reference, body),
];

/** The table of sizes that are given. */
export function rankSizes(body: SizedBody, changes: readonly Disturbance[], sizes: readonly Size[], l: Lettering) {
  const read = sizes.map((size) => ({ size, followed: follow(size, body, changes) }));
  const known = read.flatMap(({ size, followed }) => (followed ? [{ size, ...followed }] : []));
  const lost = read.flatMap(({ size, followed }) => (followed ? [] : [size.id]));
  return tableOf(body, changes, known, lost, l);
}

function tableOf(
  body: SizedBody,
  changes: readonly Disturbance[],
  sizes: readonly ProposedSize[],
  lost: readonly string[],
  lettering: Lettering,
): RankTable {
  const span = new Span();
  const repeating: string[] = [];
  const used: { id: string; row: Row; open: number; shift: number }[] = [];
  const repeated: { id: string; telling: readonly Telling[]; lettering: Lettering }[] = [];
  const implied = impliedRows(body, changes).filter((row) => span.takeAll([row]));
  for (const { size, reading, rows, parted } of sizes) {
    const said = [...rows.map((row, of) => ({ row, of })), ...parted];
    const telling = said.flatMap(({ row, of }) => (isNothing(row) ? [] : [{ row, value: reading[of]! }]));
    if (!telling.length) continue;
    if (!span.takeAll(telling.map((t) => t.row))) {
      repeating.push(size.id);
      repeated.push({ id: size.id, telling, lettering: letteringFor(size, lettering) });
      continue;
    }
    const own = letteringFor(size, lettering);
    for (const { row, value } of telling)
      used.push({ id: size.id, row, open: openOf(value, body, own), shift: shiftOf(value, body, own) });
  }
  const ways = shapeRank(body, changes);
  const unit = (i: number): Row => Float64Array.from(changes, (_, k) => (k === i ? 1 : 0));
  const isHidden = (i: number) => !span.holds(unit(i)) && shapeRank(body, [changes[i]!]) > 0;
  const volume = volumeRow(body, changes);
  const rows = [...used.map((u) => u.row), ...implied];
  const weights = weightsOf(rows, volume);
  const open = used.map((u, i) => ({ id: u.id, open: Math.abs(weights[i]!) * u.open }));
  /** What the sizes that are taken make of another, rounded as they are. */
  const follows = (row: Row) => weightsOf(rows, row).reduce((s, w, i) => s + w * (used[i]?.shift ?? 0), 0);
  const contradicts = (t: Telling, l: Lettering) =>
    Math.abs(follows(t.row) - shiftOf(t.value, body, l)) > openStep(t.value, body, l);
  return {
    numbers: changes.map((c) => c.number),
    sizes: sizes.map(({ size, rows }) => ({ id: size.id, rows: rows.map((r) => [...r]) })),
    ways,
    told: span.rank,
    hidden: span.rank < ways ? changes.flatMap((_, i) => (isHidden(i) ? [i] : [])) : [],
    repeating,
    lost,
    uncertain: open.reduce((s, o) => s + o.open, 0),
    rounding: open.filter((o) => o.open > 0).sort((a, b) => b.open - a.open),
    contradicting: repeated.filter((r) => r.telling.some((t) => contradicts(t, r.lettering))).map((r) => r.id),
  };
}

/** A number of a size that follows some driving number. */
interface Telling {
  readonly row: Row;
  readonly value: ProposedSize["reading"][number];
}

const scaleOf = (v: Telling["value"], body: SizedBody): number => (v.quantity === "angle" ? body.size / 2 : 1);

/** By how much a number is lettered too large, in lengths. */
const shiftOf = (v: Telling["value"], body: SizedBody, l: Lettering): number =>
  v.quantity === "count" ? 0 : (asLettered(v.value, v.quantity, l) - v.value) * scaleOf(v, body);

/** A unit of its last digit, in lengths. */
const openStep = (v: Telling["value"], body: SizedBody, l: Lettering): number =>
  v.quantity === "count" ? Infinity : 2 * roundingOf(v.quantity, l) * scaleOf(v, body);

/** What the print leaves open of a number: how far it is from what is lettered, in lengths. */
function openOf(v: ProposedSize["reading"][number], body: SizedBody, l: Lettering): number {
  if (v.quantity === "count") return 0;
  const printed = asLettered(v.value, v.quantity, l);
  // what is lettered exactly leaves nothing open
  return Math.min(Math.abs(printed - v.value), roundingOf(v.quantity, l)) * scaleOf(v, body);
}

import { angleCandidates } from "./candidates/angles";
import { bevelCandidates } from "./candidates/bevels";
import type { Candidate } from "./candidates/candidate";
import { distanceCandidates } from "./candidates/distances";
import { holeCandidates } from "./candidates/holes";
import { patternCandidates } from "./candidates/patterns";
import { roundCandidates } from "./candidates/rounds";
import { slotCandidates } from "./candidates/slots";
import { wallCandidates } from "./candidates/walls";
import type { SizedBody } from "./body";
import type { Disturbance } from "./disturb";
import type { Size } from "./kinds/kinds";
import { isNothing, Span, type Row } from "./rank";
import { allRows, follow, impliedRows, type Followed } from "./table";
import { faceOf, thingsOf } from "./things";
import { EQUAL, FOLLOWS } from "./tolerance";

/** Everything that could be printed of a body. */
export const candidatesOf = (body: SizedBody): Candidate[] => [
  ...holeCandidates(body),
  ...bevelCandidates(body),
  ...wallCandidates(body),
  ...patternCandidates(body),
  ...slotCandidates(body),
  ...roundCandidates(body),
  ...distanceCandidates(body),
  ...angleCandidates(body),
];

/** A size with its row of the table. */
export interface ProposedSize extends Followed {
  readonly size: Size;
}

/** Added to the cost of what does not say just what was typed. */
const TWICE = 0.5;
const OTHER_VALUE = 6;
const MIXED = 10;
/** Right angles and half turns are drawn, not printed, unless nothing else tells them. */
const DULL = 20;

const isNear = (a: number, b: number): boolean => Math.abs(Math.abs(a) - b) <= EQUAL;

/** What a number costs a reader: nothing where it is what the maker typed, much where it must be worked out. */
function readingCost(row: Row, value: number, changes: readonly Disturbance[], size: number): number {
  const at: number[] = [];
  row.forEach((v, i) => v !== 0 && at.push(i));
  const [only] = at;
  if (only === undefined) return 0;
  if (at.length > 1) {
    const isTyped = at.some(
      (k) =>
        Math.abs(row[k]! * Math.sign(changes[k]!.number.value) - 1) < FOLLOWS &&
        isNear(changes[k]!.number.value, value),
    );
    return isTyped ? OTHER_VALUE : MIXED + 2 * at.length;
  }
  const slope = Math.abs(row[only]!),
    { number } = changes[only]!;
  const typed = Math.abs(number.value) * slope;
  if (Math.abs(typed - value) > EQUAL * size) return OTHER_VALUE;
  const isTimes = (times: number) => Math.abs(slope / times - 1) < FOLLOWS;
  if (isTimes(1)) return 0;
  return isTimes(2) || isTimes(0.5) ? TWICE : OTHER_VALUE;
}

const isPlain = (angle: number): boolean => [0, Math.PI / 2, Math.PI].some((plain) => Math.abs(angle - plain) <= EQUAL);

/**
 * The sizes a drawing of a part should print: as few as say everything, each what its maker typed where a drawing can
 * show that. Sizes that cost a reader least are taken first, each only if it says something new.
 * @param changes where the faces go with each driving number; see `disturbances`
 */
export function proposeSizes(body: SizedBody, changes: readonly Disturbance[]): ProposedSize[] {
  const followed = candidatesOf(body).flatMap(({ size, cost, asRead = false }) => {
    const named = { ...size, id: "candidate" } as Size;
    const f = follow(named, body, changes);
    if (!f || f.rows.every(isNothing)) return [];
    const isDull = f.reading.length === 1 && f.reading[0]!.quantity === "angle" && isPlain(f.reading[0]!.value);
    const own = f.reading.map((v, i) => readingCost(f.rows[i]!, v.value, changes, body.size));
    const other = f.parted.map(({ of, row }) => readingCost(row, f.reading[of]!.value, changes, body.size));
    const reading = asRead ? 0 : Math.max(...own, ...other);
    return [{ size: named, ...f, cost: cost + reading + (isDull ? DULL : 0) }];
  });
  followed.sort((a, b) => a.cost - b.cost);
  const span = new Span();
  for (const row of impliedRows(body, changes)) span.takeAll([row]);
  const taken = followed.filter((c) => span.takeAll(allRows(c)));
  return inOrder(gathered(taken, followed)).map(({ size, ...followed }, i) => ({
    size: { ...size, id: `s${i + 1}`, ...counted(size, body) },
    ...followed,
  }));
}

/** How many things a size is lettered for, where they are fewer than its faces. */
function counted(size: Size, body: SizedBody): Pick<Size, "things"> {
  const things = thingsOf(size, body);
  return "of" in size && Array.isArray(size.of) && things < size.of.length ? { things } : {};
}

interface Taken extends ProposedSize {
  readonly cost: number;
}

/** Like places told once with their number: every candidate of the same kind that reads and follows the same. */
function gathered(taken: readonly Taken[], all: readonly Taken[]): Taken[] {
  return taken.map((t): Taken => {
    if (!("of" in t.size) || !GATHERED.has(t.size.kind)) return t;
    const alike = all.filter((c) => c.size.kind === t.size.kind && c.cost <= t.cost + LIKE_COST && readsLike(c, t));
    const seen = new Set<string>();
    const of = alike.flatMap((c) => ("of" in c.size ? (c.size.of as unknown[]) : []));
    const distinct = of.filter((o) => {
      const place = placeOf(o);
      return seen.has(place) ? false : (seen.add(place), true);
    });
    return { ...t, size: { ...t.size, of: distinct } as unknown as Size };
  });
}
const GATHERED: ReadonlySet<string> = new Set([
  "diameter",
  "radius",
  "cone",
  "chamfer",
  "depth",
  "counterbore",
  "countersink",
  "slot",
  "ellipse",
]);
/** Candidates of one kind that cost nearly the same look alike. */
const LIKE_COST = 0.2;

/** What one place of a size is told apart by: the face that is its own, or the faces that meet there. */
const placeOf = (of: unknown): string => (Array.isArray(of) ? of.join("|") : (faceOf(of) ?? JSON.stringify(of)));

function readsLike(a: Taken, b: Taken): boolean {
  const sameFields = Object.entries(b.size).every(
    ([k, v]) =>
      k === "of" ||
      k === "id" ||
      JSON.stringify((a.size as unknown as Record<string, unknown>)[k]) === JSON.stringify(v),
  );
  return (
    sameFields &&
    Object.keys(a.size).length === Object.keys(b.size).length &&
    a.reading.length === b.reading.length &&
    a.reading.every((v, i) => Math.abs(v.value - b.reading[i]!.value) <= EQUAL) &&
    a.rows.every((row, i) => row.every((v, k) => Math.abs(v - b.rows[i]![k]!) <= FOLLOWS))
  );
}

/** As a drawing is read: over all and distances, round things, holes, the rest. */
const ORDER = ["distance", "angle", "turn", "diameter", "radius", "cone", "circle", "pitch", "slot", "ellipse"];
function inOrder(list: readonly Taken[]): Taken[] {
  const place = (s: Size) => {
    const i = ORDER.indexOf(s.kind);
    return i < 0 ? ORDER.length : i;
  };
  return [...list].sort((a, b) => place(a.size) - place(b.size));
}

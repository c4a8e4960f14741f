import { pointAt, pointsOf, type Sketch } from "@/core/sketch/sketch";
import type { PartDocument } from "./document";
import { titleOf, type Step } from "./steps/kinds";
import { HAND_PLACED } from "./tolerance";

/**
 * What a hand left in a part, apart from what the part is: where it put numbers and loose points, what it drew and took
 * away again, the order it went in, what it called things. Two who work by themselves come to one shape and not to
 * these.
 */
export type TraceKind = "placed" | "taken-away" | "called" | "order";
export interface Trace {
  readonly kind: TraceKind;
  /** Of which step, as a person reads it. */
  readonly step: string;
}

const isPlacedByHand = (n: number): boolean => Math.abs(n * 100 - Math.round(n * 100)) > HAND_PLACED;
const placeKey = (p: readonly number[]): string => p.map((n) => n.toFixed(6)).join(",");

/** Ids count up as things are made: what is missing between them was made and taken away. */
function gaps(ids: readonly string[]): string[] {
  const byLetter = new Map<string, number[]>();
  for (const id of ids) {
    const m = /^([A-Za-z]+)(\d+)$/.exec(id);
    if (m) byLetter.set(m[1]!, [...(byLetter.get(m[1]!) ?? []), Number(m[2])]);
  }
  return [...byLetter].flatMap(([letter, numbers]) => {
    const there = new Set(numbers);
    return Array.from({ length: Math.max(...numbers) }, (_, i) => i + 1)
      .filter((n) => !there.has(n))
      .map((n) => `${letter}${n}`);
  });
}

function ofSketch(s: Sketch, at: number, add: (key: string, kind: TraceKind) => void): void {
  // what a pattern or a polygon made follows from its numbers
  const made = new Set((s.groups ?? []).flatMap((g) => g.made));
  for (const c of s.curves) {
    if (made.has(c.id)) continue;
    for (const ref of pointsOf(c)) {
      const p = pointAt(s, ref);
      if (p.every(isPlacedByHand)) add(`placed:${placeKey(p)}`, "placed");
    }
  }
  for (const d of s.dimensions) {
    if (d.at && d.at.some(isPlacedByHand)) add(`placed:${placeKey(d.at)}`, "placed");
    if (d.name) add(`called:${d.name}`, "called");
  }
  const relations = [...s.constraints, ...s.dimensions];
  for (const id of gaps([...s.curves, ...relations].map((r) => r.id))) add(`away:${at}:${id}`, "taken-away");
  for (const [i, r] of relations.entries()) add(`order:${at}:${i}:${r.kind}(${r.of.join(",")})`, "order");
}

/** Every trace of a part by a key that another part has only where it was made alike. */
export function tracesOf(part: PartDocument): Map<string, Trace> {
  const all = new Map<string, Trace>();
  for (const [i, s] of part.steps.entries()) {
    const add = (key: string, kind: TraceKind) => void all.set(key, { kind, step: `step ${i + 1}, ${titleOf(s)}` });
    if (s.name) add(`called:${s.kind}:${s.name}`, "called");
    if (s.kind === "sketch") ofSketch(s.sketch, i, add);
    else for (const p of placesIn(s)) if (p.some(isPlacedByHand)) add(`placed:${placeKey(p)}`, "placed");
  }
  for (const id of gaps(part.steps.map((s) => s.id)))
    all.set(`away:step:${id}`, { kind: "taken-away", step: "the steps" });
  for (const p of part.parameters ?? [])
    all.set(`called:parameter:${p.name}`, { kind: "called", step: "the parameters" });
  return all;
}

/** Where things were put freely in a step: pairs of coordinates. */
function placesIn(step: Step): number[][] {
  const found: number[][] = [];
  const look = (x: unknown) => {
    if (Array.isArray(x) && x.length === 2 && x.every((n) => typeof n === "number")) found.push(x);
    else if (x && typeof x === "object") Object.values(x).forEach(look);
  };
  look(step);
  return found;
}

import type { PartDocument } from "@/core/part/document";
import { tracesOf, type Trace, type TraceKind } from "@/core/part/traces";
import { ENOUGH_TRACES, ORDER_SHARED } from "../tolerance";

/** What two parts have in common that independent work does not give. */
export interface Likeness {
  readonly kind: TraceKind;
  /** As a person reads it. */
  readonly sentence: string;
}
interface SameWork {
  readonly first: number;
  readonly second: number;
  /** How much of the traces of the one with fewer the other has too; 1 is all. */
  readonly shared: number;
  readonly likenesses: readonly Likeness[];
}

/** A trace that so many of a class have follows from the task: half of it, and always more than two. */
const isOfTheTask = (havers: number, all: number): boolean => havers > Math.max(2, all / 2);

/**
 * Pairs of a class that share more of how they were made than independent work gives, those that share most first.
 * Evidence to look at, never a verdict.
 * @param starter what all were given to begin with: nothing of it counts
 */
export function sameWork(parts: readonly PartDocument[], starter?: PartDocument): SameWork[] {
  const given = starter ? tracesOf(starter) : new Map<string, Trace>();
  const traces = parts.map((p) => new Map([...tracesOf(p)].filter(([key]) => !given.has(key))));
  const havers = new Map<string, number[]>();
  for (const [i, t] of traces.entries()) for (const key of t.keys()) havers.set(key, [...(havers.get(key) ?? []), i]);
  const pairs = new Map<string, { first: number; second: number; keys: string[] }>();
  for (const [key, list] of havers) {
    if (list.length < 2 || isOfTheTask(list.length, parts.length)) continue;
    for (const [k, first] of list.entries())
      for (const second of list.slice(k + 1)) {
        const pair = pairs.get(`${first}:${second}`) ?? { first, second, keys: [] };
        pair.keys.push(key);
        pairs.set(`${first}:${second}`, pair);
      }
  }
  const found = [...pairs.values()].flatMap(({ first, second, keys }): SameWork[] => {
    const shared = keys.map((k) => traces[first]!.get(k)!);
    const of = (kind: TraceKind) => shared.filter((t) => t.kind === kind);
    const mostOf = (kind: TraceKind) =>
      Math.min(...[first, second].map((i) => [...traces[i]!.values()].filter((t) => t.kind === kind).length));
    const strong = of("placed").length + of("taken-away").length + of("called").length;
    const order = of("order").length;
    // the same order alone is no likeness: there are not many ways to draw a plate
    if (strong < ENOUGH_TRACES) return [];
    const likenesses: Likeness[] = [];
    const tell = (kind: TraceKind, sentence: (n: number, most: number, where: string) => string) => {
      const list = of(kind);
      if (!list.length || (kind === "order" && order < ORDER_SHARED * mostOf("order"))) return;
      const where = [...new Set(list.map((t) => t.step))].slice(0, 3).join("; ");
      likenesses.push({ kind, sentence: sentence(list.length, mostOf(kind), where) });
    };
    tell("placed", (n, most, where) => `${n} of ${most} places put by hand are the same to a thousandth: ${where}.`);
    tell("taken-away", (n, _, where) => `The same ${n} things were made and taken away again: ${where}.`);
    tell("called", (n, _, where) => `${n} ${n === 1 ? "thing is" : "things are"} called the same: ${where}.`);
    tell("order", (n, most) => `${n} of ${most} constraints and dimensions were set in the same order.`);
    const all = (["placed", "taken-away", "called"] as const).reduce((sum, k) => sum + mostOf(k), 0);
    return [{ first, second, shared: all ? Math.min(1, strong / all) : 0, likenesses }];
  });
  return found.sort((a, b) => b.shared - a.shared || a.first - b.first || a.second - b.second);
}

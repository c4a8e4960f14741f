import { formatFace } from "@/core/naming/names";
import type { Surface } from "@/core/measure/surfaces";
import { keyOf, type SizedBody } from "../body";
import { measureSize } from "../size";
import { EQUAL } from "../tolerance";
import type { Candidate } from "./candidate";

/** Walls that were left when a body was hollowed out: each inner face with the one it follows. */
export function wallCandidates({ surfaces, on }: SizedBody): Candidate[] {
  const groups: { value: number; pairs: [string, string][] }[] = [];
  for (const s of surfaces)
    for (const outer of outersOf(s)) {
      if (!on(outer)) continue;
      const pair: [string, string] = [outer, keyOf(s)];
      const value = measureSize({ id: "", kind: "wall", of: [pair] }, on)[0]?.[0]?.value;
      if (value === undefined || value <= EQUAL) continue;
      const group = groups.find((g) => Math.abs(g.value - value) <= EQUAL);
      if (group) group.pairs.push(pair);
      else groups.push({ value, pairs: [pair] });
    }
  return groups.map(({ pairs }) => ({ size: { kind: "wall", of: pairs }, cost: 0.5 }));
}

/** The faces that a surface is an offset of, by how it came to be. */
const outersOf = (s: Surface): string[] =>
  [...new Set(s.names.flatMap((n) => (n.role === "inner" && n.of !== undefined ? [n.of] : [])))].filter(
    (name) => !s.names.some((n) => formatFace(n) === name),
  );

import { roundingOf } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { keyOf, type SizedBody } from "../body";
import { EQUAL } from "../tolerance";
import type { Candidate } from "./candidate";

/** Diameters, radii and angles of round faces, one by one, and once for all that are alike. */
export function roundCandidates({ surfaces }: SizedBody): Candidate[] {
  const single = surfaces.flatMap((s) => ofSurface(s, keyOf(s), surfaces));
  const groups = new Map<string, Surface[]>();
  for (const s of surfaces) {
    const look = lookOf(s);
    if (look !== undefined) groups.set(look, [...(groups.get(look) ?? []), s]);
  }
  const together = [...groups.values()].flatMap((like): Candidate[] => {
    if (like.length < 2) return [];
    const isWhole = goesRound(like[0]!),
      keys = like.map(keyOf);
    if (isWhole) return [{ size: { kind: "diameter", of: keys.map((k) => [k]) }, cost: 1.9 }];
    return [{ size: { kind: "radius", of: keys }, cost: 1.9 }];
  });
  return [...together, ...single];
}

/** What cylinders must share to be told together. */
function lookOf(s: Surface): string | undefined {
  if (s.carrier.kind !== "cylinder") return undefined;
  const { hollow, radius } = s.carrier;
  return `${hollow} ${goesRound(s)} ${Math.round(radius / EQUAL)}`;
}

function ofSurface(surface: Surface, key: string, surfaces: readonly Surface[]): Candidate[] {
  const { kind } = surface.carrier;
  const isWhole = goesRound(surface);
  if (kind === "cylinder") {
    const diameter: Candidate = { size: { kind: "diameter", of: [[key]] }, cost: isWhole ? 2 : 3.5 };
    const radius: Candidate = { size: { kind: "radius", of: [key] }, cost: isWhole ? 3.5 : 2 };
    return [diameter, radius];
  }
  if (kind === "sphere") {
    return [
      { size: { kind: "diameter", of: [[key]], ball: true }, cost: 2.2 },
      { size: { kind: "radius", of: [key], ball: true }, cost: 2.1 },
    ];
  }
  if (kind === "torus")
    return [
      { size: { kind: "radius", of: [key] }, cost: 2 },
      { size: { kind: "diameter", of: [[key]] }, cost: 3.2 },
    ];
  if (kind === "elliptic")
    return [
      { size: { kind: "ellipse", of: [key] }, cost: 1.8, asRead: true },
      { size: { kind: "ellipse", of: [key], only: "long" }, cost: 2.2, asRead: true },
      { size: { kind: "ellipse", of: [key], only: "short" }, cost: 2.2, asRead: true },
    ];
  if (kind === "other" && roundingOf(surface.carrier) !== undefined)
    return [{ size: { kind: "radius", of: [key] }, cost: 2 }];
  if (kind !== "cone") return [];
  // where a cone ends at a flat face or a cylinder there is a circle
  const rims = surface.beside.flatMap((b): Candidate[] => {
    const other = surfaces[b]!;
    if (other.carrier.kind !== "plane") return [];
    return [{ size: { kind: "diameter", of: [[key, keyOf(other)]] }, cost: 3 }];
  });
  return [
    { size: { kind: "cone", of: [key] }, cost: 3 },
    { size: { kind: "cone", of: [key], half: true }, cost: 3.1 },
    ...rims,
  ];
}

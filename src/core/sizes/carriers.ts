import type { Carrier } from "@/core/kernel/carrier";
import { keyedFaces } from "@/core/kernel/faces";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { sameCarrier } from "@/core/measure/same";
import type { Surface } from "@/core/measure/surfaces";
import { formatFace, unmarked } from "@/core/naming/names";
import type { Carriers } from "./anchor";

/** Looks carriers up by keys and names of faces. */
class Lookup {
  private readonly found = new Map<string, Carrier>();
  private readonly common = new Map<string, Carrier>();
  private readonly twice = new Set<string>();

  give(key: string, carrier: Carrier): void {
    this.found.set(key, carrier);
  }
  /** A further name of a face; one that several faces bear tells nothing. */
  alias(name: string, carrier: Carrier): void {
    if (this.found.has(name)) this.twice.add(name);
    else this.found.set(name, carrier);
  }
  /** Of pieces of one name on one carrier: into however many it is cut, each is found by whatever mark. */
  pieces(name: string, carrier: Carrier): void {
    this.common.set(unmarked(name), carrier);
  }
  get carriers(): Carriers {
    return (key) => {
      const bare = unmarked(key);
      if (this.twice.has(key) && key !== bare) return undefined;
      return this.found.get(key) ?? this.common.get(bare);
    };
  }
}

/** The carriers of surfaces by the keys of their pieces, and by all their names where those are one surface's only. */
export function carriersOfSurfaces(surfaces: readonly Surface[]): Carriers {
  const list = new Lookup();
  for (const s of surfaces) for (const key of s.keys) list.give(key, s.carrier);
  for (const s of surfaces) for (const n of new Set(s.names.map(formatFace))) list.alias(n, s.carrier);
  return list.carriers;
}

/** The carrier of a face; a free one with places on it, by which it is seen to move. */
function spotted(t: Topology, face: number): Carrier {
  const carrier = t.carrier(face);
  return carrier.kind === "other" ? { ...carrier, spots: t.spots(face) } : carrier;
}

/** Surfaces of a body whose free ones have places on them, by which they are seen to move. */
export const spottedSurfaces = (kernel: Kernel, solid: Solid, surfaces: readonly Surface[]): readonly Surface[] =>
  surfaces.every(({ carrier }) => carrier.kind !== "other")
    ? surfaces
    : Topology.over(kernel, solid, (t) => surfaces.map((s) => ({ ...s, carrier: spotted(t, s.pieces[0]!) })));

/** Pieces of one face have carriers that are the same to the last digits: as of a body of 1 mm. */
const PIECES = 1;

/** The carriers of a body's faces by key and name; areas are measured only where faces that share a name need it. */
export function carriersOfSolid(kernel: Kernel, solid: Solid): Carriers {
  return Topology.over(kernel, solid, (t) => {
    const list = new Lookup();
    const groups = new Map<string, number[]>();
    t.names.forEach((names, i) => {
      const name = names[0] ?? "unnamed";
      groups.set(name, [...(groups.get(name) ?? []), i]);
    });
    for (const [name, members] of groups) {
      const [first, ...others] = members;
      const carrier = spotted(t, first!);
      if (others.every((i) => sameCarrier(carrier, t.carrier(i), PIECES))) {
        list.pieces(name, carrier);
        continue;
      }
      const keyed = keyedFaces(members.map((i) => ({ names: solid.names[i] ?? [], ...t.face(i) })));
      keyed.forEach((f, k) => list.give(f.key, spotted(t, members[k]!)));
    }
    t.names.forEach((names, i) => {
      for (const n of names.slice(1)) list.alias(n, spotted(t, i));
    });
    return list.carriers;
  });
}

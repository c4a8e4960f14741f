import { add3, scale3, type Vec3 } from "@/core/geometry/vector";
import { keyedFaces, type Face } from "@/core/kernel/faces";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { sameCarrier } from "./match";

/**
 * The faces of a body as the check compares them: those that go on into each other on one surface are one, however the
 * part was built (two half turns, a mirrored half), and seams are no rim.
 * @param size of the body, mm
 */
export function surfacesOf(kernel: Kernel, solid: Solid, size: number): Face[] {
  return kernel.guard("describing faces", () =>
    Topology.over(kernel, solid, (t) => {
      const faces = keyedFaces(t.faces.map((_, i) => ({ names: solid.names[i] ?? [], ...t.face(i) })));
      const group = faces.map((_, i) => i);
      const find = (i: number): number => (group[i] === i ? i : (group[i] = find(group[i]!)));
      for (const pair of t.edgeFaces) {
        const [a, b] = pair;
        if (a === undefined || b === undefined || find(a) === find(b)) continue;
        if (sameCarrier(faces[a]!.carrier, faces[b]!.carrier, size)) group[find(b)] = find(a);
      }
      const members = new Map<number, number[]>();
      faces.forEach((_, i) => members.set(find(i), [...(members.get(find(i)) ?? []), i]));
      const inner = (own: readonly number[]) => lengthWithin(t, new Set(own));
      return [...members.values()].map((own) =>
        joined(
          own.map((i) => faces[i]!),
          inner(own),
        ),
      );
    }),
  );
}

/** Length of edges that both sides of belong to the same faces, each counted from both sides as rims count them. */
function lengthWithin(t: Topology, own: ReadonlySet<number>): number {
  const edges = new Set([...own].flatMap((f) => t.faceEdges[f]!));
  let sum = 0;
  for (const e of edges) {
    const faces = t.edgeFaces[e]!;
    // a seam has one face, on both sides of it
    if (faces.every((f) => own.has(f))) sum += 2 * t.edgeLength(e);
  }
  return sum;
}

function joined(faces: readonly Face[], within: number): Face {
  const [first] = faces as [Face];
  const area = faces.reduce((s, f) => s + f.area, 0);
  const centre = faces.reduce<Vec3>((s, f) => add3(s, scale3(f.centre, f.area / area)), [0, 0, 0]);
  const rim = faces.reduce((s, f) => s + f.rim, 0) - within;
  return { ...first, names: faces.flatMap((f) => f.names), area, centre, rim };
}

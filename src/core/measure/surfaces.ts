import { add3, distance3, scale3, type Vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { keyedFaces, spanAlong, type Face, type Reach } from "@/core/kernel/faces";
import { footOn } from "@/core/geometry/line";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { sameCarrier } from "./same";
import { ON_AXIS } from "./tolerance";

/** A face as a drawing knows it: all that goes on over seams and joints on one carrier. */
export interface Surface extends Face {
  /** Its pieces as the body has them, by place among all faces. */
  readonly pieces: readonly number[];
  /** Keys of the pieces. */
  readonly keys: readonly string[];
  /** The surfaces that share an edge with it. */
  readonly beside: readonly number[];
}

/**
 * The faces of a body as checks and drawings know them: those that go on into each other on one surface are one,
 * however the part was built (two half turns, a mirrored half), and seams are no rim.
 * @param size of the body, mm
 */
export function surfacesOf(kernel: Kernel, solid: Solid, size: number): Surface[] {
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
      const order = new Map([...members.keys()].map((root, i) => [root, i]));
      const beside = [...members].map(() => new Set<number>());
      for (const [a, b] of t.edgeFaces) {
        if (a === undefined || b === undefined || find(a) === find(b)) continue;
        const [p, q] = [order.get(find(a))!, order.get(find(b))!];
        beside[p]!.add(q);
        beside[q]!.add(p);
      }
      return [...members.values()].map((pieces, i) => ({
        ...joined(
          pieces.map((k) => faces[k]!),
          lengthWithin(t, new Set(pieces)),
        ),
        pieces,
        keys: pieces.map((k) => faces[k]!.key),
        beside: [...beside[i]!],
      }));
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
  return { ...first, names: faces.flatMap((f) => f.names), area, centre, rim, reach: joinedReach(faces, centre) };
}

/** How far pieces on one carrier reach together; at most so far, where they do not lie in line. */
function joinedReach(faces: readonly Face[], centre: Vec3): Reach | undefined {
  const along = axisOf(faces[0]!.carrier)?.along ?? [0, 0, 0];
  const each = faces.flatMap((face) => {
    const span = spanAlong(face, along, centre);
    if (!face.reach || !span) return [];
    return [{ low: span[0], high: span[1], far: distance3(face.centre, centre) + face.reach.far }];
  });
  if (each.length < faces.length) return undefined;
  return {
    low: Math.min(...each.map((r) => r.low)),
    high: Math.max(...each.map((r) => r.high)),
    far: Math.max(...each.map((r) => r.far)),
  };
}

/** Middle of an arc of half a turn, share of its radius from the centre: 2/π. */
const HALF_TURN = 2 / Math.PI;
/** Whether a cylinder or cone goes more than half round: its middle then lies nearer to the axis than a half's. */
export function goesRound({ carrier, centre, reach }: Face): boolean {
  const axis = axisOf(carrier);
  if (!axis) return carrier.kind === "sphere";
  const foot = footOn(centre, axis);
  // how wide a free face is differs from place to place
  if (carrier.kind === "other") return distance3(centre, foot) < ON_AXIS * (reach?.far ?? 0);
  return distance3(centre, foot) < 0.98 * HALF_TURN * radiusAt(carrier, foot);
}

/** How wide a round surface is at a place on its axis; of an ellipse the least. */
function radiusAt(carrier: Carrier, foot: Vec3): number {
  switch (carrier.kind) {
    case "cone":
      return distance3(foot, carrier.tip) * Math.tan(carrier.half);
    case "torus":
      return carrier.major;
    case "elliptic":
      return carrier.halves[1];
    default:
      return "radius" in carrier ? carrier.radius : 0;
  }
}

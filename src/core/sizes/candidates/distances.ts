import { footOn, type Line } from "@/core/geometry/line";
import { dot3, length3, scale3, sub3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isCoaxial, isParallel, isSquare, supportAt, type Anchor } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { EQUAL, MANY_LEVELS } from "../tolerance";
import {
  directionsOf,
  ellipseDirections,
  isCone,
  isCylinder,
  isPlane,
  mainDirections,
  type Candidate,
  type Direction,
} from "./candidate";

/** Something that has a place along a direction. */
interface Stop {
  readonly anchor: Anchor;
  readonly at: number;
  readonly kind: "plane" | "axis" | "edge";
  /** How far its round side stands out to either side, mm. */
  readonly reach: number;
  readonly area: number;
  /** Like ones at the same level. */
  readonly also?: readonly Anchor[];
  /** Of something round, and what those have in common that are told together. */
  readonly axis?: Line;
  readonly look?: string;
}

const MOST_DIRECTIONS = 10;

/** Distances along every direction that flat faces look or axes of ellipses run, and between axes. */
export function distanceCandidates(body: SizedBody): Candidate[] {
  const flat = directionsOf(body.surfaces);
  const directions = [...flat, ...ellipseDirections(body.surfaces, flat)].slice(0, MOST_DIRECTIONS);
  const main = mainDirections(directions);
  const straight = directions.flatMap((d) => alongDirection(body, d, main));
  return [...straight, ...betweenAxes(body), ...betweenEdges(body, directions)];
}

function stopsAlong(body: SizedBody, direction: Direction, main: readonly Direction[]): Stop[] {
  const { surfaces, on } = body;
  const list: Stop[] = direction.planes.map((p) => ({
    anchor: [keyOf(p)],
    at: p.carrier.offset * Math.sign(dot3(p.carrier.normal, direction.along)),
    kind: "plane",
    reach: 0,
    area: p.area,
  }));
  const isMain = (s: Surface) => isPlane(s) && main.some((m) => isParallel(m.along, s.carrier.normal));
  surfaces.forEach((surface, i) => {
    const { carrier: c } = surface,
      axis = axisOf(c);
    if (c.kind === "sphere")
      list.push({
        anchor: [keyOf(surface)],
        at: dot3(c.centre, direction.along),
        kind: "axis",
        reach: c.radius,
        area: surface.area,
      });
    if (axis && isSquare(axis.along, direction.along)) {
      const reach = c.kind === "cylinder" && !c.hollow ? c.radius : 0;
      const radius = c.kind === "cylinder" ? Math.round(c.radius / EQUAL) : "",
        look = `${c.kind} ${"hollow" in c && c.hollow} ${radius}`;
      list.push({
        anchor: [keyOf(surface)],
        at: dot3(axis.at, direction.along),
        kind: "axis",
        reach,
        area: surface.area,
        axis,
        look,
      });
    }
    if (c.kind === "torus" && isParallel(c.axis, direction.along))
      list.push({
        anchor: [keyOf(surface)],
        at: dot3(c.centre, direction.along),
        kind: "axis",
        reach: 0,
        area: surface.area,
      });
    // edges of what slants, and of cones with what they end at
    for (const b of surface.beside) {
      const o = surfaces[b]!;
      const isSlanting = isPlane(surface) && isPlane(o) && (!isMain(surface) || !isMain(o));
      const isRim = isCone(surface) && isCylinder(o);
      if (!(isSlanting && b > i) && !isRim) continue;
      const anchor = [keyOf(surface), keyOf(o)],
        edge = supportAt(anchor, on);
      if (!edge || !("line" in edge)) continue;
      const isPlaced = edge.centre
        ? isParallel(edge.line.along, direction.along)
        : isSquare(edge.line.along, direction.along);
      if (isPlaced) list.push({ anchor, at: dot3(edge.line.at, direction.along), kind: "edge", reach: 0, area: 0 });
    }
  });
  return list;
}

/** All axes at one level as one stop, and the like ones among them; both come before each of them alone. */
function levelled(stops: readonly Stop[]): Stop[] {
  const groups = new Map<string, Stop[]>();
  const file = (name: string, stop: Stop) => {
    const group = groups.get(name) ?? [];
    // what stands on one axis is drawn so
    if (!group.some((other) => isCoaxial(other.axis!, stop.axis!))) groups.set(name, [...group, stop]);
  };
  for (const stop of stops) {
    if (!stop.axis) continue;
    const level = Math.round(stop.at / EQUAL);
    file(`${level}`, stop);
    file(`${level} ${stop.look}`, stop);
  }
  const together = new Map([...groups.values()].filter((g) => g.length > 1).map((g) => [g.map(nameOf).join(), g]));
  return [
    ...[...together.values()].map(([first, ...rest]): Stop => ({ ...first!, also: rest.map((r) => r.anchor) })),
    ...stops,
  ];
}
const nameOf = (stop: Stop): string => stop.anchor.join("|");

/** Of very many stops one a level, the largest. */
function thinned(stops: readonly Stop[]): readonly Stop[] {
  if (stops.length <= MANY_LEVELS) return stops;
  const sorted = [...stops].sort((a, b) => a.at - b.at || b.area - a.area);
  return sorted.filter((s, i) => i === 0 || s.at - sorted[i - 1]!.at > EQUAL || s.kind !== sorted[i - 1]!.kind);
}

/** The more at one level is told with one number, the better. */
const togetherness = (a: Stop, b: Stop): number => {
  const more = (a.also?.length ?? 0) + (b.also?.length ?? 0);
  return more ? 0.15 + 0.01 * Math.min(more, 10) : 0;
};

const COST = { plane: 0, axis: 0.2, edge: 0.5 };

function alongDirection(body: SizedBody, direction: Direction, main: readonly Direction[]): Candidate[] {
  const stops = thinned(levelled(stopsAlong(body, direction, main)));
  const ends = [Math.min(...stops.map((s) => s.at)), Math.max(...stops.map((s) => s.at))];
  const [first] = direction.planes,
    largest = Math.max(...stops.map((s) => s.area));
  const along = direction.ellipse
    ? { along: direction.ellipse.face, ...(direction.ellipse.aside && { aside: true }) }
    : first && { along: keyOf(first) };
  const list: Candidate[] = [];
  for (const [i, a] of stops.entries())
    for (const stop of stops.slice(i + 1)) {
      const gap = Math.abs(a.at - stop.at);
      const isDatum = [a, stop].some((s) => s.kind === "plane" && ends.some((e) => Math.abs(e - s.at) <= EQUAL));
      // a datum face first, then what is large; oblique directions last
      const dull =
        (isDatum ? 0 : 0.3) + 0.1 * (1 - Math.max(a.area, stop.area) / largest) + (main.includes(direction) ? 0 : 0.4);
      const cost = 4 + COST[a.kind] + COST[stop.kind] + dull - togetherness(a, stop);
      const needsWay = a.kind !== "plane" && stop.kind !== "plane";
      // the end that stands for many comes second
      const [from, to] = a.also && !stop.also ? [stop, a] : [a, stop];
      const base = {
        kind: "distance" as const,
        from: [...from.anchor],
        to: [...to.anchor],
        ...(to.also && { also: to.also.map((o) => [...o]) }),
      };
      const size = needsWay ? { ...base, ...along } : base;
      if (gap > EQUAL) list.push({ size, cost });
      if (!a.reach && !stop.reach) continue;
      const sides: ["far" | "centre", "far" | "centre"] = [from.reach ? "far" : "centre", to.reach ? "far" : "centre"];
      list.push({ size: { ...size, sides }, cost: cost + 0.6 });
    }
  return list;
}

const MOST_AXES = 24;

/** Between parallel axes, straight. */
function betweenAxes({ surfaces }: SizedBody): Candidate[] {
  const round = surfaces.filter((s) => isCylinder(s) && goesRound(s)).slice(0, MOST_AXES);
  const others = surfaces.filter((s) => isCylinder(s) && !goesRound(s)).slice(0, MOST_AXES);
  const list: Candidate[] = [];
  for (const [i, a] of round.entries())
    for (const b of [...round.slice(i + 1), ...others]) {
      if (!isParallel(axisOf(a.carrier)!.along, axisOf(b.carrier)!.along)) continue;
      list.push({ size: { kind: "distance", from: [keyOf(a)], to: [keyOf(b)] }, cost: 4.7 });
    }
  for (const [i, a] of others.entries())
    for (const b of others.slice(i + 1))
      if (isParallel(axisOf(a.carrier)!.along, axisOf(b.carrier)!.along))
        list.push({ size: { kind: "distance", from: [keyOf(a)], to: [keyOf(b)] }, cost: 4.9 });
  return list;
}

const MOST_EDGES = 40;

/**
 * Between parallel edges of what slants, across a direction that no face looks: the outline of a tapered block where it
 * is widest.
 */
function betweenEdges({ surfaces, on }: SizedBody, directions: readonly Direction[]): Candidate[] {
  const edges = surfaces.flatMap((s, i) =>
    s.beside.flatMap((b) => {
      const o = surfaces[b]!;
      if (b <= i || !isPlane(s) || !isPlane(o)) return [];
      const anchor = [keyOf(s), keyOf(o)],
        edge = supportAt(anchor, on);
      return edge && "line" in edge ? [{ anchor, line: edge.line }] : [];
    }),
  );
  if (edges.length > MOST_EDGES) return [];
  return edges.flatMap((a, i) =>
    edges.slice(i + 1).flatMap((b): Candidate[] => {
      if (!isParallel(a.line.along, b.line.along)) return [];
      const across = sub3(footOn(b.line.at, a.line), b.line.at),
        length = length3(across);
      if (length <= EQUAL) return [];
      const way = scale3(across, 1 / length);
      // what a face looks along is measured from that face
      if (directions.some((d) => isParallel(d.along, way))) return [];
      const isLevel = directions.some((d) => isSquare(d.along, way) && isSquare(d.along, a.line.along));
      return isLevel ? [{ size: { kind: "distance", from: a.anchor, to: b.anchor }, cost: 5.2 }] : [];
    }),
  );
}

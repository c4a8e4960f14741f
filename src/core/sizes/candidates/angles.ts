import { footOn } from "@/core/geometry/line";
import { distance3 } from "@/core/geometry/vector";
import { axisOf } from "@/core/kernel/carrier";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import { isParallel, isSquare } from "../anchor";
import { keyOf, type SizedBody } from "../body";
import { TOUCHING } from "../tolerance";
import { directionsOf, isCylinder, isElliptic, isPlane, type Candidate, type Plane } from "./candidate";

const MOST = 14;

/** Angles between flat faces that do not stand square, between faces and axes, and turns about an axis. */
export function angleCandidates(body: SizedBody): Candidate[] {
  return [...betweenPlanes(body), ...betweenWays(body), ...turns(body)];
}

const isSlanting = (a: Plane, b: Plane): boolean =>
  !isParallel(a.carrier.normal, b.carrier.normal) && !isSquare(a.carrier.normal, b.carrier.normal);

function betweenPlanes({ surfaces }: SizedBody): Candidate[] {
  // one face for each direction, also square ones since nothing else may tell them; and all that meet
  const largest = directionsOf(surfaces).map((d) => d.planes.reduce((m, p) => (p.area > m.area ? p : m)));
  const list: Candidate[] = [];
  const give = (a: Plane, b: Plane, cost: number) => {
    const pair = { from: [keyOf(a)], to: [keyOf(b)] };
    list.push(
      { size: { kind: "angle", ...pair }, cost },
      { size: { kind: "angle", ...pair, flip: true }, cost: cost + 0.1 },
    );
  };
  for (const [i, a] of largest.slice(0, MOST).entries()) for (const b of largest.slice(i + 1, MOST)) give(a, b, 5.4);
  surfaces.forEach((a, i) => {
    for (const k of a.beside) {
      const b = surfaces[k]!;
      if (k > i && isPlane(a) && isPlane(b) && isSlanting(a, b)) give(a, b, 5);
    }
  });
  return list;
}

/** Axes, also the longer ones of ellipses, that lean against the main faces. */
function betweenWays({ surfaces }: SizedBody): Candidate[] {
  const main = directionsOf(surfaces).slice(0, 3);
  const leaning = surfaces.filter((s) => isElliptic(s) || (isCylinder(s) && goesRound(s))).slice(0, MOST);
  return leaning.flatMap((s) =>
    main.flatMap((d): Candidate[] => {
      const along = isElliptic(s) ? s.carrier.long : axisOf(s.carrier)!.along;
      if (isParallel(along, d.along) || isSquare(along, d.along)) return [];
      return [{ size: { kind: "angle", from: [keyOf(d.planes[0]!)], to: [keyOf(s)] }, cost: 5.2 }];
    }),
  );
}

/** How far round a middle axis things stand. */
function turns({ surfaces }: SizedBody): Candidate[] {
  const round = surfaces.filter((s) => isCylinder(s) && goesRound(s));
  const middle = largest(round);
  if (!middle) return [];
  const axis = axisOf(middle.carrier)!;
  const isOff = (s: Surface) => {
    const own = axisOf(s.carrier);
    return !!own && isParallel(own.along, axis.along) && distance3(footOn(own.at, axis), own.at) > TOUCHING;
  };
  const off = surfaces.filter((s) => isCylinder(s) && isOff(s)).slice(0, 2 * MOST);
  const flat = surfaces.filter((s) => isPlane(s) && isSquare(s.carrier.normal, axis.along)).slice(0, MOST);
  const list: Candidate[] = [];
  for (const [i, to] of off.entries())
    for (const [cost, from] of [
      ...flat.map((f) => [5.3, f] as const),
      ...off.slice(i + 1).map((o) => [5.5, o] as const),
    ])
      list.push({ size: { kind: "turn", about: keyOf(middle), from: keyOf(from), to: keyOf(to) }, cost });
  for (const [i, to] of flat.entries())
    for (const from of flat.slice(i + 1))
      list.push({ size: { kind: "turn", about: keyOf(middle), from: keyOf(from), to: keyOf(to) }, cost: 5.8 });
  return list;
}

const largest = (list: readonly Surface[]): Surface | undefined =>
  list.reduce<Surface | undefined>((m, s) => (!m || s.area > m.area ? s : m), undefined);

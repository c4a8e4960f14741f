import { COINCIDENT, SAME_WAY } from "@/core/geometry/tolerance";
import { SQUARE, WHOLE_TURN } from "./tolerance";
import type { AnchoredDimension } from "./subject";
import { dot3, type Vec3 } from "@/core/geometry/vector";
import type { SheetModel } from "./model";

type Round = SheetModel["faces"][number] & {
  carrier: { kind: "cylinder"; at: Vec3; axis: Vec3; radius: number; hollow: boolean };
};

const AXES: readonly { axis: Vec3; view: AnchoredDimension["view"] }[] = [
  { axis: [1, 0, 0], view: "front" },
  { axis: [0, 0, 1], view: "front" },
  { axis: [0, 1, 0], view: "top" },
];

const same = (a: number, b: number) => Math.abs(a - b) < COINCIDENT;

/**
 * Proposes dimensions for a reference: over-all sizes, steps from the lowest face on each axis, ends of slanting
 * faces, sizes and places of round faces. Anchored to faces by name; values are measured when drawn.
 */
export function proposeDimensions(model: SheetModel): AnchoredDimension[] {
  const list: AnchoredDimension[] = [];
  const give = (d: Omit<AnchoredDimension, "id">) => list.push({ id: `d${list.length + 1}`, ...d });
  const planes = model.faces.flatMap((f) => (f.carrier.kind === "plane" ? [{ face: f, ...f.carrier }] : []));
  const rounds = model.faces.filter((f): f is Round => f.carrier.kind === "cylinder");

  for (const { axis, view } of AXES) {
    const level = planes
      .filter((p) => Math.abs(Math.abs(dot3(p.normal, axis)) - 1) < SAME_WAY)
      .map((p) => ({ key: p.face.key, at: p.offset * dot3(p.normal, axis), area: p.face.area }));
    level.sort((a, b) => a.at - b.at || b.area - a.area);
    const stops = level.filter((s, i) => i === 0 || !same(s.at, level[i - 1]!.at));
    if (stops.length < 2) continue;
    const base = stops[0]!,
      top = stops[stops.length - 1]!;
    for (const s of stops.slice(1, -1)) give({ kind: "linear", view, faces: [base.key, s.key] });
    give({ kind: "linear", view, faces: [base.key, top.key] });
    // ends of slanting faces that no level face marks
    const known = stops.map((s) => s.at);
    for (const p of planes) {
      const slant = Math.abs(dot3(p.normal, axis));
      if (slant < SQUARE || slant > 1 - SAME_WAY) continue;
      const along = p.face.points.map((q) => dot3(q, axis));
      for (const [reach, at] of [
        ["near", Math.min(...along)],
        ["far", Math.max(...along)],
      ] as const) {
        if (known.some((k) => same(k, at))) continue;
        known.push(at);
        const seen = AXES.find((a) => Math.abs(dot3(p.normal, a.axis)) < SQUARE)?.axis;
        give({ kind: "linear", view: viewAlong(seen ?? axis), faces: [base.key, p.face.key], reach });
      }
    }
    // places of round faces across this axis
    for (const r of rounds) {
      if (Math.abs(dot3(r.carrier.axis, axis)) > SAME_WAY) continue;
      const at = dot3(r.carrier.at, axis);
      if (known.some((k) => same(k, at))) continue;
      known.push(at);
      give({ kind: "linear", view: viewAlong(r.carrier.axis), faces: [base.key, r.key] });
    }
  }
  const done = new Set<Round>();
  for (const r of rounds) {
    if (done.has(r)) continue;
    const alike = rounds.filter(
      (o) =>
        !done.has(o) &&
        o.carrier.hollow === r.carrier.hollow &&
        same(o.carrier.radius, r.carrier.radius) &&
        same(Math.abs(dot3(o.carrier.axis, r.carrier.axis)), 1) &&
        same(isWhole(o), isWhole(r)),
    );
    alike.forEach((o) => done.add(o));
    give({
      kind: isWhole(r) ? "diameter" : "radius",
      view: viewAlong(r.carrier.axis),
      faces: [r.key],
      ...(alike.length > 1 && { count: alike.length }),
    });
  }
  return list;
}

/** The view that looks along a direction, so that round faces are seen round. */
const viewAlong = (d: Vec3): AnchoredDimension["view"] =>
  Math.abs(d[1]) > 0.9 ? "front" : Math.abs(d[2]) > 0.9 ? "top" : "side";

/** 1 when a round face goes more than half round. */
function isWhole(r: Round): number {
  const along = r.points.map((p) => dot3(p, r.carrier.axis));
  const height = Math.max(...along) - Math.min(...along);
  return r.area / (r.carrier.radius * height) > Math.PI + WHOLE_TURN ? 1 : 0;
}

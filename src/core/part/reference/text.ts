import { LEVEL_ENOUGH } from "../tolerance";
import { distance3, type Vec3 } from "@/core/geometry/vector";
import { parseCopy, parseEdge, parseFace, stepOf } from "@/core/naming/names";
import { stepMark } from "@/core/naming/words";
import type { AnyRef, EdgeRef, FaceRef } from "@/core/naming/reference";
import { lengthText, type LengthUnit } from "@/core/units/quantity";

/** What a face is called by the role it came to be in. */
const ROLES: Record<string, string> = {
  side: "side",
  start: "first face",
  end: "end face",
  bore: "wall of the hole",
  bottom: "floor of the hole",
  tip: "tip of the hole",
  counterbore: "wall of the counterbore",
  seat: "floor of the counterbore",
  countersink: "countersink",
  round: "rounding",
  bevel: "chamfer",
  corner: "rounded corner",
};
const SHAPES: Record<string, string> = { cylinder: "round ", cone: "conical ", sphere: "ball-shaped ", plane: "flat " };

/** "the flat side of ‹extrude1›", "the floor of the hole of ‹hole1›". */
export function faceText(ref: FaceRef): string {
  const { step: id, role, of = "" } = parseFace(ref.face);
  const kind = role === "side" ? (SHAPES[ref.kind ?? ""] ?? "") : "";
  if (role === "inner") return `the inside, in ${stepMark(id)}, of ${faceText({ face: of })}`;
  if (role === "image") return `the image, in ${stepMark(id)}, of ${faceText({ face: of })}`;
  if (role === "copy") {
    const { place, face } = parseCopy(of);
    return `the copy ${place}, in ${stepMark(id)}, of ${faceText({ face })}`;
  }
  return `the ${kind}${ROLES[role] ?? "face"} of ${stepMark(id)}`;
}

/** "the upright edge, 36 mm, of ‹extrude1›", "the round edge, ⌀10, of ‹hole1›". */
export function edgeText(ref: EdgeRef, unit: LengthUnit = "mm"): string {
  const [a, b] = parseEdge(ref.edge).map(stepOf) as [string, string];
  const of = a === b ? stepMark(a) : `${stepMark(a)} and ${stepMark(b)}`;
  const shape = ref.at && ref.at.length > 1 ? shapeText(ref.kind, ref.at, unit) : undefined;
  if (shape) return `the ${shape}, of ${of}`;
  const [p, q] = parseEdge(ref.edge).map((face) => faceText({ face }));
  return `the edge between ${p} and ${q}`;
}

function shapeText(kind: string | undefined, at: readonly Vec3[], unit: LengthUnit): string | undefined {
  const [first, last] = [at[0]!, at[at.length - 1]!];
  const length = distance3(first, last);
  if (kind === "line") {
    const rise = Math.abs(last[2] - first[2]) / (length || 1);
    const way = rise > 1 - LEVEL_ENOUGH ? "upright" : rise < LEVEL_ENOUGH ? "level" : "slanting";
    return `${way} edge, ${lengthText(length, unit)}`;
  }
  if (kind !== "circle") return undefined;
  const diameter = 2 * radiusThrough(first, at[Math.round(at.length / 3)]!, at[Math.round((2 * at.length) / 3)]!);
  if (!Number.isFinite(diameter)) return "round edge";
  const whole = length < LEVEL_ENOUGH * diameter;
  return whole ? `round edge, ⌀${lengthText(diameter, unit)}` : `arc, R ${lengthText(diameter / 2, unit)}`;
}

/** Radius of the circle through three points: a b c / 4 F. */
function radiusThrough(p: Vec3, q: Vec3, r: Vec3): number {
  const [a, b, c] = [distance3(q, r), distance3(r, p), distance3(p, q)];
  const s = (a + b + c) / 2;
  const radius = (a * b * c) / (4 * Math.sqrt(Math.max(0, s * (s - a) * (s - b) * (s - c))));
  // places are kept to a micrometre
  return Math.round(radius * 1000) / 1000;
}

/** How any reference is called. */
export function refText(ref: AnyRef, unit: LengthUnit = "mm"): string {
  if ("face" in ref) return faceText(ref);
  if ("edge" in ref) return edgeText(ref, unit);
  if ("vertex" in ref) return `the corner of ${[...new Set(ref.vertex.map(stepOf))].map(stepMark).join(" and ")}`;
  if ("sketch" in ref) return `${"curve" in ref ? ref.curve : ref.point} of ${stepMark(ref.sketch)}`;
  const id = "datum" in ref ? ref.datum : "axis" in ref ? ref.axis : ref.point;
  if ("datum" in ref && ["front", "top", "right"].includes(id)) return `the ${id} plane`;
  if ("axis" in ref && ["x", "y", "z"].includes(id)) return `the ${id} axis`;
  return id === "origin" ? "the origin" : `the datum of ${stepMark(id)}`;
}

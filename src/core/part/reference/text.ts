import { LEVEL_ENOUGH, PLACES } from "../tolerance";
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
  return p === q
    ? `the edge between ${p!.replace(/^the (.+?)(?= of |, in )/, "two $1s")}`
    : `the edge between ${p} and ${q}`;
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
  // an arc by its ends and its middle, which fix it best; a whole turn by thirds, since its ends are one
  const third = (n: number) => at[Math.round((n * at.length) / 3)]!;
  const middle = at[at.length >> 1]!;
  const isTurn = length < LEVEL_ENOUGH * distance3(first, middle);
  const diameter = 2 * (isTurn ? radiusThrough(first, third(1), third(2)) : radiusThrough(first, middle, last));
  if (!Number.isFinite(diameter)) return "round edge";
  const whole = length < LEVEL_ENOUGH * diameter;
  return whole ? `round edge, ⌀${lengthText(diameter, unit)}` : `arc, R ${lengthText(diameter / 2, unit)}`;
}

/** Radius of the circle through three points: a b c / 4 F. */
function radiusThrough(p: Vec3, q: Vec3, r: Vec3): number {
  const [a, b, c] = [distance3(q, r), distance3(r, p), distance3(p, q)];
  const s = (a + b + c) / 2;
  const area = Math.sqrt(Math.max(0, s * (s - a) * (s - b) * (s - c)));
  const radius = (a * b * c) / (4 * area);
  // places are kept to a micrometre: how far that leaves the radius open, by the height of the arc over its chord
  const height = (2 * area) / Math.max(a, b, c);
  const open = (radius * PLACES) / height;
  const step = 10 ** Math.max(-3, Math.ceil(Math.log10(open)));
  return Math.round(Math.round(radius / step) * step * 1000) / 1000;
}

/** Where what a reference stood at lies; nothing for what has no place of its own. */
function middleOf(ref: AnyRef): Vec3 | undefined {
  const at = "at" in ref ? (ref.at as readonly Vec3[] | undefined) : undefined;
  return at?.[at.length >> 1];
}

const SIDES = [
  ["the left one", "the right one", "from the left"],
  ["the front one", "the back one", "from the front"],
  ["the lower one", "the upper one", "from below"],
] as const;

/** Several references, those called alike told apart by where they lie: "round edge, ⌀60 mm, of …, the upper one". */
export function refTexts(refs: readonly AnyRef[], unit: LengthUnit = "mm"): string[] {
  const texts = refs.map((r) => refText(r, unit));
  return texts.map((text, i) => {
    const alike = refs.flatMap((r, k) => (texts[k] === text ? [{ k, at: middleOf(r) }] : []));
    if (alike.length < 2 || alike.some((r) => !r.at)) return text;
    const spread = (axis: 0 | 1 | 2) => {
      const values = alike.map((r) => r.at![axis]);
      return Math.max(...values) - Math.min(...values);
    };
    const axis = ([0, 1, 2] as const).reduce((best, n) => (spread(n) > spread(best) ? n : best));
    const order = [...alike].sort((p, q) => p.at![axis] - q.at![axis]).map((r) => r.k);
    const place = order.indexOf(i);
    const [low, high, from] = SIDES[axis];
    if (alike.length === 2) return `${text}, ${place ? high : low}`;
    return `${text}, number ${place + 1} ${from}`;
  });
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

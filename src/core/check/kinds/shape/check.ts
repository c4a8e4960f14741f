import { placed as placedSolid } from "@/core/kernel/place";
import { boxOf } from "@/core/kernel/properties";
import { faceShapes, type Solid } from "@/core/kernel/solid";
import type { Face } from "@/core/kernel/faces";
import { move } from "@/core/geometry/rigid";
import { type Vec3, eachAxis } from "@/core/geometry/vector";
import type { Surface } from "@/core/measure/surfaces";
import { bodyOf } from "@/core/sizes/body";
import { featuresOf } from "@/core/sizes/features";
import { generalFor } from "@/core/sizes/general";
import { sizeOfPart, type Comparison } from "../../faces/comparison";
import { differenceOf, type Difference } from "../../faces/difference";
import { generalOf } from "@/core/sheet/subject";
import { findingsOf, type NamedBody } from "../../findings/findings";
import { freeFaces, onlyFreeDiffers } from "../../faces/free";
import { BALANCE, FAR_FROM_LIMIT, ON_THE_LIMIT } from "../../tolerance";
import type { CheckContext } from "../context";
import { wholeOf } from "../../given/measured";
import { facetsEvidence } from "./facets";
import type { Verdict } from "../kind";
import type { ShapeEvidence, Lump } from "./kind";

/** What the difference looks like, for drawing; the caller releases the solids. */
export interface ShapePicture {
  readonly placed?: Solid;
  readonly missing?: Solid;
  readonly extra?: Solid;
}
type Checked = { evidence: ShapeEvidence; picture: ShapePicture };

const sum = (list: readonly Lump[]) => list.reduce((s, l) => s + l.volume, 0);

/** Compares a placed submission with the reference: face by face first, and by what is missing and extra. */
export function checkShape(context: CheckContext): Checked {
  const { kernel, reference, submission, exercise, comparison } = context;
  const tolerance = exercise.tolerances.shape;
  const base = {
    check: "shape" as const,
    finding: comparison.finding,
    motion: comparison.motion,
    facesMatched: comparison.facesMatched,
    facesOfReference: reference.faces.length,
    scale: comparison.scale,
    missing: [],
    extra: [],
    features: [],
    tolerance,
    imbalance: 0,
  };
  const { finding } = comparison;
  if (submission.facets && comparison.deviation)
    return { evidence: { ...base, ...facetsEvidence(context, comparison.deviation) }, picture: {} };
  if (!submission.solid || !submission.properties || finding === "absent" || finding === "unplaced")
    return { evidence: { ...base, verdict: "missed", off: 1 }, picture: {} };
  if (finding === "scaled") return { evidence: { ...base, verdict: "missed", off: 1 }, picture: {} };
  const placed = placedSolid(kernel, wholeOf(submission).solid!, comparison.motion);
  if (finding === "same") return { evidence: { ...base, verdict: "met", off: 0 }, picture: { placed } };

  const size = sizeOfPart(reference),
    general = generalOf(exercise);
  const near = generalFor("length", size, general, size);
  const free = freeFaces(context);
  const features =
    finding === "mirrored" ? [] : findingsOf(context.named, submissionNamed(context), comparison, () => near, free);
  const facesDecide = finding === "differs" && !hasStrangers(comparison, near);
  const d = facesDecide ? byFaces(context) : byVolumes(context, placed);
  const off = (sum(d.missing) + sum(d.extra)) / reference.properties.volume + (facesDecide ? d.imbalance : 0);
  const picture = {
    placed,
    ...(d.missingSolid && { missing: d.missingSolid }),
    ...(d.extraSolid && { extra: d.extraSolid }),
  };
  const imbalance = facesDecide ? 0 : d.imbalance;
  const found = { ...base, ...deviationsOf(context), missing: d.missing, extra: d.extra, features, imbalance };
  if (finding === "mirrored")
    return { evidence: { ...found, verdict: "missed", off: Math.max(off, tolerance * 2) }, picture };
  const least = volumesApart(context);
  const amounts = onlyFreeDiffers(context) ? "met" : verdictOfAmounts(off, d, tolerance, facesDecide, least);
  const verdict = exercise.shapeBy === "volume" ? amounts : worse(features.length ? "missed" : "met", amounts);
  const doubt = d.trusted || facesDecide ? undefined : doubtText(d, comparison, wholeOf(submission).faces.length);
  // an amount that cannot be believed is none
  const told = d.trusted || facesDecide ? found : { ...found, missing: [], extra: [] };
  const shown = d.trusted || facesDecide ? off : Math.max(tolerance * 2, Math.min(betweenFaces(context), 1), least);
  return { evidence: { ...told, verdict, off: shown, ...(doubt && { doubt }) }, picture };
}

/** The largest and the typical distance of faces from their partners (root mean square over the area), mm. */
function deviationsOf({ comparison, reference }: CheckContext): { deviation: number; typical: number } {
  let [deviation, squares, all] = [0, 0, 0];
  comparison.faces.faces.forEach((f, i) => {
    const { area } = reference.faces[i]!,
      by = f.state === "changed" ? f.by : 0;
    deviation = Math.max(deviation, by);
    squares += by ** 2 * area;
    all += area;
  });
  return { deviation, typical: Math.sqrt(squares / (all || 1)) };
}

const worse = (faces: "met" | "missed", amounts: Verdict): Verdict => {
  if (faces === "missed" || amounts === "missed") return "missed";
  return amounts;
};

function doubtText(d: Difference, { faces }: Comparison, all: number): string {
  const isTold = d.imbalance < 1 && d.imbalance > BALANCE;
  const by = isTold ? ` (by ${(d.imbalance * 100).toPrecision(2)} % of the volume)` : "";
  const differing = faces.faces.filter((f) => f.state !== "same" && f.state !== "cut").length + faces.extra.length;
  const which = `${differing} of ${all} faces differ`;
  return `the two parts nearly coincide and the cut between them does not balance${by}; ${which}.`;
}

/**
 * Judged where the doubt does not matter: what is measured lies far inside or far outside the tolerance, or the volumes
 * alone do.
 */
function verdictOfAmounts(off: number, d: Difference, tolerance: number, facesDecide: boolean, least: number): Verdict {
  if (d.trusted || facesDecide) return off <= tolerance + ON_THE_LIMIT ? "met" : "missed";
  if (least > tolerance + ON_THE_LIMIT) return "missed";
  if (d.imbalance > 1) return "unknown";
  if ((off + d.imbalance) * FAR_FROM_LIMIT <= tolerance) return "met";
  return off - d.imbalance * FAR_FROM_LIMIT > tolerance ? "missed" : "unknown";
}

/** Whether some face has no partner near by: then only cutting tells how much differs. */
const hasStrangers = ({ faces }: Comparison, near: number): boolean =>
  faces.extra.length > 0 ||
  faces.faces.some((f) => f.state === "missing" || (f.state === "changed" && f.by > near)) ||
  !faces.faces.some((f) => f.state === "changed");

/**
 * Every face has a partner within tolerance, so faces decide: beside them only the volumes count, or, where the
 * exercise asks for amounts, what lies between the faces: their area times how far they part.
 */
function byFaces(context: CheckContext): Difference {
  const imbalance = context.exercise.shapeBy === "volume" ? betweenFaces(context) : volumesApart(context);
  return { missing: [], extra: [], imbalance, trusted: true };
}

/** How far the volumes are apart, a share of the reference's: at least so much differs, whatever a boolean says. */
const volumesApart = ({ reference, submission }: CheckContext): number =>
  Math.abs(submission.properties!.volume / reference.properties.volume - 1);

/** What lies between faces and their partners, by how far they part: a share of the reference's volume. */
const betweenFaces = ({ comparison, reference }: CheckContext): number =>
  comparison.faces.faces.reduce((s, f, i) => s + (f.state === "changed" ? f.by * reference.faces[i]!.area : 0), 0) /
  reference.properties.volume;

/** So many faces of the reference for one that differs: the box is then the shorter way. */
const FEW = 6;

function byVolumes({ kernel, reference, submission, comparison }: CheckContext, placed: Solid): Difference {
  const { faces, extra } = comparison.faces;
  // a face that another only cuts shorter differs no further than that other reaches
  const differing = new Set(extra);
  const own = reference.faces.filter((_, i) => {
    const f = faces[i]!;
    if (f.state === "changed") differing.add(f.at);
    return f.state === "changed" || f.state === "missing";
  });
  const other = wholeOf(submission).faces.filter((_, k) => differing.has(k));
  const boxes = [...boxesOf(kernel, reference.solid, own), ...boxesOf(kernel, placed, other)];
  const around = boxes.length ? boxes.reduce(joinedBox) : undefined;
  const few = FEW * (own.length + other.length) < reference.faces.length;
  return differenceOf(kernel, reference.solid, placed, around, few, comparison.facesMatched > 0);
}

type Box = { readonly min: Vec3; readonly max: Vec3 };
function boxesOf(kernel: CheckContext["kernel"], solid: Solid, faces: readonly Surface[]): Box[] {
  const shapes = faceShapes(kernel, solid.shape).shapes;
  return faces.flatMap((f) => f.pieces.map((i) => boxOf(kernel, shapes[i]!)));
}
const joinedBox = (a: Box, b: Box): Box => ({
  min: eachAxis((i) => Math.min(a.min[i]!, b.min[i]!)),
  max: eachAxis((i) => Math.max(a.max[i]!, b.max[i]!)),
});

/** The submission's things by name, where they lie on the reference; only asked for where it has something more. */
function submissionNamed({ submission, comparison, exercise }: CheckContext): NamedBody | undefined {
  if (!comparison.faces.extra.length) return undefined;
  const surfaces = wholeOf(submission).faces.map((s, i): Surface => ({
    ...s,
    ...(comparison.placed[i] as Face),
    pieces: s.pieces,
  }));
  const { min, max } = submission.properties!.box;
  const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((k) =>
    move(comparison.motion, [k & 1 ? max[0] : min[0], k & 2 ? max[1] : min[1], k & 4 ? max[2] : min[2]]),
  );
  const box = corners.map((c) => ({ min: c, max: c })).reduce(joinedBox);
  const body = bodyOf(surfaces, box);
  return { body, features: featuresOf(body, { unit: exercise.units }) };
}

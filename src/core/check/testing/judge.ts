import { distance3, dot3 } from "@/core/geometry/vector";
import type { Carrier } from "@/core/kernel/carrier";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import { goesRound, type Surface } from "@/core/measure/surfaces";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { sizedBody, type SizedBody } from "@/core/sizes/body";
import { carriersOfSolid } from "@/core/sizes/carriers";
import { shiftOf } from "@/core/sizes/disturb";
import { facesOfSize, measureSize } from "@/core/sizes/size";
import { checkSubmission, type Report } from "../check";
import type { References } from "../references";
import type { Exercise } from "../exercise/exercise";
import type { Evidence } from "../kinds/kinds";
import type { ShapeEvidence } from "../kinds/shape/kind";
import { isWithin, type SizesEvidence } from "../kinds/sizes/kind";
import { PRINTED_LENGTH } from "@/core/sizes/tolerance";
import { FIGURE_NOISE, ON_THE_LIMIT } from "../tolerance";
import type { WrongPart } from "./wrong";

/** What a check said against what is known of the part by how it was made. */
export interface Judgement {
  readonly label: string;
  /** Lines that say what the part's own figures deny. */
  readonly faults: readonly string[];
  readonly isUnknown: boolean;
  /** ms */
  readonly took: number;
  readonly report: Report;
}

/** What is needed of a reference to judge by. */
interface Judge {
  readonly kernel: Kernel;
  readonly exercise: Exercise;
  readonly references: References;
  readonly body: SizedBody;
  /** Of the reference. */
  readonly properties: Properties;
}

/** Opens a judge over an exercise. */
export function judgeOf(kernel: Kernel, exercise: Exercise, references: References): Judge {
  const built = rebuild(kernel, exercise.reference),
    body = sizedBody(kernel, built.body!),
    properties = propertiesOf(kernel, built.body!);
  kernel.release(built.body!.shape);
  const sizes = references.sizes(exercise.reference, () => {});
  return { kernel, exercise: { ...exercise, sizes: [...sizes] }, references, body, properties };
}

const find = <C extends Evidence["check"]>(report: Report, check: C) =>
  report.evidence.find((e) => e.check === check) as Extract<Evidence, { check: C }>;

/**
 * Checks a wrong part and holds every line against what the part is by construction; undefined where it builds none.
 */
export function judged(judge: Judge, wrong: WrongPart): Judgement | undefined {
  const { kernel, exercise, references } = judge;
  const truth = truthOf(judge, wrong.document);
  if (!truth) return undefined;
  // bodies that touch make up the same shape: that they are several is a line of its own
  const isSame = truth.isSame || (wrong.kind === "two bodies" && truth.isBuilt);
  const start = performance.now();
  const r = checkSubmission(kernel, exercise, wrong.document, { references });
  const took = performance.now() - start;
  if (!r.ok) throw new Error(r.refusal.sentence);
  const { report } = r.value;
  const faults: string[] = [];
  const amounts = { volume: truth.volume, mass: truth.mass };
  for (const check of ["volume", "mass"] as const) {
    const e = find(report, check),
      isInside = Math.abs(amounts[check].is / amounts[check].want - 1) <= e.tolerance + ON_THE_LIMIT;
    const want = isInside && (check === "volume" || truth.isMaterial) ? "met" : "missed";
    if (e.verdict !== want) faults.push(`${check}: ${e.verdict}, should be ${want}`);
  }
  const shape = find(report, "shape");
  const wantShape = isSame ? "met" : "missed";
  if (shape.verdict !== wantShape && shape.verdict !== "unknown" && truth.isClear)
    faults.push(`shape: ${shape.verdict} (${shape.finding}), should be ${wantShape}`);
  // the sizes of a mirror image are told on the image
  if (wrong.kind === "number" && truth.isWhole && shape.finding !== "mirrored")
    faults.push(...sizeFaults(find(report, "sizes"), truth.wrong));
  if (wrong.kind === "left out") faults.push(...goneFaults(judge, shape, wrong.gone ?? []));
  const sketches = find(report, "sketches");
  if (wrong.kind === "loose" && sketches.verdict !== "missed") faults.push("sketches: met, should be missed");
  return { label: wrong.label, faults, isUnknown: report.evidence.some((e) => e.verdict === "unknown"), took, report };
}

interface Truth {
  readonly volume: { readonly is: number; readonly want: number };
  readonly mass: { readonly is: number; readonly want: number };
  readonly isMaterial: boolean;
  /** Every face stands as in the reference within what is printed. */
  readonly isSame: boolean;
  /** It is far enough from the limit to be told. */
  readonly isClear: boolean;
  /** Every step builds. */
  readonly isBuilt: boolean;
  /** All faces of the reference are there by name. */
  readonly isWhole: boolean;
  /** Ids of sizes that are not as printed; those that cannot be read are left out. */
  readonly wrong: ReadonlySet<string>;
}

function truthOf({ kernel, exercise, body, properties }: Judge, document: PartDocument): Truth | undefined {
  const built = rebuild(kernel, document);
  if (!built.body?.names.length) return undefined;
  const on = carriersOfSolid(kernel, built.body),
    p = propertiesOf(kernel, built.body);
  const changed = sizedBody(kernel, built.body);
  kernel.release(built.body.shape);
  const shifts = body.surfaces.map((s) => movedBy(s, on(s.keys[0]!), body.size));
  const most = Math.max(...shifts);
  // faces that ran into each other are other faces, whatever their names
  const isTurned = body.surfaces.some((s) => leans(s.carrier, on(s.keys[0]!)));
  const isAlike = changed.surfaces.length === body.surfaces.length && roundness(changed) === roundness(body);
  const isBuilt = built.steps.every((s) => !s.refusal);
  // nor are faces that are cut into another number of pieces
  const pieces = new Set(changed.surfaces.flatMap((s) => s.keys)),
    isInPieces = body.surfaces.some((s) => s.keys.some((k) => !pieces.has(k)));
  const isWhole = isBuilt && shifts.every((s) => s < Infinity) && isAlike && !isTurned && !isInPieces;
  const wrong = new Set<string>();
  for (const size of exercise.sizes ?? []) {
    const want = measureSize(size, body.on)[0]!,
      is = measureSize(size, on);
    const isRead = facesOfSize(size).every((f) => on(f)) && is.every((r) => r !== undefined);
    const isPrinted = is.every((r) =>
      r?.every((v, i) => {
        const off = v.quantity === "angle" ? Math.PI / 1800 : v.quantity === "count" ? 0 : PRINTED_LENGTH;
        return isWithin({ printed: want[i]!.value, plus: off, minus: off }, v.value);
      }),
    );
    if (!isRead || !isPrinted) wrong.add(size.id);
  }
  const density = document.material.density / exercise.material.density;
  const { volume } = properties;
  // turned round it may be the very same part elsewhere
  const isTwin = [...p.moments, p.volume, p.area].every(
    (v, i) => Math.abs(v / [...properties.moments, volume, properties.area][i]! - 1) < FIGURE_NOISE,
  );
  const isVolume = Math.abs(p.volume / volume - 1) <= exercise.tolerances.shape;
  return {
    volume: { is: p.volume, want: volume },
    mass: { is: p.volume * density, want: volume },
    isMaterial: Math.abs(density - 1) < FIGURE_NOISE,
    isSame: most <= PRINTED_LENGTH && isVolume,
    isClear: most < PRINTED_LENGTH / 2 || (most > PRINTED_LENGTH * 3 && !isTwin),
    isBuilt,
    isWhole,
    wrong,
  };
}

/** How far a face went: a flat one, or a cone, where it is, not at the far end of the part. */
function movedBy(s: Surface, now: Carrier | undefined, size: number): number {
  const was = s.carrier;
  if (was.kind === "cone" && now?.kind === "cone") return shiftOf(was, now, Math.sqrt(s.area));
  if (was.kind !== "plane" || now?.kind !== "plane") return shiftOf(was, now, size);
  const apart = Math.abs(dot3(now.normal, s.centre) - now.offset);
  return apart + distance3(now.normal, was.normal) * Math.sqrt(s.area);
}

/** A face that looks another way by more than sixty degrees, or with its other side, is another face. */
function leans(was: Carrier, now: Carrier | undefined): boolean {
  if (now && "hollow" in was && "hollow" in now && was.hollow !== now.hollow) return true;
  return was.kind === "plane" && now?.kind === "plane" && dot3(was.normal, now.normal) < 0.5;
}

const roundness = (b: SizedBody): number => b.surfaces.filter((s) => goesRound(s)).length;

function sizeFaults(e: SizesEvidence, wrong: ReadonlySet<string>): string[] {
  if (e.scale !== undefined) return [];
  return e.sizes.flatMap((s) => {
    const isBad = s.state === "missed" || s.state === "lost";
    if (isBad === wrong.has(s.id)) return [];
    const measured = s.values.map((v) => v.measured.map((m) => m.toFixed(3)).join("/")).join(", ");
    return [`sizes: ${s.name} (${s.text}) told ${s.state} at ${measured}`];
  });
}

/** The things that a step alone made must be named as missing. */
function goneFaults({ body }: Judge, shape: ShapeEvidence, gone: readonly string[]): string[] {
  if (shape.finding !== "differs") return [];
  const own = body.surfaces.filter((s) => s.names.length > 0 && s.names.every((n) => gone.includes(n.step)));
  if (!own.length) return [];
  const told = shape.features?.some(
    (f) => f.state !== "extra" && own.some((s) => distance3(s.centre, f.at) < body.size / 2),
  );
  return told ? [] : ["shape: what was left out is not named"];
}

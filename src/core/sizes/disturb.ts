import { footOn } from "@/core/geometry/line";
import { cross3, distance3, dot3, length3, sub3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { stepOf } from "@/core/naming/names";
import type { PartDocument } from "@/core/part/document";
import { Rebuilder } from "@/core/part/rebuild";
import type { Carriers } from "./anchor";
import type { SizedBody } from "./body";
import { carriersOfSolid } from "./carriers";
import { drivingNumbers, type DrivingNumber } from "./numbers";
import { sliceOf } from "./slice";
import { DISTURB_ANGLE, DISTURB_LENGTH, JUMP, MOVED, TOUCHING } from "./tolerance";

/** Where every face goes when one number changes a little. */
export interface Disturbance {
  readonly number: DrivingNumber;
  /** By how much it was changed, mm or radians; below 0 where more could not be built. */
  readonly by: number;
  readonly on: Carriers;
}

/** Whether a face stands elsewhere, or is shaped otherwise, after a number was disturbed. */
export function isMoved(was: Carrier, now: Carrier | undefined): boolean {
  if (!now) return true;
  if (was.kind === "other" && now.kind === "other") return driftOf(was, now).some((by) => Math.abs(by) > MOVED);
  const [a, b] = [was, now].map((c) =>
    Object.values(c)
      .flat()
      .filter((v) => typeof v === "number"),
  );
  return a!.some((v, i) => Math.abs(v - b![i]!) > MOVED);
}

/**
 * Changes each number of a part by a hair and sees where its faces go, in the slice of steps that hang on it; whole
 * rebuilds only where the slice does not show a face.
 * @param body the part as it stands @param faces keys of all its faces
 * @param tell is told how far it is: numbers done, numbers in all @param wanted which numbers; left out: all
 * @returns one for each number; those that cannot be changed either way are left out
 */
export function disturbances(
  kernel: Kernel,
  document: PartDocument,
  body: SizedBody,
  faces: readonly string[],
  tell: (done: number, of: number) => void = () => {},
  wanted: (number: DrivingNumber) => boolean = () => true,
): Disturbance[] {
  const base = body.on;
  const isNear = (on: Carriers, by: number, quantity: "length" | "angle") => {
    const most = JUMP * Math.abs(by) * (quantity === "angle" ? body.size : 1);
    return body.surfaces.every((s) => shiftOf(s.carrier, on(s.keys[0]!), body.size) <= most);
  };
  const numbers = drivingNumbers(document).filter(wanted);
  return numbers.flatMap(({ give, ...number }, i): Disturbance[] => {
    tell(i, numbers.length);
    const h = number.quantity === "length" ? DISTURB_LENGTH : DISTURB_ANGLE;
    for (const by of [h, -h]) {
      const changed = give(number.value + by);
      const near = (on: Carriers | undefined) => (on && isNear(on, by, number.quantity) ? on : undefined);
      const on = near(inSlice(kernel, changed, number.step, base, faces)) ?? near(whole(kernel, changed, faces));
      if (on) return [{ number, by, on }];
    }
    return [];
  });
}

/** How far a carrier moved or grew, mm; without end where it became another kind. */
export function shiftOf(was: Carrier, now: Carrier | undefined, size: number): number {
  if (!now || now.kind !== was.kind) return Infinity;
  if (was.kind === "plane" && now.kind === "plane")
    return Math.abs(now.offset - was.offset) + size * distance3(now.normal, was.normal);
  if (was.kind === "sphere" && now.kind === "sphere")
    return distance3(was.centre, now.centre) + Math.abs(was.radius - now.radius);
  if (was.kind === "other") return Math.max(0, ...driftOf(was, now).map(Math.abs));
  const [p, q] = [axisOf(was), axisOf(now)];
  if (!p || !q) return 0;
  const leans = size * length3(cross3(p.along, q.along));
  if (was.kind === "cone" && now.kind === "cone")
    return distance3(was.tip, now.tip) + size * Math.abs(was.half - now.half) + leans;
  if (was.kind === "torus" && now.kind === "torus")
    return (
      distance3(was.centre, now.centre) + Math.abs(was.major - now.major) + Math.abs(was.minor - now.minor) + leans
    );
  if (was.kind === "elliptic" && now.kind === "elliptic") {
    const [a, b] = [was.halves, now.halves];
    return (
      distance3(footOn(q.at, p), q.at) +
      leans +
      Math.abs(a[0] - b[0]) +
      Math.abs(a[1] - b[1]) +
      size * length3(cross3(was.long, now.long))
    );
  }
  const grown = "radius" in was && "radius" in now ? Math.abs(was.radius - now.radius) : 0;
  return distance3(footOn(q.at, p), q.at) + leans + grown;
}

/** How far each place on a free face went out of the material, and how its rounding grew, mm; along it is no motion. */
export function driftOf(was: Extract<Carrier, { kind: "other" }>, now: Carrier | undefined): number[] {
  const free = now?.kind === "other" ? now : undefined;
  const drift = (was.spots ?? []).map(({ at, out }, i) => {
    const there = free?.spots?.[i];
    return there ? dot3(out, sub3(there.at, at)) : 0;
  });
  return was.rounding === undefined ? drift : [...drift, (free?.rounding ?? was.rounding) - was.rounding];
}

/** Whether a document builds just the faces of a body. */
export function standsAs(kernel: Kernel, document: PartDocument, body: SizedBody): boolean {
  const on = build(kernel, document);
  return !!on && body.surfaces.every((s) => shiftOf(s.carrier, on(s.keys[0]!), body.size) <= TOUCHING);
}

function inSlice(
  kernel: Kernel,
  changed: PartDocument,
  step: string | undefined,
  base: Carriers,
  faces: readonly string[],
): Carriers | undefined {
  if (step === undefined) return undefined;
  const { document, moving } = sliceOf(changed, step);
  if (document.steps.length === changed.steps.length) return undefined;
  const found = build(kernel, document);
  if (!found) return undefined;
  const mayMove = (face: string) => moving.has(stepOf(face));
  if (faces.some((f) => mayMove(f) && !found(f))) return undefined;
  return (face) => (mayMove(face) ? found(face) : base(face));
}

function whole(kernel: Kernel, changed: PartDocument, faces: readonly string[]): Carriers | undefined {
  const found = build(kernel, changed);
  return found && faces.every((f) => found(f)) ? found : undefined;
}

/** The carriers of a part; undefined where some step cannot be built. */
function build(kernel: Kernel, document: PartDocument): Carriers | undefined {
  // what only carriers are read of need not be sound
  const rebuilder = new Rebuilder(kernel, () => true);
  try {
    const built = rebuilder.run(document);
    if (!built.body || built.steps.some((s) => s.refusal)) return undefined;
    return carriersOfSolid(kernel, built.body);
  } catch (e) {
    if (e instanceof KernelFault) return undefined;
    throw e;
  } finally {
    rebuilder.close();
  }
}

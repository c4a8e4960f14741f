import { z } from "zod";
import { angleKind } from "./angle";
import { arcKind } from "./arc";
import { chamferKind } from "./chamfer";
import { circleKind } from "./circle";
import { coneKind } from "./cone";
import { countKind } from "./count";
import { counterboreKind } from "./counterbore";
import { countersinkKind } from "./countersink";
import { depthKind } from "./depth";
import { diameterKind } from "./diameter";
import { distanceKind } from "./distance";
import { ellipseKind } from "./ellipse";
import type { SizeKind } from "./kind";
import { pitchKind } from "./pitch";
import { radiusKind } from "./radius";
import { slotKind } from "./slot";
import { threadKind } from "./thread";
import { turnKind } from "./turn";
import { wallKind } from "./wall";

/** Every kind of size, one line each. */
export const SIZE_KINDS = {
  distance: distanceKind,
  diameter: diameterKind,
  radius: radiusKind,
  angle: angleKind,
  turn: turnKind,
  cone: coneKind,
  chamfer: chamferKind,
  depth: depthKind,
  counterbore: counterboreKind,
  countersink: countersinkKind,
  wall: wallKind,
  circle: circleKind,
  pitch: pitchKind,
  slot: slotKind,
  ellipse: ellipseKind,
  count: countKind,
  thread: threadKind,
  arc: arcKind,
};
type Kinds = typeof SIZE_KINDS;
export type SizeKindName = keyof Kinds;

/** A measurement that a drawing can print, held by faces of the reference. */
export type Size = { [K in SizeKindName]: z.infer<Kinds[K]["schema"]> }[SizeKindName];
/** Of one kind. */
export type SizeOf<K extends SizeKindName> = Extract<Size, { kind: K }>;

export const SizeSchema = z.discriminatedUnion(
  "kind",
  Object.values(SIZE_KINDS).map((k) => k.schema) as never,
) as unknown as z.ZodType<Size>;

export const sizeKind = (size: Size): SizeKind<Size> => SIZE_KINDS[size.kind] as unknown as SizeKind<Size>;

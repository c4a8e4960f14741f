import { edgeRef, faceRef, vertexRef } from "@/core/part/reference/make";
import type { AxisRef, EdgeRef, FaceRef, PlaneRef, PointRef } from "@/core/naming/reference";
import type { Model } from "@/core/kernel/model";
import type { Thing } from "@/core/measure/measure";
import { titleOf, type Step } from "@/core/part/steps/kinds";
import { planeText } from "@/core/part/steps/sketch/schema";
import { wordsFor } from "@/core/sketch/words";
import type { LengthUnit } from "@/core/units/quantity";

type Options<R> = readonly (readonly [string, R])[];

/** A step as the list of Steps shows it: "3 · on a face". */
export function stepCalled(steps: readonly Step[], s: Step): string {
  const what = s.kind === "sketch" ? `on ${planeText(s.sketch.plane)}` : titleOf(s);
  return `${steps.indexOf(s) + 1} · ${s.name ?? what}`;
}

/** Planes that have a name: those of space, and datum steps before. */
export const planeOptions = (before: readonly Step[]): Options<PlaneRef> => [
  ...(["front", "top", "right"] as const).map((d) => [d, { datum: d }] as const),
  ...before.flatMap((s) => (s.kind === "plane" ? [[stepCalled(before, s), { datum: s.id }] as const] : [])),
];
export const axisOptions = (before: readonly Step[], units: LengthUnit, sketch?: string): Options<AxisRef> => [
  ...(["x", "y", "z"] as const).map((a) => [`${a} axis`, { axis: a }] as const),
  ...before.flatMap((s) => (s.kind === "axis" ? [[stepCalled(before, s), { axis: s.id }] as const] : [])),
  // of a sketch: its centre lines and its own axes; every line for the one at work
  ...before.flatMap((step) =>
    step.kind !== "sketch"
      ? []
      : step.sketch.curves.flatMap((c) =>
          c.kind === "line" && (c.construction === "centre-line" || step.id === sketch)
            ? [
                [
                  `${wordsFor(step.sketch, units)(c.id)}, of ${stepCalled(before, step)}`,
                  { sketch: step.id, curve: c.id },
                ] as const,
              ]
            : [],
        ),
  ),
  ...(sketch
    ? (["x-axis", "y-axis"] as const).map((c) => [`${c[0]} of the sketch`, { sketch, curve: c }] as const)
    : []),
];
export const pointOptions = (before: readonly Step[]): Options<PointRef> => [
  ["origin", { point: "origin" }],
  ...before.flatMap((s) => (s.kind === "point" ? [[stepCalled(before, s), { point: s.id }] as const] : [])),
];

/** What was clicked as a reference of the kind wanted. */
export const asPlane = (m: Model, t: Thing): FaceRef | undefined =>
  t.kind === "face" && m.faces[t.index]!.carrier.kind === "plane" ? faceRef(m, t.index) : undefined;
export const asFace = (m: Model, t: Thing): FaceRef | undefined =>
  t.kind === "face" ? faceRef(m, t.index) : undefined;
export const asEdge = (m: Model, t: Thing): EdgeRef | undefined =>
  t.kind === "edge" ? edgeRef(m, t.index) : undefined;
export const asAxis = (m: Model, t: Thing): FaceRef | EdgeRef | undefined =>
  t.kind === "face" ? faceRef(m, t.index) : t.kind === "edge" ? edgeRef(m, t.index) : undefined;
export const asPoint = (m: Model, t: Thing): PointRef | undefined =>
  t.kind === "vertex" ? vertexRef(m, t.index) : t.kind === "edge" ? edgeRef(m, t.index) : undefined;

/** The first id of a kind that is free: e1, e2 … */
export function freeId(prefix: string, taken: readonly { id: string }[]): string {
  let n = 1;
  while (taken.some((t) => t.id === `${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}

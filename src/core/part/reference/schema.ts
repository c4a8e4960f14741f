import { z } from "zod";

const Key = z.string().min(1).max(300);
const At = z.array(z.tuple([z.number(), z.number(), z.number()])).max(12);
const Beside = z.array(Key).max(60);

/** A face by how it came to be. What follows tells apart what splits, and draws what was meant when it is lost. */
export const FaceRefSchema = z.strictObject({
  face: Key,
  /** Names of the faces around it when it was picked. */
  beside: Beside.optional(),
  /** Its middle then, mm. */
  at: At.optional(),
  /** What carried it: plane, cylinder, cone, sphere, torus. */
  kind: z.string().max(40).optional(),
});
/** An edge by the two faces that meet there, written `FACE|FACE`; `beside` are the faces at its ends. */
export const EdgeRefSchema = z.strictObject({
  edge: z.string().min(3).max(601),
  beside: Beside.optional(),
  at: At.optional(),
  kind: z.string().max(40).optional(),
});
/** A vertex by the faces that meet there. */
export const VertexRefSchema = z.strictObject({ vertex: z.array(Key).min(1).max(12), at: At.optional() });

/** A plane: one of the datum planes, a datum step's, or a flat face. */
export const PlaneRefSchema = z.union([z.strictObject({ datum: Key }), FaceRefSchema]);
/** An axis: x, y or z, a datum step's, a straight or round edge, a round face, or a straight curve of a sketch. */
export const AxisRefSchema = z.union([
  z.strictObject({ axis: Key }),
  z.strictObject({ sketch: Key, curve: Key }),
  EdgeRefSchema,
  FaceRefSchema,
]);
/** A point: a datum step's, a vertex, the middle of a round edge, or a point of a sketch. */
export const PointRefSchema = z.union([
  z.strictObject({ point: Key }),
  z.strictObject({ sketch: Key, point: Key }),
  VertexRefSchema,
  EdgeRefSchema,
]);

export type FaceRef = z.infer<typeof FaceRefSchema>;
export type EdgeRef = z.infer<typeof EdgeRefSchema>;
export type VertexRef = z.infer<typeof VertexRefSchema>;
export type PlaneRef = z.infer<typeof PlaneRefSchema>;
export type AxisRef = z.infer<typeof AxisRefSchema>;
export type PointRef = z.infer<typeof PointRefSchema>;
export type AnyRef = PlaneRef | AxisRef | PointRef;

/** The step that made a named face. */
export const stepOf = (key: string): string => key.split("/")[0]!;

/** Ids of the steps a reference stands on. */
export function stepsOf(ref: AnyRef): string[] {
  if ("face" in ref) return [stepOf(ref.face)];
  if ("edge" in ref) return ref.edge.split("|").map(stepOf);
  if ("vertex" in ref) return ref.vertex.map(stepOf);
  if ("sketch" in ref) return [ref.sketch];
  const id = "datum" in ref ? ref.datum : "axis" in ref ? ref.axis : ref.point;
  return ["front", "top", "right", "x", "y", "z", "origin"].includes(id) ? [] : [id];
}

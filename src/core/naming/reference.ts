import { z } from "zod";
import { means, type Field, type Meaning } from "./field";
import { facesOfPicture, parseEdge, renamedEdge, stepOf } from "./names";
import { plainText } from "@/core/units/text";

const Key = plainText().min(1).max(300);
const At = z.array(z.tuple([z.number(), z.number(), z.number()])).max(12);
const Beside = z.array(Key).max(60);

/** A face by how it came to be. What follows tells apart what splits, and draws what was meant when it is lost. */
export const FaceRefSchema = means(
  z.strictObject({
    face: Key,
    /** Names of the faces around it when it was picked. */
    beside: Beside.optional(),
    /** Its middle then, mm. */
    at: At.optional(),
    /** What carried it: plane, cylinder, cone, sphere, torus. */
    kind: plainText().max(40).optional(),
  }),
  "face",
);
/** An edge by the two faces that meet there, written `FACE|FACE`; `beside` are the faces at its ends. */
export const EdgeRefSchema = means(
  z.strictObject({
    edge: plainText().min(3).max(601),
    beside: Beside.optional(),
    at: At.optional(),
    kind: plainText().max(40).optional(),
  }),
  "edge",
);
/** A vertex by the faces that meet there. */
const VertexRefSchema = means(z.strictObject({ vertex: z.array(Key).min(1).max(12), at: At.optional() }), "vertex");

/** A plane: one of the datum planes, a datum step's, or a flat face. */
export const PlaneRefSchema = means(z.union([z.strictObject({ datum: Key }), FaceRefSchema]), "plane");
/** An axis: x, y or z, a datum step's, a straight or round edge, a round face, or a straight curve of a sketch. */
export const AxisRefSchema = means(
  z.union([z.strictObject({ axis: Key }), z.strictObject({ sketch: Key, curve: Key }), EdgeRefSchema, FaceRefSchema]),
  "axis",
);
/** A point: a datum step's, a vertex, the middle of a round edge, or a point of a sketch. */
export const PointRefSchema = means(
  z.union([
    z.strictObject({ point: Key }),
    z.strictObject({ sketch: Key, point: Key }),
    VertexRefSchema,
    EdgeRefSchema,
  ]),
  "point",
);

export type FaceRef = z.infer<typeof FaceRefSchema>;
export type EdgeRef = z.infer<typeof EdgeRefSchema>;
export type VertexRef = z.infer<typeof VertexRefSchema>;
export type PlaneRef = z.infer<typeof PlaneRefSchema>;
export type AxisRef = z.infer<typeof AxisRefSchema>;
export type PointRef = z.infer<typeof PointRefSchema>;
export type AnyRef = PlaneRef | AxisRef | PointRef;

/** Ids of the steps a reference stands on. */
function stepsOf(ref: AnyRef): string[] {
  if ("face" in ref) return [stepOf(ref.face)];
  if ("edge" in ref) return parseEdge(ref.edge).map(stepOf);
  if ("vertex" in ref) return ref.vertex.map(stepOf);
  if ("sketch" in ref) return [ref.sketch];
  const id = "datum" in ref ? ref.datum : "axis" in ref ? ref.axis : ref.point;
  return ["front", "top", "right", "x", "y", "z", "origin"].includes(id) ? [] : [id];
}

/**
 * A reference with the faces it names called otherwise. What only tells where the thing stood is left out: of an image
 * it says nothing.
 */
export function renamedRef<R extends AnyRef>(ref: R, rename: (face: string) => string): R {
  const { at: _, ...rest } = ref as { at?: unknown; beside?: string[] };
  const beside = rest.beside && { beside: rest.beside.map(rename) };
  if ("face" in ref) return { ...rest, ...beside, face: rename(ref.face) } as unknown as R;
  if ("edge" in ref) return { ...rest, ...beside, edge: renamedEdge(ref.edge, rename) } as unknown as R;
  if ("vertex" in ref) return { ...rest, vertex: ref.vertex.map(rename) } as unknown as R;
  return ref;
}

const POINTING: ReadonlySet<Meaning> = new Set<Meaning>(["face", "edge", "vertex", "plane", "axis", "point"]);
/** Whether a field points at something of the part. */
export const isReference = (f: Field): f is Field & { readonly value: AnyRef } => POINTING.has(f.meaning);

/** Ids of the steps that a field stands on. */
export function stepsOfField(f: Field): string[] {
  if (isReference(f)) return stepsOf(f.value);
  if (f.meaning === "sketch" || f.meaning === "step") return [f.value as string];
  return f.meaning === "picture" ? facesOfPicture(f.value as string).map(stepOf) : [];
}

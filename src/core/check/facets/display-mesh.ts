import { meshOf, type Mesh } from "@/core/kernel/mesh";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { FACET, LEAST_FACET } from "../tolerance";

/** Largest turn between neighbouring facets, radians: where there are very many faces each is small. */
const TURN = 0.5;
const TURN_OF_MANY = 0.8;
const MANY_FACES = 600;

/** Facets fine enough for a picture of a body of this size. */
export const displayMesh = (kernel: Kernel, solid: Solid, size: number): Mesh => {
  const turn = solid.names.length > MANY_FACES ? TURN_OF_MANY : TURN;
  return meshOf(kernel, solid, Math.max(size * FACET, LEAST_FACET), turn);
};

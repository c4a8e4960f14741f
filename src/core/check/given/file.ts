import { readStl } from "@/core/formats/stl-read";
import { readThreeMf } from "@/core/formats/three-mf-read";
import type { Kernel } from "@/core/kernel/opencascade";
import { readSoundStep } from "@/core/part/step-file";
import { facetBody } from "@/core/measure/facet-body";
import { bytesOfBase64 } from "@/core/formats/base64";
import { done, type Outcome } from "@/core/units/refusal";
import { measureSolid } from "./measured";
import type { Measured } from "./measured";
import type { PartFile } from "./part-file";

/**
 * Reads and measures a part that came as a file. Every way a file can be wrong comes back as a sentence.
 * @returns the part without steps; the caller releases its solid
 */
export function measureFile(kernel: Kernel, file: PartFile): Outcome<Measured> {
  if (file.kind !== "step") return measureMesh(file);
  const solid = readSoundStep(kernel, file.text);
  return solid.ok ? done(measureSolid(kernel, solid.value)) : solid;
}

const MM_PER_INCH = 25.4;

/** A mesh file: a closed body of facets, with what its polyhedron measures. */
function measureMesh(file: Exclude<PartFile, { kind: "step" }>): Outcome<Measured> {
  const bytes = bytesOfBase64(file.data);
  const read = file.kind === "stl" ? readStl(bytes, file.unit === "in" ? MM_PER_INCH : 1) : readThreeMf(bytes);
  const body = read.ok ? facetBody(read.value) : read;
  if (!body.ok) return body;
  return done({ solid: undefined, properties: body.value.properties, faces: [], facets: body.value });
}

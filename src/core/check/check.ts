import { FACET, LEAST_FACET } from "./tolerance";
import { meshOf, type Mesh } from "@/core/kernel/mesh";
import { KERNEL_VERSION, type Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import { distance3 } from "@/core/geometry/vector";
import type { Solid } from "@/core/kernel/solid";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Exercise } from "./exercise";
import { surfacesOf } from "./surfaces";
import { CHECKERS } from "./kinds/checkers";
import type { CheckContext, Measured } from "./kinds/context";
import { CHECK_NAMES, type Evidence } from "./kinds/kinds";
import type { ShapePicture } from "./kinds/shape/check";

/** What a check found; plain data, never changed once written. */
export interface Report {
  readonly version: 1;
  readonly kernel: string;
  readonly evidence: readonly Evidence[];
}

/** Meshes for the Marking desk, all in the reference's coordinates. */
export interface ReportPicture {
  readonly reference: Mesh;
  readonly submission?: Mesh;
  readonly missing?: Mesh;
  readonly extra?: Mesh;
}

/** Builds a document and measures what came out. The caller releases `solid`. */
export function measurePart(kernel: Kernel, document: PartDocument): Measured {
  const built = rebuild(kernel, document);
  const solid = built.body;
  if (!solid) return { document, built, solid, properties: undefined, faces: [] };
  const properties = propertiesOf(kernel, solid);
  const faces = surfacesOf(kernel, solid, distance3(properties.box.min, properties.box.max));
  return { document, built, solid, properties, faces };
}

/** Facets fine enough for a picture of a body of this size. */
export const displayMesh = (kernel: Kernel, solid: Solid, size: number): Mesh =>
  meshOf(kernel, solid, Math.max(size * FACET, LEAST_FACET), 0.5);

/**
 * Checks a submitted part against an exercise's reference.
 * @param progress is told what is being done, in a few words
 * @returns the report and its pictures, or a refusal when the exercise's own reference cannot be built
 */
export function checkSubmission(
  kernel: Kernel,
  exercise: Exercise,
  submitted: PartDocument,
  progress: (what: string) => void = () => {},
): Outcome<{ report: Report; picture: ReportPicture }> {
  progress("building the reference");
  const reference = measurePart(kernel, exercise.reference);
  if (!reference.solid || !reference.properties)
    return refuse("bad-reference", "The exercise's reference part cannot be built.");
  progress("building the submission");
  const submission = measurePart(kernel, submitted);
  const context: CheckContext = {
    kernel,
    exercise,
    reference: { ...reference, solid: reference.solid, properties: reference.properties },
    submission,
  };
  progress("comparing shapes");
  const found = CHECK_NAMES.map((name) => CHECKERS[name](context));
  const report: Report = { version: 1, kernel: KERNEL_VERSION, evidence: found.map((f) => f.evidence) };
  const picture: ShapePicture = found.find((f) => f.picture)?.picture ?? {};
  progress("drawing the difference");
  const pictures = pictureOf(kernel, context, picture);
  kernel.release(
    reference.solid.shape,
    submission.solid?.shape,
    picture.placed?.shape,
    picture.missing?.shape,
    picture.extra?.shape,
  );
  return done({ report, picture: pictures });
}

function pictureOf(kernel: Kernel, { reference, submission }: CheckContext, picture: ShapePicture): ReportPicture {
  const size = distance3(reference.properties.box.min, reference.properties.box.max);
  const shown = picture.placed ?? submission.solid;
  const own = submission.properties ? distance3(submission.properties.box.min, submission.properties.box.max) : size;
  const draw = (s: Solid | undefined, at: number) => (s && s.names.length ? displayMesh(kernel, s, at) : undefined);
  const submissionMesh = draw(shown, own),
    missing = draw(picture.missing, size),
    extra = draw(picture.extra, size);
  return {
    reference: displayMesh(kernel, reference.solid, size),
    ...(submissionMesh && { submission: submissionMesh }),
    ...(missing && { missing }),
    ...(extra && { extra }),
  };
}

import { FACET, LEAST_FACET } from "./tolerance";
import { copied } from "@/core/kernel/boolean";
import { meshOf, type Mesh } from "@/core/kernel/mesh";
import { KERNEL_VERSION, type Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import { distance3 } from "@/core/geometry/vector";
import type { Solid } from "@/core/kernel/solid";
import { surfacesOf } from "@/core/measure/surfaces";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { titleOf } from "@/core/part/steps/kinds";
import { sizesOf } from "@/core/sizes/sizes";
import type { Size } from "@/core/sizes/size";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Exercise } from "./exercise";
import { compareParts } from "./comparison";
import { namedBody } from "./findings";
import { CHECKERS } from "./kinds/checkers";
import type { CheckContext, Measured } from "./kinds/context";
import { CHECK_NAMES, type CheckName, type Evidence } from "./kinds/kinds";
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

type Tell = (what: string) => void;

/** Asked for whether or not the rubric has a line of them: the Marking desk shows them all. */
const ALWAYS: ReadonlySet<CheckName> = new Set(["sketches", "solid", "volume", "mass", "shape"]);

/** Builds a document and measures what came out. The caller releases `solid`. @param tell is told of each step */
export function measurePart(
  kernel: Kernel,
  document: PartDocument,
  tell: Tell = () => {},
): Measured & Required<Pick<Measured, "built">> {
  const built = rebuild(kernel, document, document.steps.length, (step, at) =>
    tell(`building step ${at + 1} of ${document.steps.length} (${titleOf(step)})`),
  );
  tell("measuring");
  const solid = built.body;
  if (!solid) return { document, built, solid, properties: undefined, faces: [] };
  return { document, built, ...measureSolid(kernel, solid) };
}

/** Largest turn between neighbouring facets, radians: where there are very many faces each is small. */
const TURN = 0.5;
const TURN_OF_MANY = 0.8;
const MANY_FACES = 600;

/** Facets fine enough for a picture of a body of this size. */
export const displayMesh = (kernel: Kernel, solid: Solid, size: number): Mesh => {
  const turn = solid.names.length > MANY_FACES ? TURN_OF_MANY : TURN;
  return meshOf(kernel, solid, Math.max(size * FACET, LEAST_FACET), turn);
};

/**
 * Checks a submitted part against an exercise's reference.
 * @param progress is told what is being done, in a few words
 * @param references keeps references between checks; left out, this one is built for this check only
 * @returns the report and its pictures, or a refusal when the exercise's own reference cannot be built
 */
export const checkSubmission = (
  kernel: Kernel,
  exercise: Exercise,
  submitted: PartDocument,
  progress: Tell = () => {},
  references: References = new References(kernel, 0),
): Outcome<Checked> =>
  checkMeasured(kernel, exercise, () => done(measurePart(kernel, submitted, progress)), progress, references);

interface Checked {
  readonly report: Report;
  readonly picture: ReportPicture;
}

/**
 * The same for a part however it came.
 * @param measure builds and measures it, once the reference stands, or says why not; its solid is released here
 */
export function checkMeasured(
  kernel: Kernel,
  exercise: Exercise,
  measure: () => Outcome<Measured>,
  progress: Tell = () => {},
  references: References = new References(kernel, 0),
): Outcome<Checked> {
  const reference = references.take(exercise.reference, (what) => progress(`the reference: ${what}`));
  if (!reference) return refuse("bad-reference", "The exercise's reference part cannot be built.");
  const measured = measure();
  if (!measured.ok) {
    kernel.release(reference.measured.solid.shape);
    return measured;
  }
  const submission = measured.value;
  progress("comparing shapes");
  const asked = new Set(exercise.rubric.map((line) => line.check));
  const context: CheckContext = {
    kernel,
    exercise,
    reference: reference.measured,
    submission,
    comparison: compareParts(kernel, reference.measured, submission),
    named: namedBody(reference.measured, { unit: exercise.units }),
    sizes: asked.has("sizes") ? (exercise.sizes ?? references.sizes(exercise.reference, progress)) : [],
  };
  const found = CHECK_NAMES.filter((name) => ALWAYS.has(name) || asked.has(name)).map((name) =>
    CHECKERS[name](context),
  );
  const report: Report = { version: 1, kernel: KERNEL_VERSION, evidence: found.map((f) => f.evidence) };
  const picture: ShapePicture = found.find((f) => f.picture)?.picture ?? {};
  const isSame = context.comparison.finding === "same";
  progress("drawing the difference");
  const pictures = pictureOf(kernel, context, picture, reference.mesh, isSame);
  kernel.release(
    reference.measured.solid.shape,
    submission.solid?.shape,
    picture.placed?.shape,
    picture.missing?.shape,
    picture.extra?.shape,
  );
  return done({ report, picture: pictures });
}

/** Describes a body that is there already. */
export function measureSolid(kernel: Kernel, solid: Solid): Measured & { readonly properties: Properties } {
  const properties = propertiesOf(kernel, solid);
  return { solid, properties, faces: surfacesOf(kernel, solid, distance3(properties.box.min, properties.box.max)) };
}

function pictureOf(
  kernel: Kernel,
  { reference, submission }: CheckContext,
  picture: ShapePicture,
  referenceMesh: Mesh,
  isSame: boolean,
): ReportPicture {
  const size = distance3(reference.properties.box.min, reference.properties.box.max);
  const shown = picture.placed ?? submission.solid;
  const own = submission.properties ? distance3(submission.properties.box.min, submission.properties.box.max) : size;
  const draw = (s: Solid | undefined, at: number) => (s && s.names.length ? displayMesh(kernel, s, at) : undefined);
  // one that is the same is not drawn twice: facets take as long as all the rest
  const submissionMesh = isSame ? referenceMesh : draw(shown, own),
    missing = draw(picture.missing, size),
    extra = draw(picture.extra, size);
  return {
    reference: referenceMesh,
    ...(submissionMesh && { submission: submissionMesh }),
    ...(missing && { missing }),
    ...(extra && { extra }),
  };
}

type Whole = CheckContext["reference"];

/**
 * References built and measured, kept between checks: a class of thirty costs thirty submissions, not sixty builds.
 * What is handed out is a copy, because booleans now and then spoil what they work on.
 */
export class References {
  private readonly kept = new Map<string, { readonly measured: Whole; readonly mesh: Mesh }>();

  private readonly proposed = new Map<string, readonly Size[]>();

  /** @param most so many are kept, those used last */
  constructor(
    private readonly kernel: Kernel,
    private readonly most = 6,
  ) {}

  /** The sizes proposed for a reference, found once. */
  sizes(document: PartDocument, tell: Tell): readonly Size[] {
    const key = JSON.stringify(document);
    const known = this.proposed.get(key);
    if (known) return known;
    const r = sizesOf(this.kernel, document, (done, of) =>
      tell(`the reference: following its numbers, ${done} of ${of}`),
    );
    const sizes = r.ok ? r.value.sizes : [];
    this.proposed.set(key, sizes);
    const [oldest] = this.proposed.keys();
    if (this.proposed.size > this.most + 1 && oldest !== undefined) this.proposed.delete(oldest);
    return sizes;
  }

  /** @returns the reference, whose solid the caller releases; undefined where it cannot be built */
  take(document: PartDocument, tell: Tell): { readonly measured: Whole; readonly mesh: Mesh } | undefined {
    const key = JSON.stringify(document);
    let found = this.kept.get(key);
    if (!found) {
      const { solid, properties, ...rest } = measurePart(this.kernel, document, tell);
      if (!solid || !properties) return undefined;
      const size = distance3(properties.box.min, properties.box.max);
      found = { measured: { ...rest, solid, properties }, mesh: displayMesh(this.kernel, solid, size) };
    }
    // also where nothing is kept: the last digits of a boolean hang on which of the two it is given
    const solid = copied(this.kernel, found.measured.solid);
    // used last stands last
    this.kept.delete(key);
    this.kept.set(key, found);
    for (const [old, { measured }] of this.kept) {
      if (this.kept.size <= this.most) break;
      this.kept.delete(old);
      this.kernel.release(measured.solid.shape);
    }
    return { ...found, measured: { ...found.measured, solid } };
  }
}

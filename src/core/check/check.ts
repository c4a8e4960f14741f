import { distance3 } from "@/core/geometry/vector";
import type { Mesh } from "@/core/kernel/mesh";
import { comparedPictures, type LinePictures } from "@/core/sheet/picture";
import { KERNEL_VERSION, type Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import type { PartDocument } from "@/core/part/document";
import { generalFor } from "@/core/sizes/general";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { compareParts, sizeOfPart } from "./faces/comparison";
import { displayMesh } from "./facets/display-mesh";
import { generalOf, letteringOf } from "@/core/sheet/subject";
import type { Exercise } from "./exercise/exercise";
import { calledAsPrinted } from "./findings/findings";
import { compareFacets } from "./facets/facets-comparison";
import { facetsMesh } from "./facets/facets-mesh";
import { CHECKERS } from "./kinds/checkers";
import type { CheckContext, Maker } from "./kinds/context";
import { wholeOf, type Measured } from "./given/measured";
import { CHECK_NAMES, type CheckName, type Evidence } from "./kinds/kinds";
import type { ShapePicture } from "./kinds/shape/check";
import { measurePart, withBodiesJoined, type Tell } from "./given/measured";
import type { Answers } from "./exercise/question";
import { wantedFigures } from "./exercise/questions";
import { References } from "./references";

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

/**
 * A submission as line drawings; null where it is the reference and looks like it, undefined where it cannot be drawn.
 */
type Lines = LinePictures | null | undefined;

/** What a check may be given beside the part. */
export interface CheckOptions {
  /** Told what is being done, in a few words. */
  readonly progress?: Tell;
  /** Draws line drawings of the part as well. */
  readonly asLines?: boolean;
  /** Keeps references between checks; left out, this one is built for this check only. */
  readonly references?: References;
  /** The figures that the student typed. */
  readonly answers?: Answers;
  readonly by?: Maker;
}

/** Asked for whether or not the rubric has a line of them: the Marking desk shows them all. */
const ALWAYS: ReadonlySet<CheckName> = new Set(["sketches", "solid", "volume", "mass", "shape", "figures"]);

/**
 * Checks a submitted part against an exercise's reference.
 * @returns the report and its pictures, or a refusal when the exercise's own reference cannot be built
 */
export const checkSubmission = (
  kernel: Kernel,
  exercise: Exercise,
  submitted: PartDocument,
  options: CheckOptions = {},
): Outcome<Checked> =>
  checkMeasured(kernel, exercise, () => done(measurePart(kernel, submitted, options.progress)), options);

interface Checked {
  readonly report: Report;
  readonly picture: ReportPicture;
  /** Where they were asked for. */
  readonly lines?: Lines;
}

/**
 * The same for a part however it came.
 * @param measure builds and measures it, once the reference stands, or says why not; its solid is released here
 */
export function checkMeasured(
  kernel: Kernel,
  exercise: Exercise,
  measure: () => Outcome<Measured>,
  options: CheckOptions = {},
): Outcome<Checked> {
  const { progress = () => {}, asLines = false } = options;
  const asked = new Set(exercise.rubric.map((line) => line.check));
  return inContext(kernel, exercise, measure, { ...options, bySizes: asked.has("sizes") }, (context, mesh) => {
    const found = CHECK_NAMES.filter((name) => ALWAYS.has(name) || asked.has(name)).map((name) =>
      CHECKERS[name](context),
    );
    const report: Report = { version: 1, kernel: KERNEL_VERSION, evidence: found.map((f) => f.evidence) };
    const picture: ShapePicture = found.find((f) => f.picture)?.picture ?? {};
    progress("drawing the difference");
    const pictures = pictureOf(kernel, context, picture, mesh);
    const lines = asLines ? linesOf(kernel, context, picture, pictures) : undefined;
    kernel.release(picture.placed?.shape, picture.missing?.shape, picture.extra?.shape);
    return { report, picture: pictures, lines };
  });
}

/**
 * A part measured, placed and compared, for whoever asks more of it than a report.
 * @param use what is asked; what the context holds is released after it
 */
export function inContext<T>(
  kernel: Kernel,
  exercise: Exercise,
  measure: () => Outcome<Measured>,
  {
    progress = () => {},
    references = new References(kernel, 0),
    answers = {},
    by = { initials: "" },
    bySizes,
  }: CheckOptions & { readonly bySizes: boolean },
  use: (context: CheckContext, mesh: Mesh) => T,
): Outcome<T> {
  const reference = references.take(exercise.reference, exercise.units, (what) => progress(`the reference: ${what}`));
  if (!reference) return refuse("bad-reference", "The exercise's reference part cannot be built.");
  const release = (submission?: Measured) =>
    kernel.release(reference.measured.solid.shape, submission?.solid?.shape, submission?.joined?.solid.shape);
  const measured = measure();
  if (!measured.ok) {
    release();
    return measured;
  }
  // a reference of several bodies asks for them as they are
  const isOne = reference.measured.properties.bodies === 1;
  const submission = isOne ? withBodiesJoined(kernel, measured.value) : measured.value;
  progress("comparing shapes");
  const sizes = bySizes && !submission.facets ? (exercise.sizes ?? references.sizes(exercise.reference, progress)) : [];
  const wanted = exercise.wanted ? done(exercise.wanted) : wantedFigures(kernel, exercise);
  if (!wanted.ok) {
    release(submission);
    return wanted;
  }
  const context: CheckContext = {
    kernel,
    exercise,
    reference: reference.measured,
    submission,
    comparison: compared(kernel, exercise, reference.measured, submission),
    named: calledAsPrinted(reference.named, exercise.sizes ?? sizes, letteringOf(exercise)),
    sizes,
    answers,
    wanted: wanted.value,
    by,
  };
  const value = use(context, reference.mesh);
  release(submission);
  return done(value);
}

/** Places a part on the reference and says which face is which, or how far its facets lie from it. */
function compared(kernel: Kernel, exercise: Exercise, reference: CheckContext["reference"], submission: Measured) {
  if (!submission.facets) return compareParts(kernel, reference, submission);
  const size = sizeOfPart(reference);
  return compareFacets(kernel, reference, submission.facets, generalFor("length", size, generalOf(exercise), size));
}

function linesOf(
  kernel: Kernel,
  { exercise, submission, comparison }: CheckContext,
  picture: ShapePicture,
  { missing, extra }: ReportPicture,
): Lines {
  if (comparison.finding === "same" && !submission.facets) return null;
  const shown = picture.placed ?? wholeOf(submission).solid;
  return shown && comparedPictures(kernel, shown, exercise.title, { missing, extra });
}

function pictureOf(
  kernel: Kernel,
  { reference, submission, comparison }: CheckContext,
  picture: ShapePicture,
  referenceMesh: Mesh,
): ReportPicture {
  const size = distance3(reference.properties.box.min, reference.properties.box.max);
  const shown = picture.placed ?? wholeOf(submission).solid;
  const own = submission.properties ? distance3(submission.properties.box.min, submission.properties.box.max) : size;
  const draw = (s: Solid | undefined, at: number) => (s && s.names.length ? displayMesh(kernel, s, at) : undefined);
  // one that is the same is not drawn twice: facets take as long as all the rest
  const isSame = comparison.finding === "same" && !submission.facets;
  const ownMesh = () => (submission.facets ? facetsMesh(submission.facets, comparison.motion) : draw(shown, own));
  const submissionMesh = isSame ? referenceMesh : ownMesh(),
    missing = draw(picture.missing, size),
    extra = draw(picture.extra, size);
  return {
    reference: referenceMesh,
    ...(submissionMesh && { submission: submissionMesh }),
    ...(missing && { missing }),
    ...(extra && { extra }),
  };
}

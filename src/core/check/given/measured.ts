import { distance3 } from "@/core/geometry/vector";
import { combine } from "@/core/kernel/boolean";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { propertiesOf, type Properties } from "@/core/kernel/properties";
import type { Solid } from "@/core/kernel/solid";
import { piecesOf } from "@/core/kernel/trim";
import type { FacetBody } from "@/core/measure/facet-body";
import { surfacesOf, type Surface } from "@/core/measure/surfaces";
import type { PartDocument } from "@/core/part/document";
import { rebuild, type BuiltPart } from "@/core/part/rebuild";
import { titleOf } from "@/core/part/steps/kinds";

/** A part built and measured. */
export interface Measured {
  /** None of a part that came as a file: there are no steps to look at. */
  readonly document?: PartDocument | undefined;
  readonly built?: BuiltPart | undefined;
  readonly solid: Solid | undefined;
  readonly properties: Properties | undefined;
  readonly faces: readonly Surface[];
  /** Of several bodies: what they make up together, as shapes are compared. Those that touch are one there. */
  readonly joined?: { readonly solid: Solid; readonly faces: readonly Surface[] } | undefined;
  /** Of a part that came as a mesh, in place of a solid. */
  readonly facets?: FacetBody | undefined;
}

/** A part as its shape is compared: its bodies as one. */
export const wholeOf = (m: Measured): Pick<Measured, "solid" | "faces"> => m.joined ?? m;

/** A reference: it has a body. */
export type MeasuredReference = Measured & { readonly solid: Solid; readonly properties: Properties };

/** Told of what is being done, in a few words. */
export type Tell = (what: string) => void;

/** Of somebody who handed in figures alone. */
export const NO_PART: Measured = { solid: undefined, properties: undefined, faces: [] };

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

/**
 * A part of several bodies with what they make up together: whether they were joined is asked for by itself. Where
 * they cannot be joined they stay as they are.
 */
export function withBodiesJoined(kernel: Kernel, part: Measured): Measured {
  const { solid, properties } = part;
  if (!solid || !properties || properties.bodies < 2 || properties.bodies > MOST_JOINED) return part;
  const pieces = piecesOf(kernel, solid);
  try {
    const [first, ...rest] = pieces as [Solid, ...Solid[]];
    const joined = combine(kernel, "fuse", first, rest);
    return { ...part, joined: { solid: joined, faces: measureSolid(kernel, joined).faces } };
  } catch (e) {
    if (e instanceof KernelFault) return part;
    throw e;
  } finally {
    kernel.release(...pieces.map((p) => p.shape));
  }
}
/** So many bodies are joined at most: each more takes a boolean. */
const MOST_JOINED = 40;

/** Describes a body that is there already. */
export function measureSolid(kernel: Kernel, solid: Solid): Measured & { readonly properties: Properties } {
  const properties = propertiesOf(kernel, solid);
  return { solid, properties, faces: surfacesOf(kernel, solid, distance3(properties.box.min, properties.box.max)) };
}

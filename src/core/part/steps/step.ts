import { COINCIDENT } from "@/core/geometry/tolerance";
import type { Frame } from "@/core/geometry/frame";
import type { Line } from "@/core/geometry/line";
import type { Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import type { Topology } from "@/core/kernel/topology";
import type { Regions } from "@/core/sketch/regions";
import type { Given, Sketch } from "@/core/sketch/sketch";
import type { Diagnosis } from "@/core/sketch/solve";
import { readQuantity, type LengthUnit, type Names } from "@/core/units/quantity";
import { refuse, type Outcome, type Refusal } from "@/core/units/refusal";
import type { AnyRef } from "@/core/naming/reference";
import type { Operation, Size } from "./fields";

/** A sketch step after solving. */
export interface BuiltSketch {
  readonly frame: Frame;
  /** The sketch on the part as built: its plane and its pictures of edges where they stand now, not yet solved. */
  readonly placed: Sketch;
  readonly diagnosis: Diagnosis;
  readonly regions: Regions;
}

/** Something to build on that has no material. */
export type Datum =
  | { readonly kind: "plane"; readonly frame: Frame }
  | { readonly kind: "axis"; readonly line: Line }
  | { readonly kind: "point"; readonly at: Vec3 };

/** One body of the part; it is called after the step that began it. */
export interface Body {
  readonly id: string;
  readonly solid: Solid;
}

/** The volumes a step worked with, kept so that it can be patterned and mirrored. */
export interface Tools {
  readonly solids: readonly Solid[];
  readonly operation: Operation;
  readonly bodies?: readonly string[] | undefined;
}

/** What a step finds when it is built: everything before it. */
export interface BuildContext {
  readonly kernel: Kernel;
  readonly unit: LengthUnit;
  /** The part's named parameters. */
  readonly names: Names;
  /** The same as sketches take them. */
  readonly given: readonly Given[];
  readonly bodies: readonly Body[];
  /** All bodies as one. */
  readonly body: Solid | undefined;
  readonly sketches: ReadonlyMap<string, BuiltSketch>;
  readonly datums: ReadonlyMap<string, Datum>;
  readonly tools: ReadonlyMap<string, Tools>;
  /** By how many quarter turns the seam of a whole turn is moved on; left out: not at all. */
  readonly seam?: number | undefined;
  /** What meets what in the body; made when it is first asked for. */
  topology(): Topology | undefined;
  /**
   * Does an earlier step once more on other bodies, on the images of what it stood on: names that begin with one of
   * `steps` are looked for behind `prefix`, and so are those it gives.
   */
  again(id: string, bodies: readonly Body[], prefix: string, steps: readonly string[]): Outcome<readonly Body[]>;
}

/** A reference that was not found, and why. */
export interface Missing {
  readonly ref: AnyRef;
  readonly sentence: string;
}
/** And where in the step it stands, such as `groups.0.edges.2.on`. */
export interface Lost extends Missing {
  readonly path: string;
}

/**
 * What a step gives: bodies, a built sketch, or a datum. Solids it replaces are released by the rebuild. `lost` are
 * references it had to do without: the step is marked.
 */
export type StepResult = (
  | { readonly bodies: readonly Body[]; readonly tools?: Tools }
  | { readonly sketch: BuiltSketch }
  | { readonly datum: Datum }
) & { readonly lost?: readonly Missing[] };

/** A refusal that says which references were lost. */
export interface StepRefusal extends Refusal {
  readonly lost?: readonly Missing[];
}
/** A refusal for want of a reference. */
export const refuseLost = (
  code: string,
  lost: readonly Missing[],
  about?: readonly string[],
): { ok: false; refusal: StepRefusal } => ({
  ok: false,
  refusal: { ...refuse(code, lost[0]?.sentence ?? "", about).refusal, lost },
});

/** Builds a kind of step on what stands before it. */
export type Build<S> = (context: BuildContext, step: S) => Outcome<StepResult>;

/** Reads a length of a step that must be greater than 0. @param what begins the sentence: "The depth" */
export function lengthOf(
  context: Pick<BuildContext, "unit" | "names">,
  size: Size,
  what: string,
  hint = "",
): Outcome<number> {
  const r = readQuantity(size, "length", context.unit, context.names);
  if (!r.ok) return r;
  return r.value > COINCIDENT ? r : refuse("bad-number", `${what} must be greater than 0.${hint && ` ${hint}`}`);
}

/** Reads an angle of a step, radians. */
export const angleOf = (context: Pick<BuildContext, "unit" | "names">, size: Size): Outcome<number> =>
  readQuantity(size, "angle", context.unit, context.names);

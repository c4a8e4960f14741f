import { stepMark } from "@/core/naming/words";
import { KernelFault, type Kernel } from "@/core/kernel/opencascade";
import { isValid } from "@/core/kernel/properties";
import { compound, type Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import type { Diagnosis } from "@/core/sketch/solve";
import { wordsFor } from "@/core/sketch/words";
import type { LengthUnit } from "@/core/units/quantity";
import { done, refuse, type Outcome, type Refusal } from "@/core/units/refusal";
import type { PartDocument } from "./document";
import { givenBy, parameterNames } from "./parameters";
import { withStepsCalled } from "@/core/naming/words";
import { builderOf } from "./steps/builders";
import { kindOf, usesOf, type Step } from "./steps/kinds";
import type { Body, BuildContext, BuiltSketch, Datum, Lost, Missing, StepRefusal, Tools } from "./steps/step";
import { fieldsOf, pathText, withFields, type Meaning } from "@/core/naming/field";
import { imageFace, stepOf } from "@/core/naming/names";
import { isReference, renamedRef } from "@/core/naming/reference";

export interface BuiltStep {
  readonly id: string;
  readonly refusal?: Refusal;
  /** References it could not find: of a step in trouble, or that it did without. */
  readonly lost?: readonly Lost[];
}

export interface BuiltPart {
  /** All bodies as one. */
  readonly body: Solid | undefined;
  readonly bodies: readonly Body[];
  readonly sketches: ReadonlyMap<string, BuiltSketch>;
  readonly datums: ReadonlyMap<string, Datum>;
  readonly steps: readonly BuiltStep[];
}

/** Everything there is after a step. */
interface State {
  readonly key: string;
  readonly bodies: readonly Body[];
  readonly whole: Solid | undefined;
  readonly sketches: ReadonlyMap<string, BuiltSketch>;
  readonly datums: ReadonlyMap<string, Datum>;
  readonly tools: ReadonlyMap<string, Tools>;
  readonly built: BuiltStep;
  /** Solids that this step made and no earlier one has. */
  readonly made: readonly Solid[];
}

const SPOILT =
  "This step could not be computed soundly: its faces cut into each other. Change its sizes or its place a little.";

/** Codes of refusals that another seam may end. */
const SEAM_FAULTS: readonly string[] = ["spoilt", "kernel", "missed"];

const START: Omit<State, "key" | "built"> = {
  bodies: [],
  whole: undefined,
  sketches: new Map(),
  datums: new Map(),
  tools: new Map(),
  made: [],
};

/**
 * Builds a part again and again, each time from the first step that changed; what stands before is kept. A step in
 * trouble is marked and left out; the rest still builds. What it hands out is its own: it goes at the next run or
 * at `close`.
 */
export class Rebuilder {
  private states: State[] = [];
  constructor(
    private readonly kernel: Kernel,
    private readonly isSound: (s: Solid) => boolean = (s) => isValid(kernel, s.shape),
  ) {}

  run(document: PartDocument, count = document.steps.length): BuiltPart {
    for (const _ of this.going(document, count));
    return this.after(count, document);
  }

  /** Step by step, so that a caller may look up in between and leave off; what was built until then is kept. */
  *going(document: PartDocument, count = document.steps.length): Generator<number, void> {
    const shared = JSON.stringify([document.units, document.parameters ?? []]),
      steps = document.steps.slice(0, count);
    const keys = steps.map((s) => shared + keyOf(s));
    const from = keys.findIndex((k, i) => this.states[i]?.key !== k);
    if (from < 0) return;
    this.drop(from);
    for (let i = from; i < steps.length; i++) {
      this.states.push(this.build(document, steps[i]!, keys[i]!, this.states[i - 1] ?? START));
      yield i;
    }
  }

  /** What stands after so many steps of the last run. */
  after(count: number, document: PartDocument): BuiltPart {
    const n = Math.min(count, document.steps.length),
      at = this.states[n - 1] ?? START;
    return {
      body: at.whole,
      bodies: at.bodies,
      sketches: at.sketches,
      datums: at.datums,
      steps: this.states.slice(0, n).map((s) => s.built),
    };
  }

  /**
   * One step on what stands before it. Where a whole turn touches the part, the library may go wrong with its seam on
   * one side and be right with it on another: all four quarters are tried before it is refused.
   */
  private build(document: PartDocument, step: Step, key: string, before: Omit<State, "key" | "built">): State {
    const first = this.attempt(document, step, key, before);
    if (step.kind !== "revolve" || !SEAM_FAULTS.includes(first.built.refusal?.code ?? "")) return first;
    for (const seam of [1, 2, 3]) {
      const other = this.attempt(document, step, key, before, seam);
      if (!other.built.refusal) return other;
    }
    return first;
  }

  private attempt(
    document: PartDocument,
    step: Step,
    key: string,
    before: Omit<State, "key" | "built">,
    seam?: number,
  ): State {
    const same = { ...before, key, made: [] as Solid[] };
    if (step.suppressed) return { ...same, built: { id: step.id } };
    let topology: Topology | undefined;
    const context: BuildContext = {
      kernel: this.kernel,
      unit: document.units,
      names: parameterNames(document),
      given: givenBy(document),
      bodies: before.bodies,
      body: before.whole,
      sketches: before.sketches,
      datums: before.datums,
      tools: before.tools,
      seam,
      topology: () => (topology ??= before.whole && new Topology(this.kernel, before.whole)),
      again: (id, bodies, prefix, steps) => this.again(document, context, id, bodies, prefix, steps),
    };
    try {
      const r = builderOf(step)(context, step);
      if (!r.ok) return { ...same, built: refused(document, step, r.refusal) };
      const lost = placesOf(document, step, r.value.lost);
      const built: BuiltStep = lost.length ? { id: step.id, lost } : { id: step.id };
      if ("sketch" in r.value)
        return { ...same, built, sketches: new Map(before.sketches).set(step.id, r.value.sketch) };
      if ("datum" in r.value) return { ...same, built, datums: new Map(before.datums).set(step.id, r.value.datum) };
      const { bodies, tools } = r.value;
      const fresh = bodies.filter((b) => !before.bodies.includes(b)).map((b) => b.solid);
      const whole =
        bodies.length > 1
          ? compound(
              this.kernel,
              bodies.map((b) => b.solid),
            )
          : bodies[0]?.solid;
      const made = [...fresh, ...(tools?.solids ?? []), ...(bodies.length > 1 && whole ? [whole] : [])];
      // the library now and then spoils a shape without saying so: this step is refused, and the rest built without it
      if (whole && fresh.length && !this.isSound(whole)) {
        this.kernel.release(...new Set(made.map((s) => s.shape)));
        return { ...same, built: refused(document, step, refuse("spoilt", SPOILT, [step.id]).refusal) };
      }
      return {
        ...same,
        built,
        bodies,
        whole,
        tools: tools ? new Map(before.tools).set(step.id, tools) : before.tools,
        made,
      };
    } catch (e) {
      if (!(e instanceof KernelFault)) throw e;
      return {
        ...same,
        built: refused(
          document,
          step,
          refuse("kernel", `This step could not be built: ${e.message}. Change its sketch or its sizes a little.`, [
            step.id,
          ]).refusal,
        ),
      };
    } finally {
      topology?.release();
    }
  }

  private again(
    document: PartDocument,
    context: BuildContext,
    id: string,
    bodies: readonly Body[],
    prefix: string,
    steps: readonly string[],
  ): Outcome<readonly Body[]> {
    const step = document.steps.find((s) => s.id === id);
    if (!step) return refuse("not-found", `${stepMark(id)} is not there.`, [id]);
    const image = imageOf(step, prefix, steps),
      whole = compound(
        this.kernel,
        bodies.map((b) => b.solid),
      );
    let topology: Topology | undefined;
    try {
      const r = builderOf(step)(
        { ...context, bodies, body: whole, topology: () => (topology ??= new Topology(this.kernel, whole)) },
        image,
      );
      if (!r.ok) return r;
      if (!("bodies" in r.value))
        return refuse("cannot-repeat", `${stepMark(id)} makes nothing that could be repeated.`, [id]);
      this.kernel.release(...(r.value.tools?.solids ?? []).map((t) => t.shape));
      return done(r.value.bodies);
    } finally {
      topology?.release();
      this.kernel.release(whole.shape);
    }
  }

  private drop(from: number, keep: ReadonlySet<Solid> = new Set()): void {
    for (const s of this.states.splice(from))
      for (const solid of new Set(s.made)) if (!keep.has(solid)) this.kernel.release(solid.shape);
  }

  /** Gives back all but what the last step left, which is the caller's from now on. */
  leave(): void {
    const last = this.states[this.states.length - 1];
    this.drop(0, new Set([...(last?.bodies.map((b) => b.solid) ?? []), ...(last?.whole ? [last.whole] : [])]));
  }
  close(): void {
    this.drop(0);
  }
}

function refused(document: PartDocument, step: Step, { lost: missing, ...told }: StepRefusal): BuiltStep {
  const lost = placesOf(document, step, missing);
  const refusal = { ...told, sentence: withStepsCalled(told.sentence, document.steps) };
  return { id: step.id, refusal, ...(lost.length && { lost }) };
}

/** Where in a step its lost references stand; those of steps it repeats stand elsewhere. */
function placesOf(document: PartDocument, step: Step, missing: readonly Missing[] = []): Lost[] {
  if (!missing.length) return [];
  const fields = fieldsOf(kindOf(step).schema, step);
  return missing.flatMap((m) => {
    const field = fields.find((f) => f.value === m.ref);
    const sentence = withStepsCalled(m.sentence, document.steps);
    return field ? [{ ...m, sentence, path: pathText(field.path) }] : [];
  });
}

/** Meanings that no solid depends on. */
const LOOKS: ReadonlySet<Meaning> = new Set<Meaning>(["text", "layout", "memory"]);
const keys = new WeakMap<Step, string>();

/** All of a step that its solid depends on, as text. */
function keyOf(step: Step): string {
  let key = keys.get(step);
  if (key === undefined) {
    const bare = withFields(kindOf(step).schema, step, (f) => (LOOKS.has(f.meaning) ? undefined : f.value));
    keys.set(step, (key = JSON.stringify(bare)));
  }
  return key;
}

/** A step as it stands on images: names of what the repeated steps made are prefixed, and so is its own id. */
function imageOf(step: Step, prefix: string, steps: readonly string[]): Step {
  const rename = (face: string) => (steps.includes(stepOf(face)) ? imageFace(prefix, face) : face);
  const image = withFields(kindOf(step).schema, step, (f) => (isReference(f) ? renamedRef(f.value, rename) : f.value));
  return { ...image, id: `${prefix}/${step.id}` };
}

/**
 * Builds a part once. The caller releases the body. @param count build only so many steps
 * @param begun is told of each step as it is begun
 */
export function rebuild(
  kernel: Kernel,
  document: PartDocument,
  count = document.steps.length,
  begun: (step: Step, at: number) => void = () => {},
): BuiltPart {
  const r = new Rebuilder(kernel),
    tell = (at: number) => document.steps[at] && at < count && begun(document.steps[at], at);
  tell(0);
  for (const built of r.going(document, count)) tell(built + 1);
  const part = r.after(count, document);
  r.leave();
  return part;
}

/** Sketches that a step of the part stands on. */
export function usedSketches(document: PartDocument): string[] {
  const used = new Set(document.steps.filter((s) => !s.suppressed).flatMap(usesOf));
  return document.steps.filter((s) => s.kind === "sketch" && used.has(s.id)).map((s) => s.id);
}

/** What can still move in a sketch, as a person would call it. */
export const looseIn = ({ loose, sketch }: Diagnosis, unit: LengthUnit): string[] => loose.map(wordsFor(sketch, unit));

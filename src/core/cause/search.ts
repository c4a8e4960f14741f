import { compareParts } from "@/core/check/faces/comparison";
import { measurePart, measureSolid, wholeOf, withBodiesJoined, type Measured } from "@/core/check/given/measured";
import { CHECKERS } from "@/core/check/kinds/checkers";
import type { CheckContext } from "@/core/check/kinds/context";
import { SAME_SIZE } from "@/core/check/tolerance";
import { stepOf } from "@/core/naming/names";
import { drivingNumbers } from "@/core/sizes/numbers";
import { isSolidStep } from "@/core/part/steps/kinds";
import { propertiesOf } from "@/core/kernel/properties";
import type { PartDocument } from "@/core/part/document";
import { Rebuilder } from "@/core/part/rebuild";
import type { Cause, Mend } from "./cause";
import { Lacking } from "./missing";
import { numbersMended, type PrintedSize, type WrongSize, type WrongSizes } from "./numbers";
import { turnsOf, type Changed } from "./turns";

/** So many changes one after the other are looked for at most. */
const MOST_CHANGES = 3;
/** Numbers that say how far a step goes, by their ids. */
const DEPTH = /:extent\b/;
/** So many turned steps are looked at face by face, where nothing is right by itself. */
const MOST_COMPARED = 4;

export interface SearchLimits {
  /** Asked between trials; once it says no, what was found until then is the answer. */
  readonly mayGoOn?: () => boolean;
  /** What references would be without something, kept between searches. */
  readonly lacking?: Lacking;
}

/** A part on the way from the student's to the reference. */
interface Standing {
  readonly document: PartDocument;
  /** Its solid, where it is not the student's own, goes with the next trial. */
  readonly part: Measured;
  readonly wrong: WrongSizes;
  /** Of all faces those that lie where they should. */
  readonly share: number;
}

/** A changed part, and by what share of its volume it is off. */
interface Off {
  readonly changed: Changed;
  readonly off: number;
}

/** Looks for the changes that make a part the reference. */
export class Search {
  private isSpent = false;
  private readonly rebuilder: Rebuilder;
  private readonly mayGoOn: () => boolean;
  private readonly lacking: Lacking;
  /** How deep steps of the reference go, mm: what may have been meant where the part goes through. */
  private readonly depths: readonly number[];

  constructor(
    private readonly context: CheckContext,
    { mayGoOn = () => true, lacking = new Lacking() }: SearchLimits,
  ) {
    this.rebuilder = new Rebuilder(context.kernel, () => true);
    this.mayGoOn = mayGoOn;
    this.lacking = lacking;
    const numbers = drivingNumbers(context.exercise.reference).filter((n) => DEPTH.test(n.id));
    this.depths = [...new Set(numbers.map((n) => n.value))];
  }

  run(submitted: PartDocument): Cause {
    const { context } = this;
    const first: Standing = {
      document: submitted,
      part: context.submission,
      wrong: wrongSizesIn(context),
      share: shareOf(context.comparison.facesMatched, context.reference, context.submission),
    };
    try {
      const cause = this.stepByStep(first);
      if (cause.found === "certain") return cause;
      // any number may hold it; many are tried, so this comes last
      const certain = this.right(numbersMended(submitted, first.wrong, "worked out")).map((c) => [c.mend]);
      return certain.length ? { found: "certain", or: certain } : this.atItsEnd(cause);
    } finally {
      this.rebuilder.close();
    }
  }

  /** Time may have been over before all was tried. */
  private atItsEnd = (cause: Cause): Cause =>
    this.isSpent && cause.found !== "certain" && cause.found !== "none" ? { ...cause, spent: true } : cause;

  /** One change after the other, each the one after which most faces lie where they should. */
  private stepByStep(first: Standing): Cause {
    let standing = first,
      made: readonly Mend[] = [];
    while (made.length < MOST_CHANGES) {
      const { certain, near } = this.round(standing);
      if (certain.length) return { found: "certain", or: certain.map((m) => [...made, m]) };
      const better = this.better(standing, near);
      if (!better || this.isSpent) break;
      made = [...made, better.mend];
      ({ standing } = better);
    }
    return made.length ? { found: "partly", mends: made } : { found: "unknown" };
  }

  /**
   * One kind of change after the other, the cheap and likely ones first; the first kind that makes the part right ends
   * it.
   * @returns what makes it right, and what may take a fault away
   */
  private round(s: Standing): { certain: readonly Mend[]; near: readonly Changed[] } {
    const { reference } = this.context;
    const typed = numbersMended(s.document, s.wrong, "as they stand");
    const turned: Off[] = [];
    const mends = (list: readonly Changed[]) => list.map((c) => c.mend);
    const missing = () => this.missing(s);
    const turns = () => mends(this.right(turnsOf(s.document, this.depths), turned));
    // a step that left no face behind is likelier wrong than another is missing
    const isMissing = wholeOf(s.part).faces.length < reference.faces.length && !hasIdleStep(s);
    const slipped = () => mends(this.right(numbersMended(s.document, s.wrong, "slipped")));
    const kinds = [() => mends(this.right(typed)), slipped, ...(isMissing ? [missing, turns] : [turns, missing])];
    for (const kind of kinds) {
      const certain = kind();
      if (certain.length) return { certain, near: [] };
    }
    const closest = turned.sort((a, b) => a.off - b.off).slice(0, MOST_COMPARED);
    return { certain: [], near: [...typed, ...closest.map((t) => t.changed)] };
  }

  /** Those that make the part the reference. @param others are told what they are off */
  private right(list: readonly Changed[], others: Off[] = []): Changed[] {
    return list.filter((changed) => {
      const off = this.offBy(changed.document);
      if (off === undefined) return false;
      if (off <= SAME_SIZE && this.isRight(changed.document)) return true;
      others.push({ changed, off });
      return false;
    });
  }

  /** The change after which most faces lie where they should; none where no change takes a fault away. */
  private better(from: Standing, near: readonly Changed[]): { mend: Mend; standing: Standing } | undefined {
    let best: { mend: Mend; standing: Standing } | undefined;
    for (const { mend, document } of near) {
      if (!this.goesOn()) break;
      const standing = this.standingOf(document);
      if (!standing || standing.share <= (best?.standing ?? from).share) continue;
      if (standing.wrong.wrong.length <= from.wrong.wrong.length) best = { mend, standing };
    }
    return best;
  }

  private goesOn(): boolean {
    if (!this.isSpent && !this.mayGoOn()) this.isSpent = true;
    return !this.isSpent;
  }

  private built(document: PartDocument) {
    const built = this.rebuilder.run(document);
    return built.body && !built.steps.some((s) => s.refusal) ? { built, body: built.body } : undefined;
  }

  /** By what share of its volume a changed part is off; undefined where it does not build or time is over. */
  private offBy(document: PartDocument): number | undefined {
    const { kernel, reference } = this.context;
    const built = this.goesOn() ? this.built(document) : undefined;
    if (!built) return undefined;
    const { volume, bodies } = propertiesOf(kernel, built.body);
    if (bodies !== reference.properties.bodies) return Infinity;
    return Math.abs(volume / reference.properties.volume - 1);
  }

  /** Built once more from nothing, with every step proved sound, and compared face by face. */
  private isRight(document: PartDocument): boolean {
    const { kernel, reference } = this.context;
    const m = withBodiesJoined(kernel, measurePart(kernel, document));
    const isSame = m.solid !== undefined && compareParts(kernel, reference, m).finding === "same";
    kernel.release(m.solid?.shape, m.joined?.solid.shape);
    return isSame;
  }

  private standingOf(document: PartDocument): Standing | undefined {
    const { kernel, reference } = this.context;
    const found = this.built(document);
    if (!found) return undefined;
    const part: Measured = { document, built: found.built, ...measureSolid(kernel, found.body) };
    const comparison = compareParts(kernel, reference, part);
    const wrong = wrongSizesIn({ ...this.context, submission: part, comparison });
    return { document, part, wrong, share: shareOf(comparison.facesMatched, reference, part) };
  }

  /** Things of the reference that the part has nothing of: the reference without them is the part. */
  private missing({ document, part: was }: Standing): Mend[] {
    const { kernel, submission } = this.context;
    // trials have been built since: what is compared now has to stand
    const part = was === submission ? was : this.standingOf(document)?.part;
    if (!part || !wholeOf(part).solid || !part.properties) return [];
    const { properties } = part;
    const rebuilder = new Rebuilder(kernel, () => true);
    const isPart = (document: PartDocument): boolean => {
      const { body } = rebuilder.run(document);
      if (!body) return false;
      const variant = { ...measureSolid(kernel, body), solid: body };
      return compareParts(kernel, variant, part).finding === "same";
    };
    try {
      const alike = this.lacking.alike(this.context, rebuilder, properties.volume, () => this.goesOn());
      return alike.filter((v) => isPart(v.document)).map(({ called }) => ({ do: "add", called }));
    } finally {
      rebuilder.close();
    }
  }
}

/** Whether a step that makes or changes material is there and nothing is seen of it. */
function hasIdleStep({ document, part }: Standing): boolean {
  const seen = new Set(wholeOf(part).faces.flatMap((f) => f.keys.map(stepOf)));
  return document.steps.some((s) => isSolidStep(s) && !s.suppressed && !seen.has(s.id));
}

/** What the drawing prints, and which of it is otherwise on the part. */
function wrongSizesIn(context: CheckContext): WrongSizes {
  const { sizes } = CHECKERS.sizes(context).evidence;
  const wrong: WrongSize[] = [],
    lost: PrintedSize[] = [],
    all: PrintedSize[] = [];
  for (const s of sizes)
    for (const v of s.values) {
      if (v.quantity === "count") continue;
      const printed = { size: s.id, text: s.text, quantity: v.quantity, printed: v.printed };
      all.push(printed);
      if (s.state === "lost") lost.push(printed);
      if (s.state === "missed") for (const measured of v.measured) wrong.push({ ...printed, measured });
    }
  return { all, wrong, lost };
}

const shareOf = (matched: number, reference: Measured, part: Measured): number =>
  matched / Math.max(1, reference.faces.length, wholeOf(part).faces.length);

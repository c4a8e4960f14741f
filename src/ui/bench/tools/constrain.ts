import { begun } from "@/core/naming/words";
import { KINDS } from "@/core/sketch/constraints/registry";
import { fits, typeOf, type Constraint, type EntityType } from "@/core/sketch/sketch";
import type { Hands, Pointer, Preview, Tool } from "./tool";

type Kind = Constraint["kind"];
/** Kinds that one tool decides between by what is picked. */
const GROUPS: Partial<Record<Kind, readonly Kind[]>> = { coincident: ["coincident", "point-on-curve", "concentric"] };
const NAMES: Partial<Record<Kind, string>> = {
  coincident: "Coincide",
  horizontal: "Level",
  vertical: "Upright",
  perpendicular: "Square",
  collinear: "In line",
  curvature: "Same curvature",
  symmetric: "Symmetric",
  fixed: "Fix",
};
const ASKS: Record<Kind, string> = {
  coincident: "pick two points, a point and a curve, or two circles",
  horizontal: "pick a line, or two points",
  vertical: "pick a line, or two points",
  collinear: "pick two lines",
  parallel: "pick two lines",
  perpendicular: "pick two lines",
  tangent: "pick two curves that are to touch",
  curvature: "pick a curve, then the spline joined to it",
  equal: "pick two lines, or two circles or arcs",
  concentric: "pick two circles",
  midpoint: "pick a point, then a line or an arc",
  "point-on-curve": "pick a point, then a curve",
  fixed: "pick a point or a curve",
  symmetric: "pick two alike, then the line between them",
  spaced: "made by patterns",
  turned: "made by patterns",
};

const permutations = (list: readonly string[]): string[][] =>
  list.length < 2
    ? [[...list]]
    : list.flatMap((x, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]));

/** Collects what a constraint needs, applies it, and is ready for the next. What is selected already counts. */
export class ConstrainTool implements Tool {
  readonly usesPicked = true;
  readonly takesPart = true;
  private picked: string[] = [];
  private ended = false;
  private readonly kinds: readonly Kind[];
  constructor(
    private readonly hands: Hands,
    private readonly kind: Kind,
    private readonly done: () => void,
  ) {
    this.kinds = GROUPS[kind] ?? [kind];
  }

  get hint(): string {
    const name = NAMES[this.kind] ?? begun(this.kind);
    return `${name}: ${ASKS[this.kind]}.${this.picked.length ? ` ${this.picked.length} picked.` : ""}`;
  }
  get preview(): Preview {
    return { picked: this.picked };
  }
  private get takes(): { kind: Kind; types: readonly EntityType[] }[] {
    return this.kinds.flatMap((kind) => KINDS[kind].takes.map((types) => ({ kind, types })));
  }
  private typeOf(ref: string): EntityType | undefined {
    return typeOf(this.hands.sketch(), ref);
  }

  begin(): void {
    const chosen = this.hands.selection().filter((r) => this.typeOf(r));
    if (!chosen.length) return;
    const whole = this.matched(chosen);
    // several lines made level at once; several equal to the first
    const single = chosen.map((c) => this.matched([c]));
    const chain =
      this.kind === "equal" && chosen.length > 2 ? chosen.slice(1).map((c) => this.matched([chosen[0]!, c])) : [];
    const sets = whole
      ? [whole]
      : single.every(Boolean)
        ? single
        : chain.length && chain.every(Boolean)
          ? chain
          : undefined;
    this.hands.select([]);
    if (!sets) {
      this.picked = chosen.filter((c) => this.couldTake([c]));
      return;
    }
    for (const s of sets) this.hands.draw({ do: "constrain", kind: s!.kind, of: s!.of });
    this.ended = true;
    this.done();
  }

  /** The references in an order one of the kinds takes, or undefined when they do not fit. */
  private matched(refs: readonly string[]): { kind: Kind; of: string[] } | undefined {
    if (refs.length > 3) return undefined;
    for (const of of permutations(refs))
      for (const { kind, types } of this.takes)
        if (types.length === of.length && types.every((want, i) => fits(want, this.typeOf(of[i]!))))
          return { kind, of };
    return undefined;
  }
  /** Whether more could be added to these until they fit. */
  private couldTake(refs: readonly string[]): boolean {
    return this.takes.some(({ types }) => {
      const left = [...types];
      return refs.every((r) => {
        const at = left.findIndex((want) => fits(want, this.typeOf(r)));
        if (at >= 0) left.splice(at, 1);
        return at >= 0;
      });
    });
  }

  down(pointer: Pointer): void {
    if (this.ended || !pointer.hit || this.picked.includes(pointer.hit.ref)) return;
    if (!this.couldTake([pointer.hit.ref])) return this.hands.say("notice", `This is no fit: ${ASKS[this.kind]}.`);
    const next = [...this.picked, pointer.hit.ref];
    const match = this.matched(next);
    if (match) {
      this.picked = [];
      this.hands.draw({ do: "constrain", kind: match.kind, of: match.of });
    } else this.picked = this.couldTake(next) ? next : [pointer.hit.ref];
  }

  cancel(): boolean {
    const had = this.picked.length > 0;
    this.picked = [];
    return had;
  }
}

import { KINDS } from "@/core/sketch/constraints/registry";
import { typeOf, type Constraint } from "@/core/sketch/sketch";
import type { Hands, Pointer, Preview, Tool } from "./tool";

const ASKS: Record<Constraint["kind"], string> = {
  coincident: "pick two points", horizontal: "pick a line, or two points", vertical: "pick a line, or two points", collinear: "pick two lines", tangent: "pick two curves that are to touch", curvature: "pick a curve, then the spline joined to it", parallel: "pick two lines", perpendicular: "pick two lines",
  equal: "pick two lines or two circles", concentric: "pick two circles", midpoint: "pick a point, then a line", "point-on-curve": "pick a point, then a curve", fixed: "pick a point or a curve", symmetric: "pick two alike, then the line between them", spaced: "made by patterns", turned: "made by patterns",
};

/** Collects what a constraint needs, applies it, and is ready for the next. What is selected already counts. */
export class ConstrainTool implements Tool {
  private picked: string[] = [];
  private ended = false;
  constructor(private readonly hands: Hands, private readonly kind: Constraint["kind"], private readonly done: () => void) {}

  get hint(): string {
    return `${this.kind === "point-on-curve" ? "On curve" : this.kind[0]!.toUpperCase() + this.kind.slice(1)}: ${ASKS[this.kind]}.${this.picked.length ? " One more." : ""}`;
  }
  get preview(): Preview {
    return { picked: this.picked };
  }

  begin(): void {
    const chosen = this.hands.selection();
    if (!chosen.length) return;
    // several lines made level at once, or one pair
    const single = KINDS[this.kind].takes.some((t) => t.length === 1);
    const sets = single ? chosen.map((c) => [c]) : [chosen];
    const fitting = sets.map((s) => this.ordered([...s])).filter((s) => s !== undefined);
    if (fitting.length !== sets.length) {
      this.picked = chosen.filter((c) => this.couldTake([c]));
      this.hands.select([]);
      return;
    }
    for (const of of fitting) this.hands.draw({ do: "constrain", kind: this.kind, of });
    this.ended = true;
    this.hands.select([]);
    this.done();
  }

  /** The references in the order the kind takes them, or undefined when they do not fit. */
  private ordered(refs: string[]): string[] | undefined {
    const fits = (list: string[]) => KINDS[this.kind].takes.some((t) => t.length === list.length && t.every((want, i) => typeOf(this.hands.sketch(), list[i]!) === want));
    return fits(refs) ? refs : fits([...refs].reverse()) ? [...refs].reverse() : undefined;
  }
  private couldTake(refs: string[]): boolean {
    const types = refs.map((r) => typeOf(this.hands.sketch(), r));
    return KINDS[this.kind].takes.some((t) => types.every((type) => (t as readonly (string | undefined)[]).includes(type)));
  }

  down(p: Pointer): void {
    if (this.ended || !p.hit) return;
    const next = [...this.picked, p.hit.ref];
    if (!this.couldTake([p.hit.ref])) return this.hands.say("notice", `This is no fit: ${ASKS[this.kind]}.`);
    const of = this.ordered(next);
    if (of) {
      this.picked = [];
      this.hands.draw({ do: "constrain", kind: this.kind, of });
    } else if (next.length < 2) this.picked = next;
    else this.picked = [p.hit.ref];
  }

  cancel(): boolean {
    const had = this.picked.length > 0;
    this.picked = [];
    return had;
  }
}

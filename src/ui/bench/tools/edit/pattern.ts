import type { Vec2 } from "@/core/geometry/vector";
import { circularPattern, linearPattern } from "@/core/sketch/edit/pattern";
import { readQuantity } from "@/core/units/quantity";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";
import { Gather } from "./gather";

/**
 * A row, or a ring about a point, of curves. Gather the curves, Enter, then numbers (and for a ring its centre);
 * Enter makes it.
 */
export class PatternTool implements Tool {
  readonly usesPicked = true;
  private readonly gather: Gather;
  private asking = false;
  private about: string | undefined;
  private texts: (string | undefined)[] = [];
  constructor(
    private readonly hands: Hands,
    private readonly ring: boolean,
  ) {
    this.gather = new Gather(hands);
  }
  get hint(): string {
    const name = this.ring ? "Ring" : "Row";
    if (!this.asking) return `${name}: click the curves to repeat (${this.gather.text} so far), then Enter.`;
    if (this.ring && !this.about) return `${name}: click the point to go around.`;
    return (
      `${name}: type how many in ` +
      `all${this.ring ? " and over which angle" : " and the step across and up"}; Enter makes it.`
    );
  }
  private defaults(): string[] {
    return this.ring ? ["6", "360"] : ["3", this.hands.unit === "mm" ? "10" : "1/2", "0"];
  }
  get fields(): readonly Field[] {
    if (!this.asking || (this.ring && !this.about)) return [];
    const labels = this.ring ? (["count", "angle"] as const) : (["count", "step across", "step up"] as const);
    return labels.map((label, i) => ({
      label,
      quantity: i === 0 ? "count" : this.ring ? "angle" : "length",
      typed: this.texts[i] !== undefined,
      text: this.texts[i] ?? this.defaults()[i]!,
    }));
  }
  private numbers(): { count: number; step: Vec2; angle: number } | undefined {
    const [count, a, b] = this.fields.map((f) =>
      f.quantity === "count"
        ? Math.round(Number(f.text))
        : (() => {
            const r = readQuantity(f.text, f.quantity as "length" | "angle", this.hands.unit);
            return r.ok ? r.value : NaN;
          })(),
    );
    if (!(count! >= 2 && count! <= 60) || Number.isNaN(a) || Number.isNaN(b)) return undefined;
    return { count: count!, step: [a ?? 0, b ?? 0], angle: ((a ?? 0) * 180) / Math.PI };
  }
  get preview(): Preview {
    const picked = this.gather.curves,
      n = this.fields.length ? this.numbers() : undefined,
      sketch = this.hands.sketch();
    const made =
      n &&
      (this.ring
        ? circularPattern(sketch, picked, n.count, this.about!, n.angle)
        : linearPattern(sketch, picked, n.count, n.step));
    return {
      picked: [...picked, ...(this.about ? [this.about] : [])],
      ...(made?.ok && { curves: made.value.curves.slice(sketch.curves.length) }),
    };
  }
  release(): void {
    this.hands.select(this.gather.curves);
  }
  begin(): void {
    this.gather.begin();
    this.asking = this.gather.curves.length > 0;
  }
  down(p: Pointer): void {
    if (!this.asking) return this.gather.toggle(p);
    if (this.ring && p.hit?.kind === "point") this.about = p.hit.ref;
  }
  type(field: number, text: string): void {
    this.texts[field] = text;
  }
  enter(): boolean {
    if (!this.asking) {
      this.asking = this.gather.curves.length > 0;
      return this.asking;
    }
    if (!this.fields.length) return true;
    const n = this.numbers();
    if (!n) {
      this.hands.say("trouble", "Type a count from 2 to 60, and numbers for the rest.");
      return true;
    }
    const curves = this.gather.curves;
    if (
      this.hands.draw(
        this.ring
          ? { do: "circular-pattern", curves, count: n.count, about: this.about!, angle: n.angle }
          : { do: "linear-pattern", curves, count: n.count, step: [n.step[0], n.step[1]] },
      )
    )
      this.cancel();
    return true;
  }
  cancel(): boolean {
    const had = this.gather.curves.length > 0;
    this.gather.curves = [];
    this.asking = false;
    this.about = undefined;
    this.texts = [];
    return had;
  }
}

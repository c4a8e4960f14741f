import type { Vec2 } from "@/core/geometry/vector";
import { idSource } from "@/core/sketch/shapes";
import type { Constraint, Curve, Dimension, Group, Sketch } from "@/core/sketch/sketch";
import { angleText, lengthText, readQuantity } from "@/core/units/quantity";
import { snapPoint, type Snap } from "../../sketch/snap";
import { drawTied, type Tie } from "../tying";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";

/** A point of what was drawn that a clicked place became, or the curve that passes through it. */
export type Anchor = string | { readonly on: string } | undefined;
type Spec = Pick<Dimension, "kind" | "of" | "sides">;

export interface Made {
  readonly curves: Curve[];
  readonly constraints?: Constraint[];
  readonly groups?: Group[];
  readonly anchors: readonly Anchor[];
  /** Per number that can be typed, in order over all places: the dimension it becomes. */
  readonly sizes?: readonly (Spec | undefined)[];
}

export interface Size {
  readonly label: string;
  readonly quantity: Field["quantity"];
  /** What it is while the pointer stands at the last of the places: mm, radians, or a count that stays. */
  measure(places: readonly Vec2[]): number;
}

/** Everything about a shape drawn by clicking a fixed number of places. */
export interface Shape {
  readonly name: string;
  /** What each click means. */
  readonly asks: readonly string[];
  /** Numbers that can be typed while a place is sought; the first place has none. */
  readonly sizes?: readonly (readonly Size[])[];
  /** The last place put where the typed numbers want it (undefined: not typed). */
  meet?(places: readonly Vec2[], typed: readonly (number | undefined)[]): Vec2;
  /** Undefined while the places make no shape. @param counts typed counts */
  make(
    places: readonly Vec2[],
    id: (letter: string) => string,
    counts: readonly number[],
    sketch: Sketch,
  ): Made | undefined;
}

/**
 * Draws one shape after another: each click finds what it means, numbers may be typed on the way and become
 * dimensions.
 */
export class ShapeTool implements Tool {
  preview: Preview = {};
  private places: Snap[] = [];
  /** What was typed at each place, as text. */
  private typed: (string | undefined)[][] = [];
  private last: Pointer | undefined;
  constructor(
    private readonly hands: Hands,
    private readonly shape: Shape,
  ) {}

  get hint(): string {
    const typing = this.sizesNow().length ? " Type numbers, Tab goes on." : "";
    return `${this.shape.name}: ${this.shape.asks[this.places.length] ?? ""}.${typing}`;
  }
  private sizesNow(): readonly Size[] {
    return this.shape.sizes?.[this.places.length] ?? [];
  }
  private value(size: Size, text: string | undefined): number | undefined {
    if (text === undefined || text.trim() === "") return undefined;
    if (size.quantity === "count") {
      const n = Math.round(Number(text));
      return n >= 3 && n <= 60 ? n : undefined;
    }
    const r = readQuantity(text, size.quantity === "angle" ? "angle" : "length", this.hands.unit);
    return r.ok ? r.value : undefined;
  }
  private values(): (number | undefined)[] {
    return this.sizesNow().map((s, i) => this.value(s, this.typed[this.places.length]?.[i]));
  }
  get fields(): readonly Field[] {
    if (!this.last) return [];
    const at = [...this.places.map((p) => p.at), this.aim(this.last).at];
    return this.sizesNow().map((s, i): Field => {
      const text = this.typed[this.places.length]?.[i];
      const now = s.measure(at);
      return {
        label: s.label,
        quantity: s.quantity,
        typed: text !== undefined,
        text:
          text ??
          (s.quantity === "count"
            ? String(this.counts()[0] ?? now)
            : s.quantity === "angle"
              ? angleText(now).replace("°", "")
              : lengthText(now, this.hands.unit, false)),
      };
    });
  }
  private counts(): number[] {
    return (this.shape.sizes ?? []).flatMap((list, k) =>
      list.flatMap((s, i) => (s.quantity === "count" ? [this.value(s, this.typed[k]?.[i]) ?? s.measure([])] : [])),
    );
  }
  private aim(p: Pointer): Snap {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
    const values = this.values();
    if (!this.shape.meet || values.every((v) => v === undefined)) return snap;
    return { at: this.shape.meet([...this.places.map((s) => s.at), snap.at], values), label: "", ties: [] };
  }
  private ghost(places: readonly Vec2[]): Curve[] {
    let n = 0;
    return this.shape.make(places, (l) => `${l}preview${n++}`, this.counts(), this.hands.sketch())?.curves ?? [];
  }

  move(p: Pointer): void {
    this.last = p;
    const snap = this.aim(p),
      places = [...this.places.map((s) => s.at), snap.at];
    const whole = places.length === this.shape.asks.length ? this.ghost(places) : [];
    // until there is a shape, a line shows what has been said so far
    const trail: Curve[] =
      whole.length || places.length < 2
        ? []
        : places.slice(1).map((b, i) => ({
            id: `trail${i}`,
            kind: "line" as const,
            start: [...places[i]!] as [number, number],
            end: [...b] as [number, number],
            construction: true,
          }));
    this.preview = { curves: [...whole, ...trail], ...(snap.label && { mark: { at: snap.at, label: snap.label } }) };
  }
  down(p: Pointer): void {
    this.last = p;
    this.put(this.aim(p), p.pixel);
  }
  private put(snap: Snap, pixel: number): void {
    const before = this.places[this.places.length - 1];
    if (
      before &&
      Math.hypot(before.at[0] - snap.at[0], before.at[1] - snap.at[1]) < 2 * pixel &&
      this.values().every((v) => v === undefined)
    )
      return;
    const places = [...this.places, snap];
    if (places.length < this.shape.asks.length) {
      this.places = places;
      return;
    }
    if (this.draw(places)) this.reset();
  }
  private draw(places: readonly Snap[]): boolean {
    const sketch = this.hands.sketch(),
      id = idSource(sketch);
    const made = this.shape.make(
      places.map((s) => s.at),
      id,
      this.counts(),
      sketch,
    );
    if (!made) return false;
    const ties = places.flatMap((s, i): Tie[] => {
      const anchor = made.anchors[i];
      if (anchor === undefined) return [];
      if (typeof anchor === "string") return s.ties.map((t) => ({ kind: t.kind, of: t.of(anchor) }));
      // a curve that passes through a point found
      return s.ties.flatMap((t): Tie[] =>
        t.kind === "coincident" ? [{ kind: "point-on-curve", of: [t.of("")[1]!, anchor.on] }] : [],
      );
    });
    const texts = (this.shape.sizes ?? []).flatMap((list, k) => list.map((_, i) => this.typed[k]?.[i]));
    const dimensions = texts.flatMap((text, i): Dimension[] => {
      const spec = made.sizes?.[i];
      return text !== undefined && text.trim() && spec ? [{ id: id("m"), ...spec, value: text.trim() }] : [];
    });
    return drawTied(
      this.hands,
      {
        do: "draw",
        curves: made.curves,
        constraints: made.constraints ?? [],
        ...(dimensions.length && { dimensions }),
        ...(made.groups && { groups: made.groups }),
      },
      ties,
      id,
    );
  }

  type(field: number, text: string): void {
    const list = (this.typed[this.places.length] ??= []);
    list[field] = text === "" ? undefined : text;
    if (this.last) this.move(this.last);
  }
  enter(): boolean {
    if (!this.last || !this.typed[this.places.length]?.some((t) => t !== undefined)) return false;
    const wrong = this.sizesNow().findIndex(
      (s, i) =>
        this.typed[this.places.length]![i] !== undefined &&
        this.value(s, this.typed[this.places.length]![i]) === undefined,
    );
    if (wrong >= 0) {
      const s = this.sizesNow()[wrong]!,
        text = this.typed[this.places.length]![wrong]!;
      const r =
        s.quantity === "count"
          ? undefined
          : readQuantity(text, s.quantity === "angle" ? "angle" : "length", this.hands.unit);
      this.hands.say(
        "trouble",
        r && !r.ok ? r.refusal.sentence : "The number of sides is a whole number from 3 to 60.",
      );
      return true;
    }
    this.put(this.aim(this.last), 0);
    return true;
  }
  private reset(): boolean {
    const had = this.places.length > 0;
    this.places = [];
    // a count stays for the next one
    this.typed = this.typed.map((list, k) =>
      list.map((t, i) => (this.shape.sizes?.[k]?.[i]?.quantity === "count" ? t : undefined)),
    );
    this.preview = {};
    return had;
  }
  cancel(): boolean {
    return this.reset();
  }
}

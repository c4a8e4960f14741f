import { distance2, type Vec2 } from "@/core/geometry/vector";
import type { SketchCommand } from "@/core/sketch/command-schema";
import { mappedCurve } from "@/core/sketch/curves/registry";
import type { Curve } from "@/core/sketch/sketch";
import { angleText, lengthText, plainNumber, readQuantity } from "@/core/units/quantity";
import { snapPoint } from "../../sketch/snap";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";
import { Gather } from "./gather";

export type TransformKind = "move" | "copy" | "turn" | "scale";
const ASKS: Record<TransformKind, { readonly point: string; readonly amount: string }> = {
  move: { point: "to take them by", amount: "where it goes" },
  copy: { point: "to take them by", amount: "where it goes" },
  turn: { point: "to turn about", amount: "how far round" },
  scale: { point: "that stays", amount: "how large" },
};
const NAMES: Record<TransformKind, string> = { move: "Move", copy: "Copy", turn: "Turn", scale: "Scale" };
type Numbers = { by: Vec2; turn: number; scale: number };

/**
 * Moves, copies, turns or scales curves: gather them, Enter, click the point they hang on, then where it goes.
 * Numbers can be typed.
 */
export class TransformTool implements Tool {
  readonly usesPicked = true;
  private readonly gather: Gather;
  private ready = false;
  private about: Vec2 | undefined;
  private to: Vec2 | undefined;
  private start: Vec2 | undefined;
  private texts: (string | undefined)[] = [];
  constructor(
    private readonly hands: Hands,
    private readonly kind: TransformKind,
  ) {
    this.gather = new Gather(hands);
  }
  get hint(): string {
    const name = NAMES[this.kind];
    if (!this.ready) return `${name}: click the curves (${this.gather.text} so far), then Enter.`;
    const asks = ASKS[this.kind];
    if (!this.about) return `${name}: click the point ${asks.point}.`;
    return `${name}: click ${asks.amount}, or type it; Enter makes it.`;
  }
  private now(): Numbers {
    const a = this.about ?? [0, 0],
      b = this.to ?? a,
      s = this.start ?? [a[0] + 1, a[1]];
    const turn = Math.atan2(b[1] - a[1], b[0] - a[0]) - Math.atan2(s[1] - a[1], s[0] - a[0]);
    return {
      by: [b[0] - a[0], b[1] - a[1]],
      turn: Math.atan2(Math.sin(turn), Math.cos(turn)),
      scale: distance2(a, b) / (distance2(a, s) || 1) || 1,
    };
  }
  get fields(): readonly Field[] {
    if (!this.about) return [];
    const n = this.now(),
      field = (i: number, label: string, quantity: Field["quantity"], text: string): Field => ({
        label,
        quantity,
        typed: this.texts[i] !== undefined,
        text: this.texts[i] ?? text,
      });
    if (this.kind === "turn") return [field(0, "angle", "angle", angleText(n.turn).replace("°", ""))];
    if (this.kind === "scale") return [field(0, "scale", "ratio", plainNumber(n.scale, 3))];
    return [
      field(0, "across", "length", lengthText(n.by[0], this.hands.unit, false)),
      field(1, "up", "length", lengthText(n.by[1], this.hands.unit, false)),
    ];
  }
  /** What is typed wins over the pointer; undefined when a typed number is none. */
  private numbers(): Numbers | undefined {
    const n = this.now();
    const read = (i: number, quantity: "length" | "angle", otherwise: number) => {
      if (this.texts[i] === undefined) return otherwise;
      const r = readQuantity(this.texts[i], quantity, this.hands.unit);
      return r.ok ? r.value : NaN;
    };
    const made: Numbers = {
      by: [read(0, "length", n.by[0]), read(1, "length", n.by[1])],
      turn: this.kind === "turn" ? read(0, "angle", n.turn) : 0,
      scale: this.kind === "scale" ? (this.texts[0] === undefined ? n.scale : Number(this.texts[0])) : 1,
    };
    return [...(this.kind === "move" || this.kind === "copy" ? made.by : []), made.turn, made.scale].some((v) =>
      Number.isNaN(v),
    )
      ? undefined
      : made;
  }
  private command(n: Numbers): SketchCommand {
    const about: [number, number] = [this.about![0], this.about![1]],
      { curves } = this.gather;
    if (this.kind === "turn") return { do: "transform", curves, about, turn: (n.turn * 180) / Math.PI };
    if (this.kind === "scale") return { do: "transform", curves, about, scale: n.scale };
    return { do: "transform", curves, by: [n.by[0], n.by[1]], ...(this.kind === "copy" && { copy: true }) };
  }
  get preview(): Preview {
    const picked = this.gather.curves,
      n = this.about && (this.to || this.texts.length) ? this.numbers() : undefined;
    if (!n) return { picked };
    const a = this.about!,
      moving = this.kind === "move" || this.kind === "copy",
      k = this.kind === "scale" ? n.scale : 1,
      c = k * Math.cos(n.turn),
      s = k * Math.sin(n.turn);
    const map = (p: Vec2): Vec2 =>
      moving
        ? [p[0] + n.by[0], p[1] + n.by[1]]
        : [a[0] + c * (p[0] - a[0]) - s * (p[1] - a[1]), a[1] + s * (p[0] - a[0]) + c * (p[1] - a[1])];
    return {
      picked,
      curves: this.hands
        .sketch()
        .curves.filter((q) => picked.includes(q.id))
        .map((q): Curve => mappedCurve(q, map, k)),
    };
  }
  release(): void {
    this.hands.select(this.gather.curves);
  }
  begin(): void {
    this.gather.begin();
    this.ready = this.gather.curves.length > 0;
  }
  move(p: Pointer): void {
    if (this.about) this.to = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift).at;
  }
  down(p: Pointer): void {
    if (!this.ready) return this.gather.toggle(p);
    const at = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift).at;
    if (!this.about) {
      this.about = at;
      // turning and scaling start from a place beside it
      this.start = [at[0] + 60 * p.pixel, at[1]];
      return;
    }
    this.to = at;
    this.enter();
  }
  type(field: number, text: string): void {
    this.texts[field] = text === "" ? undefined : text;
  }
  enter(): boolean {
    if (!this.ready) {
      this.ready = this.gather.curves.length > 0;
      return this.ready;
    }
    if (!this.about) return true;
    const n = this.numbers();
    if (!n) this.hands.say("trouble", "What was typed is no number here.");
    else if (this.hands.draw(this.command(n))) this.cancel();
    return true;
  }
  cancel(): boolean {
    const had = this.gather.curves.length > 0;
    this.gather.curves = [];
    this.ready = false;
    this.about = this.to = this.start = undefined;
    this.texts = [];
    return had;
  }
}

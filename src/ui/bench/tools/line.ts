import { distance2, type Vec2 } from "@/core/geometry/vector";
import { idSource } from "@/core/sketch/shapes";
import { pointAt } from "@/core/sketch/sketch";
import { snapHeading, snapPoint, type Snap } from "../sketch/snap";
import { drawTied, type Tie } from "./tying";
import type { Hands, Pointer, Preview, Tool } from "./tool";

/** A direction this near to a point found is meant too. */
const BOTH_PIXELS = 5;

/** Lines in a chain: waiting for a start, then for end after end. Closing on the first point ends the chain. */
export class LineTool implements Tool {
  preview: Preview = {};
  private from: { at: Vec2; snap: Snap | undefined; line?: string } | undefined;
  private first: string | undefined;

  constructor(private readonly hands: Hands) {}

  get hint(): string {
    return this.from ? "Line: click the next point. Escape ends the chain; hold Shift to find nothing." : "Line: click where it begins.";
  }

  private aim(p: Pointer): { snap: Snap; tie: ReturnType<typeof snapHeading>["tie"]; label: string } {
    const snap = snapPoint(this.hands.sketch(), p.at, p.pixel, p.shift);
    if (!this.from || (snap.ties.length && snap.label !== "on curve")) {
      const heading = this.from && snapHeading(this.hands.sketch(), this.from.at, snap.at, p.pixel, p.shift, this.from.line);
      // a point found wins over a direction; both hold when they are pixels apart, as for the last line of an outline
      const both = heading?.tie && distance2(heading.at, snap.at) < BOTH_PIXELS * p.pixel ? heading : undefined;
      return { snap, tie: both?.tie, label: [snap.label, both?.label].filter(Boolean).join(" · ") };
    }
    const heading = snapHeading(this.hands.sketch(), this.from.at, p.at, p.pixel, p.shift, this.from.line);
    return heading.tie ? { snap: { at: heading.at, label: "", ties: [] }, tie: heading.tie, label: heading.label } : { snap, tie: undefined, label: snap.label };
  }

  move(p: Pointer): void {
    const { snap, label } = this.aim(p);
    this.preview = {
      ...(label && { mark: { at: snap.at, label } }),
      ...(this.from && { curves: [{ id: "preview", kind: "line", start: [...this.from.at] as [number, number], end: [...snap.at] as [number, number] }] }),
    };
  }

  down(p: Pointer): void {
    const { snap, tie } = this.aim(p);
    if (!this.from) {
      this.from = { at: snap.at, snap };
      return;
    }
    if (distance2(this.from.at, snap.at) < 2 * p.pixel) return;
    const sketch = this.hands.sketch();
    const id = idSource(sketch);
    const line = id("l");
    const ties: Tie[] = [
      ...(this.from.line ? [{ kind: "coincident" as const, of: [`${line}.start`, `${this.from.line}.end`] }] : (this.from.snap?.ties ?? []).map((t) => ({ kind: t.kind, of: t.of(`${line}.start`) }))),
      ...snap.ties.map((t) => ({ kind: t.kind, of: t.of(`${line}.end`) })),
      ...(tie ? [{ kind: tie.kind, of: tie.of(line) }] : []),
    ];
    const closes = this.first !== undefined && ties.some((t) => t.kind === "coincident" && t.of.includes(this.first!));
    const curve = { id: line, kind: "line" as const, start: [...this.from.at] as [number, number], end: [...snap.at] as [number, number] };
    if (!drawTied(this.hands, { do: "draw", curves: [curve], constraints: [] }, ties, id)) return;
    this.first ??= `${line}.start`;
    this.preview = {};
    // where the end lies now the solver has said
    if (closes) this.cancel();
    else this.from = { at: pointAt(this.hands.sketch(), `${line}.end`), snap: undefined, line };
  }

  cancel(): boolean {
    const had = this.from !== undefined;
    this.from = this.first = undefined;
    this.preview = {};
    return had;
  }
}

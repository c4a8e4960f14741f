import { COINCIDENT } from "@/core/geometry/tolerance";
import { distance2 } from "@/core/geometry/vector";
import { cornerEnds } from "@/core/sketch/edit/corner";
import { pointAt, typeOf } from "@/core/sketch/sketch";
import type { Field, Hands, Pointer, Preview, Tool } from "../tool";

/** Rounds corners or cuts them off: corners are collected, the size is typed, Enter makes them all with one value. */
export class CornerTool implements Tool {
  readonly usesPicked = true;
  private corners: string[] = [];
  private text: string | undefined;
  constructor(
    private readonly hands: Hands,
    private readonly kind: "fillet" | "chamfer",
  ) {}

  get hint(): string {
    const name = this.kind === "fillet" ? "Corner fillet" : "Corner chamfer";
    return this.corners.length
      ? `${name}: ${this.corners.length} corner${this.corners.length > 1 ? "s" : ""}. Click more, type the ` +
          `${this.kind === "fillet" ? "radius" : "setback"}, Enter makes them.`
      : `${name}: click the corners; those made together share a value.`;
  }
  get preview(): Preview {
    return { picked: this.corners };
  }
  get fields(): readonly Field[] {
    return this.corners.length
      ? [
          {
            label: this.kind === "fillet" ? "radius" : "setback",
            quantity: "length",
            typed: this.text !== undefined,
            text: this.text ?? (this.hands.unit === "mm" ? "5" : "1/4"),
          },
        ]
      : [];
  }
  release(): void {
    this.hands.select(this.corners);
  }
  begin(): void {
    this.corners = this.hands
      .selection()
      .filter((r) => typeOf(this.hands.sketch(), r) === "point" && cornerEnds(this.hands.sketch(), r));
    this.hands.select([]);
  }
  down(pointer: Pointer): void {
    if (pointer.hit?.kind !== "point") return;
    const sketch = this.hands.sketch();
    if (!cornerEnds(sketch, pointer.hit.ref))
      return this.hands.say("notice", "A corner is where just two lines or arcs meet.");
    // one place, whichever of its ends was hit
    const known = this.corners.find((c) => distance2(pointAt(sketch, c), pointer.hit!.at) < COINCIDENT);
    this.corners = known ? this.corners.filter((c) => c !== known) : [...this.corners, pointer.hit.ref];
  }
  type(_: number, text: string): void {
    this.text = text;
  }
  enter(): boolean {
    if (!this.corners.length) return false;
    if (this.hands.draw({ do: "corner", kind: this.kind, corners: this.corners, value: this.fields[0]!.text }))
      this.corners = [];
    return true;
  }
  cancel(): boolean {
    const had = this.corners.length > 0;
    this.corners = [];
    return had;
  }
}

import { curveOf } from "@/core/sketch/sketch";
import type { Hands, Pointer } from "../tool";

/** The curves an edit works on: those selected when it was taken up, then what is clicked. */
export class Gather {
  curves: string[] = [];
  constructor(private readonly hands: Hands) {}
  begin(): void {
    const known = new Set(this.hands.sketch().curves.map((c) => c.id));
    this.curves = [...new Set(this.hands.selection().map(curveOf))].filter((id) => known.has(id));
    this.hands.select([]);
  }
  /** Adds or takes out the curve under the pointer. */
  toggle(p: Pointer): void {
    const id = p.hit && curveOf(p.hit.ref);
    if (!id || !this.hands.sketch().curves.some((c) => c.id === id)) return;
    this.curves = this.curves.includes(id) ? this.curves.filter((c) => c !== id) : [...this.curves, id];
  }
  get text(): string {
    return `${this.curves.length} curve${this.curves.length === 1 ? "" : "s"}`;
  }
}

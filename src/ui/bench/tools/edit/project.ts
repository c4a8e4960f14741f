import type { Curve } from "@/core/sketch/sketch";
import type { Hands, Pointer, Preview, Tool } from "../tool";

/** Edges of the part, or the outline of a face, as reference geometry that follows the part. */
export class ProjectTool implements Tool {
  preview: Preview = {};
  private found: readonly Curve[] = [];
  constructor(private readonly hands: Hands, private readonly whole: boolean) {}
  get hint(): string {
    return this.whole ? "Project: click a face of the part; its edges become reference geometry." : "Project: click an edge of the part; its picture becomes reference geometry.";
  }
  move(p: Pointer): void {
    this.found = this.hands.partAt(p.at, this.whole);
    this.preview = { curves: this.found };
  }
  down(p: Pointer): void {
    this.move(p);
    if (!this.found.length) return this.hands.say("notice", this.whole ? "There is no face of the part here, or its edges are shown already." : "There is no edge of the part here, or it is shown already.");
    this.hands.draw({ do: "draw", curves: [...this.found], constraints: [] });
    this.preview = {};
  }
}

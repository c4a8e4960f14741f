import type { Curve } from "@/core/sketch/sketch";
import type { Hands, PartPick, Pointer, Preview, Tool } from "../tool";

const SAYS: Record<PartPick, string> = {
  edge: "Project: click an edge of the part, or the outline of a round face; its picture becomes reference geometry.",
  face: "Project: click a face of the part; its edges become reference geometry.",
  section: "Project: click anywhere; where the sketch's plane cuts the part becomes reference geometry.",
};

/** Edges of the part, or the outline of a face, as reference geometry that follows the part. */
export class ProjectTool implements Tool {
  preview: Preview = {};
  private found: readonly Curve[] = [];
  constructor(
    private readonly hands: Hands,
    private readonly what: PartPick,
  ) {}
  get hint(): string {
    return SAYS[this.what];
  }
  move(p: Pointer): void {
    this.found = this.hands.partAt(p.at, this.what);
    this.preview = { curves: this.found };
  }
  down(p: Pointer): void {
    this.move(p);
    if (!this.found.length)
      return this.hands.say("notice", `There is no ${this.what} of the part here, or it is shown already.`);
    this.hands.draw({ do: "draw", curves: [...this.found], constraints: [] });
    this.preview = {};
  }
}

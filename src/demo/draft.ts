import type { DatumPlane } from "@/core/geometry/frame";
import { apply, freeStepId, type PartCommand } from "@/core/part/commands";
import { emptyPart, type Material, type PartDocument } from "@/core/part/document";
import { modelOf, type Model } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { rebuild } from "@/core/part/rebuild";
import type { Step } from "@/core/part/steps/kinds";
import type { ExtrudeStep } from "@/core/part/steps/extrude/schema";
import type { SketchCommand } from "@/core/sketch/command-schema";
import { circle, polyline, rectangle } from "@/core/sketch/shapes";
import { emptySketch, type Constraint, type Dimension, type Sketch } from "@/core/sketch/sketch";
import type { Vec2 } from "@/core/geometry/vector";

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

const freeCurveId = (s: Sketch): string => {
  let n = 1;
  while (s.curves.some((c) => c.id === `a${n}`)) n++;
  return `a${n}`;
};

/** Builds a part by the same commands the Bench sends; a refusal ends it, since a demo must not be refused. */
export class Draft {
  document: PartDocument;
  private current = "";

  constructor(name: string, units: "mm" | "in", material: Material) {
    this.document = emptyPart(name, units, material);
  }

  private send(command: PartCommand): this {
    const r = apply(this.document, command);
    if (!r.ok) throw new Error(`${this.document.name}: ${r.refusal.sentence}`);
    this.document = r.value;
    return this;
  }
  private get drawing(): Sketch {
    const step = this.document.steps.find((s) => s.id === this.current);
    if (step?.kind !== "sketch") throw new Error("no sketch is open");
    return step.sketch;
  }
  private edit(command: SketchCommand): this {
    return this.send({ do: "sketch", step: this.current, command });
  }
  private drawn(command: Extract<SketchCommand, { do: "draw" }>): string[] {
    this.edit(command);
    return command.curves.map((c) => c.id);
  }

  sketch(base: DatumPlane, offset = 0): this {
    this.current = freeStepId(this.document, "sketch");
    return this.send({ do: "add-step", step: { id: this.current, kind: "sketch", sketch: emptySketch(base, offset) } });
  }
  /** Ids of bottom, right, top, left. Coordinates in mm. */
  rectangle(a: Vec2, b: Vec2): string[] {
    return this.drawn(rectangle(this.drawing, a, b));
  }
  /** Ids of the lines; level and upright ones are constrained so. */
  outline(points: readonly Vec2[]): string[] {
    const command = polyline(this.drawing, points, true);
    const ids = this.drawn(command);
    for (const c of command.curves) {
      if (c.kind !== "line") continue;
      if (c.start[1] === c.end[1]) this.constrain("horizontal", c.id);
      if (c.start[0] === c.end[0]) this.constrain("vertical", c.id);
    }
    return ids;
  }
  circle(centre: Vec2, radius: number): string {
    return this.drawn(circle(this.drawing, centre, radius))[0]!;
  }
  /** Id of a centre line. */
  centreLine(a: Vec2, b: Vec2): string {
    const id = freeCurveId(this.drawing);
    return this.drawn({
      do: "draw",
      curves: [{ id, kind: "line", start: [a[0], a[1]], end: [b[0], b[1]], construction: "centre-line" }],
      constraints: [],
    })[0]!;
  }
  constrain(kind: Constraint["kind"], ...of: string[]): this {
    return this.edit({ do: "constrain", kind, of });
  }
  dimension(kind: Dimension["kind"], of: string[], value: number | string): this {
    return this.edit({ do: "dimension", kind, of, value });
  }
  /** Any other step; an id is found for it. @returns the id */
  step(step: DistributiveOmit<Step, "id">): string {
    const id = freeStepId(this.document, step.kind);
    this.send({ do: "add-step", step: { id, ...step } });
    return id;
  }
  /** What the steps so far build, to pick faces and edges on. */
  picked<T>(kernel: Kernel, pick: (m: Model) => T): T {
    const { body } = rebuild(kernel, this.document);
    if (!body) throw new Error(`${this.document.name}: there is nothing to pick on`);
    try {
      return pick(modelOf(kernel, body));
    } finally {
      kernel.release(body.shape);
    }
  }
  /** Turns the open sketch about its centre line. @returns the id */
  revolve(operation: ExtrudeStep["operation"]): string {
    return this.step({ kind: "revolve", sketch: this.current, operation, turn: { kind: "whole" } });
  }
  /** Id of the newest step. */
  get last(): string {
    return this.document.steps[this.document.steps.length - 1]!.id;
  }
  extrude(
    operation: ExtrudeStep["operation"],
    extent: ExtrudeStep["extent"],
    options: { reverse?: boolean; sketch?: string } = {},
  ): this {
    const { sketch = this.current, reverse } = options;
    return this.send({
      do: "add-step",
      step: {
        id: freeStepId(this.document, "extrude"),
        kind: "extrude",
        sketch,
        operation,
        extent,
        ...(reverse && { reverse }),
      },
    });
  }
}

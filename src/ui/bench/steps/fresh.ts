import { carriesHoles } from "@/core/part/steps/hole/schema";
import type { Step } from "@/core/part/steps/kinds";
import { unusedRegions } from "./regions";
import { done, refuse, type Outcome } from "@/core/units/refusal";

/** What a new step of a kind begins with: the sketch that nothing uses yet, and sizes of a hand's breadth. */
export function freshStep(
  kind: Step["kind"],
  id: string,
  before: readonly Step[],
  units: "mm" | "in",
  preset: Partial<Step>,
): Outcome<Step> {
  const size = (mm: string, inches: string) => (units === "mm" ? mm : inches);
  const sketches = before.filter((s) => s.kind === "sketch" && !s.suppressed),
    used = new Set(before.flatMap((s) => ("sketch" in s && typeof s.sketch === "string" ? [s.sketch] : [])));
  const idle = [...sketches].reverse().find((s) => !used.has(s.id)),
    sketch = idle ?? sketches[sketches.length - 1];
  const hasSolid = before.some((s) => ["extrude", "revolve", "imported"].includes(s.kind) && !s.suppressed);
  const noSketch = (what: string) => refuse("no-sketch", `There is no sketch to ${what} yet. Begin with Sketch.`);
  const noSolid = () => refuse("no-body", "There is no material yet. Sketch an outline and add material first.");
  const make = (step: object): Outcome<Step> => done({ id, kind, ...step, ...preset } as Step);
  switch (kind) {
    case "extrude": {
      // a sketch that waits to be used comes before a face that happens to be picked
      const { face, ...rest } = preset as Partial<Extract<Step, { kind: "extrude" }>>,
        hasFace = face !== undefined && !idle;
      if (!sketch && !hasFace)
        return hasSolid
          ? refuse(
              "no-sketch",
              "There is no sketch to extrude yet. Begin with Sketch, or pick a flat face of the part first.",
            )
          : noSketch("extrude");
      const isCut = "operation" in preset && preset.operation === "cut";
      const from = hasFace
        ? { face, ...(isCut && { reverse: true }) }
        : { sketch: sketch!.id, ...unusedRegions(sketch!.id, before, units) };
      return done({
        id,
        kind,
        operation: "add",
        ...rest,
        ...from,
        extent: isCut && !hasFace ? { kind: "through" } : { kind: "depth", depth: size("10", "1/2") },
      });
    }
    case "revolve":
      return sketch
        ? make({
            sketch: sketch.id,
            ...unusedRegions(sketch.id, before, units),
            operation: "add",
            turn: { kind: "whole" },
            ...(hasOneCentreLine(sketch) ? {} : { about: { sketch: sketch.id, curve: "y-axis" } }),
          })
        : noSketch("revolve");
    case "hole": {
      if (!hasSolid) return noSolid();
      const points = idle !== undefined && carriesHoles(idle);
      return make({
        ...(points && { sketch: idle.id }),
        points: [],
        diameter: size("6", "1/4"),
        head: { kind: "plain" },
        extent: { kind: "through" },
      });
    }
    case "fillet":
      return hasSolid ? make({ groups: [{ radius: size("3", "1/8"), edges: [] }] }) : noSolid();
    case "chamfer":
      return hasSolid
        ? make({ groups: [{ size: { kind: "equal", distance: size("1", "1/16") }, edges: [] }] })
        : noSolid();
    case "shell":
      return hasSolid ? make({ open: [], thickness: size("2", "1/16") }) : noSolid();
    case "mirror":
      return hasSolid ? make({ of: { body: true }, about: { datum: "right" } }) : noSolid();
    case "pattern": {
      const last = [...before].reverse().find((s) => ["hole", "extrude", "revolve"].includes(s.kind) && !s.suppressed);
      return hasSolid && last
        ? make({
            of: { steps: [last.id] },
            way: { kind: "rows", first: { along: { axis: "x" }, count: 3, by: "step", distance: size("20", "1") } },
          })
        : noSolid();
    }
    case "plane":
      return make({ by: { kind: "offset", from: { datum: "top" }, distance: size("10", "1/2") } });
    case "axis":
      return make({ by: { kind: "of", of: { axis: "z" } } });
    case "point":
      return make({ by: { kind: "at", at: [0, 0, 0] } });
    case "imported":
      return refuse("no-file", "A body from a file is brought in on the exercise’s page.");
    case "sketch":
      return refuse("no-plane", "Choose a plane for the sketch.");
  }
}

const hasOneCentreLine = (s: Step): boolean =>
  s.kind === "sketch" &&
  s.sketch.curves.filter((c) => c.kind === "line" && c.construction === "centre-line").length === 1;

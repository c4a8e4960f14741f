import { CONSTRAINT_KINDS, type Constraint } from "@/core/sketch/sketch";
import { ConstrainTool } from "./constrain";
import { DimensionTool } from "./dimension";
import { centreArc, smoothArc, threePointArc } from "./draw/arc";
import { centreCircle, threePointCircle, twoPointCircle } from "./draw/circle";
import { ellipseArc, wholeEllipse } from "./draw/ellipse";
import { LineTool } from "./draw/line";
import { singlePoint } from "./draw/point";
import { innerPolygon, outerPolygon } from "./draw/polygon";
import { centreRectangle, cornerRectangle, threePointRectangle } from "./draw/rectangle";
import { ShapeTool, type Shape } from "./draw/shape";
import { arcSlot, straightSlot } from "./draw/slot";
import { SplineTool } from "./draw/spline";
import { CornerTool } from "./edit/corner";
import { CutTool } from "./edit/cut";
import { MirrorTool } from "./edit/mirror";
import { OffsetTool } from "./edit/offset";
import { PatternTool } from "./edit/pattern";
import { ProjectTool } from "./edit/project";
import { TransformTool, type TransformKind } from "./edit/transform";
import { PickTool } from "./pick";
import type { Hands, Tool } from "./tool";

const SHAPES: Readonly<Record<string, Shape>> = {
  rectangle: cornerRectangle,
  "rectangle:centre": centreRectangle,
  "rectangle:slanting": threePointRectangle,
  circle: centreCircle,
  "circle:two": twoPointCircle,
  "circle:three": threePointCircle,
  arc: threePointArc,
  "arc:centre": centreArc,
  "arc:tangent": smoothArc,
  ellipse: wholeEllipse,
  "ellipse:arc": ellipseArc,
  polygon: innerPolygon,
  "polygon:outer": outerPolygon,
  slot: straightSlot,
  "slot:bent": arcSlot,
  point: singlePoint,
};

/** Makes the tool of a name; constraints go by `constrain:KIND`, variants by `TOOL:VARIANT`. */
export function makeTool(name: string, hands: Hands, done: () => void): Tool {
  const kind = name.replace(/^constrain:/, "") as Constraint["kind"];
  if (name.startsWith("constrain:") && CONSTRAINT_KINDS.includes(kind)) return new ConstrainTool(hands, kind, done);
  const shape = SHAPES[name];
  if (shape) return new ShapeTool(hands, shape);
  switch (name) {
    case "line":
      return new LineTool(hands);
    case "spline":
      return new SplineTool(hands, false);
    case "spline:handles":
      return new SplineTool(hands, true);
    case "dimension":
      return new DimensionTool(hands);
    case "trim":
    case "extend":
    case "split":
      return new CutTool(hands, name);
    case "corner":
      return new CornerTool(hands, "fillet");
    case "corner:chamfer":
      return new CornerTool(hands, "chamfer");
    case "offset":
      return new OffsetTool(hands);
    case "project":
      return new ProjectTool(hands, "edge");
    case "project:face":
      return new ProjectTool(hands, "face");
    case "project:section":
      return new ProjectTool(hands, "section");
    case "mirror":
      return new MirrorTool(hands);
    case "pattern":
      return new PatternTool(hands, false);
    case "pattern:ring":
      return new PatternTool(hands, true);
    case "transform":
      return new TransformTool(hands, "move");
    case "transform:copy":
    case "transform:turn":
    case "transform:scale":
      return new TransformTool(hands, name.slice(10) as TransformKind);
    default:
      return new PickTool(hands);
  }
}

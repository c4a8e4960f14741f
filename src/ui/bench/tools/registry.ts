import { CONSTRAINT_KINDS, type Constraint } from "@/core/sketch/sketch";
import { CircleTool } from "./circle";
import { ConstrainTool } from "./constrain";
import { DimensionTool } from "./dimension";
import { LineTool } from "./line";
import { PickTool } from "./pick";
import { RectangleTool } from "./rectangle";
import type { Hands, Tool } from "./tool";

/** Makes the tool of a name; constraints go by `constrain:KIND`. */
export function makeTool(name: string, hands: Hands, done: () => void): Tool {
  const kind = name.replace(/^constrain:/, "") as Constraint["kind"];
  if (name.startsWith("constrain:") && CONSTRAINT_KINDS.includes(kind)) return new ConstrainTool(hands, kind, done);
  switch (name) {
    case "line": return new LineTool(hands);
    case "rectangle": return new RectangleTool(hands);
    case "circle": return new CircleTool(hands);
    case "dimension": return new DimensionTool(hands);
    default: return new PickTool(hands);
  }
}

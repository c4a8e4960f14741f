import { svgMarks } from "@/core/formats/drawing-svg";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { strokeMark } from "./draw";
import { heightOf, widthOf } from "../plane";
import type { SheetView } from "../sheet";
import { drawnView } from "../views/views";

/** Widths of the lines that lie over the Sheet's, mm. */
const WIDE = 0.5;

/**
 * A body drawn as a view of a Sheet draws its own: same way of looking, scale, hidden lines and section, its middle on
 * that of the Sheet's. @returns SVG in the coordinates of the Sheet; undefined where that does not say where it stands
 */
export function matchedView(kernel: Kernel, body: Solid, v: SheetView): string | undefined {
  const { scale, middle, key = v.name, ...plan } = v;
  if (scale === undefined || !middle) return undefined;
  const view = drawnView(kernel, body, { ...plan, key });
  const { box } = view;
  const place = ([x, y]: readonly [number, number]) =>
    [
      middle[0] + (x - box.min[0] - widthOf(box) / 2) * scale,
      middle[1] - (y - box.min[1] - heightOf(box) / 2) * scale,
    ] as const;
  return svgMarks(
    view.strokes.map((s) => strokeMark(s, place, scale)),
    WIDE,
  );
}

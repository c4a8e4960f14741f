import type { Size, SizeOf } from "@/core/sizes/size";
import type { SheetModel } from "../views/model";
import { FAULT, type Presentation } from "./presentation";
import { angularOf } from "./present-angle";
import { pointed } from "./present-leader";
import { acrossLong, isOfTurned, linear, rowAlong, wallAcross } from "./present-straight";
import type { View } from "../views/views";

/** Every way a size can be shown in some of the views; none where no view shows it. */
export function presentationsOf(model: SheetModel, size: Size, views: readonly View[]): Presentation[] {
  const flat = views.filter((v) => v.name !== "pictorial");
  const between = new Map(flat.map((view) => [view, isBetween(size) ? angularOf(model, size, view) : []])),
    isSeenBetween = [...between.values()].some((list) => list.some((p) => p.fault === 0));
  const list = flat.flatMap((view): Presentation[] => {
    switch (size.kind) {
      case "distance":
        return linear(model, size, view);
      case "diameter":
        return [
          ...acrossLong(model, size, view),
          ...(isOfTurned(model, size, views) ? dearer : same)(pointed(model, size, view)),
        ];
      case "wall":
        return [...wallAcross(model, size, view), ...dearer(pointed(model, size, view))];
      case "pitch":
        return rowAlong(model, size.of, view, 0);
      case "slot":
        return [
          ...size.of.flatMap((ends) => rowAlong(model, ends, view, size.overall ? 1 : 0)),
          ...dearer(pointed(model, size, view)),
        ];
      case "angle":
      case "turn":
        // where its legs are seen a leader to one of them says less
        return [...between.get(view)!, ...(isSeenBetween ? unlike : dearer)(pointed(model, size, view))];
      case "cone":
      case "arc":
        return [...angularOf(model, size, view), ...dearer(pointed(model, size, view))];
      default:
        return pointed(model, size, view);
    }
  });
  return list.sort((p, q) => p.fault - q.fault);
}

const isBetween = (size: Size): size is SizeOf<"angle" | "turn"> => size.kind === "angle" || size.kind === "turn";

const same = (list: Presentation[]) => list;
const worse = (by: number) => (list: Presentation[]) => list.map((p) => ({ ...p, fault: p.fault + by }));
const unlike = worse(FAULT.notItsShape),
  dearer = worse(FAULT.anotherForm);

import { own } from "./places";
import type { Shape } from "./shape";

export const singlePoint: Shape = {
  name: "Point",
  asks: ["click where it is"],
  make([a], id) {
    const p = id("p");
    return { curves: [{ id: p, kind: "point", at: own(a!) }], anchors: [p] };
  },
};

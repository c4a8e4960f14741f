import { isWhole, nearestOn, segmentLength, stretch } from "@/core/geometry/segment";
import type { Vec2 } from "@/core/geometry/vector";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { segmentOf } from "../curves/registry";
import type { Sketch } from "../sketch";
import { JOIN } from "../tolerance";
import { idsFor, LETTER, pieceOf } from "./rewire";
import { replaced } from "./trim";

/** Parts a curve at a place on it; the two halves stay joined and on one carrier. */
export function split(sketch: Sketch, id: string, near: Vec2): Outcome<Sketch> {
  const curve = sketch.curves.find((c) => c.id === id),
    shape = curve && segmentOf(curve);
  if (!curve || !shape) return refuse("not-found", `There is no curve ${id} to split.`);
  const { t } = nearestOn(shape, near);
  if (isWhole(shape))
    return refuse("cannot-split", "A whole circle or ellipse has no ends to split between. Trim it instead.", [id]);
  const slack = (100 * JOIN) / (segmentLength(shape) || 1);
  if (t < slack || t > 1 - slack) return refuse("cannot-split", "Click inside the curve, away from its ends.", [id]);
  const ids = idsFor(sketch);
  const a = pieceOf(curve, stretch(shape, 0, t), id),
    b = pieceOf(curve, stretch(shape, t, 1), ids(LETTER[curve.kind]));
  const [next, notice] = replaced(
    sketch,
    curve,
    [
      { piece: a, ends: [undefined, undefined] },
      { piece: b, ends: [undefined, undefined] },
    ],
    shape,
    ids,
  );
  return done(
    {
      ...next,
      constraints: [...next.constraints, { id: ids("k"), kind: "coincident", of: [`${a.id}.end`, `${b.id}.start`] }],
    },
    notice,
  );
}

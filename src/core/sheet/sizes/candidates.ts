import { angularAt, angularCandidates } from "./angular";
import type { Item } from "./items";
import type { Place } from "../layout/layout";
import { leaderAt, leaderCandidates, touching } from "./leader";
import type { Placed } from "./placed";
import type { Presentation } from "./presentation";
import { sizeOf } from "../views/seen";
import { straightAt, straightCandidates } from "./straight";
import { distance2, type Vec2 } from "@/core/geometry/vector";

/** Ways whose view is so much worse than the best are not tried. */
const WORSE = 30;

/** Every way an item could be drawn. */
export function candidates(item: Item, scale: number, letter: number): Placed[] {
  const best = item.presentations[0]!.fault;
  return item.presentations
    .filter((p) => p.fault <= best + WORSE)
    .flatMap((p) => {
      const own = p.view.scale ?? scale;
      if (p.form === "straight") return straightCandidates(item, p, own, letter);
      if (p.form === "angular") return angularCandidates(item, p, own, letter);
      return leaderCandidates(item, p, own, letter);
    });
}

type Of<F extends Presentation["form"]> = Extract<Presentation, { form: F }>;

/** An item where somebody has put it; undefined where no view shows it that way any more. */
export function kept(item: Item, place: Place, scale: number, letter: number): Placed | undefined {
  const own = item.presentations.filter((p) => p.view.key === place.view && p.form === place.form);
  const scaleOf = (p: Presentation) => p.view.scale ?? scale;
  switch (place.form) {
    case "straight": {
      const p = nearest(own as Of<"straight">[], (o) => o.a.at, place.of);
      return p && straightAt(item, p, place, scaleOf(p), letter);
    }
    case "angular": {
      const p = nearest(own as Of<"angular">[], (o) => o.vertex, place.of);
      return p && angularAt(item, p, place, scaleOf(p), letter);
    }
    case "leader": {
      const p = own[0] as Of<"leader"> | undefined;
      const at = p && touching(p, place, scaleOf(p), sizeOf(p.view));
      return p && at && leaderAt(item, p, at, scaleOf(p), letter);
    }
  }
}

const nearest = <P>(list: readonly P[], at: (p: P) => Vec2, to: Vec2): P | undefined =>
  list.reduce<P | undefined>(
    (best, p) => (best && distance2(at(best), to) <= distance2(at(p), to) ? best : p),
    undefined,
  );

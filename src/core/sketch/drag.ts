import { newton, prepare, type Prepared } from "./newton";
import type { Vec2 } from "@/core/geometry/vector";
import type { LengthUnit } from "@/core/units/quantity";
import { curveOf, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { drivingRelations, withCoordinates } from "./solve";
import { buildSystem, clustersOf, referenceFault, type System } from "./system";

/** What the hand holds: a point, a whole line or circle, or a circle's rim. */
export interface Grip {
  readonly ref: string;
  /** Hold the rim of a circle: its radius follows the pointer. */
  readonly rim?: boolean;
  /** Where it was taken, in sketch coordinates. */
  readonly at: Vec2;
}

/**
 * One drag, from taking hold to letting go. Each step moves what is held towards the pointer and brings
 * everything back on its constraints by the same solver; what is held gives way last.
 */
export class Drag {
  private readonly start: Float64Array;
  /** The sketch of the step before: what does not move stays the same object. */
  private last: Sketch;
  private constructor(
    sketch: Sketch,
    private readonly system: System,
    private readonly clusters: Prepared[],
    private readonly grip: Grip,
    private readonly held: readonly number[],
  ) {
    this.start = Float64Array.from(system.x);
    this.last = sketch;
  }

  /** Undefined when the sketch as it stands cannot be solved, or nothing is held. */
  static begin(sketch: Sketch, unit: LengthUnit, grip: Grip): Drag | undefined {
    const sizes = drivingSizes(sketch, unit);
    if (referenceFault(sketch) || !sizes.ok) return undefined;
    const system = buildSystem(sketch, drivingRelations(sketch), sizes.value);
    if (system.broken.length) return undefined;
    const { slotOf, root, constant } = system;
    const at = slotOf.get(curveOf(grip.ref));
    if (at === undefined) return undefined;
    const type = system.slots.type(grip.ref);
    const own = grip.rim
      ? [at + 2]
      : type === "point"
        ? [...system.slots.point(grip.ref)]
        : type === "line"
          ? [...system.slots.line(grip.ref)]
          : [at, at + 1];
    const held = own.map((s) => root[s]!);
    if (held.every((s) => constant[s])) return undefined;
    const clusters = clustersOf(system).filter((c) => c.unknowns.some((u) => held.includes(u)));
    return new Drag(
      sketch,
      system,
      clusters.map((c) => prepare(c, system.constant)),
      grip,
      held,
    );
  }

  /** The sketch with what is held as near the pointer as its constraints let it. */
  to(pointer: Vec2): Sketch {
    const { system, held, grip, start } = this;
    const { x, constant } = system;
    const before = Float64Array.from(x);
    const put = (slot: number, value: number) => {
      if (!constant[slot]) x[slot] = value;
    };
    if (grip.rim) {
      const [cx, cy] = system.slots.centre(grip.ref).map((s) => x[system.root[s]!]!) as [number, number];
      put(held[0]!, Math.max(Math.hypot(pointer[0] - cx, pointer[1] - cy), 1e-4 * system.scale));
    } else held.forEach((slot, k) => put(slot, start[slot]! + (pointer[k % 2]! - grip.at[k % 2]!)));
    const isHeld = new Set(held);
    const weight = (slot: number) => (isHeld.has(slot) ? 1e-3 : 1);
    for (const p of this.clusters) {
      if (newton(p, x, system.scale, { iterations: 25, weight })) continue;
      x.set(before);
      break;
    }
    return (this.last = withCoordinates(this.last, system));
  }
}

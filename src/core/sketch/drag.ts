import { HELD, LEAST_RADIUS } from "./tolerance";
import { newton, prepare, type Prepared } from "./newton";
import { sub2, type Vec2 } from "@/core/geometry/vector";
import type { LengthUnit } from "@/core/units/quantity";
import { curveOf, type Curve, type Sketch } from "./sketch";
import { drivingSizes } from "./sizes";
import { drivingRelations, turnedOut, withCoordinates } from "./relations";
import { referenceFault } from "./reference-fault";
import { buildSystem, clustersOf, type System } from "./system";

/** What the hand holds: a point, a whole line or circle, or a circle's rim. */
interface Grip {
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
  /** Where the last step went. */
  private pointer: Vec2;
  private constructor(
    sketch: Sketch,
    private readonly system: System,
    private readonly clusters: Prepared[],
    private readonly grip: Grip,
    private readonly held: readonly number[],
  ) {
    this.start = Float64Array.from(system.x);
    this.last = sketch;
    this.pointer = grip.at;
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
    const from = this.pointer;
    if (this.step(pointer)) return this.last;
    // too far for one step: something would turn over. As far as it goes without
    for (let k = 1; k <= PACES; k++) {
      const share = k / PACES;
      if (!this.step([from[0] + (pointer[0] - from[0]) * share, from[1] + (pointer[1] - from[1]) * share])) break;
    }
    return this.last;
  }

  /** One step towards a place; nothing changes where it cannot be made, or would turn a line or an arc over. */
  private step(pointer: Vec2): boolean {
    const { system, held, grip, start } = this;
    const { x: values, constant } = system;
    const before = Float64Array.from(values);
    const put = (slot: number, value: number) => {
      if (!constant[slot]) values[slot] = value;
    };
    if (grip.rim) {
      const [cx, cy] = system.slots.centre(grip.ref).map((s) => values[system.root[s]!]!) as [number, number];
      put(held[0]!, Math.max(Math.hypot(pointer[0] - cx, pointer[1] - cy), LEAST_RADIUS * system.scale));
    } else held.forEach((slot, k) => put(slot, start[slot]! + (pointer[k % 2]! - grip.at[k % 2]!)));
    const isHeld = new Set(held);
    const weight = (slot: number) => (isHeld.has(slot) ? HELD : 1);
    const isMet = this.clusters.every((p) => newton(p, values, system.scale, { iterations: 25, weight }));
    const next = isMet ? withCoordinates(this.last, system) : undefined;
    if (!next || isTurnedOver(this.last.curves, next.curves)) {
      values.set(before);
      return false;
    }
    this.last = next;
    this.pointer = pointer;
    return true;
  }
}

/** A way that is too long for one step is gone in so many. */
const PACES = 8;

/** Whether a line runs the other way than before, or an arc is turned inside out. */
function isTurnedOver(before: readonly Curve[], after: readonly Curve[]): boolean {
  return (
    after.some((c, i) => {
      const b = before[i]!;
      if (b === c || b.kind !== "line" || c.kind !== "line") return false;
      const [u, v] = [sub2(b.end, b.start), sub2(c.end, c.start)];
      return u[0] * v[0] + u[1] * v[1] < 0;
    }) || turnedOut(before, after)
  );
}

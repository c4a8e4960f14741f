import { footOn, turnedVector } from "@/core/geometry/line";
import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec3, vec3 } from "@/core/geometry/vector";
import { axisOf, type Carrier } from "@/core/kernel/carrier";
import type { Surface } from "@/core/measure/surfaces";
import type { PartDocument } from "@/core/part/document";
import { foreignSteps } from "@/core/part/foreign";
import { isCoaxial, isParallel } from "./anchor";
import type { SizedBody } from "./body";
import type { Disturbance } from "./disturb";
import { clustered, isLike, mainAcross, shifted, type Moved, type Of, type Ring } from "./moving";
import { DISTURB_ANGLE, DISTURB_LENGTH, TOUCHING } from "./tolerance";

/** Flat faces a round one runs into without an edge, and on which side of them its axis lies. */
interface Tie {
  readonly plane: Surface;
  readonly normal: Vec3;
  readonly side: 1 | -1;
}

/**
 * A body whose making nobody knows is moved face by face: each level of flat faces, each radius, each axis is a number,
 * and what runs into a moved face without an edge goes along. By carriers alone, nothing is built.
 * @param step whose faces are meant
 */
class ForeignBody {
  private readonly own: readonly Surface[];
  /** Surfaces that turn about one axis. */
  private readonly axes: readonly (readonly Surface[])[];

  constructor(
    private readonly body: SizedBody,
    private readonly step: string,
  ) {
    this.own = body.surfaces.filter((s) => s.names.some((n) => n.step === step));
    const round = this.own.filter((s) => axisOf(s.carrier));
    this.axes = clustered(round, (a, b) => isCoaxial(axisOf(a.carrier)!, axisOf(b.carrier)!));
  }

  private of<K extends Carrier["kind"]>(kind: K): { s: Surface; c: Of<K> }[] {
    return this.own.flatMap((s) => (s.carrier.kind === kind ? [{ s, c: s.carrier as Of<K> }] : []));
  }

  private tiesOf(s: Surface): Tie[] {
    const c = s.carrier;
    if (c.kind !== "cylinder" && c.kind !== "torus") return [];
    const at = c.kind === "cylinder" ? c.at : c.centre,
      radius = c.kind === "cylinder" ? c.radius : c.minor;
    return s.beside.flatMap((i): Tie[] => {
      const plane = this.body.surfaces[i]!;
      if (plane.carrier.kind !== "plane") return [];
      const { normal, offset } = plane.carrier;
      const isAlong = c.kind === "cylinder" ? isLike(dot3(normal, c.axis), 0) : isParallel(normal, c.axis);
      const away = dot3(normal, at) - offset;
      return isAlong && isLike(Math.abs(away), radius) ? [{ plane, normal, side: away > 0 ? 1 : -1 }] : [];
    });
  }

  /** How far an axis moves so that each of its ties has moved as it should; the least that does. */
  private shiftFor(ties: readonly { normal: Vec3; by: number }[]): Vec3 {
    const [first, ...rest] = ties;
    if (!first) return [0, 0, 0];
    const second = rest.find((t) => !isParallel(t.normal, first.normal));
    if (!second) return scale3(first.normal, first.by);
    // two normals across the axis: the point of both lines
    const cos = dot3(first.normal, second.normal),
      det = 1 - cos * cos;
    return add3(
      scale3(first.normal, (first.by - cos * second.by) / det),
      scale3(second.normal, (second.by - cos * first.by) / det),
    );
  }

  /** Everything that goes along when flat faces move along their normals, or radii grow. */
  private follow(moved: Moved): Moved {
    const all: Moved = new Map(moved);
    const planeBy = ({ plane }: Tie): number => {
      const [was, now] = [plane.carrier, moved.get(plane)];
      return was.kind === "plane" && now?.kind === "plane" ? now.offset - was.offset : 0;
    };
    for (const axis of this.axes) {
      const ties = axis.flatMap((s) => {
        if (s.carrier.kind !== "cylinder") return [];
        const now = moved.get(s);
        const grown = now?.kind === "cylinder" ? now.radius - s.carrier.radius : 0;
        return this.tiesOf(s).map((t) => ({ normal: t.normal, by: planeBy(t) + t.side * grown }));
      });
      const shift = this.shiftFor(ties);
      if (dot3(shift, shift) > 0) for (const s of axis) all.set(s, shifted(all.get(s) ?? s.carrier, shift));
    }
    for (const { s: surface, c } of this.of("torus")) {
      const now = all.get(surface),
        grown = now?.kind === "torus" ? now.minor - c.minor : 0;
      const along = this.tiesOf(surface).map((t) => ({ normal: t.normal, by: planeBy(t) + t.side * grown }));
      let next = shifted(now ?? c, this.shiftFor(along)) as Of<"torus">;
      for (const i of surface.beside) {
        const other = this.body.surfaces[i]!;
        const tube = other.carrier;
        if (tube.kind !== "cylinder" || !isCoaxial(axisOf(tube)!, axisOf(c)!)) continue;
        const gap = c.major - tube.radius;
        if (!isLike(Math.abs(gap), c.minor)) continue;
        const wider = moved.get(other);
        const by = wider?.kind === "cylinder" ? wider.radius - tube.radius : 0;
        next = { ...next, major: c.major + by + Math.sign(gap) * grown };
      }
      if (now || JSON.stringify(next) !== JSON.stringify(c)) all.set(surface, next);
    }
    return all;
  }

  private disturbance(
    id: string,
    label: string,
    quantity: "length" | "angle",
    value: number,
    moved: Moved,
  ): Disturbance {
    const after = this.follow(moved);
    const carriers = new Map([...after].flatMap(([s, c]) => s.keys.map((k): [string, Carrier] => [k, c])));
    return {
      number: { id: `${this.step}:${id}`, step: this.step, label, quantity, value },
      by: quantity === "length" ? DISTURB_LENGTH : DISTURB_ANGLE,
      on: (key) => carriers.get(key) ?? this.body.on(key),
    };
  }

  private levels(): Disturbance[] {
    const level = (a: Of<"plane">, b: Of<"plane">) =>
      isParallel(a.normal, b.normal) && isLike(dot3(a.normal, b.normal) * b.offset, a.offset);
    return clustered(this.of("plane"), (a, b) => level(a.c, b.c)).map((group, i) => {
      const { normal, offset } = group[0]!.c;
      const moved: Moved = new Map(
        group.map(({ s, c }) => [s, { ...c, offset: c.offset + DISTURB_LENGTH * Math.sign(dot3(c.normal, normal)) }]),
      );
      return this.disturbance(`level/${i + 1}`, "level of a flat face", "length", offset, moved);
    });
  }

  private radii(): Disturbance[] {
    const tubes = clustered(
      this.of("cylinder"),
      (a, b) => a.c.hollow === b.c.hollow && isLike(a.c.radius, b.c.radius),
    ).map((group, i) => {
      const { radius } = group[0]!.c;
      const moved: Moved = new Map(group.map(({ s, c }) => [s, { ...c, radius: c.radius + DISTURB_LENGTH }]));
      return this.disturbance(`radius/${i + 1}`, "radius of a cylinder", "length", radius, moved);
    });
    const rings = clustered(this.of("torus"), (a, b) => isLike(a.c.minor, b.c.minor)).map((group, i) => {
      const moved: Moved = new Map(group.map(({ s, c }) => [s, { ...c, minor: c.minor + DISTURB_LENGTH }]));
      return this.disturbance(`ring/${i + 1}`, "radius of a ring", "length", group[0]!.c.minor, moved);
    });
    const balls = clustered(this.of("sphere"), (a, b) => isLike(a.c.radius, b.c.radius)).map((group, i) => {
      const moved: Moved = new Map(group.map(({ s, c }) => [s, { ...c, radius: c.radius + DISTURB_LENGTH }]));
      return this.disturbance(`ball/${i + 1}`, "radius of a ball", "length", group[0]!.c.radius, moved);
    });
    return [...tubes, ...rings, ...balls];
  }

  /** Directions across an axis in which it lies free: what runs into flat faces does not. */
  private freeWays(axis: readonly Surface[]): Vec3[] {
    const line = axisOf(axis[0]!.carrier)!;
    const normals = axis.flatMap((s) => (s.carrier.kind === "cylinder" ? this.tiesOf(s).map((t) => t.normal) : []));
    const [first, ...rest] = normals;
    if (!first) {
      const u = mainAcross(line);
      return [u, unit3(cross3(line.along, u))];
    }
    return rest.some((n) => !isParallel(n, first)) ? [] : [unit3(cross3(line.along, first))];
  }

  /** Places of axes: rings by their pitch circle, others by level, so that what stands in line stays in line. */
  private places(): Disturbance[] {
    const rings = this.rings();
    const inRing = new Set(rings.flatMap((r) => r.axes));
    const moving = (list: readonly (readonly Surface[])[], by: (axis: readonly Surface[]) => Vec3): Moved =>
      new Map(list.flatMap((axis) => axis.map((s): [Surface, Carrier] => [s, shifted(s.carrier, by(axis))])));
    const pitch = rings.map((ring, i) =>
      this.disturbance(
        `pitch/${i + 1}`,
        "radius of a pitch circle",
        "length",
        ring.radius,
        moving(ring.axes, (axis) => scale3(ring.out(axis), DISTURB_LENGTH)),
      ),
    );
    const single = this.axes
      .filter((axis) => !inRing.has(axis))
      .flatMap((axis) => {
        const line = axisOf(axis[0]!.carrier)!;
        return this.freeWays(axis).map((way) => ({ axes: [axis], line, way, value: dot3(line.at, way) }));
      });
    // a ring about no axis of the body lies where it lies
    const alone = rings
      .filter((r) => !this.axes.some((axis) => isCoaxial(axisOf(axis[0]!.carrier)!, r.about)))
      .flatMap((r) => {
        const u = mainAcross(r.about);
        return [u, unit3(cross3(r.about.along, u))].map((way) => ({
          axes: r.axes,
          line: r.about,
          way,
          value: dot3(r.about.at, way),
        }));
      });
    const levels = clustered(
      [...single, ...alone],
      (p, q) => isParallel(p.way, q.way) && isParallel(p.line.along, q.line.along) && isLike(p.value, q.value),
    ).map((group, i) => {
      const { way, value } = group[0]!;
      const axes = group.flatMap((g) => g.axes);
      // a ring goes where its middle goes
      const along = rings.filter((r) => axes.some((axis) => isCoaxial(axisOf(axis[0]!.carrier)!, r.about)));
      const all = [...new Set([...axes, ...along.flatMap((r) => r.axes)])];
      const moved = moving(all, () => scale3(way, DISTURB_LENGTH));
      return this.disturbance(`axis/${i + 1}`, "place of an axis", "length", value, moved);
    });
    return [...pitch, ...levels];
  }

  /** Like axes that stand evenly on a circle. */
  private rings(): Ring[] {
    const radiiOf = (axis: readonly Surface[]) =>
      axis.flatMap((s) => (s.carrier.kind === "cylinder" ? [s.carrier.radius] : [])).sort((p, q) => p - q);
    const alike = (a: readonly Surface[], b: readonly Surface[]) => {
      const [p, q] = [radiiOf(a), radiiOf(b)];
      const [l, m] = [axisOf(a[0]!.carrier)!, axisOf(b[0]!.carrier)!];
      return isParallel(l.along, m.along) && p.length === q.length && p.every((r, i) => isLike(r, q[i]!));
    };
    const free = this.axes.filter((axis) => this.freeWays(axis).length === 2 && radiiOf(axis).length > 0);
    return clustered(free, alike).flatMap((axes): Ring[] => {
      if (axes.length < 3) return [];
      const { along } = axisOf(axes[0]![0]!.carrier)!;
      const foot = (axis: readonly Surface[]) => footOn([0, 0, 0], { at: axisOf(axis[0]!.carrier)!.at, along });
      const middle = scale3(
        axes.map(foot).reduce((sum, p) => add3(sum, p), vec3(0, 0, 0)),
        1 / axes.length,
      );
      const arms = axes.map((axis) => sub3(foot(axis), middle));
      const radius = length3(arms[0]!);
      if (radius < TOUCHING || arms.some((arm) => !isLike(length3(arm), radius))) return [];
      const u = unit3(arms[0]!),
        v = unit3(cross3(along, u));
      const turns = arms.map((arm) => (Math.atan2(dot3(arm, v), dot3(arm, u)) / (2 * Math.PI)) * axes.length);
      const isEven = turns.every((t) => Math.abs(t - Math.round(t)) < TOUCHING);
      if (!isEven || new Set(turns.map((t) => (Math.round(t) + axes.length) % axes.length)).size < axes.length)
        return [];
      const out = (axis: readonly Surface[]) => unit3(sub3(foot(axis), middle));
      return [{ axes, radius, about: { at: middle, along }, out }];
    });
  }

  /** Cones by their angle and where they stand along their axis, balls and free rings by where they stand. */
  private others(): Disturbance[] {
    const cones = clustered(this.of("cone"), (a, b) => isLike(a.c.half, b.c.half)).map((group, i) => {
      // turned about the rim in its middle, which stays
      const moved: Moved = new Map(
        group.map(({ s, c }) => {
          const along = dot3(sub3(s.centre, c.tip), c.axis),
            half = c.half + DISTURB_ANGLE;
          const back = along - (along * Math.tan(c.half)) / Math.tan(half);
          return [s, { ...c, half, tip: add3(c.tip, scale3(c.axis, back)) }];
        }),
      );
      return this.disturbance(`cone/${i + 1}`, "angle of a cone", "angle", group[0]!.c.half, moved);
    });
    const stands = [
      ...this.of("cone").map(({ s, c }) => ({ s, at: c.tip, ways: [c.axis] })),
      ...this.of("torus")
        .filter(({ s }) => !this.tiesOf(s).length)
        .map(({ s, c }) => ({ s, at: c.centre, ways: [c.axis] })),
      ...this.of("sphere").map(({ s, c }) => ({
        s,
        at: c.centre,
        ways: [[1, 0, 0], [0, 1, 0], [0, 0, 1]] as Vec3[], // prettier-ignore
      })),
    ].flatMap(({ s, at, ways }, i) =>
      ways.map((way, k) => {
        const moved: Moved = new Map([[s, shifted(s.carrier, scale3(way, DISTURB_LENGTH))]]);
        return this.disturbance(`stand/${i + 1}/${k + 1}`, "place of a round face", "length", dot3(at, way), moved);
      }),
    );
    const majors = this.of("torus").flatMap(({ s, c }, i) => {
      const isTied = s.beside.some((k) => {
        const tube = this.body.surfaces[k]!.carrier;
        return (
          tube.kind === "cylinder" &&
          isCoaxial(axisOf(tube)!, axisOf(c)!) &&
          isLike(Math.abs(c.major - tube.radius), c.minor)
        );
      });
      if (isTied) return [];
      const moved: Moved = new Map([[s, { ...c, major: c.major + DISTURB_LENGTH }]]);
      return [this.disturbance(`round/${i + 1}`, "radius of a ring's axis", "length", c.major, moved)];
    });
    return [...cones, ...stands, ...majors];
  }

  /** Whether a flat face, or another axis, stands in line with one of an ellipse's axes: so it is drawn. */
  private isInLine({ at, axis, long }: Of<"elliptic">): boolean {
    const ways = [long, cross3(axis, long)];
    return this.body.surfaces.some(({ carrier }) => {
      if (carrier.kind === "plane") return ways.some((way) => isParallel(way, carrier.normal));
      const other = axisOf(carrier);
      if (!other || !isParallel(other.along, axis)) return false;
      const away = sub3(footOn(at, other), at);
      return length3(away) > TOUCHING && ways.some((way) => isLike(dot3(away, way), 0));
    });
  }

  /** Ellipses by both axes and how they are turned; of free faces only that they have a shape, or their rounding. */
  private curved(): Disturbance[] {
    const ellipses = this.of("elliptic").flatMap(({ s, c }, i) => {
      const give = (what: string, label: string, quantity: "length" | "angle", value: number, to: Partial<typeof c>) =>
        this.disturbance(`ellipse/${i + 1}/${what}`, label, quantity, value, new Map([[s, { ...c, ...to }]]));
      const [a, b] = c.halves;
      return [
        give("long", "longer half axis of an ellipse", "length", a, { halves: [a + DISTURB_LENGTH, b] }),
        give("short", "shorter half axis of an ellipse", "length", b, { halves: [a, b + DISTURB_LENGTH] }),
        ...(this.isInLine(c)
          ? []
          : [give("turn", "turn of an ellipse", "angle", 0, { long: turnedVector(c.long, c.axis, DISTURB_ANGLE) })]),
      ];
    });
    const blends = this.of("other").filter(({ c }) => c.rounding !== undefined);
    const rounded = clustered(blends, (a, b) => isLike(a.c.rounding!, b.c.rounding!)).map((group, i) => {
      const { rounding } = group[0]!.c;
      const moved: Moved = new Map(group.map(({ s, c }) => [s, { ...c, rounding: c.rounding! + DISTURB_LENGTH }]));
      return this.disturbance(`blend/${i + 1}`, "radius of a rounding", "length", rounding!, moved);
    });
    const free = this.of("other").flatMap(({ s, c }, i) => {
      if (!c.spots?.length) return [];
      const spots = c.spots.map((spot) => ({ ...spot, at: add3(spot.at, scale3(spot.out, DISTURB_LENGTH)) }));
      const moved: Moved = new Map([[s, { ...c, spots }]]);
      return [this.disturbance(`free/${i + 1}`, "shape of a curved face", "length", 0, moved)];
    });
    return [...ellipses, ...rounded, ...free];
  }

  disturbances(): Disturbance[] {
    return [...this.levels(), ...this.radii(), ...this.places(), ...this.others(), ...this.curved()];
  }
}

/** Where every face goes when a number of a body from a file changes a little. */
export const foreignDisturbances = (document: PartDocument, body: SizedBody): Disturbance[] =>
  foreignSteps(document).flatMap((step) => new ForeignBody(body, step).disturbances());

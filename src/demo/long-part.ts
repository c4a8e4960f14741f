import type { PartDocument } from "@/core/part/document";
import type { HoleStep } from "@/core/part/steps/hole/schema";
import { Draft } from "./draft";
import { ALUMINIUM, STEEL } from "./parts";

const ring = (of: string, count: number) => ({
  kind: "pattern" as const,
  of: { steps: [of] },
  way: { kind: "ring" as const, about: { axis: "z" }, count, by: "total" as const, angle: 360 },
});
export const bore = (
  on: string,
  at: readonly (readonly [number, number])[],
  diameter: number,
  head: HoleStep["head"] = { kind: "plain" },
) => ({
  kind: "hole" as const,
  on: { face: on },
  points: at.map((p, i) => ({ id: `p${i + 1}`, at: [p[0], p[1]] as [number, number] })),
  diameter,
  head,
  extent: { kind: "through" as const },
});
const blend = (radius: number, ...on: string[]) => ({
  kind: "fillet" as const,
  groups: [{ radius, edges: on.map((edge, i) => ({ id: `e${i + 1}`, on: { edge } })) }],
});

/** A pulley of 12 steps: disc, boss, bore, keyway, a ring of holes, roundings; for the bench. */
export function pulley(): PartDocument {
  const d = new Draft("Pulley", "mm", ALUMINIUM).sketch("top"),
    rim = d.circle([0, 0], 45),
    disc = d.extrude("add", { kind: "depth", depth: 20 }).last;
  d.sketch("top", 20);
  const round = d.circle([0, 0], 18),
    boss = d.extrude("add", { kind: "depth", depth: 12 }).last;
  d.step(blend(3, `${boss}/side/${round}|${disc}/end`));
  d.step(bore(`${boss}/end`, [[0, 0]], 12));
  const light = d.step(bore(`${disc}/end`, [[31, 0]], 13));
  d.step(ring(light, 6));
  d.sketch("top", 32);
  d.rectangle([-2, 0], [2, 8.3]);
  d.extrude("cut", { kind: "through" });
  d.step({
    kind: "chamfer",
    groups: [
      {
        size: { kind: "equal", distance: 1 },
        edges: [{ id: "e1", on: { edge: `${boss}/side/${round}|${boss}/end` } }],
      },
    ],
  });
  d.step(blend(2, `${disc}/side/${rim}|${disc}/start`, `${disc}/side/${rim}|${disc}/end`));
  return d.document;
}

/**
 * A mast clamp of 16 steps: a rounded block with bore and slit, two lugs with holes, counterbores in rows; for the
 * bench.
 */
export function mastClamp(): PartDocument {
  const d = new Draft("Mast clamp", "mm", ALUMINIUM).sketch("top");
  d.rectangle([-45, -30], [45, 30]);
  const block = d.extrude("add", { kind: "depth", depth: 34 }).last,
    side = (n: number) => `${block}/side/l${n}`;
  d.step(
    blend(
      10,
      ...[
        [1, 2],
        [2, 3],
        [3, 4],
        [4, 1],
      ].map(([a, b]) => `${side(a!)}|${side(b!)}`),
    ),
  );
  d.step(bore(`${block}/end`, [[0, 0]], 34));
  d.sketch("top", 34);
  d.rectangle([-1.5, 0], [1.5, 60]);
  d.extrude("cut", { kind: "through" });
  for (const x of [-22, 22]) {
    d.sketch("top", 34);
    const c = d.circle([x, -18], 9),
      lug = d.extrude("add", { kind: "depth", depth: 8 }).last;
    d.step(bore(`${lug}/end`, [[x, -18]], 5.5));
    d.step(blend(1.5, `${lug}/side/${c}|${lug}/end`));
  }
  const screw = d.step(bore(`${block}/end`, [[-34, 16]], 6.6, { kind: "counterbore", diameter: 11, depth: 6.4 }));
  d.step({
    kind: "pattern",
    of: { steps: [screw] },
    way: { kind: "rows", first: { along: { axis: "x" }, count: 2, by: "step", distance: 68 } },
  });
  return d.document;
}

/** A tripod foot of 24 steps: a dish with three arms, each a boss with its hole and roundings; for the bench. */
export function tripodBase(): PartDocument {
  const d = new Draft("Tripod base", "mm", STEEL).sketch("top"),
    rim = d.circle([0, 0], 60),
    disc = d.extrude("add", { kind: "depth", depth: 10 }).last;
  d.sketch("top", 10);
  d.circle([0, 0], 20);
  d.step({ kind: "plane", by: { kind: "offset", from: { datum: "top" }, distance: 40 } });
  const post = d.extrude("add", { kind: "depth", depth: 30 }).last;
  d.step(bore(`${post}/end`, [[0, 0]], 16));
  for (let i = 0; i < 3; i++) {
    const a = (2 * Math.PI * i) / 3 + 0.3,
      at = [42 * Math.cos(a), 42 * Math.sin(a)] as const;
    d.sketch("top", 10);
    const c = d.circle(at, 10),
      boss = d.extrude("add", { kind: "depth", depth: 12 }).last;
    d.step(bore(`${boss}/end`, [at], 6.6, { kind: "counterbore", diameter: 11, depth: 6.4 }));
    d.step(blend(2, `${boss}/side/${c}|${disc}/end`));
  }
  const small = d.step(bore(`${disc}/end`, [[50 * Math.cos(1.4), 50 * Math.sin(1.4)]], 5));
  d.step(ring(small, 6));
  d.step(blend(3, `${disc}/side/${rim}|${disc}/end`));
  d.sketch("front", -70);
  d.rectangle([-6, 18], [6, 30]);
  d.extrude("cut", { kind: "through" });
  d.step({
    kind: "chamfer",
    groups: [
      {
        size: { kind: "equal", distance: 1 },
        edges: [{ id: "e1", on: { edge: `${disc}/side/${rim}|${disc}/start` } }],
      },
    ],
  });
  return d.document;
}

/**
 * A frame of the weather station of 40 steps: a plate with bosses, pockets and holes, each by a step of its own; for
 * the bench.
 */
export function longPart(): PartDocument {
  const d = new Draft("Station frame", "mm", STEEL).sketch("top");
  d.rectangle([0, 0], [240, 160]);
  const plate = d.extrude("add", { kind: "depth", depth: 16 }).last;
  d.step({
    kind: "fillet",
    groups: [
      {
        radius: 12,
        edges: [
          [1, 2],
          [2, 3],
          [3, 4],
          [4, 1],
        ].map(([a, b], i) => ({ id: `e${i + 1}`, on: { edge: `${plate}/side/l${a}|${plate}/side/l${b}` } })),
      },
    ],
  });
  for (let i = 0; i < 9; i++) {
    const x = 30 + 45 * (i % 5),
      y = i < 5 ? 40 : 120;
    d.sketch("top", 16);
    d.circle([x, y], 12);
    const boss = d.extrude("add", { kind: "depth", depth: 14 }).last;
    d.step({
      kind: "hole",
      on: { face: `${boss}/end` },
      points: [{ id: "p1", at: [x, y] }],
      diameter: 8,
      head: { kind: "plain" },
      extent: { kind: "through" },
    });
  }
  for (let i = 0; i < 4; i++) {
    d.sketch("top", 16);
    d.rectangle([50 + 40 * i, 70], [70 + 40 * i, 90]);
    d.extrude("cut", { kind: "depth", depth: 6 }, { reverse: true });
  }
  const screw = d.step({
    kind: "hole",
    on: { face: `${plate}/end` },
    points: [{ id: "p1", at: [14, 80] }],
    diameter: 6.6,
    head: { kind: "counterbore", diameter: 11, depth: 6 },
    extent: { kind: "through" },
  });
  d.step({
    kind: "pattern",
    of: { steps: [screw] },
    way: { kind: "rows", first: { along: { axis: "x" }, count: 2, by: "step", distance: 212 } },
  });
  return d.document;
}

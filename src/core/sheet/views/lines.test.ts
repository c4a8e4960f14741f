import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from "three";
import { MeshBVH } from "three-mesh-bvh";
import { beforeAll, describe, expect, it } from "vitest";
import { cross3, dot3, length3, scale3, sub3, unit3, add3, type Vec2, type Vec3 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import { combine, isEmpty } from "@/core/kernel/boolean";
import { facesOf } from "@/core/kernel/faces";
import { meshOf } from "@/core/kernel/mesh";
import { propertiesOf } from "@/core/kernel/properties";
import { halfSpace } from "@/core/kernel/section";
import { prism } from "@/core/kernel/sweep";
import type { Solid } from "@/core/kernel/solid";
import { rebuild } from "@/core/part/rebuild";
import { extrude, part, sketch } from "@/core/part/testing/build";
import { SOLIDS } from "@/core/part/testing/solids";
import { TOUCHING } from "@/core/part/testing/solids/reaching";
import type { Curve } from "@/core/sketch/sketch";
import { openNodeKernel } from "@/worker/kernel";
import { hatched } from "./hatch";
import { strokeLength } from "./outline";
import { drawnView, GAZES, upOf, type ViewName } from "./views";
import { fewer } from "@/core/part/testing/chosen";

/** Facets turn by no more than this against each other, radians; what turns more is an edge. */
const FINE = 0.02;
const SHARP = 0.06;
/** A facet whose cosine with the way of looking is less is seen edge on. */
const EDGE_ON = 1e-4;
/** How far from an edge it is asked whether something stands before it, mm. */
const BESIDE = 2e-3;
/** Drawn lines this near to each other are one, mm and sine. */
const ONE_LINE = 6e-3;
const ONE_WAY = 4e-3;
/** What is drawn shorter than this is a point, mm. */
const NOTHING = 4e-4;

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

interface Facet {
  readonly corners: readonly [Vec3, Vec3, Vec3];
  readonly normal: Vec3;
}
interface Side {
  readonly a: Vec3;
  readonly b: Vec3;
  readonly facets: Facet[];
}

/** The polyhedron of a body's facets: its sides with the two facets at each, and a way to ask what a ray meets. */
function polyhedron(solid: Solid) {
  const mesh = meshOf(kernel, solid, 0.01, FINE);
  const at = (i: number): Vec3 => [mesh.positions[3 * i]!, mesh.positions[3 * i + 1]!, mesh.positions[3 * i + 2]!];
  const key = (p: Vec3) => p.map((v) => Math.round(v * 2000)).join();
  const sides = new Map<string, Side>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => at(mesh.triangles[t + k]!)) as [Vec3, Vec3, Vec3];
    const [a, b, c] = corners,
      across = cross3(sub3(b, a), sub3(c, a));
    if (length3(across) < 1e-12) continue;
    const facet = { corners, normal: unit3(across) };
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const [k, l] = [key(p), key(q)];
      if (k === l) continue;
      const name = k < l ? `${k} ${l}` : `${l} ${k}`;
      const known = sides.get(name);
      if (known) known.facets.push(facet);
      else sides.set(name, { a: p, b: q, facets: [facet] });
    }
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(mesh.positions, 3));
  geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
  const tree = new MeshBVH(geometry, { indirect: true });
  const meets = (from: Vec3, way: Vec3): boolean =>
    tree.raycastFirst(new Ray(new Vector3(...from), new Vector3(...way)), DoubleSide) !== null;
  return { sides: [...sides.values()], meets };
}

type Span = readonly [number, number];
interface Line {
  readonly along: Vec2;
  readonly level: number;
  readonly seen: Span[];
  readonly covered: Span[];
}

function joined(list: readonly Span[]): Span[] {
  const out: [number, number][] = [];
  for (const [a, b] of [...list].sort((p, q) => p[0] - q[0])) {
    const last = out[out.length - 1];
    if (last && a <= last[1] + ONE_LINE) last[1] = Math.max(last[1], b);
    else out.push([a, b]);
  }
  return out;
}
const without = (list: readonly Span[], covers: readonly Span[]): Span[] =>
  covers.reduce<Span[]>(
    (rest, [c, d]) =>
      rest.flatMap(([a, b]): Span[] =>
        (
          [
            [a, Math.min(b, c)],
            [Math.max(a, d), b],
          ] as Span[]
        ).filter(([s, t]) => t > s),
      ),
    [...list],
  );
const total = (list: readonly Span[]) => list.reduce((s, [a, b]) => s + b - a, 0);

/** Lengths, and numbers of lines, that a view of the polyhedron shows and hides. */
function castLines({ sides, meets }: ReturnType<typeof polyhedron>, name: keyof typeof GAZES) {
  const gaze = GAZES[name],
    { toViewer, right } = gaze,
    up = upOf(gaze);
  const lines: Line[] = [];
  const sees = (f: Facet) => {
    const s = dot3(f.normal, toViewer);
    return Math.abs(s) < EDGE_ON ? 0 : Math.sign(s);
  };
  for (const { a, b, facets } of sides) {
    const [f, g] = facets;
    if (!f || !g) continue;
    const isSharp = Math.acos(Math.min(1, dot3(f.normal, g.normal))) > SHARP;
    if (!isSharp && sees(f) === sees(g)) continue;
    const flat = (p: Vec3): Vec2 => [dot3(p, right), dot3(p, up)];
    const [p, q] = [flat(a), flat(b)],
      long = Math.hypot(q[0] - p[0], q[1] - p[1]);
    if (long < NOTHING) continue;
    const beside = scale3(unit3(add3(f.normal, g.normal)), BESIDE);
    const isSeen = (t: number) => !meets(add3(add3(scale3(a, 1 - t), scale3(b, t)), beside), toViewer);
    let along: Vec2 = [(q[0] - p[0]) / long, (q[1] - p[1]) / long];
    if (along[0] < -1e-3 || (Math.abs(along[0]) <= 1e-3 && along[1] < 0)) along = [-along[0], -along[1]];
    const level = along[0] * p[1] - along[1] * p[0];
    let line = lines.find(
      (l) => Math.abs(l.level - level) < ONE_LINE && Math.abs(l.along[0] * along[1] - l.along[1] * along[0]) < ONE_WAY,
    );
    if (!line) lines.push((line = { along, level, seen: [], covered: [] }));
    const u = (t: number) => {
      const x: Vec2 = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
      return x[0] * line!.along[0] + x[1] * line!.along[1];
    };
    for (const [from, to, seen] of runs(isSeen, long)) {
      const span = [u(from), u(to)].sort((m, n) => m - n) as [number, number];
      (seen ? line.seen : line.covered).push(span);
    }
  }
  const seen = lines.map((l) => joined(l.seen)),
    covered = lines.map((l, i) => without(joined(l.covered), seen[i]!).filter(([a, b]) => b - a > ONE_LINE));
  return {
    seen: total(seen.flat()),
    covered: total(covered.flat()),
    count: seen.flat().filter(([a, b]) => b - a > ONE_LINE).length,
    coveredCount: covered.flat().length,
  };
}

/** Where a side is seen and where not, along it; ends are found by halving. */
function runs(isSeen: (t: number) => boolean, long: number): [number, number, boolean][] {
  const n = Math.max(4, Math.min(200, Math.ceil(long / 0.5)));
  const out: [number, number, boolean][] = [];
  // the very ends touch other facets
  const at = (i: number) => Math.min(1 - 1e-4, Math.max(1e-4, i / n));
  let from = 0,
    now = isSeen(at(0));
  for (let i = 1; i <= n; i++) {
    if (isSeen(at(i)) === now) continue;
    let [a, b] = [at(i - 1), at(i)];
    for (let k = 0; k < 24; k++) {
      const m = (a + b) / 2;
      if (isSeen(m) === now) a = m;
      else b = m;
    }
    out.push([from, (a + b) / 2, now]);
    from = (a + b) / 2;
    now = !now;
  }
  out.push([from, 1, now]);
  return out;
}

const SIX = ["front", "top", "left", "right", "bottom", "rear"] as const satisfies readonly ViewName[];

/** What turns about axes along the views, and polyhedra: of balls and rings facets are never near enough. */
const PARTS = SOLIDS.filter((s) => !/ball|sphere|torus|ring$|cone|halves|corner of a box|rods|slope|rim/.test(s.name));
const TRIED = fewer(PARTS, 3);

describe.each(TRIED.map((k) => [k.name, k] as const))("the lines of %s", (_, known) => {
  it("are those that rays find, in all six views", () => {
    const built = rebuild(kernel, known.ways[0]!);
    const solid = built.body!;
    const facets = polyhedron(solid);
    const isFlat = solid.names.length < 30 && !hasRound(solid);
    const off: string[] = [];
    for (const name of SIX) {
      const cast = castLines(facets, name);
      const { strokes } = drawnView(kernel, solid, { key: name, name, gaze: GAZES[name], hidden: true });
      const of = (hidden: boolean) => strokes.filter((s) => s.hidden === hidden);
      const sum = (hidden: boolean) => of(hidden).reduce((l, s) => l + strokeLength(s), 0);
      const near = 1e-4 * Math.max(1, cast.seen + cast.covered);
      const [seen, covered] = [sum(false), sum(true)];
      if (Math.abs(seen - cast.seen) > near || Math.abs(covered - cast.covered) > near)
        off.push(`${name}: seen ${seen} for ${cast.seen}, hidden ${covered} for ${cast.covered}`);
      if (isFlat && (of(false).length !== cast.count || of(true).length !== cast.coveredCount))
        off.push(
          `${name}: ${of(false).length} and ${of(true).length} lines for ${cast.count} and ${cast.coveredCount}`,
        );
    }
    kernel.release(solid.shape);
    expect(off).toEqual([]);
  });
});

const hasRound = (solid: Solid): boolean => facesOf(kernel, solid).some((f) => f.carrier.kind !== "plane");

/** Lengths of lines that a formula gives: what is seen, and what is hidden. */
const CLOSED: readonly (readonly [string, keyof typeof GAZES, number, number])[] = [
  ["torus", "front", 2 * 40 + 2 * Math.PI * 3, 2 * Math.PI * 3],
  ["torus", "left", 2 * 40 + 2 * Math.PI * 3, 2 * Math.PI * 3],
  ["torus", "top", 2 * Math.PI * (23 + 17), 0],
  ["sphere", "front", 2 * Math.PI * 7, 0],
  ["half ball", "front", 14 + Math.PI * 7, 0],
  ["whole cone", "front", 12 + 2 * Math.hypot(6, 14), 0],
  ["whole cone", "bottom", 2 * Math.PI * 6, 0],
  ["rounded rim of a disc", "front", 16 + 2 * 10 + 12 + 2 * Math.PI, 0],
  ["rounded rim of a disc", "top", 2 * Math.PI * 8, 0],
  // the outline of the arm, and the half of the boss that stands over it
  ...TOUCHING.flatMap(({ name }) =>
    (["top", "bottom"] as const).map((view) => [name, view, 120 + 2 * Math.PI * 10 + Math.PI * 10, 0] as const),
  ),
];
it.each(CLOSED)("%s from the %s: lines of %d mm are seen, of %d mm hidden", (name, view, seen, hidden) => {
  const solid = rebuild(kernel, [...SOLIDS, ...TOUCHING].find((s) => s.name === name)!.ways[0]!).body!;
  const { strokes } = drawnView(kernel, solid, { key: view, name: view, gaze: GAZES[view], hidden: true });
  const sum = (isHidden: boolean) =>
    strokes.filter((s) => s.hidden === isHidden).reduce((l, s) => l + strokeLength(s), 0);
  kernel.release(solid.shape);
  expect(sum(false) / seen).toBeCloseTo(1, 3);
  expect(sum(true)).toBeCloseTo(hidden, 1);
});

it.each([
  ["whole", 0],
  ["turned by 30°", 30],
  ["turned by 77°", 77],
])("what an ellipse sweeps is seen from the front as wide as it is so: %s", (_, degrees) => {
  const turn = (degrees * Math.PI) / 180,
    [a, b, high] = [25, 11, 17],
    end = (half: number, on: number): [number, number] => [half * Math.cos(turn + on), half * Math.sin(turn + on)];
  const ends = { major: end(a, 0), minor: end(b, Math.PI / 2) };
  const ellipse: Curve = { id: "e", kind: "ellipse", centre: [0, 0], ...ends };
  const solid = rebuild(kernel, part(sketch("s", "top", [ellipse]), extrude("b", "s", high))).body!;
  const view = drawnView(kernel, solid, { key: "f", name: "front", gaze: GAZES.front, hidden: true });
  kernel.release(solid.shape);
  const wide = 2 * Math.hypot(a * Math.cos(turn), b * Math.sin(turn));
  expect(view.strokes.filter((s) => s.hidden)).toEqual([]);
  expect(view.strokes.reduce((sum, s) => sum + strokeLength(s), 0)).toBeCloseTo(2 * (wide + high), 2);
  expect(view.box.max[0] - view.box.min[0]).toBeCloseTo(wide, 2);
});

it.each(TRIED.filter((_, i) => i % 3 === 0).map((k) => [k.name, k] as const))(
  "%s cut through its middle shows the area that the kernel finds",
  (_, known) => {
    const solid = rebuild(kernel, known.ways[0]!).body!;
    const { min, max } = propertiesOf(kernel, solid).box;
    const level = min[1] + (max[1] - min[1]) * 0.47;
    const frame = { origin: [0, level, 0] as const, x: [1, 0, 0] as const, y: [0, 0, 1] as const };
    const far = 1000;
    const cutter = halfSpace(frame, [-far, -far], [far, far], far);
    const view = drawnView(kernel, solid, {
      key: "s",
      name: "section",
      gaze: GAZES.front,
      hidden: false,
      cutters: [cutter],
    });
    // a slab of a hair's breadth holds the area times its breadth
    const slab = prism(kernel, frame, { outer: square(far), holes: [] }, 0, HAIR, "slab");
    const common = combine(kernel, "common", solid, [slab]);
    const area = isEmpty(kernel, common) ? 0 : propertiesOf(kernel, common).volume / HAIR;
    kernel.release(solid.shape, slab.shape, common.shape);
    expect(view.cuts.reduce((s, c) => s + c.area, 0)).toBeCloseTo(area, 1);
    // the hatch fills what is cut
    const apart = 0.05;
    const bounds = view.cuts.flatMap((c) => c.bounds);
    const hatch = hatched(bounds, apart).reduce((s, [a, b]) => s + Math.hypot(b[0] - a[0], b[1] - a[1]), 0);
    expect(Math.abs(hatch * apart - area)).toBeLessThan(0.01 * area + 0.5);
  },
);
const HAIR = 0.001;

const square = (far: number) => {
  const corners: Vec2[] = [
    [-far, -far],
    [far, -far],
    [far, far],
    [-far, far],
  ];
  return corners.map((a, i) => ({ kind: "line" as const, curve: `q${i}`, a, b: corners[(i + 1) % 4]! }));
};

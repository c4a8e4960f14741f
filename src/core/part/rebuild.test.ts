import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import type { Kernel } from "@/core/kernel/opencascade";
import { formatFace } from "@/core/naming/names";
import { meshOf } from "@/core/kernel/mesh";
import { Draft } from "@/demo/draft";
import { STEEL, tripodFoot, tripodFootElsewhere, vaneArm } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import type { PartDocument } from "./document";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const measure = (d: PartDocument) => {
  const m = measurePart(kernel, d);
  expect(m.built.steps.filter((s) => s.refusal)).toEqual([]);
  return { ...m, p: m.properties! };
};
const near = (got: number, want: number, relative: number) =>
  expect(Math.abs(got - want)).toBeLessThanOrEqual(relative * Math.max(1, Math.abs(want)));

/** Closed formulas: volume, area, centre of mass. */
describe("properties agree with closed formulas", () => {
  it("a box", () => {
    const d = new Draft("box", "mm", STEEL).sketch("top");
    d.rectangle([0, 0], [40, 25]);
    d.extrude("add", { kind: "depth", depth: 8 });
    const { p } = measure(d.document);
    near(p.volume, 8000, 1e-9);
    near(p.area, 2 * (40 * 25 + 40 * 8 + 25 * 8), 1e-9);
    [20, 12.5, 4].forEach((c, i) => near(p.centre[i]!, c, 1e-9));
    const m = [(8000 * (25 ** 2 + 8 ** 2)) / 12, (8000 * (40 ** 2 + 8 ** 2)) / 12, (8000 * (40 ** 2 + 25 ** 2)) / 12];
    m.forEach((v, i) => near(p.moments[i]!, v, 1e-9));
    expect(p.box).toEqual({ min: [0, 0, 0], max: [40, 25, 8] });
    expect([p.bodies, p.valid, p.closed]).toEqual([1, true, true]);
  });
  it.each([
    ["front", [0, -4, 0]],
    ["top", [0, 0, 4]],
    ["right", [4, 0, 0]],
  ] as const)("a disc on the %s plane, both ways and to depth", (plane, up) => {
    for (const kind of ["depth", "both"] as const) {
      const d = new Draft("disc", "mm", STEEL).sketch(plane);
      d.circle([0, 0], 15);
      d.extrude("add", { kind, depth: 8 });
      const { p } = measure(d.document);
      near(p.volume, Math.PI * 225 * 8, 1e-7);
      near(p.area, 2 * Math.PI * 225 + 2 * Math.PI * 15 * 8, 1e-7);
      up.forEach((c, i) => near(p.centre[i]!, kind === "both" ? 0 : c, 1e-7));
    }
  });
  it("the tripod foot", () => {
    const { p } = measure(tripodFoot());
    const volume = (96 * 14 + 14 * 50) * 52 - Math.PI * 81 * 14 - 2 * Math.PI * 4.5 ** 2 * 14;
    near(p.volume, volume, 1e-7);
    expect(p.box).toEqual({ min: [0, -52, 0], max: [96, 0, 64] });
  });
  it("the foot built another way and elsewhere has the same volume, area and moments", () => {
    const a = measure(tripodFoot()).p,
      b = measure(tripodFootElsewhere()).p;
    near(b.volume, a.volume, 1e-9);
    near(b.area, a.area, 1e-9);
    a.moments.forEach((m, i) => near(b.moments[i]!, m, 1e-9));
  });
  it("the vane arm, in inches", () => {
    const { p } = measure(vaneArm());
    const plate = 5.5 * 1.25 - (0.75 * 0.75) / 2 - Math.PI * 0.0625 - 2 * Math.PI * (5 / 32) ** 2;
    const boss = Math.PI * (7 / 16) ** 2 - Math.PI * (3 / 16) ** 2;
    near(p.volume / 25.4 ** 3, plate * 0.375 + boss * 0.5, 1e-7);
  });
});

describe("faces know where they come from", () => {
  it("names survive booleans, and merged faces keep both names", () => {
    const m = measure(tripodFoot());
    const keys = m.faces.map((f) => f.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toContain("extrude2/side/c1");
    expect(m.faces.every((f) => f.names.length > 0)).toBe(true);
    const bore = m.faces.find((f) => f.key === "extrude2/side/c1")!;
    expect(bore.carrier).toMatchObject({ kind: "cylinder", hollow: true });
    near(bore.area, 2 * Math.PI * 9 * 14, 1e-9);
    const e = measure(tripodFootElsewhere());
    const merged = e.faces.find((f) => f.names.length > 1);
    expect(merged && merged.names.map(formatFace).some((k) => k.startsWith("extrude2"))).toBe(true);
  });
});

it("facets close and their volume comes near the exact one", () => {
  const m = measure(tripodFoot());
  const mesh = meshOf(kernel, m.solid!, 0.01, 0.05);
  let six = 0;
  const v = (i: number) =>
    [0, 1, 2].map((k) => mesh.positions[3 * mesh.triangles[i]! + k]!) as [number, number, number];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = [v(i), v(i + 1), v(i + 2)];
    six += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  near(six / 6, m.p.volume, 1e-3);
  expect(mesh.faces).toHaveLength(m.faces.length);
});

describe("a step in trouble is marked and the rest still shows", () => {
  it("open sketch, cut into air, depth that is no number, lost region", () => {
    const good = tripodFoot();
    const broken = (change: (d: PartDocument) => void) => {
      const d = structuredClone(good);
      change(d);
      const m = measurePart(kernel, d);
      expect(m.solid).toBeDefined();
      return m.built.steps.filter((s) => s.refusal).map((s) => [s.id, s.refusal!.code, s.refusal!.sentence]);
    };
    const extrude = (d: PartDocument, i: number) =>
      d.steps[i] as Extract<PartDocument["steps"][number], { kind: "extrude" }>;
    const sketch = (d: PartDocument, i: number) =>
      d.steps[i] as Extract<PartDocument["steps"][number], { kind: "sketch" }>;
    expect(
      broken((d) => {
        sketch(d, 2).sketch.curves = [{ id: "l1", kind: "line", start: [0, 0], end: [5, 5] }];
        sketch(d, 2).sketch.constraints = [];
        sketch(d, 2).sketch.dimensions = [];
      })[0],
    ).toEqual(["extrude2", "open-profile", expect.stringContaining("slanting line")]);
    expect(
      broken((d) => {
        extrude(d, 3).extent = { kind: "depth", depth: 5 };
        extrude(d, 3).reverse = true;
      })[0]![1],
    ).toBe("cuts-nothing");
    expect(
      broken((d) => {
        extrude(d, 3).extent = { kind: "depth", depth: "wide" };
      })[0]![1],
    ).toBe("bad-number");
    expect(
      broken((d) => {
        extrude(d, 3).regions = ["nowhere"];
      })[0]![1],
    ).toBe("lost-region");
    expect(
      broken((d) => {
        sketch(d, 2).sketch.dimensions[0]!.value = "x";
      }).map((r) => r[0]),
    ).toEqual(["sketch2", "extrude2"]);
  });
});

import { beforeAll, describe, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import { distance2, type Vec2 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import { emptyPart, type PartDocument } from "@/core/part/document";
import { circ, part, revolve, sketch } from "@/core/part/testing/build";
import { SOLIDS } from "@/core/part/testing/solids";
import { withSketchesDefined } from "@/core/sizes/numbers";
import type { Size } from "@/core/sizes/size";
import { sizesOf } from "@/core/sizes/sizes";
import { Draft } from "@/demo/draft";
import { armExercise, footExercise } from "@/demo/exercises";
import { STEEL } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { distanceToSegment, type Segment } from "./plane";
import { paperOf } from "./sizes/placed";
import { centresOf } from "./views/centres";
import { openDraft } from "./views/draft";
import type { SheetModel } from "./views/model";
import { strokeSegments } from "./views/obstacles";
import { cleanStrokes } from "./views/outline";
import { drawSheet, layOut, makeSheet, type DrawnSheet } from "./sheet";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const sheet = (e: ReturnType<typeof footExercise>) => {
  const r = makeSheet(kernel, e);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

describe("a Sheet", () => {
  it("of the foot carries the sizes it was built with, measured", () => {
    const { dimensions, svg, scale } = sheet(footExercise());
    expect(dimensions.map((d) => d.text).sort()).toEqual(
      ["14", "14", "18", "2× ⌀9", "24", "44", "52", "62", "64", "96", "⌀18"].sort(),
    );
    expect(scale).toBe("1:1");
    expect(svg).toContain("792.41");
    expect(svg.match(/data-view="/g)).toHaveLength(4);
  });
  it("follows the reference: a changed depth changes the size, nothing is typed", () => {
    const e = footExercise();
    const step = e.reference.steps[1]!;
    const changed = {
      ...e,
      reference: {
        ...e.reference,
        steps: e.reference.steps.map((s) =>
          s === step && s.kind === "extrude" ? { ...s, extent: { kind: "depth" as const, depth: 60.5 } } : s,
        ),
      },
    };
    const texts = sheet(changed).dimensions.map((d) => d.text);
    expect(texts).toContain("60.5");
    expect(texts).not.toContain("52");
  });
  it("letters the general tolerance that the exercise checks by", () => {
    const svg = (sizes: ReturnType<typeof footExercise>["tolerances"]["sizes"]) =>
      sheet({ ...footExercise(), tolerances: { ...footExercise().tolerances, sizes } }).svg;
    expect(svg(undefined)).toContain("sizes as printed");
    expect(svg(undefined)).not.toContain("2768");
    expect(svg({ by: "iso", class: "f" })).toContain("ISO 2768-f");
    expect(svg({ by: "plain", length: 0.1, angle: Math.PI / 360 })).toContain("±0.1, angles ±0.5°");
  });
  it("in inches letters without leading zeros and puts the top view above", () => {
    const arm = armExercise();
    const { svg, dimensions } = sheet({ ...arm, sheet: { ...arm.sheet, fractions: false } });
    expect(dimensions.map((d) => d.text)).toContain(".375");
    const texts = sheet(arm).dimensions.map((d) => d.text);
    expect(texts).toEqual(expect.arrayContaining(["3/8", "4 3/4", "⌀7/8", "2× ⌀5/16"]));
    const at = (text: string, view: string) =>
      Number(new RegExp(`data-view="${view}"><title>[^<]+</title><rect x="[^"]+" y="([^"]+)"`).exec(text)![1]);
    expect(at(svg, "top")).toBeLessThan(at(svg, "front"));
    const first = sheet(footExercise()).svg;
    expect(at(first, "top")).toBeGreaterThan(at(first, "front"));
  });
  it("prints neither mass nor volume unless asked to", () => {
    const e = footExercise();
    const { svg, printedMass } = sheet({ ...e, sheet: { ...e.sheet, printMass: false, printVolume: false } });
    // in any words; coordinates may hold any figures
    expect(svg.replace(/ d="[^"]*"/g, "")).not.toContain("792");
    expect(printedMass).toBeUndefined();
  });
  it("escapes what people typed", () => {
    const e = footExercise();
    const { svg } = sheet({ ...e, title: "<script>alert(1)</script>", sheet: { ...e.sheet, notes: "a & b <i>" } });
    expect(svg).not.toContain("<script");
    expect(svg).not.toContain("<i>");
  });
  it("keeps every stroke and every number on the paper", () => {
    for (const e of [footExercise(), armExercise()]) {
      const { svg } = sheet(e);
      const [, width, height] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!.map(Number) as [number, number, number];
      for (const m of svg.matchAll(/ (x|y|x1|x2|y1|y2|cx|cy)="(-?[\d.]+)"/g)) {
        expect(Number(m[2])).toBeGreaterThanOrEqual(0);
        expect(Number(m[2])).toBeLessThanOrEqual(m[1]!.includes("x") ? width : height);
      }
    }
  });
  it("refuses a reference without a solid", () => {
    const e = footExercise();
    const r = makeSheet(kernel, { ...e, reference: emptyPart("x", "mm", STEEL) });
    expect(r.ok ? "" : r.refusal.code).toBe("bad-reference");
  });
  it("a half-round notch is dimensioned by its radius", () => {
    const d = new Draft("notched", "mm", STEEL).sketch("top");
    d.rectangle([0, 0], [60, 40]);
    d.extrude("add", { kind: "depth", depth: 10 }).sketch("top");
    d.circle([60, 22], 7.5);
    d.extrude("cut", { kind: "through" });
    expect(sheet({ ...footExercise(), reference: d.document }).dimensions.map((x) => x.text)).toContain("R7.5");
  });
  it("a turned disc shows no seam as an edge", () => {
    const d = new Draft("disc", "mm", STEEL).sketch("top");
    d.circle([0, 0], 30);
    d.extrude("add", { kind: "depth", depth: 10 });
    const { svg } = sheet({ ...footExercise(), reference: d.document });
    const long = /data-view="long">(.*?)<\/g>/.exec(svg)![1]!;
    // a rectangle: two level lines and two outlines, nothing between
    expect(long.match(/class="pen-outline"/g)).toHaveLength(4);
    expect(long).not.toContain('class="pen-hidden"');
  });
});

/** A reference drawn as a draughtsman would. */
function drawnOf(reference: PartDocument): {
  model: SheetModel;
  composition: DrawnSheet["composition"];
  sizes: readonly Size[];
} {
  const defined = withSketchesDefined(reference),
    found = sizesOf(kernel, defined),
    draft = openDraft(kernel, defined, "mm");
  if (!found.ok || !draft.ok) throw new Error("this cannot be drawn");
  const { sizes } = found.value,
    { composition } = layOut(draft.value, { ...newExercise(), sizes });
  draft.value.close();
  return { model: draft.value.model, composition, sizes };
}

describe("centre lines", () => {
  it.each(["slotted plate", "wall round a bend", "post up to a ball", "shaft of two halves with a keyway, 12"])(
    "%s: no extension line begins in the air",
    (name) => {
      const { model, composition, sizes } = drawnOf(SOLIDS.find((s) => s.name === name)!.ways[0]!);
      for (const { view, scale, placed } of composition.views) {
        const put = paperOf(view, scale);
        const drawn = [...view.strokes.flatMap(strokeSegments), ...centresOf(model, sizes, view, scale).lines];
        const lines = drawn.map(([a, b]): Segment => [put(a), put(b)]);
        for (const { extensions, item } of placed)
          for (const [from] of extensions) {
            const off = Math.min(...lines.map((line) => distanceToSegment(from, line)));
            expect(`${item.lines[0]!.text} ${off < 0.5}`).toBe(`${item.lines[0]!.text} true`);
          }
      }
    },
  );
  it("of a bent pipe: its middle line, and crosses at its ends", () => {
    const pipe = part(
      sketch("s", "front", circ(40, 0, 8), circ(40, 0, 6, "c2")),
      revolve("b", "s", { turn: { kind: "angle", angle: 90 } }),
    );
    const { model, composition, sizes } = drawnOf(pipe);
    const of = (name: string) => {
      const { view } = composition.views.find((s) => s.view.name === name)!;
      return centresOf(model, sizes, view, 1);
    };
    const [arc] = of("top").arcs;
    expect([arc!.radius, arc!.to - arc!.from]).toEqual([40, expect.closeTo(Math.PI / 2 + 6 / 40, 6)]);
    // 11 to either side of the end that is seen round
    expect(of("front").lines.map(([a, b]) => distance2(a, b))).toEqual([22, 22].map((v) => expect.closeTo(v, 6)));
    // and how it is bent is told there
    const told = composition.views.find((s) => s.view.name === "top")!.placed.map((p) => p.item.lines[0]!.text);
    expect(told.sort()).toEqual(["90°", "⌀80"]);
  });
});

describe("cleanStrokes", () => {
  it("joins pieces and drops hidden lines under visible ones", () => {
    const strokes = cleanStrokes([
      {
        hidden: false,
        points: [
          [0, 0],
          [5, 0],
        ],
      },
      {
        hidden: false,
        points: [
          [4, 0],
          [10, 0],
        ],
      },
      {
        hidden: true,
        points: [
          [2, 0],
          [14, 0],
        ],
      },
      {
        hidden: true,
        points: [
          [3, 0],
          [8, 0],
        ],
      },
    ]);
    expect(strokes).toEqual([
      { kind: "line", a: [0, 0], b: [10, 0], hidden: false },
      { kind: "line", a: [10, 0], b: [14, 0], hidden: true },
    ]);
  });
  it("joins arcs of one circle into the whole", () => {
    const arc = (from: number, to: number) => ({
      hidden: false,
      points: Array.from({ length: 33 }, (_, i): [number, number] => [
        3 + 2 * Math.cos(from + ((to - from) * i) / 32),
        2 * Math.sin(from + ((to - from) * i) / 32),
      ]),
    });
    const strokes = cleanStrokes([arc(0.3, 2.8), arc(2.8, 6.583185307179586)]);
    expect(strokes).toHaveLength(1);
    expect(strokes[0]).toMatchObject({ kind: "arc", from: 0 });
  });
});

describe("cones", () => {
  const placedOf = (name: string) => {
    const reference = withSketchesDefined(SOLIDS.find((k) => k.name === name)!.ways[0]!);
    const r = drawSheet(kernel, { ...newExercise(), reference });
    if (!r.ok) throw new Error(r.refusal.sentence);
    const all = r.value.composition.views.flatMap((v) =>
      v.placed.map((placed) => ({ placed, scale: r.value.composition.scale })),
    );
    return (text: string) => all.find(({ placed }) => placed.item.lines.some((l) => l.text === text))!;
  };
  it("have the diameters of their rims across, between extension lines", () => {
    const find = placedOf("frustum of a cone");
    for (const text of ["⌀16", "⌀6"]) {
      const { placed, scale } = find(text);
      expect(placed.extensions).toHaveLength(2);
      const [a, b] = placed.arrows.map((arrow) => arrow.tip);
      expect(Math.hypot(b![0] - a![0], b![1] - a![1]) / scale).toBeCloseTo(Number(text.slice(1)), 6);
    }
  });
  it("that are chamfers are pointed at in the middle of their slant, from outside", () => {
    const { placed, scale } = placedOf("chamfered shaft")("2 × 45°");
    const [{ tip, way }] = placed.arrows as [{ tip: Vec2; way: Vec2 }];
    // 12 long, the last 2 taper from 8 to 6: the middle of either slant is at 11, and 1 inside the rim
    expect(tip[0] / scale).toBeCloseTo(11, 6);
    expect([1, 15].some((y) => Math.abs(tip[1] / scale - y) < 1e-6)).toBe(true);
    expect(Math.abs(way[0]) + Math.abs(way[1])).toBeGreaterThan(1.2);
    expect(Math.sign(way[0])).toBe(-1);
  });
});

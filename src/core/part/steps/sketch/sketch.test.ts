import { beforeAll, describe, expect, it } from "vitest";
import { measurePart } from "@/core/check/given/measured";
import { modelOf } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import { apply, type PartCommand } from "@/core/part/commands";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { pointAt, sketchIn, type Curve } from "@/core/sketch/sketch";
import { Draft } from "@/demo/draft";
import { STEEL } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { pictureOf } from "./picture";
import { normalOf, type Frame } from "@/core/geometry/frame";
import { dot3 } from "@/core/geometry/vector";
import { normalAt } from "@/core/kernel/carrier";
import { arc, line, part, poly, revolve, sketch } from "../../testing/build";
import { edgeRef } from "../../reference/make";
import { picturables } from "./build";
import { frameOf } from "./schema";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});
const run = (d: PartDocument, ...commands: PartCommand[]): PartDocument =>
  commands.reduce((now, c) => {
    const r = apply(now, c);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  }, d);
const NOWHERE = {
  origin: [0, 0, 0] as [number, number, number],
  x: [1, 0, 0] as [number, number, number],
  y: [0, 1, 0] as [number, number, number],
};
/** A 40 × 30 plate, 10 thick, with a hole of radius 5 in its middle. */
function plate(): PartDocument {
  const d = new Draft("plate", "mm", STEEL).sketch("top");
  d.rectangle([0, 0], [40, 30]);
  d.circle([20, 15], 5);
  return d.extrude("add", { kind: "depth", depth: 10 }).document;
}
const built = (d: PartDocument) => {
  const r = rebuild(kernel, d);
  return { ...r, edges: r.body ? modelOf(kernel, r.body).edges : [] };
};

describe("edges of a part", () => {
  it("are named by the faces that meet there, each once", () => {
    const { edges } = built(plate());
    // 12 of the block and 2 rims; the hole's seam has no name
    expect(edges).toHaveLength(14);
    expect(new Set(edges.map((e) => e.key)).size).toBe(14);
    expect(
      edges
        .filter((e) => e.shape.kind === "circle")
        .map((e) => e.key)
        .sort(),
    ).toEqual(["extrude1/end|extrude1/side/c1", "extrude1/side/c1|extrude1/start"]);
  });
  it("look like what they are from each side", () => {
    const rim = built(plate()).edges.find((e) => e.key === "extrude1/end|extrude1/side/c1")!;
    expect(pictureOf(rim, frameOf({ base: "top" }), "p")).toMatchObject({ kind: "circle", radius: 5 });
    expect(pictureOf(rim, frameOf({ base: "front" }), "p")).toMatchObject({ kind: "line" });
    const tilted = pictureOf(rim, frameOf({ base: "top", tilt: { about: "x", angle: 60 } }), "p")!;
    expect(tilted.kind).toBe("ellipse");
    const e = tilted as Extract<Curve, { kind: "ellipse" }>;
    const half = (p: readonly [number, number]) => Math.hypot(p[0] - e.centre[0], p[1] - e.centre[1]);
    expect([half(e.major), half(e.minor)].sort((a, b) => a - b)).toEqual([
      expect.closeTo(2.5, 9),
      expect.closeTo(5, 9),
    ]);
  });
});

describe("what else of a part can be shown", () => {
  const seen = (d: PartDocument, frame: Frame) => {
    const { body } = built(d);
    return picturables(kernel, body!, frame).filter((e) => !e.key.includes("|"));
  };
  it("the section with a plane through the hole: two halves of four lines each", () => {
    const section = seen(plate(), frameOf({ base: "front", offset: -15 })).filter((e) => e.key.startsWith("section/"));
    expect(section).toHaveLength(8);
    expect(section.filter((e) => e.key.startsWith("section/extrude1/side/c1"))).toHaveLength(2);
    const lengths = section
      .map((e) => Math.hypot(...[0, 1, 2].map((k) => e.points[e.points.length - 1]![k]! - e.points[0]![k]!)))
      .sort((a, b) => a - b);
    expect(lengths).toEqual([10, 10, 10, 10, 15, 15, 15, 15].map((v) => expect.closeTo(v, 6)));
  });
  it("the outline of the hole from the side, none from above", () => {
    const front = seen(plate(), frameOf({ base: "front" })).filter((e) => e.key.startsWith("silhouette/"));
    expect(front.map((e) => e.key).sort()).toEqual(["silhouette/extrude1/side/c1", "silhouette/extrude1/side/c1~2"]);
    expect(front.map((e) => e.points[0]![0]).sort((a, b) => a - b)).toEqual([
      expect.closeTo(15, 9),
      expect.closeTo(25, 9),
    ]);
    expect(seen(plate(), frameOf({ base: "top" })).filter((e) => e.key.startsWith("silhouette/"))).toEqual([]);
  });
});

describe("outlines of cones and balls", () => {
  const outlines = (d: PartDocument, frame: Frame) =>
    picturables(kernel, built(d).body!, frame).filter((e) => e.key.startsWith("silhouette/"));
  const flatten = (d: PartDocument, base: "front" | "top") =>
    outlines(d, frameOf({ base })).map((e) => pictureOf(e, frameOf({ base }), "p")!);
  const cone = part(
    sketch(
      "s",
      "front",
      poly([
        [0, 0],
        [9, 0],
        [3, 12],
        [0, 12],
      ]),
    ),
    revolve("b", "s"),
  );
  const ball = part(
    sketch("s", "front", [arc("a", [0, 0], [0, -7], [0, 7]), line("l", [0, 7], [0, -7])]),
    revolve("b", "s"),
  );
  const dome = part(
    sketch("s", "front", [arc("a", [0, 0], [7, 0], [0, 7]), line("l", [0, 7], [0, 0]), line("m", [0, 0], [7, 0])]),
    revolve("b", "s"),
  );
  it("a cone from the side: its two flanks; from above: none", () => {
    const flanks = flatten(cone, "front") as Extract<Curve, { kind: "line" }>[];
    expect(flanks.map((f) => [f.start, f.end].sort((a, b) => a[1] - b[1])).sort((a, b) => a[0]![0] - b[0]![0])).toEqual(
      [
        [
          [expect.closeTo(-9, 6), expect.closeTo(0, 6)],
          [expect.closeTo(-3, 6), expect.closeTo(12, 6)],
        ],
        [
          [expect.closeTo(9, 6), expect.closeTo(0, 6)],
          [expect.closeTo(3, 6), expect.closeTo(12, 6)],
        ],
      ],
    );
    expect(outlines(cone, frameOf({ base: "top" }))).toEqual([]);
  });
  it("a cone at a slant touches its outlines: they stand square to the gaze", () => {
    const frame = frameOf({ base: "top", tilt: { about: "x", angle: 60 } }),
      n = normalOf(frame),
      { faces } = modelOf(kernel, built(cone).body!);
    const list = outlines(cone, frame),
      { carrier } = faces.find((f) => f.carrier.kind === "cone")!;
    expect(list).toHaveLength(2);
    for (const e of list) for (const p of e.points) expect(Math.abs(dot3(normalAt(carrier, p)!, n))).toBeLessThan(1e-9);
  });
  it("a ball: a circle from anywhere; half a ball: half a circle from the side", () => {
    expect(flatten(ball, "front")).toMatchObject([{ kind: "circle", radius: expect.closeTo(7, 9) }]);
    const [side, ...more] = flatten(dome, "front");
    expect(more).toEqual([]);
    expect(side).toMatchObject({ kind: "arc", centre: [expect.closeTo(0, 9), expect.closeTo(0, 9)] });
    expect(outlines(dome, frameOf({ base: "front" }))[0]!.length).toBeCloseTo(Math.PI * 7, 6);
  });
});

describe("a sketch on a face", () => {
  const onTop = (d: PartDocument) => {
    const edge = built(d).edges.find((e) => e.key === "extrude1/end|extrude1/side/c1")!;
    const picture = pictureOf(edge, NOWHERE, "c1")!;
    return run(
      d,
      {
        do: "add-step",
        step: { id: "boss", kind: "sketch", sketch: sketchIn({ face: "extrude1/end", frame: NOWHERE }) },
      },
      {
        do: "sketch",
        step: "boss",
        command: {
          do: "draw",
          curves: [picture, { id: "c2", kind: "circle", centre: [19, 14], radius: 8 }],
          constraints: [{ id: "k1", kind: "concentric", of: ["c1", "c2"] }],
          dimensions: [{ id: "m1", kind: "ring", of: ["c1", "c2"], value: 3 }],
        },
      },
      {
        do: "add-step",
        step: { id: "ring", kind: "extrude", sketch: "boss", operation: "add", extent: { kind: "depth", depth: 4 } },
      },
    );
  };
  it("lies where the face is, and its pictures are pinned", () => {
    const { sketches } = built(onTop(plate()));
    const s = sketches.get("boss")!;
    expect(s.frame.origin[2]).toBeCloseTo(10, 9);
    expect(s.diagnosis.freedoms).toBe(0);
    expect(pointAt(s.diagnosis.sketch, "c2.centre")).toEqual([expect.closeTo(20, 9), expect.closeTo(15, 9)]);
  });
  it("follows when the plate grows and the hole moves", () => {
    const d = onTop(plate());
    const steps = d.steps.map((s) =>
      s.id === "extrude1" ? { ...s, extent: { kind: "depth" as const, depth: 25 } } : s,
    ) as PartDocument["steps"];
    const moved = run(
      { ...d, steps },
      {
        do: "sketch",
        step: "sketch1",
        command: { do: "drag", curves: [{ id: "c1", kind: "circle", centre: [12, 11], radius: 5 }] },
      },
    );
    const s = built(moved).sketches.get("boss")!;
    expect(s.frame.origin[2]).toBeCloseTo(25, 9);
    expect(pointAt(s.diagnosis.sketch, "c2.centre")).toEqual([expect.closeTo(12, 9), expect.closeTo(11, 9)]);
    expect(measurePart(kernel, moved).properties!.box.max[2]).toBeCloseTo(29, 6);
  });
  it("says so when the face or the edge is gone", () => {
    const d = onTop(plate());
    const without = run(d, { do: "sketch", step: "sketch1", command: { do: "delete", ids: ["c1"] } });
    expect(built(without).steps.find((s) => s.id === "boss")!.refusal!.code).toBe("lost-edge");
    const away = {
      ...d,
      steps: d.steps.map((s) =>
        s.id === "boss" && s.kind === "sketch"
          ? { ...s, sketch: { ...s.sketch, plane: { face: "extrude1/side/c9", frame: NOWHERE } } }
          : s,
      ),
    };
    expect(built(away).steps.find((s) => s.id === "boss")!.refusal!.code).toBe("lost-face");
  });
});

describe("tilted planes", () => {
  it("turn about their own axis by the right-hand rule", () => {
    expect(frameOf({ base: "top", offset: 5, tilt: { about: "x", angle: 90 } })).toEqual({
      origin: [0, 0, 5],
      x: [1, 0, 0],
      y: [0, expect.closeTo(0, 12), 1],
    });
    expect(frameOf({ base: "top", tilt: { about: "y", angle: 90 } }).x).toEqual([expect.closeTo(0, 12), 0, -1]);
  });
});

describe("pictures of edges that come apart", () => {
  /** A picture of the front upper edge of the plate, by reference. */
  const withPicture = () => {
    const d = plate(),
      { edges } = built(d),
      place = edges.findIndex((e) => e.key === "extrude1/end|extrude1/side/l1"),
      { body } = rebuild(kernel, d),
      was = edgeRef(modelOf(kernel, body!), place)!;
    return run(
      d,
      { do: "add-step", step: { id: "over", kind: "sketch", sketch: sketchIn({ base: "top", offset: 20 }) } },
      {
        do: "sketch",
        step: "over",
        command: {
          do: "draw",
          curves: [
            { ...pictureOf(edges[place]!, NOWHERE, "l1")!, was },
            { id: "l2", kind: "line", start: [0, 2], end: [9, 2] },
          ],
          constraints: [{ id: "k1", kind: "parallel", of: ["l1", "l2"] }],
        },
      },
    );
  };
  /** The plate with a notch cut into its front edge before the picture is taken. */
  const notched = (x0: number, x1: number) => {
    const d = withPicture(),
      at = d.steps.findIndex((s) => s.id === "over"),
      base = d.steps[0]!;
    const notch = {
      id: "notch",
      kind: "sketch" as const,
      sketch: {
        ...sketchIn({ base: "top" as const }),
        curves: [
          [x0, -1, x1, -1],
          [x1, -1, x1, 3],
          [x1, 3, x0, 3],
          [x0, 3, x0, -1],
        ].map(([a, b, c, e], i) => ({
          id: `n${i + 1}`,
          kind: "line" as const,
          start: [a!, b!] as [number, number],
          end: [c!, e!] as [number, number],
        })),
      },
    };
    expect(base.kind).toBe("sketch");
    return {
      ...d,
      steps: [
        ...d.steps.slice(0, at),
        notch,
        {
          id: "cut",
          kind: "extrude" as const,
          sketch: "notch",
          operation: "cut" as const,
          extent: { kind: "through" as const },
        },
        ...d.steps.slice(at),
      ],
    };
  };
  it("a bit cut off its end leaves it where it was", () => {
    const { sketches, steps } = built(notched(-1, 6));
    expect(steps.filter((s) => s.refusal)).toEqual([]);
    expect(sketches.get("over")!.placed.curves[0]).toMatchObject({
      start: [6, 0],
      end: [40, 0],
      was: { edge: "extrude1/end|extrude1/side/l1" },
    });
  });
  it("cut in two alike halves, which was meant is not guessed", () => {
    const { steps } = built(notched(15, 25)),
      s = steps.find((x) => x.id === "over")!;
    expect(s.refusal!.sentence).toMatch(/come apart/);
    expect(s.lost).toHaveLength(1);
  });
});

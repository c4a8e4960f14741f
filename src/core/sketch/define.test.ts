import { describe, expect, it } from "vitest";
import { applyToSketch } from "./commands";
import { defineTheRest } from "./define";
import { circle, polyline, rectangle } from "./shapes";
import { emptySketch, type Sketch } from "./sketch";
import { solveSketch } from "./solve";

const run = (s: Sketch, ...commands: Parameters<typeof applyToSketch>[1][]): Sketch =>
  commands.reduce((now, c) => {
    const r = applyToSketch(now, c, "mm");
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  }, s);
const freedoms = (s: Sketch) => {
  const r = solveSketch(s, "mm");
  return r.ok ? r.value.freedoms : -1;
};
/** The sketch with all that is proposed taken. */
function taken(s: Sketch): Sketch {
  const proposals = defineTheRest(s, "mm").map((p) => p.relation);
  return run(s, {
    do: "pin",
    constraints: proposals.filter((r) => !("value" in r)) as never,
    dimensions: proposals.filter((r) => "value" in r),
  });
}

describe("define the rest", () => {
  const e = emptySketch("top");
  const plate = run(e, rectangle(e, [0.3, 0.2], [40, 20]));
  const cases: [string, Sketch][] = [
    ["a rectangle near the origin", plate],
    ["a rectangle with a hole", run(plate, circle(plate, [12, 9], 4))],
    [
      "a rough triangle",
      run(
        e,
        polyline(
          e,
          [
            [5, 5],
            [40, 6],
            [22, 30],
          ],
          true,
        ),
      ),
    ],
    ["rounded corners", run(plate, { do: "corner", kind: "fillet", corners: ["l1.end", "l2.end"], value: 3 })],
    [
      "an arc between lines, nearly smooth",
      run(e, {
        do: "draw",
        curves: [
          { id: "l1", kind: "line", start: [0, 0], end: [20, 0] },
          { id: "a1", kind: "arc", centre: [20.05, 6], start: [20, 0], end: [20, 12] },
        ],
        constraints: [{ id: "k1", kind: "coincident", of: ["l1.end", "a1.start"] }],
      }),
    ],
    [
      "an ellipse",
      run(e, {
        do: "draw",
        curves: [{ id: "e1", kind: "ellipse", centre: [3, 4], major: [13, 5], minor: [2.5, 9] }],
        constraints: [],
      }),
    ],
    [
      "a spline",
      run(e, {
        do: "draw",
        curves: [
          {
            id: "s1",
            kind: "spline",
            through: [
              [1, 2],
              [10, 8],
              [22, 3],
            ],
          },
        ],
        constraints: [],
      }),
    ],
  ];
  it.each(cases)("%s becomes fully defined", (_, s) => {
    expect(freedoms(s)).toBeGreaterThan(0);
    expect(freedoms(taken(s))).toBe(0);
  });
  it("begins at the origin and gives each proposal something to do", () => {
    const proposals = defineTheRest(plate, "mm");
    expect(proposals[0]!.relation).toMatchObject({ kind: "coincident", of: ["l1.start", "origin"] });
    expect(proposals.every((p) => p.takes > 0 && p.text.length > 5)).toBe(true);
    expect(proposals.reduce((n, p) => n + p.takes, 0)).toBe(freedoms(plate));
  });
  it("one left out leaves its freedom", () => {
    const [first, ...rest] = defineTheRest(plate, "mm");
    expect(
      freedoms(
        run(plate, {
          do: "pin",
          constraints: [first!.relation] as never,
          dimensions: rest.slice(1).map((p) => p.relation) as never,
        }),
      ),
    ).toBe(rest[0]!.takes);
  });
  it("joins ends that lie on each other before it measures them, and keeps on the axes what lies there", () => {
    const l = (id: string, start: [number, number], end: [number, number]) => ({
      id,
      kind: "line" as const,
      start,
      end,
    });
    const outline = [
      l("l1", [0, 0], [8, 0]),
      l("l2", [8, 0], [3, 10]),
      l("l3", [3, 10], [0, 10]),
      l("l4", [0, 10], [0, 0]),
    ];
    const loose = { ...e, curves: outline };
    const relations = defineTheRest(loose, "mm").map((p) => p.relation);
    expect(relations.filter((r) => r.kind === "coincident" && !r.of.includes("origin"))).toHaveLength(4);
    expect(relations.filter((r) => "value" in r)).toHaveLength(3);
    expect(freedoms(taken(loose))).toBe(0);
    // half a disc on the upright axis: its radius alone
    const half = {
      ...e,
      curves: [{ id: "a", kind: "arc" as const, centre: [0, 0], start: [0, -7], end: [0, 7] }, l("m", [0, 7], [0, -7])],
    } as Sketch;
    const sizes = defineTheRest(half, "mm").filter((p) => "value" in p.relation);
    expect(sizes.map((p) => p.relation.kind)).toEqual(["radius"]);
    expect(freedoms(taken(half))).toBe(0);
  });
  it("has nothing to say about a sketch that is fully defined", () => {
    expect(defineTheRest(taken(plate), "mm")).toEqual([]);
  });
});

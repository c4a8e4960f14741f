import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length2, sub2 } from "@/core/geometry/vector";
import { pointAt, type Sketch } from "./sketch";
import { solveSketch } from "./solve";
import { ladder, seeded } from "./testing/ladder";

import { type Extra, sketchOf, line, circle, box, boxRelations, solve } from "./testing/rough-box";

describe("a line told to lie the other way", () => {
  it.each([
    ["horizontal", [0, 10]],
    ["vertical", [10, 0]],
  ] as const)("%s", (kind, [dx, dy]) => {
    const d = solve(
      sketchOf(
        [line("a", [0, 0], [dx, dy])],
        [
          ["coincident", ["a.start", "origin"]],
          [kind, ["a"]],
        ],
      ),
    );
    expect(d.solved).toBe(true);
    const [x, y] = pointAt(d.sketch, "a.end");
    expect([Math.abs(x), Math.abs(y)].map((v) => Number(v.toFixed(9)))).toEqual([dy, dx]);
  });
  it("both at once are named, each", () => {
    const d = solve(
      sketchOf(
        [line("a", [0, 0], [0, 10])],
        [
          ["vertical", ["a"]],
          ["horizontal", ["a"]],
        ],
      ),
    );
    expect(d.solved).toBe(false);
    expect([...d.conflict].sort()).toEqual(["k0", "k1"]);
  });
});

const centreLine = (more: Extra, curves: Sketch["curves"] = []): Sketch =>
  sketchOf(
    [{ ...line("a", [0, 0], [10, 4]), construction: "centre-line" }, ...curves],
    [["coincident", ["a.start", "origin"]], ...more],
  );

describe("freedoms and loose curves", () => {
  it.each<[string, Sketch, number, string[]]>([
    ["a line alone", sketchOf([line("a", [0, 0], [5, 1])], []), 4, ["a"]],
    ["a circle alone", sketchOf([circle("o", [3, 4], 2)], []), 3, ["o"]],
    ["a free rectangle", sketchOf(box, boxRelations), 4, ["a", "b", "c", "d"]],
    ["on the origin", sketchOf(box, [...boxRelations, ["coincident", ["a.start", "origin"]]]), 2, ["a", "b", "c", "d"]],
    [
      "with width",
      sketchOf(box, [...boxRelations, ["coincident", ["a.start", "origin"]], ["length", ["a"], 40]]),
      1,
      ["b", "c", "d"],
    ],
    [
      "with both",
      sketchOf(box, [
        ...boxRelations,
        ["coincident", ["a.start", "origin"]],
        ["length", ["a"], 40],
        ["length", ["b"], 20],
      ]),
      0,
      [],
    ],
    ["a fixed circle", sketchOf([circle("o", [3, 4], 2)], [["fixed", ["o"]]]), 0, []],
    [
      "a circle on the origin, size free",
      sketchOf([circle("o", [3, 4], 2)], [["coincident", ["o.centre", "origin"]]]),
      1,
      ["o"],
    ],
    ["a centre line from the origin that nothing turns", centreLine([]), 2, ["a"]],
    ["a level centre line has none", centreLine([["horizontal", ["a"]]]), 0, []],
    ["a centre line at an angle has none", centreLine([["angle", ["a", "x-axis"], 30]]), 0, []],
    [
      "its length counts where something asks for it",
      centreLine(
        [
          ["horizontal", ["a"]],
          ["equal", ["a", "b"]],
        ],
        [line("b", [0, 5], [7, 5])],
      ),
      4,
      ["a", "b"],
    ],
    [
      "its end counts where something hangs on it",
      centreLine(
        [
          ["horizontal", ["a"]],
          ["coincident", ["o.centre", "a.end"]],
          ["radius", ["o"], 2],
        ],
        [circle("o", [9, 0], 2)],
      ),
      1,
      ["a", "o"],
    ],
    [
      "what leans on the line and not on its end does not count",
      centreLine(
        [
          ["horizontal", ["a"]],
          ["point-on-curve", ["p", "a"]],
        ],
        [{ id: "p", kind: "point", at: [3, 0] }],
      ),
      1,
      ["p"],
    ],
  ])("%s", (_, s, freedoms, loose) => {
    const d = solve(s);
    expect(d.solved).toBe(true);
    expect(d.freedoms).toBe(freedoms);
    expect([...d.loose].sort()).toEqual([...loose].sort());
  });

  it("counts freedoms where they are", () => {
    const d = solve(
      sketchOf(
        [line("a", [0, 0], [10, 0]), circle("o", [30, 5], 3)],
        [
          ["coincident", ["a.start", "origin"]],
          ["length", ["a"], 10],
        ],
      ),
    );
    expect(d.freedoms).toBe(4);
    expect(d.clusters.reduce((n, c) => n + c.freedoms, 0)).toBe(4);
    expect(d.clusters.filter((c) => c.curves.includes("a")).reduce((n, c) => n + c.freedoms, 0)).toBe(1);
  });

  it("says which way a point can go", () => {
    const d = solve(sketchOf(box, [...boxRelations, ["coincident", ["a.start", "origin"]], ["length", ["a"], 40]]));
    const way = d.ways.find((w) => w.point === "b.end")!;
    expect(way.along).not.toBe("any");
    expect(Math.abs((way.along as readonly number[])[1]!)).toBeCloseTo(1, 9);
  });

  it("calls finite only what moves: a point at 5 and 10 from centres 15 apart is pinned", () => {
    const d = solve(
      sketchOf(
        [line("a", [0, 0], [5.2, 1]), circle("o", [15, 0], 1)],
        [
          ["coincident", ["a.start", "origin"]],
          ["horizontal-distance", ["origin", "o.centre"], 15],
          ["point-on-curve", ["o.centre", "x-axis"]],
          ["radius", ["o"], 1],
          ["length", ["a"], 5],
          ["distance", ["a.end", "o.centre"], 10],
        ],
      ),
    );
    expect(d.freedoms).toBe(0);
    expect(pointAt(d.sketch, "a.end")[0]).toBeCloseTo(5, 5);
  });
});

describe("solutions in closed form", () => {
  const at = (s: Sketch, ref: string, want: [number, number]) =>
    expect(length2(sub2(pointAt(solve(s).sketch, ref), want))).toBeLessThan(1e-9 * 40);
  it("a 3-4-5 triangle by three lengths", () => {
    const s = sketchOf(
      [line("a", [0, 0], [3.7, 0.4]), line("b", [3, 0], [0.5, 4.4]), line("c", [0, 4], [0, 0.3])],
      [
        ["coincident", ["a.end", "b.start"]],
        ["coincident", ["b.end", "c.start"]],
        ["coincident", ["c.end", "a.start"]],
        ["coincident", ["a.start", "origin"]],
        ["horizontal", ["a"]],
        ["length", ["a"], 3],
        ["length", ["b"], 5],
        ["length", ["c"], 4],
      ],
    );
    at(s, "b.end", [0, 4]);
    expect(solve(s).freedoms).toBe(0);
  });
  it("an angle of 60° and a length", () => {
    const s = sketchOf(
      [line("a", [0.2, 0.1], [9, 4])],
      [
        ["coincident", ["a.start", "origin"]],
        ["length", ["a"], 10],
        ["angle", ["x-axis", "a"], 60],
      ],
    );
    at(s, "a.end", [5, 5 * Math.sqrt(3)]);
  });
  it("a hole in the middle by midpoints, no numbers", () => {
    const s = sketchOf(
      [...box, circle("o", [10, 5], 3), { ...line("g", [0, 0], [40, 20]), construction: true }],
      [
        ...boxRelations,
        ["coincident", ["a.start", "origin"]],
        ["length", ["a"], 40],
        ["length", ["b"], 20],
        ["coincident", ["g.start", "origin"]],
        ["coincident", ["g.end", "c.start"]],
        ["midpoint", ["o.centre", "g"]],
        ["diameter", ["o"], "6"],
      ],
    );
    at(s, "o.centre", [20, 10]);
    expect(solve(s).freedoms).toBe(0);
  });
  it("parallel, perpendicular, equal, point to line", () => {
    const s = sketchOf(
      [line("a", [0, 0], [9, 5]), line("b", [1, 6], [8, 12]), line("c", [0, 0], [-3, 6])],
      [
        ["coincident", ["a.start", "origin"]],
        ["length", ["a"], 10],
        ["angle", ["x-axis", "a"], 30],
        ["parallel", ["a", "b"]],
        ["equal", ["a", "b"]],
        ["point-line", ["b.start", "a"], 5],
        ["perpendicular", ["a", "c"]],
        ["coincident", ["c.start", "origin"]],
        ["coincident", ["c.end", "b.start"]],
      ],
    );
    at(s, "b.start", [-2.5, 5 * Math.sqrt(0.75)]);
    at(s, "b.end", [-2.5 + 10 * Math.sqrt(0.75), 5 * Math.sqrt(0.75) + 5]);
  });
  it("keeps the side: a distance never flips across", () => {
    const s = sketchOf(
      [circle("o", [-12, -3], 2)],
      [
        ["horizontal-distance", ["origin", "o.centre"], 30],
        ["vertical-distance", ["origin", "o.centre"], 1],
        ["radius", ["o"], 2],
      ],
    );
    at(s, "o.centre", [-30, -1]);
  });
  it("a large change of size keeps the shape", () => {
    const s = sketchOf(box, [
      ...boxRelations,
      ["coincident", ["a.start", "origin"]],
      ["length", ["a"], 4000],
      ["length", ["b"], 0.2],
    ]);
    at(s, "b.end", [4000, 0.2]);
  });
});

describe("too much", () => {
  const pinned: Extra = [
    ...boxRelations,
    ["coincident", ["a.start", "origin"]],
    ["length", ["a"], 40],
    ["length", ["b"], 20],
  ];
  it("marks constraints that agree and add nothing", () => {
    const d = solve(
      sketchOf(box, [
        ...pinned,
        ["parallel", ["a", "c"]],
        ["perpendicular", ["a", "b"]],
        ["equal", ["b", "d"]],
        ["horizontal", ["c"]],
      ]),
    );
    expect(d.solved).toBe(true);
    expect(d.freedoms).toBe(0);
    expect(d.agreeing).toHaveLength(4);
    expect(d.surplus).toEqual([]);
  });
  it("finds a surplus dimension that agrees", () => {
    const d = solve(sketchOf(box, [...pinned, ["length", ["c"], 40]]));
    expect(d.solved).toBe(true);
    expect(d.surplus).toEqual(["m11"]);
  });
  it("names the smallest set that disagrees", () => {
    const d = solve(sketchOf(box, [...pinned, ["length", ["c"], 41]]));
    expect(d.solved).toBe(false);
    expect(d.conflict).toContain("m9");
    expect(d.conflict).toContain("m11");
    // the lengths of b and the place of the corner have nothing to do with it
    expect(d.conflict).not.toContain("m10");
    expect(d.conflict).not.toContain("k8");
  });
  it("refuses a line made both horizontal and vertical", () => {
    const d = solve(
      sketchOf(
        [line("a", [0, 0], [5, 1])],
        [
          ["horizontal", ["a"]],
          ["vertical", ["a"]],
        ],
      ),
    );
    expect(d.solved).toBe(false);
    expect([...d.conflict].sort()).toEqual(["k0", "k1"]);
  });
  it.each<[string, Sketch]>([
    ["a lost reference", sketchOf([], [["horizontal", ["zz"]]])],
    ["a wrong kind", sketchOf([circle("o", [0, 0], 1)], [["horizontal", ["o"]]])],
    ["a size that is no number", sketchOf([circle("o", [0, 0], 1)], [["radius", ["o"], "wide"]])],
    ["a size of nothing", sketchOf([circle("o", [0, 0], 1)], [["radius", ["o"], 0]])],
  ])("refuses %s with a sentence", (_, s) => {
    const r = solveSketch(s, "mm");
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.refusal.sentence.length).toBeGreaterThan(20);
  });
});

describe("the ladder", () => {
  it("comes back exactly from a disturbed start, pinned", () => {
    const want = ladder(25, 0),
      d = solve(ladder(25, 1.5));
    expect(d.solved && d.freedoms).toBe(0);
    d.sketch.curves.forEach((c, i) => {
      const w = want.curves[i]!;
      if (c.kind === "line" && w.kind === "line") expect(length2(sub2(c.end, w.end))).toBeLessThan(1e-8);
    });
  });
  it("with one width left out has one freedom, and everything after it is loose", () => {
    const d = solve(ladder(10, 1, 3, 4));
    expect(d.freedoms).toBe(1);
    expect(d.loose).toContain("r9s0");
    expect(d.loose).not.toContain("r3s0");
  });
  it("freedoms do not depend on the order of relations", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const rnd = seeded(seed),
          s = ladder(4, 0.5, 2, 1);
        const shuffle = <T>(l: T[]) =>
          l
            .map((v) => [rnd(), v] as const)
            .sort((a, b) => a[0] - b[0])
            .map(([, v]) => v);
        expect(solve({ ...s, constraints: shuffle(s.constraints), dimensions: shuffle(s.dimensions) }).freedoms).toBe(
          1,
        );
      }),
      { numRuns: 20 },
    );
  });
});

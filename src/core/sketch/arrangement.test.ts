import { describe, expect, it } from "vitest";
import type { Vec2 } from "@/core/geometry/vector";
import { meetings } from "@/core/geometry/meet";
import { isWhole, reversed, sampled, segmentEnd, segmentStart, splitAtMeetings } from "./arrangement";
import { segmentOf } from "./curves/registry";
import type { Curve } from "./sketch";
import { JOIN } from "./tolerance";

const meet = (a: Curve, b: Curve): Vec2[] => meetings(segmentOf(a)!, segmentOf(b)!, JOIN).map((m) => m.at);

const line = (id: string, start: [number, number], end: [number, number]): Curve => ({ id, kind: "line", start, end });
const circle = (id: string, centre: [number, number], radius: number): Curve => ({
  id,
  kind: "circle",
  centre,
  radius,
});

function expectPoints(got: Vec2[], want: Vec2[]) {
  expect(got).toHaveLength(want.length);
  const sort = (l: Vec2[]) => [...l].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  sort(got).forEach((p, i) => {
    expect(p[0]).toBeCloseTo(sort(want)[i]![0], 9);
    expect(p[1]).toBeCloseTo(sort(want)[i]![1], 9);
  });
}

describe("where curves meet", () => {
  it.each<[string, Curve, Curve, Vec2[]]>([
    ["lines crossing", line("a", [0, 0], [4, 4]), line("b", [0, 4], [4, 0]), [[2, 2]]],
    ["lines that stop short", line("a", [0, 0], [1, 1]), line("b", [0, 4], [4, 0]), []],
    ["a line ending on another", line("a", [0, 0], [4, 0]), line("b", [2, 0], [2, 3]), [[2, 0]]],
    ["parallel lines", line("a", [0, 0], [4, 0]), line("b", [0, 1], [4, 1]), []],
    [
      "a line through a circle",
      line("a", [-5, 0], [5, 0]),
      circle("c", [0, 0], 3),
      [
        [-3, 0],
        [3, 0],
      ],
    ],
    ["a line into a circle", line("a", [0, 0], [5, 0]), circle("c", [0, 0], 3), [[3, 0]]],
    ["a line touching a circle", line("a", [-5, 3], [5, 3]), circle("c", [0, 0], 3), [[0, 3]]],
    ["a line past a circle", line("a", [-5, 4], [5, 4]), circle("c", [0, 0], 3), []],
    [
      "circles crossing",
      circle("c", [0, 0], 5),
      circle("d", [6, 0], 5),
      [
        [3, 4],
        [3, -4],
      ],
    ],
    ["circles touching outside", circle("c", [0, 0], 2), circle("d", [5, 0], 3), [[2, 0]]],
    ["circles touching inside", circle("c", [0, 0], 5), circle("d", [3, 0], 2), [[5, 0]]],
    ["circles apart", circle("c", [0, 0], 1), circle("d", [5, 0], 1), []],
    ["concentric circles", circle("c", [0, 0], 1), circle("d", [0, 0], 2), []],
  ])("%s", (_, a, b, want) => {
    expectPoints(meet(a, b), want);
    expectPoints(meet(b, a), want);
  });
});

describe("cutting at meetings", () => {
  it("leaves what meets nothing whole", () => {
    const [segment] = splitAtMeetings([circle("c", [0, 0], 2)]);
    expect(isWhole(segment!)).toBe(true);
  });
  it("cuts a circle into arcs that follow each other", () => {
    const arcs = splitAtMeetings([circle("c", [0, 0], 3), line("a", [-5, 0], [5, 0])]).filter((s) => s.curve === "c");
    expect(arcs).toHaveLength(2);
    arcs.forEach((arc, i) => {
      const next = arcs[(i + 1) % 2]!;
      expectPoints([segmentEnd(arc)], [segmentStart(next)]);
    });
  });
  it("cuts a line in three where two cross it", () => {
    const pieces = splitAtMeetings([line("a", [0, 0], [9, 0]), line("b", [3, -1], [3, 1]), line("c", [6, -1], [6, 1])]);
    expect(pieces.filter((s) => s.curve === "a")).toHaveLength(3);
    expect(pieces).toHaveLength(7);
  });
});

describe("segments", () => {
  const [arc] = splitAtMeetings([circle("c", [1, 1], 2)]);

  it("run back the other way when reversed", () => {
    expectPoints([segmentStart(reversed(arc!))], [segmentEnd(arc!)]);
    expectPoints([segmentEnd(reversed(arc!))], [segmentStart(arc!)]);
  });
  it("are sampled on the curve", () => {
    for (const p of sampled(arc!)) expect(Math.hypot(p[0] - 1, p[1] - 1)).toBeCloseTo(2, 12);
  });
});

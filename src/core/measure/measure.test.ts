import { beforeAll, describe, expect, it } from "vitest";
import { modelOf, type Model } from "@/core/kernel/model";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { Topology } from "@/core/kernel/topology";
import { rebuild } from "@/core/part/rebuild";
import {
  arc,
  circ,
  extrude,
  face,
  fillet,
  hole,
  edge,
  line,
  part,
  rect,
  revolve,
  sketch,
} from "@/core/part/testing/build";
import { openNodeKernel } from "@/worker/kernel";
import { readingsBetween, readingsOf, type Reading, type Thing } from "./measure";
import { nearest } from "./nearest";

let kernel: Kernel, body: Solid, m: Model;
beforeAll(async () => {
  kernel = await openNodeKernel();
  // a block 60 × 40 × 20 with a bore of 10, a countersunk hole, and one rounded edge
  const d = part(
    sketch("s", "top", rect(0, 0, 60, 40)),
    extrude("b", "s", 20),
    hole("h", face("b/end"), 10, [[15, 20]]),
    hole("k", face("b/end"), 6, [[45, 20]], { head: { kind: "countersink", diameter: 12, angle: 90 } }),
    fillet("f", 5, edge("b/side/l1", "b/side/l2")),
  );
  body = rebuild(kernel, d).body!;
  m = modelOf(kernel, body);
});

const faceAt = (key: string): Thing => ({ kind: "face", index: m.faces.findIndex((f) => f.key === key) });
const edgeAt = (key: string): Thing => ({
  kind: "edge",
  index: m.edges.findIndex((e) => e.key === key.split("|").sort().join("|")),
});
const cornerAt = (x: number, y: number, z: number): Thing => ({
  kind: "vertex",
  index: m.vertices.findIndex((v) => Math.hypot(v.at[0] - x, v.at[1] - y, v.at[2] - z) < 1e-6),
});
const value = (list: readonly Reading[], what: Reading["what"]) => list.find((r) => r.what === what)?.value;

describe("readings of one thing", () => {
  it.each([
    ["h/bore/p1", "diameter", 10],
    ["h/bore/p1", "depth", 20],
    ["h/bore/p1", "area", Math.PI * 10 * 20],
    ["k/countersink/p1", "angle", Math.PI / 2],
    ["k/countersink/p1", "depth", 3],
    ["f/round/e1", "radius", 5],
    ["b/side/l4", "area", 800],
  ] as const)("%s %s", (key, what, want) => expect(value(readingsOf(m, faceAt(key)), what)).toBeCloseTo(want, 9));
  it.each([
    ["b/side/l1|b/end", "length", 55],
    ["h/bore/p1|b/end", "radius", 5],
    ["h/bore/p1|b/end", "length", 10 * Math.PI],
  ] as const)("%s %s", (key, what, want) => expect(value(readingsOf(m, edgeAt(key)), what)).toBeCloseTo(want, 9));
  it("a corner has coordinates", () =>
    expect(readingsOf(m, cornerAt(0, 40, 20)).map((r) => r.value)).toEqual([0, 40, 20]));
});

describe("readings between two things, by carrier and axis", () => {
  it.each([
    ["parallel faces", () => [faceAt("b/side/l2"), faceAt("b/side/l4")], "distance", 60],
    ["faces at an angle", () => [faceAt("b/side/l2"), faceAt("b/end")], "angle", Math.PI / 2],
    ["a face and the axis of a bore", () => [faceAt("b/side/l4"), faceAt("h/bore/p1")], "distance", 15],
    ["two axes", () => [faceAt("h/bore/p1"), faceAt("k/bore/p1")], "distance", 30],
    ["two rims", () => [edgeAt("h/bore/p1|b/end"), edgeAt("h/bore/p1|b/start")], "centre distance", 20],
    ["a rim and a face it is parallel to", () => [edgeAt("h/bore/p1|b/end"), faceAt("b/start")], "distance", 20],
    ["a corner and an axis", () => [cornerAt(0, 40, 20), faceAt("h/bore/p1")], "distance", 25],
    ["a corner and a face", () => [cornerAt(0, 40, 20), faceAt("b/side/l1")], "distance", 40],
    ["two corners", () => [cornerAt(0, 40, 20), cornerAt(60, 40, 0)], "distance", Math.hypot(60, 20)],
    ["an edge and an axis askew", () => [edgeAt("b/side/l4|b/end"), faceAt("h/bore/p1")], "angle", Math.PI / 2],
    ["an edge and an axis askew, how far", () => [edgeAt("b/side/l4|b/end"), faceAt("h/bore/p1")], "distance", 15],
  ] as const)("%s", (_, pick, what, want) => {
    const [a, b] = pick() as [Thing, Thing];
    expect(value(readingsBetween(m, a, b), what)).toBeCloseTo(want, 9);
    expect(value(readingsBetween(m, b, a), what)).toBeCloseTo(want, 9);
  });
});

it("the smallest distance is between the things as they are bounded", () => {
  Topology.over(kernel, body, (t) => {
    expect(nearest(kernel, t, faceAt("h/bore/p1"), faceAt("k/bore/p1")).value).toBeCloseTo(30 - 5 - 3, 9);
    expect(nearest(kernel, t, faceAt("h/bore/p1"), faceAt("b/side/l4")).value).toBeCloseTo(10, 9);
  });
});

it("reads balls, rings and cones off their surfaces", () => {
  const d = part(
    sketch("s", "front", [arc("a", [0, 0], [7, 0], [0, 7]), line("l", [0, 7], [0, 0]), line("m", [0, 0], [7, 0])]),
    revolve("r", "s"),
    sketch("t", "front", circ(20, 0, 3)),
    revolve("u", "t", { operation: "separate" }),
  );
  const other = rebuild(kernel, d),
    all = modelOf(kernel, other.body!);
  const carriers = all.faces.map((f) => f.carrier);
  expect(carriers.find((c) => c.kind === "sphere")).toMatchObject({ radius: 7, hollow: false });
  const torus = carriers.find((c) => c.kind === "torus")!;
  expect(
    torus.kind === "torus" &&
      [torus.major, torus.minor, torus.hollow, Math.abs(torus.axis[2])].map((v) =>
        typeof v === "number" ? Number(v.toFixed(9)) : v,
      ),
  ).toEqual([20, 3, false, 1]);
  kernel.release(other.body!.shape);
});

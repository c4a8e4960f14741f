import { describe, expect, it } from "vitest";
import type { Carrier, Face } from "@/core/kernel/faces";
import { sameCarrier } from "@/core/measure/same";
import { matchFaces, movedFace, sameFace, transformedFace } from "./match";

const SIZE = 100;
const plane = (normal: readonly [number, number, number], offset: number): Carrier => ({
  kind: "plane",
  normal,
  offset,
});
const cylinder = (at: readonly [number, number, number], radius: number, hollow = true): Carrier => ({
  kind: "cylinder",
  at,
  axis: [0, 0, 1],
  radius,
  hollow,
});
const face = (carrier: Carrier, change: Partial<Face> = {}): Face => ({
  key: "f",
  names: [],
  carrier,
  area: 12,
  rim: 14,
  centre: [1, 2, 3],
  ...change,
});

describe("one carrier", () => {
  it.each<[string, Carrier, Carrier, boolean]>([
    ["the same plane", plane([0, 0, 1], 5), plane([0, 0, 1], 5), true],
    ["a plane facing the other way", plane([0, 0, 1], 5), plane([0, 0, -1], -5), false],
    ["a plane a hundredth off", plane([0, 0, 1], 5), plane([0, 0, 1], 5.01), false],
    ["a cylinder known by another point of its axis", cylinder([1, 2, 0], 4), cylinder([1, 2, 50], 4), true],
    ["a cylinder beside", cylinder([1, 2, 0], 4), cylinder([1.01, 2, 0], 4), false],
    ["a cylinder of another radius", cylinder([1, 2, 0], 4), cylinder([1, 2, 0], 4.01), false],
    ["a post in a hole", cylinder([1, 2, 0], 4), cylinder([1, 2, 0], 4, false), false],
    ["a plane and a cylinder", plane([0, 0, 1], 5), cylinder([1, 2, 0], 4), false],
  ])("%s", (_, a, b, want) => {
    expect(sameCarrier(a, b, SIZE)).toBe(want);
    expect(sameCarrier(b, a, SIZE)).toBe(want);
  });
});

describe("one face", () => {
  const a = face(plane([0, 0, 1], 5));
  it.each<[string, Partial<Face>, boolean]>([
    ["as it is", {}, true],
    ["with a hole more", { area: 11 }, false],
    ["with the same area but another rim", { rim: 15 }, false],
    ["moved within its plane", { centre: [2, 2, 3] }, false],
  ])("%s", (_, change, want) => expect(sameFace(a, face(plane([0, 0, 1], 5), change), SIZE)).toBe(want));
});

describe("matching", () => {
  it("pairs each face once and names the rest", () => {
    const reference = [face(plane([0, 0, 1], 5)), face(plane([1, 0, 0], 7)), face(cylinder([0, 0, 0], 3))];
    const placed = [face(cylinder([0, 0, 0], 3)), face(plane([0, 0, 1], 5)), face(plane([0, 0, 1], 5))];
    const m = matchFaces(reference, placed, SIZE);
    expect(m.pairs).toEqual([
      [0, 1],
      [2, 0],
    ]);
    expect(m.unmatchedReference).toEqual([1]);
    expect(m.unmatchedSubmission).toEqual([2]);
    expect(m.area).toBe(24);
  });
});

describe("carrying faces along", () => {
  const quarter = {
    rows: [
      [0, -1, 0],
      [1, 0, 0],
      [0, 0, 1],
    ] as const,
    shift: [10, 0, 0] as const,
  };
  it("turns normals and keeps planes where they belong", () => {
    expect(movedFace(face(plane([1, 0, 0], 7)), quarter).carrier).toEqual(plane([0, 1, 0], 7));
    expect(movedFace(face(plane([0, -1, 0], 2)), quarter).carrier).toMatchObject({ normal: [1, 0, 0], offset: 12 });
  });
  it("mirrors and scales what there is to mirror and scale", () => {
    const f = transformedFace(face(cylinder([4, 5, 6], 3)), true, 2);
    expect(f).toMatchObject({ area: 48, rim: 28, centre: [-2, 4, 6], carrier: { at: [-8, 10, 12], radius: 6 } });
  });
});

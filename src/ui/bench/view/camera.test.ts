import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DATUM_FRAMES, offsetFrame, toSpace } from "@/core/geometry/frame";
import { dot3, length3 } from "@/core/geometry/vector";
import { Camera, straightAt } from "./camera";

function camera(): Camera {
  const c = new Camera();
  c.resize(800, 600);
  return c;
}

describe("the camera", () => {
  it("finds the point of a plane under the pixel it shows it at", () => {
    const number = fc.double({ min: -100, max: 100, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom("front", "top", "right"),
        number,
        number,
        number,
        number,
        number,
        (plane, x, y, offset, dx, dy) => {
          const c = camera();
          c.orbit(dx * 3, dy);
          const frame = offsetFrame(DATUM_FRAMES[plane as "front"], offset);
          const back = c.onPlane(frame, c.toPixels(toSpace(frame, [x, y])));
          // seen edge on there is no such point
          if (!back) return;
          expect(back[0]).toBeCloseTo(x, 6);
          expect(back[1]).toBeCloseTo(y, 6);
        },
      ),
    );
  });
  it("stays square and upright however it is turned", () => {
    const c = camera();
    for (let i = 0; i < 500; i++) c.orbit(Math.sin(i) * 60, Math.cos(i * 1.7) * 40);
    expect(length3(c.toViewer)).toBeCloseTo(1, 9);
    expect(length3(c.right)).toBeCloseTo(1, 9);
    expect(dot3(c.toViewer, c.right)).toBeCloseTo(0, 9);
    expect(c.right[2]).toBeCloseTo(0, 6);
  });
  it("zooms about the pixel under the pointer", () => {
    const c = camera();
    const frame = DATUM_FRAMES.top;
    const before = c.onPlane(frame, [200, 450])!;
    c.zoom(1.7, [200, 450]);
    const after = c.onPlane(frame, [200, 450])!;
    expect(after[0]).toBeCloseTo(before[0], 9);
    expect(after[1]).toBeCloseTo(before[1], 9);
  });
  it("pans by what the hand moves", () => {
    const c = camera();
    const [x, y] = c.toPixels([5, 6, 7]);
    c.pan(30, -12);
    const [u, v] = c.toPixels([5, 6, 7]);
    expect(u - x).toBeCloseTo(30, 9);
    expect(v - y).toBeCloseTo(-12, 9);
  });
  it("fits a box clear of what lies over the view", () => {
    const c = camera();
    c.foot = 110;
    c.side = 300;
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1 ? 90 : 0, i & 2 ? 40 : 0, i & 4 ? 25 : 0] as const);
    c.fit(corners);
    for (const p of corners) {
      const [x, y] = c.toPixels(p);
      expect(x).toBeGreaterThan(300);
      expect(x).toBeLessThan(800);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(490);
    }
  });
  it("looking straight at a plane shows its x to the right and its y upwards", () => {
    for (const frame of Object.values(DATUM_FRAMES)) {
      const c = camera();
      Object.assign(c, straightAt(frame));
      const o = c.toPixels(toSpace(frame, [0, 0]));
      const x = c.toPixels(toSpace(frame, [10, 0]));
      const y = c.toPixels(toSpace(frame, [0, 10]));
      expect(x[0]).toBeGreaterThan(o[0]);
      expect(x[1]).toBeCloseTo(o[1], 9);
      expect(y[1]).toBeLessThan(o[1]);
    }
  });
  it("tells those who listen, and no longer those who left", () => {
    const c = camera();
    let told = 0;
    const leave = c.subscribe(() => told++);
    c.pan(1, 1);
    leave();
    c.pan(1, 1);
    expect(told).toBe(1);
  });
});

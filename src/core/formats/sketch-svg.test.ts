import { describe, expect, it } from "vitest";
import { sketchSvg } from "./sketch-svg";

import { sketch } from "./testing/dxf-text";

describe("SVG out", () => {
  it("holds one path a curve and its true size", () => {
    const svg = sketchSvg(sketch);
    expect(svg.match(/<path/g)).toHaveLength(6);
    expect(svg).toContain('id="s1"');
    expect(svg).toMatch(/width="[\d.]+mm"/);
    expect(svg).not.toContain("NaN");
  });
});

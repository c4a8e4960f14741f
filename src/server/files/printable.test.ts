import { execFileSync } from "node:child_process";
import { strFromU8, unzipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { svgOf } from "@/core/formats/drawing-svg";
import { dxfOf } from "@/core/formats/drawing-dxf";
import type { Drawing } from "@/core/formats/drawing";
import { threeMfOf } from "@/core/formats/three-mf";
import { stepString } from "@/core/kernel/exchange";
import { calendarFile } from "../courses/calendar";
import { pdfOf } from "./sheet-files";

/** Kept before anybody looked: a bell, a break, an escape, a NUL, half a pair. */
const LETTERED = "pla\u0007te\nof\u001b six\0\ud83d";
const drawing: Drawing = {
  title: LETTERED,
  width: 100,
  height: 50,
  wide: 0.5,
  groups: [
    {
      title: LETTERED,
      marks: [{ mark: "text", text: LETTERED, at: [10, 10], height: 3.5, anchor: "start" }],
    } as never,
  ],
};
const TRIANGLE = { positions: new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]), triangles: new Uint32Array([0, 1, 2]) };
/** What no text of a file may hold; the ends of its own lines aside. */
const CONTROL = /(?!\n|\r)\p{Cc}|\p{Surrogate}/u;

describe("characters that nobody can see never reach a file", () => {
  it.each([
    ["SVG", () => svgOf(drawing)],
    ["DXF", () => dxfOf(drawing)],
    ["STEP", () => stepString(LETTERED)],
    ["calendar", () => calendarFile(LETTERED, [], "http://localhost")],
    ["3MF", () => strFromU8(unzipSync(threeMfOf(TRIANGLE, LETTERED))["3D/3dmodel.model"]!)],
  ])("%s", (_, made) => {
    const text = made();
    expect(text).not.toMatch(CONTROL);
    expect(text).toContain("plate");
  });
  it("PDF", async () => {
    const shown = execFileSync("pdftotext", ["-", "-"], { input: await pdfOf([drawing]), encoding: "utf8" });
    expect(shown.trim()).toBe("plate of six");
    const about = execFileSync("pdfinfo", ["-"], { input: await pdfOf([drawing]), encoding: "utf8" });
    expect(about).toMatch(/Title: +plate/);
    expect(about).not.toMatch(CONTROL);
  });
});

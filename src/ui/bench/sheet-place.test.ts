import { expect, it } from "vitest";
import { element } from "@/core/formats/svg";
import { drawnExtent } from "./sheet-place";

const view = (key: string, x: number, y: number, width: number, height: number) =>
  element(
    "g",
    { class: "view", "data-view": key },
    element("title", {}, "Front view"),
    element("rect", { x, y, width, height, class: "patch" }),
  );

it("what is drawn reaches over all views and the sizes around them", () => {
  const svg = element("svg", {}, view("front", 40, 50, 100, 30), view("top", 40.5, 120, 99, 60), "<g class='title'/>");
  expect(drawnExtent(svg)).toEqual({ width: 128, height: 158 });
  expect(drawnExtent(element("svg", {}))).toBeUndefined();
});

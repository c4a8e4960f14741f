import { beforeAll, expect, it } from "vitest";
import { circ, extrude, part, poly, rect, sketch } from "@/core/part/testing/build";
import { rebuild } from "@/core/part/rebuild";
import { openNodeKernel } from "@/worker/kernel";
import type { Kernel } from "./opencascade";
import { shareMaterial } from "./share";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

type Drawn = Parameters<typeof sketch>[2];
const prism = (outline: Drawn, height: number) =>
  rebuild(kernel, part(sketch("s", "top", outline), extrude("b", "s", height))).body!;
const bent = poly([
  [40, 40],
  [60, 40],
  [60, 60],
  [56, 60],
  [56, 44],
  [40, 44],
]);

it.each([
  ["a small post in a large plate", rect(0, 0, 100, 100), 20, circ(50, 50, 2), 10, true],
  ["a bent slot in a plate ten times as large", rect(0, 0, 200, 200), 20, bent, 10, true],
  ["a post beside the plate", rect(0, 0, 100, 100), 20, circ(150, 50, 5), 10, false],
  ["a post in reach of a corner only", rect(0, 0, 10, 10), 20, circ(14, 14, 5), 10, false],
  ["plates that only touch", rect(0, 0, 10, 10), 20, rect(10, 0, 20, 10), 20, false],
] as const)("%s", (_, body, height, tool, depth, wanted) => {
  expect(shareMaterial(kernel, prism(body, height), prism(tool, depth))).toBe(wanted);
});

import { beforeAll, expect, it } from "vitest";
import { newExercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import { circ, cut, extrude, part, rect, sketch } from "@/core/part/testing/build";
import { drawSheet } from "@/core/sheet/sheet";
import { withSketchesDefined } from "@/core/sizes/numbers";
import type { LengthUnit } from "@/core/units/expression";
import { openNodeKernel } from "@/worker/kernel";
import { dxfOf } from "./drawing-dxf";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

/** Entities of one kind in a DXF file: their values by group code, the last of each. */
function entities(text: string, kind: string): Map<number, string>[] {
  const lines = text.split("\n"),
    pairs = Array.from({ length: lines.length >> 1 }, (_, i) => [Number(lines[2 * i]), lines[2 * i + 1]!] as const);
  const found: Map<number, string>[] = [];
  let open: Map<number, string> | undefined;
  for (const [code, value] of pairs) {
    if (code === 0) open = value === kind ? new Map() : undefined;
    if (code === 0 && open) found.push(open);
    open?.set(code, value);
  }
  return found;
}

it.each<[LengthUnit, number]>([
  ["mm", 1],
  ["in", 25.4],
])("a dimension measures what is lettered, at every scale: %s", (units, unit) => {
  for (const by of [1, 0.2, 3]) {
    const size = by * 25.4;
    const plate = part(
      sketch("s", "top", rect(0, 0, 3 * size, 2 * size)),
      extrude("b", "s", size / 2),
      sketch("t", "top", circ(size, 0.75 * size, size / 4)),
      cut("h", "t", "through", { reverse: true }),
    );
    const reference = withSketchesDefined({ ...plate, units });
    const drawn = drawSheet(kernel, { ...newExercise(), units, reference });
    if (!drawn.ok) throw new Error(drawn.refusal.sentence);
    const file = dxfOf(drawn.value.drawing),
      number = (e: Map<number, string>, code: number) => Number(e.get(code));
    const factors = new Map(entities(file, "DIMSTYLE").map((s) => [s.get(2)!, number(s, 144)]));
    const measured = entities(file, "DIMENSION").map((d) => {
      const turn = (number(d, 50) * Math.PI) / 180,
        [x, y] = [number(d, 14) - number(d, 13), number(d, 24) - number(d, 23)];
      return Math.abs(x * Math.cos(turn) + y * Math.sin(turn)) * factors.get(d.get(3)!)!;
    });
    const lettered = drawn.value.sheet.dimensions.filter((d) => d.kind === "distance").map((d) => d.values![0]! / unit);
    const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);
    expect(sorted(measured)).toEqual(sorted(lettered).map((v) => expect.closeTo(v, 2)));
  }
});

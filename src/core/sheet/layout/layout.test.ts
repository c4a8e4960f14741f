import { beforeAll, describe, expect, it } from "vitest";
import { referenceExercises } from "@/cli/bench/reference-parts";
import type { Kernel } from "@/core/kernel/opencascade";
import { openNodeKernel } from "@/worker/kernel";
import { paperOf } from "../sizes/placed";
import type { Composition } from "./compose";
import { onSheet as put, type Standing } from "./standing";
import { strokeSegments } from "../views/obstacles";
import {
  boxAround,
  distanceToSegment,
  grown,
  heightOf,
  meetsBox,
  overlap,
  widthOf,
  type Box,
  type Segment,
} from "../plane";
import { drawSheet } from "../sheet";
import { TITLE_HEIGHT, TITLE_WIDTH } from "../page/title-block";

let kernel: Kernel;
beforeAll(async () => void (kernel = await openNodeKernel()));

const exercises = referenceExercises();
const made = new Map<string, Composition>();
function composed(name: string): Composition {
  let c = made.get(name);
  if (!c) {
    const r = drawSheet(kernel, exercises.find(([n]) => n === name)![1]);
    if (!r.ok) throw new Error(r.refusal.sentence);
    made.set(name, (c = r.value.composition));
  }
  return c;
}

const boxOn = (s: Standing, b: Box): Box => boxAround([put(s)(b.min), put(s)(b.max)]);
const segmentOn = (s: Standing, [a, b]: Segment): Segment => [put(s)(a), put(s)(b)];
const outline = (s: Standing): Segment[] =>
  s.view.strokes
    .filter((t) => !t.tangent)
    .flatMap((t) =>
      strokeSegments(t).map(([a, b]): Segment => [paperOf(s.view, s.scale)(a), paperOf(s.view, s.scale)(b)]),
    )
    .map((t) => segmentOn(s, t));
const texts = (c: Composition) =>
  c.views.flatMap((s) => s.placed.flatMap((p) => p.texts.map((t) => ({ p, text: t.line.text, box: boxOn(s, t.box) }))));

describe.each(exercises.map(([name]) => name))("the Sheet of %s", (name) => {
  it("has no number on a number, nor on the frame or the title block", () => {
    const c = composed(name),
      all = texts(c);
    const [l, t, r, b] = c.paper.frame;
    const title: Box = { min: [r - TITLE_WIDTH, b - TITLE_HEIGHT], max: [r, b] };
    for (const [i, one] of all.entries()) {
      for (const other of all.slice(i + 1))
        expect([one.text, other.text, overlap(one.box, other.box)]).toEqual([one.text, other.text, false]);
      expect([one.text, overlap(one.box, title)]).toEqual([one.text, false]);
      const isInside = one.box.min[0] > l && one.box.max[0] < r && one.box.min[1] > t && one.box.max[1] < b;
      expect([one.text, isInside]).toEqual([one.text, true]);
    }
  });
  it("has no number on an outline or on another's line", () => {
    const c = composed(name);
    const lines = c.views.flatMap((s) =>
      s.placed.flatMap((p) => [...p.lines, ...p.extensions].map((l) => ({ p, l: segmentOn(s, l) }))),
    );
    const edges = c.views.flatMap(outline);
    for (const { p, text, box } of texts(c)) {
      const inner = grown(box, -0.2);
      expect([text, edges.some((e) => meetsBox(e, inner))]).toEqual([text, false]);
      expect([text, lines.some((o) => o.p !== p && meetsBox(o.l, inner))]).toEqual([text, false]);
    }
  });
  it("has every arrow on what it measures", () => {
    const c = composed(name);
    for (const s of c.views) {
      const edges = outline(s);
      for (const p of s.placed)
        for (const { tip } of p.arrows) {
          const at = put(s)(tip);
          const own = p.extensions.map((e) => segmentOn(s, e)),
            measured = p.tier ? own : [...own, ...edges];
          const text = p.texts[0]!.line.text;
          expect([text, measured.some((e) => distanceToSegment(at, e) < 0.35)]).toEqual([text, true]);
        }
    }
  });
  it("uses more than half of the paper", () => {
    const { paper, views } = composed(name);
    const [l, t, r, b] = paper.frame;
    const area = (x: Box) => widthOf(x) * heightOf(x);
    const boxes = views.map((s) =>
      boxAround([
        ...s.placed.flatMap((p) => [put(s)(p.box.min), put(s)(p.box.max)]),
        put(s)([0, 0]),
        put(s)(paperOf(s.view, s.scale)(s.view.box.max)),
      ]),
    );
    const used = area(boxAround(boxes.flatMap((x) => [x.min, x.max]))) + TITLE_WIDTH * TITLE_HEIGHT;
    expect(used / ((r - l) * (b - t))).toBeGreaterThan(0.5);
  });
});

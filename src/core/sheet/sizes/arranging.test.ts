import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { referenceExercises } from "@/cli/bench/reference-parts";
import { svgOf } from "@/core/formats/drawing-svg";
import type { Exercise } from "@/core/check/exercise/exercise";
import type { Kernel } from "@/core/kernel/opencascade";
import { readPart } from "@/core/part/document";
import { extrude, part, sketch } from "@/core/part/testing/build";
import type { Curve } from "@/core/sketch/sketch";
import { sizeText } from "@/core/sizes/size";
import { sizesOf } from "@/core/sizes/sizes";
import { openNodeKernel } from "@/worker/kernel";
import { openDraft, type Draft } from "../views/draft";
import { placedOf, pulledSize, pulledTogether, pulledView } from "./drag";
import { changed, freeId, frozen, nextLetter, type Arrangement, type SheetChange } from "../layout/edit";
import { LayoutSchema } from "../layout/layout";
import { sizeOfThings, thingAt } from "./pick";
import { onSheet, middleOf } from "../layout/standing";
import { layOut, layoutOf, type DrawnSheet } from "../sheet";
import { GAZES } from "../views/views";
import { paperOf } from "./placed";

let kernel: Kernel;
let exercise: Exercise, draft: Draft, start: Arrangement, drawn: DrawnSheet;
const draw = (a: Arrangement) => layOut(draft, { ...exercise, ...a });
const must = (a: Arrangement, ...list: readonly SheetChange[]): Arrangement =>
  list.reduce((now, c) => {
    const r = changed(now, c);
    if (!r.ok) throw new Error(r.refusal.sentence);
    return r.value;
  }, a);
const bareText = (d: DrawnSheet) => d.sheet.dimensions.map((x) => x.text).sort();

beforeAll(async () => {
  kernel = await openNodeKernel();
  exercise = referenceExercises().find(([n]) => n === "tripod-foot")![1];
  const found = sizesOf(kernel, exercise.reference),
    opened = openDraft(kernel, exercise.reference, exercise.units);
  if (!found.ok || !opened.ok) throw new Error("the foot cannot be drawn");
  draft = opened.value;
  const first = layOut(draft, { ...exercise, sizes: found.value.sizes });
  const { name, isLying } = first.composition.paper;
  const layout = layoutOf(first.composition);
  start = { sizes: found.value.sizes, sheet: { ...exercise.sheet, layout, paper: { name, isLying } } };
  drawn = draw(start);
  expect(svgOf(drawn.drawing)).toBe(svgOf(first.drawing));
});

const acrossHole: [number, number][] = [
  [-5, -20],
  [110, -20],
];

describe("an arranged Sheet", () => {
  it("is kept as data that the schema takes", () => {
    expect(LayoutSchema.parse(JSON.parse(JSON.stringify(start.sheet.layout)))).toEqual(start.sheet.layout);
  });
  it("moves one size and nothing else", () => {
    const id = drawn.sheet.dimensions.find((d) => d.text === "96")!.id;
    const place = start.sheet.layout!.places[id]!;
    if (place.form !== "straight") throw new Error("96 is no straight size");
    const next = draw(must(start, { change: "place", id, place: { ...place, offset: place.offset + 14 } }));
    for (const s of drawn.composition.views)
      for (const p of s.placed) {
        const own = p.item.lines[0]!.id,
          now = placedOf(next.composition, own)!.p;
        if (own === id) expect(now.tier!.offset).toBeCloseTo(p.tier!.offset + 14, 9);
        else expect(now.box).toEqual(p.box);
      }
  });
  it("keeps every number when its scale, paper and views change", () => {
    const scaled = must(
      start,
      { change: "scale", scale: 0.5 },
      { change: "settings", to: { paper: { name: "A2", isLying: true } } },
      { change: "drop-view", key: "pictorial" },
      { change: "view", key: "front", to: { hidden: false, tangent: true } },
    );
    expect(bareText(draw(scaled))).toEqual(bareText(drawn));
  });
  it("gives the sizes of a view that goes to another, and takes a section with its parent", () => {
    const withSection = must(start, {
      change: "add-view",
      view: { key: "s", letter: "B", look: { from: "section", of: "top", line: acrossHole } },
    });
    expect(draw(withSection).composition.views.map((s) => s.view.key)).toContain("s");
    const without = must(withSection, { change: "drop-view", key: "top" });
    expect(without.sheet.layout!.views.map((v) => v.key)).not.toContain("s");
    const left = draw(without);
    expect(left.sheet.dimensions.length + left.sheet.unplaced!.length).toBe(start.sizes.length);
  });
  it("a size stands as an ordinate, counted from a zero", () => {
    const id = drawn.sheet.dimensions.find((d) => d.text === "62")!.id;
    const place = start.sheet.layout!.places[id]!;
    if (place.form !== "straight") throw new Error("62 is no straight size");
    const next = draw(must(start, { change: "place", id, place: { ...place, ordinate: true } }));
    const { p } = placedOf(next.composition, id)!;
    expect(p.texts.map((t) => t.line.text)).toEqual(["62", "0"]);
    expect([p.lines, p.arrows]).toEqual([[], []]);
    // each number ends its own extension line, and reads along it
    for (const [i, t] of p.texts.entries()) {
      const end = p.extensions[i]![1];
      expect(Math.abs((t.box.min[0] + t.box.max[0]) / 2 - end[0])).toBeLessThan(0.01);
      expect(Math.min(Math.abs(t.box.min[1] - end[1]), Math.abs(t.box.max[1] - end[1]))).toBeLessThan(1.01);
    }
    expect(bareText(next)).toEqual(bareText(drawn));
    const pulled = pulledSize(next.composition, id, [100, 100]);
    expect(pulled).toMatchObject({ form: "straight", ordinate: true });
  });
  it("a section beside the part, and one along a line that crosses itself, are told and harm nothing", () => {
    const section = (level: number) => {
      const line: [number, number][] = [
        [-5, level],
        [110, level],
      ];
      const look = { from: "section" as const, of: "top", line };
      return draw(must(start, { change: "add-view", view: { key: "s", letter: "B", look } })).troubles;
    };
    expect(section(-20)).toEqual([]);
    expect(section(60).join()).toMatch(/^Section B: nothing of the part is left/);
    expect(section(-300).join()).toMatch(/^Section B: its line meets nothing/);
    const crossing = must(start, {
      change: "view",
      key: "front",
      to: {
        local: [
          {
            outline: [
              [10, 2],
              [30, 12],
              [30, 2],
              [10, 12],
            ],
          },
        ],
      },
    });
    const drawnAnyway = draw(crossing);
    expect(bareText(drawnAnyway).length).toBe(bareText(drawn).length);
  });
  it("a new view that finds no free place is drawn smaller; where that does not help either, it is told", () => {
    const look = { from: "section" as const, of: "top", line: acrossHole };
    const small = { ...start, sheet: { ...start.sheet, paper: { name: "A4" as const, isLying: true } } };
    const several = (n: number, scale = 1) =>
      draw(
        must(
          small,
          { change: "scale", scale },
          ...Array.from({ length: n }, (_, i): SheetChange => {
            return { change: "add-view", view: { key: `s${i}`, letter: "BCDEFGHKLMNP"[i]!, look } };
          }),
        ),
      );
    const seen = [several(1, drawn.composition.scale), several(6, drawn.composition.scale), several(1, 10)];
    expect(seen.some((d) => d.composition.views.some((v) => v.scale < d.composition.scale))).toBe(true);
    for (const d of seen) {
      const crowded = d.composition.crowded ?? [];
      expect(d.troubles.filter((t) => /^Section [B-P]: there is no free place/.test(t))).toHaveLength(crowded.length);
    }
    expect(seen[0]!.troubles).toEqual([]);
    expect(seen[2]!.troubles.length).toBeGreaterThan(0);
  });
  it("what has gone does not come back with what is changed before it is drawn again", () => {
    const gone = must(start, { change: "drop-view", key: "top" }, { change: "drop-size", id: start.sizes[0]!.id });
    const { layout, paper } = start.sheet;
    const next = frozen(gone, layout!, paper!);
    expect(next.sheet.layout!.views.map((v) => v.key)).toEqual(["front", "left", "pictorial"]);
    expect(next.sheet.layout!.places[start.sizes[0]!.id]).toBeUndefined();
    expect(next.sizes).toEqual(gone.sizes);
  });
  it("the last view stays", () => {
    const one = ["pictorial", "left", "top"].reduce((a, key) => must(a, { change: "drop-view", key }), start);
    const r = changed(one, { change: "drop-view", key: "front" });
    expect(r.ok || r.refusal.sentence).toMatch(/one view at least/);
  });
  it("carries over to a changed reference, and loses only what is lost", () => {
    const grown = JSON.parse(JSON.stringify(exercise.reference)) as typeof exercise.reference;
    for (const s of grown.steps)
      if (s.kind === "sketch") for (const d of s.sketch.dimensions) if (String(d.value) === "96") d.value = 104;
    const read = readPart(grown);
    const opened = read.ok ? openDraft(kernel, read.value, exercise.units) : undefined;
    if (!opened?.ok) throw new Error("the grown foot cannot be drawn");
    const now = layOut(opened.value, { ...exercise, ...start });
    opened.value.close();
    expect(now.sheet.unplaced).toEqual([]);
    expect(now.sheet.dimensions.map((d) => d.text)).toContain("104");
    expect(now.sheet.dimensions.map((d) => d.text)).not.toContain("96");
  });
  it("letters a size as it is told, and back", () => {
    const id = drawn.sheet.dimensions.find((d) => d.text === "⌀18")!.id;
    const text = (to: Extract<SheetChange, { change: "letter" }>["to"]) =>
      draw(must(start, { change: "letter", id, to })).sheet.dimensions.find((d) => d.id === id)!;
    expect(text({ lettering: { fit: "H7" } }).text).toBe("⌀18 H7 (+0.018/0)");
    expect(text({ lettering: { reference: true, after: "reamed" } }).text).toBe("(⌀18) reamed");
    expect(text({ tolerance: { plus: 0.2, minus: 0.1 } }).text).toBe("⌀18 +0.2/−0.1");
    expect(text({ tolerance: { plus: 0.2, minus: 0.1 }, lettering: { limits: true } }).text).toBe("⌀18 [17.9 – 18.2]");
    expect(text({ free: true })).toMatchObject({ text: "free", values: undefined });
    expect(text({}).text).toBe("⌀18");
  });
});

describe("dragging", () => {
  it("a straight number goes where it is pulled, along and across, to the nearest tidy place", () => {
    const id = drawn.sheet.dimensions.find((d) => d.text === "96")!.id;
    fc.assert(
      fc.property(
        fc.double({ min: -30, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 40, noNaN: true }),
        (x, y) => {
          const { s, p } = placedOf(drawn.composition, id)!;
          const box = p.texts[0]!.box;
          const from = onSheet(s)([(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2]);
          const to = [from[0] + x, from[1] + y] as const;
          const place = pulledSize(drawn.composition, id, to)!;
          const now = placedOf(draw(must(start, { change: "place", id, place })).composition, id)!;
          const b = now.p.texts[0]!.box;
          const at = onSheet(now.s)([(b.min[0] + b.max[0]) / 2, (b.min[1] + b.max[1]) / 2]);
          // tidy places draw in by no more than 2.5 mm each way, and the number stands above its line
          expect(Math.hypot(at[0] - to[0], at[1] - to[1])).toBeLessThan(2.5 * Math.SQRT2 + 1);
        },
      ),
      { numRuns: 40 },
    );
  });
  it("a leader to a circle points to its centre, wherever it is pulled", () => {
    const id = drawn.sheet.dimensions.find((d) => d.text === "⌀18")!.id;
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), (angle) => {
        const { s } = placedOf(drawn.composition, id)!;
        const to = onSheet(s)([60 + 70 * Math.cos(angle), 30 + 70 * Math.sin(angle)]);
        const place = pulledSize(drawn.composition, id, to);
        if (place?.form !== "leader") return;
        const now = placedOf(draw(must(start, { change: "place", id, place })).composition, id)!.p;
        const arrow = now.arrows[0]!,
          view = now.view;
        const round = view.strokes.find((t) => t.kind === "arc" && Math.abs(t.radius - 9) < 1e-6);
        if (round?.kind !== "arc" || now.view.key !== "top") return;
        const centre = paperOf(view, 1)(round.centre);
        const across = (arrow.tip[0] - centre[0]) * arrow.way[1] - (arrow.tip[1] - centre[1]) * arrow.way[0];
        expect(Math.abs(across)).toBeLessThan(1e-6);
      }),
      { numRuns: 30 },
    );
  });
  it("a view is drawn into line with those that share a direction", () => {
    const top = drawn.composition.views.find((s) => s.view.key === "top")!;
    const [x, y] = middleOf(top);
    expect(pulledView(drawn.composition, "top", [x + 2, y + 30])[0]).toBeCloseTo(x, 9);
    expect(pulledView(drawn.composition, "top", [x + 20, y + 30])[0]).toBeCloseTo(x + 20, 9);
  });
  it("views in projection go along with one that is pulled, each along the line it shares", () => {
    const { composition } = drawn;
    const middle = (key: string) => middleOf(composition.views.find((s) => s.view.key === key)!);
    const [x, y] = middle("front");
    const moved = pulledTogether(composition, "front", [x + 12, y - 7]);
    expect(moved[0]).toEqual({ key: "front", middle: [x + 12, y - 7] });
    const top = moved.find((m) => m.key === "top")!.middle;
    expect([top[0] - middle("top")[0], top[1] - middle("top")[1]].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      12, 0,
    ]);
    // what is kept of it is that all are still in line: pulled to where it stands, nothing is drawn anywhere
    const next = draw(must(start, { change: "views", to: moved })).composition;
    expect(pulledTogether(next, "front", middleOf(next.views.find((s) => s.view.key === "front")!)).length).toBe(
      moved.length,
    );
  });
});

describe("sizes by clicking", () => {
  it("two parallel faces, a whole circle, two that lean; one flat face is refused", () => {
    const top = drawn.composition.views.find((s) => s.view.key === "top")!.view;
    const at = (p: readonly [number, number]) => thingAt(draft.model, top, p, 1.5, { unit: "mm" })!;
    const [left, right, hole] = [at([0, -30]), at([96, -10]), at([71, -18])];
    expect(hole.name).toBe("round face ⌀18");
    const width = sizeOfThings(draft.model, "h1", left, right);
    expect(width.ok && width.value).toMatchObject({ kind: "distance" });
    expect(sizeOfThings(draft.model, "h1", hole)).toMatchObject({ ok: true, value: { kind: "diameter" } });
    const alone = sizeOfThings(draft.model, "h1", left);
    expect(alone.ok || alone.refusal.sentence).toMatch(/second thing/);
  });
  it("an ellipse by its outline or its middle: its axes", () => {
    const ellipse: Curve = { id: "e", kind: "ellipse", centre: [5, 0], major: [5, 30], minor: [-7, 0] };
    const opened = openDraft(kernel, part(sketch("s", "top", [ellipse]), extrude("b", "s", 8)), "mm");
    if (!opened.ok) throw new Error(opened.refusal.sentence);
    const { model, close, views } = opened.value,
      [top] = views([{ key: "top", name: "top", gaze: GAZES.top, hidden: true }]);
    close();
    const at = (x: number, y: number) => thingAt(model, top!, [x, y], 1.5, { unit: "mm" });
    for (const place of [at(-7, 0.4), at(5.3, 30.2), at(5, 0)]) {
      expect(place?.name).toBe("elliptic face");
      const size = sizeOfThings(model, "h1", place!);
      expect(size.ok && sizeText(size.value, model.body.on, { unit: "mm" })).toBe("ellipse 60 × 24");
    }
    expect(at(12, 12)).toBeUndefined();
  });
});

it("letters and ids are those nobody has", () => {
  expect(nextLetter(["A", "B", "D"])).toBe("C");
  expect(nextLetter([..."ABCDEFGH"])).toBe("J");
  expect(freeId("h", ["h1", "h2", "h4"])).toBe("h3");
});

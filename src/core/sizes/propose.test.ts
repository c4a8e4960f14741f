import { beforeAll, describe, expect, it } from "vitest";
import { demoExercises, solidExercises } from "@/cli/bench/demo-parts";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { pulley } from "@/demo/long-part";
import { counterweight, cordPulley, glandPlate } from "@/demo/sheet-parts";
import { withSketchesDefined } from "./numbers";
import { SOLIDS } from "@/core/part/testing/solids";
import { arc, circ, cut, extrude, line, part, rect, revolve, sketch } from "@/core/part/testing/build";
import { applyToSketch } from "@/core/sketch/commands";
import { emptySketch } from "@/core/sketch/sketch";
import { openNodeKernel } from "@/worker/kernel";
import type { Outcome } from "@/core/units/refusal";
import { sizedBody } from "./body";
import { sizesOf } from "./sizes";
import { sizeText } from "./size";
import { fewer, IS_LONG } from "@/core/part/testing/chosen";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const demo = [
  ...[...demoExercises(), ...solidExercises()].map(([name, e]) => [name, e.reference] as const),
  ...[cordPulley(), glandPlate(), counterweight(), pulley()].map((d, i) => [`${d.name} (${i})`, d] as const),
];
// one way of each; all of them in the long run
const ways = IS_LONG ? 99 : 1;
const known = SOLIDS.flatMap((s) => s.ways.slice(0, ways).map((way, i) => [`${s.name}, way ${i + 1}`, way] as const));

function must<T>(r: Outcome<T>): T {
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
}

function proposed(document: PartDocument) {
  const found = must(sizesOf(kernel, document));
  const built = rebuild(kernel, document);
  const body = sizedBody(kernel, built.body!);
  kernel.release(built.body!.shape);
  const lettering = { unit: document.units, fractions: true };
  return { ...found, texts: found.sizes.map((s) => sizeText(s, body.on, lettering)).sort() };
}

/** An arm or link 30 wide and 10 thick, its ends round, with bosses of 15 on so many of them. */
function armOf(ends: 1 | 2, bosses: 1 | 2): PartDocument {
  const left = ends === 2 ? arc("l", [0, 0], [0, 15], [0, -15]) : line("l", [0, 15], [0, -15]);
  const outline = [
    line("b", [0, -15], [60, -15]),
    arc("r", [60, 0], [60, -15], [60, 15]),
    line("t", [60, 15], [0, 15]),
  ];
  return part(
    sketch("s", "top", [...outline, left]),
    extrude("a", "s", 10),
    sketch("t", { base: "top", offset: 10 }, circ(60, 0, 15), ...(bosses === 2 ? [circ(0, 0, 15, "c2")] : [])),
    extrude("c", "t", 15),
  );
}

describe("proposed sizes", () => {
  it.each([...fewer(demo, 2), ...fewer(known, 3)])("%s: say all there is, and nothing twice", (_, document) => {
    const { table, sizes, texts } = proposed(document);
    expect([table.told, table.hidden, table.repeating, table.lost]).toEqual([table.ways, [], [], []]);
    expect(sizes.length).toBeLessThanOrEqual(table.ways);
    expect(texts.filter((t) => !t)).toEqual([]);
  });

  // what its maker typed stands on the drawing, holes and roundings with their number
  it.each([
    ["tripod-foot", ["14", "14", "18", "24", "2× ⌀9", "44", "52", "62", "64", "96", "⌀18"]],
    ["bearing-spacer", ["17", "2× 1.5 × 45°", "2× ⌀34", "40", "6", "⌀16", "⌀28"]],
    ["anemometer-hub", ["10", "20", "6× on ⌀62", "6× ⌀5.5", "6× counterbore ⌀10 5.4 deep", "R3", "⌀14", "⌀36", "⌀80"]],
    ["sensor-housing", ["18", "36", "4× R8", "50", "60", "wall 2", "⌀10"]],
  ])("%s: are those a draughtsman would print", (name, want) => {
    const document = demo.find(([n]) => n === name)![1];
    expect(proposed(document).texts).toEqual([...want].sort());
  });
  it.each([
    ["pad leaning inwards on both sides of its sketch", ["20", "50", "50", "10°"]],
    ["frustum of a pyramid", ["10", "20", "20", "53.13°"]],
    ["frustum of a cone", ["10", "⌀16", "⌀6"]],
    ["angle", ["25", "30", "30", "35", "40"]],
    ["sphere", ["SR7"]],
    ["half ball", ["SR7"]],
    ["chamfered shaft", ["12", "⌀16", "2 × 45°"]],
    ["slotted plate", ["4", "20", "6", "60", "15", "slot 8 × 30"]],
  ])("%s: too, of a sketch whose corners nobody joined", (name, want) => {
    const { ways } = SOLIDS.find((s) => s.name === name)!;
    expect(proposed(withSketchesDefined(ways[0]!)).texts).toEqual([...want].sort());
  });
  it.each([
    ["across the flats of a hexagon about its circle", true],
    ["across the corners of a hexagon in its circle", false],
  ])("%s", (_, outside) => {
    const circle = { id: "c", kind: "circle", centre: [0, 0], radius: 15, construction: "construction" } as const;
    const middle = { id: "k", kind: "coincident", of: ["c.centre", "origin"] } as const;
    const commands = [
      { do: "draw", curves: [circle], constraints: [middle] },
      { do: "pin", constraints: [], dimensions: [{ kind: "diameter", of: ["c"], value: 30 }] },
      { do: "polygon", circle: "c", count: 6, outside, turn: 0 },
    ] as unknown as Parameters<typeof applyToSketch>[1][];
    const drawn = commands.reduce((now, command) => must(applyToSketch(now, command, "mm")), emptySketch("top"));
    const step = { id: "s", kind: "sketch", sketch: drawn } as PartDocument["steps"][number];
    expect(proposed(withSketchesDefined(part(step, extrude("b", "s", 8)))).texts).toEqual(["30", "8"]);
  });

  it("a level that several things share is printed once, whatever they are", () => {
    const plate = part(
      sketch("s", "top", rect(0, 0, 90, 50)),
      extrude("b", "s", 9),
      sketch("t", "top", circ(12, 14, 3, "a"), circ(78, 14, 4, "c"), circ(45, 14, 6, "e"), circ(12, 38, 5, "d")),
      cut("h", "t", "through", { reverse: true }),
    );
    const { texts, table } = proposed(withSketchesDefined(plate));
    expect(texts).toEqual(["12", "14", "38", "45", "50", "78", "9", "90", "⌀10", "⌀12", "⌀6", "⌀8"]);
    expect(table.told).toBe(table.ways);
  });
  it.each([
    ["arm with a boss on its end", armOf(1, 1), ["10", "15", "60", "⌀30"]],
    ["link with a boss at one end", armOf(2, 1), ["10", "15", "60", "R15"]],
    ["link with bosses at both ends", armOf(2, 2), ["10", "15", "2× ⌀30", "60"]],
  ])("%s as round as it: a face has its radius or its diameter, not both", (_, document, want) => {
    const { texts, table } = proposed(withSketchesDefined(document));
    expect(texts).toEqual(want);
    expect([table.told, table.repeating]).toEqual([table.ways, []]);
  });
  it.each([
    ["wide", 10, ["20", "25", "2× ⌀20", "30", "40", "50", "60"]],
    ["narrower", 8, ["20", "25", "30", "40", "50", "60", "⌀16", "⌀20"]],
  ])("bores that cross at one level, one as wide as the other or %s: both have their diameter", (_, radius, want) => {
    // in however many pieces the one cuts the other
    const block = part(
      sketch("s", "top", rect(-60, 0, 0, 50)),
      extrude("b", "s", 40),
      sketch("t", "front", circ(-30, 20, 10)),
      cut("c", "t", "through"),
      sketch("u", "right", circ(25, 20, radius)),
      cut("d", "u", "through"),
    );
    const { texts, table } = proposed(withSketchesDefined(block));
    expect(texts).toEqual(want);
    expect([table.told, table.hidden]).toEqual([table.ways, []]);
  });
  it("how a pipe is bent is printed once for its two walls", () => {
    const pipe = part(
      sketch("s", "front", circ(40, 0, 8), circ(40, 0, 6, "c2")),
      revolve("b", "s", { turn: { kind: "angle", angle: 70 } }),
    );
    const { texts, table } = proposed(withSketchesDefined(pipe));
    expect(texts).toEqual(["70°", "R6", "R8", "⌀80"]);
    expect(table.told).toBe(table.ways);
  });
});

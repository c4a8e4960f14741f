import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import type { Kernel } from "@/core/kernel/opencascade";
import { propertiesOf } from "@/core/kernel/properties";
import { fieldsOf, pathText, withFields } from "@/core/naming/field";
import { drivingSizes } from "@/core/sketch/sizes";
import { readQuantity, withUnitWritten, type LengthUnit } from "@/core/units/quantity";
import { openNodeKernel } from "@/worker/kernel";
import { apply } from "./commands";
import { PartSchema, readPart, type PartDocument } from "./document";
import { parameterNames } from "./parameters";
import { rebuild } from "./rebuild";
import { cut, extrude, part, rect, revolve, sketch, withParameters } from "./testing/build";
import { SOLIDS } from "./testing/solids";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

const inUnits = (d: PartDocument, units: LengthUnit): PartDocument => {
  const r = apply(d, { do: "units", units });
  if (!r.ok) throw new Error(r.refusal.sentence);
  return r.value;
};

/** Every typed number of a part in millimetres and radians, by its place; texts where one cannot be read. */
function readings(d: PartDocument): Record<string, number | string> {
  const names = parameterNames(d);
  return Object.fromEntries(
    fieldsOf(PartSchema, d).flatMap((f) => {
      if (f.meaning !== "length" && f.meaning !== "angle") return [];
      const step = f.path[0] === "steps" ? d.steps[Number(f.path[1])] : undefined;
      if (step?.kind === "sketch") {
        const sizes = drivingSizes(step.sketch, d.units);
        const id = step.sketch.dimensions[Number(f.path[4])]!.id;
        return [[`${step.id} ${id}`, sizes.ok ? sizes.value.get(id)! : sizes.refusal.sentence]];
      }
      const r = readQuantity(f.value as string, f.meaning, d.units, names);
      return [[pathText(f.path), r.ok ? r.value : r.refusal.sentence]];
    }),
  );
}

/** The same length said in other words. */
const SAID: ((n: number) => string | number)[] = [
  (n) => n,
  (n) => `${n}`,
  (n) => `=(${n}+1)-1`,
  (n) => `=${2 * n}/2`,
  (n) => `=${n}-wall+wall`,
  (n) => `=min(${n}, 1000 m)`,
  (n) => `=${n}+0 mm`,
  (n) => `=sqrt((${n})^2)`,
  (n) => `=2*(${n} + wall*sin(30)) - wall - ${n}`,
];
const WORDS = [
  { name: "wall", value: "2 5/8" },
  { name: "lean", value: 12, kind: "angle" as const },
];

/** A part whose lengths are said in ways that begin with the given one. */
function reworded(d: PartDocument, from: number): PartDocument {
  let k = from;
  const steps = withFields(PartSchema, d, (f) =>
    f.meaning === "length" && typeof f.value === "number" ? SAID[k++ % SAID.length]!(f.value) : f.value,
  ).steps;
  return withParameters({ ...d, steps }, ...WORDS);
}

describe("another unit for the document leaves every number what it was", () => {
  const all = SOLIDS.flatMap((s) => s.ways.map((way, i) => [`${s.name}, way ${i + 1}`, way, i] as const));
  it.each(all)("%s", (_, way, i) => {
    for (const units of ["mm", "in"] as const) {
      const d = { ...reworded(way, i), units };
      const other = inUnits(d, units === "mm" ? "in" : "mm");
      expect(readings(other)).toEqual(readings(d));
      expect(readings(inUnits(other, units))).toEqual(readings(d));
    }
  });
});

describe("and the solid", () => {
  const turned = part(
    sketch("s", "front", rect(4, 0, 10, 20)),
    revolve("r", "s", { turn: { kind: "two", angle: 200, back: "=30+15" } }),
  );
  const plate = part(
    sketch("s", "top", rect(0, 0, 40, 30)),
    extrude("b", "s", 12),
    { id: "p", kind: "point", by: { kind: "at", at: ["=(94-31)/2", 3, "1 + 2"] } },
    { id: "q", kind: "plane", by: { kind: "offset", from: { datum: "top" }, distance: 5 } },
    { id: "a", kind: "axis", by: { kind: "square", plane: { datum: "q" }, through: { point: "p" } } },
    sketch("t", "top", rect(10, 10, 20, 20)),
    cut("c", "t", 3),
  );
  it.each<[string, PartDocument]>([
    ["a revolve of two angles", turned],
    ["a plate with datums", plate],
    ...[3, 11, 17, 25, 33, 40].map((k) => [SOLIDS[k]!.name, SOLIDS[k]!.ways[0]!] as [string, PartDocument]),
  ])("%s", (_, way) => {
    const d = reworded(way, 1);
    const measured = [d, inUnits(d, "in")].map((x) => {
      const built = rebuild(kernel, x);
      expect(built.steps.filter((s) => s.refusal)).toEqual([]);
      const { volume, area, centre } = propertiesOf(kernel, built.body!);
      const points = [...built.datums.values()].flatMap((v) => (v.kind === "point" ? [v.at] : []));
      kernel.release(built.body!.shape);
      return { volume, area, centre, points };
    });
    expect(measured[1]).toEqual(measured[0]);
  });
});

describe("what is written out", () => {
  it.each([
    ["=(94-31)/2", "mm", "=((94-31)/2) mm"],
    [12, "in", "12 in"],
    ["2 5/8", "in", "2 5/8 in"],
    ["12 mm", "in", "12 mm"],
    ["=2*wall+3", "mm", "=2*wall+3 mm"],
    ["=wall*2", "mm", "=wall*2"],
    ["=min(3, wall)", "in", "=min(3 in, wall)"],
    ["=round(wall)", "in", "=(round((wall)/(1 in))*(1 in))"],
    ["not a number", "mm", "not a number"],
  ] as const)("%s in %s reads %s", (text, unit, written) =>
    expect(withUnitWritten(text, unit, (n) => (n === "wall" ? { n: 5, length: 1, angle: 0 } : undefined))).toBe(
      written,
    ),
  );

  it("means the same in the other unit, for whatever can be read", () => {
    const leaf = fc.oneof(
      fc.integer({ min: 1, max: 99 }).map(String),
      fc.constantFrom("wall", "2.5 mm", "3/8 in", "1 5/8", "0.75"),
    );
    const tree = fc.letrec<{ e: string }>((tie) => ({
      e: fc.oneof(
        { maxDepth: 4 },
        leaf,
        fc.tuple(tie("e"), fc.constantFrom("+", "-", "*", "/"), tie("e")).map(([a, o, b]) => `(${a} ${o} ${b})`),
        fc.tuple(tie("e"), fc.integer({ min: 1, max: 9 })).map(([a, k]) => `${a}*${k}`),
        fc.tuple(fc.constantFrom("round", "min", "max"), tie("e")).map(([f, a]) => `${f}(${a})`),
        fc.tuple(fc.constantFrom("min", "max"), tie("e"), tie("e")).map(([f, a, b]) => `${f}(${a}; ${b})`),
      ),
    })).e;
    const names = (n: string) => (n === "wall" ? { n: 6.35, length: 1, angle: 0 } : undefined);
    fc.assert(
      fc.property(tree, fc.constantFrom<LengthUnit>("mm", "in"), (text, unit) => {
        const before = readQuantity(`=${text}`, "length", unit, names);
        fc.pre(before.ok && text.length < 60);
        const after = readQuantity(
          withUnitWritten(`=${text}`, unit, names),
          "length",
          unit === "mm" ? "in" : "mm",
          names,
        );
        fc.pre(after.ok || !/too long/.test(after.refusal.sentence));
        expect(after.ok || after.refusal.sentence).toBe(true);
        if (after.ok && before.ok) expect(after.value).toBeCloseTo(before.value, 9);
      }),
      // one through a length is rounded in the unit too, and comes out a hair less than a half in one of them
      { numRuns: 2000, examples: [["(round((1 5/8 / wall))*1 * wall)", "in"]] },
    );
  });
});

it("a part by hand with parameters builds as they say, whatever its sketches were given", () => {
  const dims = [
    { id: "m1", kind: "length", of: ["l1"], value: "=w" },
    { id: "m2", kind: "length", of: ["l2"], value: "=w" },
  ];
  const rules = [
    ["coincident", "l1.end", "l2.start"],
    ["coincident", "l2.end", "l3.start"],
    ["coincident", "l3.end", "l4.start"],
    ["coincident", "l4.end", "l1.start"],
    ["coincident", "l1.start", "origin"],
    ["horizontal", "l1"],
    ["vertical", "l2"],
    ["horizontal", "l3"],
    ["vertical", "l4"],
  ].map(([kind, ...of], i) => ({ id: `k${i}`, kind, of }));
  for (const given of [undefined, [{ name: "w", value: 20, kind: "length" }], []]) {
    const d = part(sketch("s", "top", rect(0, 0, 20, 20)), extrude("b", "s", 20)) as unknown as {
      steps: [{ sketch: object }, object];
      parameters?: object[];
    };
    Object.assign(d.steps[0].sketch, { dimensions: dims, constraints: rules, ...(given && { given }) });
    d.parameters = [{ name: "w", value: 40 }];
    const read = readPart(JSON.stringify(d));
    if (!read.ok) throw new Error(read.refusal.sentence);
    const built = rebuild(kernel, read.value);
    expect(propertiesOf(kernel, built.body!).volume).toBeCloseTo(32_000, 6);
    kernel.release(built.body!.shape);
  }
});

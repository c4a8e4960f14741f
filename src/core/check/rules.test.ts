import { beforeAll, describe, expect, it } from "vitest";
import { gradeReport } from "@/core/grade/grade";
import type { Kernel } from "@/core/kernel/opencascade";
import type { PartDocument } from "@/core/part/document";
import { generalFor, toleranceOf } from "@/core/sizes/general";
import { drivingNumbers } from "@/core/sizes/numbers";
import { measureSize, type Size } from "@/core/sizes/size";
import { disturbed, proposedSizes, sizesOf } from "@/core/sizes/sizes";
import { bracketExercise, footExercise } from "@/demo/exercises";
import { tripodFoot, tripodFootElsewhere } from "@/demo/parts";
import { openNodeKernel } from "@/worker/kernel";
import { makeSheet } from "@/core/sheet/sheet";
import { checkSubmission } from "./check";
import type { Exercise } from "./exercise/exercise";
import { newLine } from "./exercise/rubric";

let kernel: Kernel;
beforeAll(async () => {
  kernel = await openNodeKernel();
});

function lines(exercise: Exercise, part: PartDocument) {
  const r = checkSubmission(kernel, exercise, part);
  if (!r.ok) throw new Error(r.refusal.sentence);
  return Object.fromEntries(gradeReport(exercise, r.value.report).lines.map((l) => [l.id, l]));
}

describe("the material", () => {
  const steel = footExercise().material;
  const of = (name: string, density: number) => ({ ...tripodFoot({ baseHole: 30 }), material: { name, density } });
  it("a density that makes a wrong volume weigh right earns nothing", () => {
    const light = lines(footExercise(), tripodFoot({ baseHole: 30 }));
    const share = Number(/([\d.]+)\s*%/.exec(light["volume"]!.sentence.split("off by")[1]!)![1]) / 100;
    const { mass } = lines(footExercise(), of("Heavy steel", steel.density / (1 - share)));
    expect(mass!.verdict).toBe("missed");
    expect(mass!.studentSentence).toMatch(/made of “Heavy steel”; the Sheet asks for “Steel S235”/);
  });
  it("another name of the same weight is told, and costs only where the name is asked for", () => {
    const part = { ...tripodFoot(), material: { name: "Mild steel", density: steel.density } };
    const told = lines(footExercise(), part)["mass"]!;
    expect([told.verdict, /the same density/.test(told.sentence)]).toEqual(["met", true]);
    expect(lines({ ...footExercise(), materialByName: true }, part)["mass"]!.verdict).toBe("missed");
  });
});

it("a part of another size as a whole is told so once, and no line says by how many per cent", () => {
  const all = Object.values(lines(footExercise(), tripodFoot({ units: "in" })));
  const text = all.map((l) => `${l.sentence} ${l.studentSentence}`).join(" ");
  expect(text).not.toMatch(/\d{4,}(\.\d+)? %|off by \+1\s?\d{3}/);
  expect(all.filter((l) => /25\.4 times too large/.test(l.studentSentence)).map((l) => l.id)).toEqual(["shape"]);
});

describe("what is left free", () => {
  const change = (label: RegExp, value: number) => {
    const numbers = drivingNumbers(bracketExercise().reference);
    return numbers.find((n) => label.test(n.label))!.give(value);
  };
  const free = (): Exercise => {
    const r = sizesOf(kernel, bracketExercise().reference);
    if (!r.ok) throw new Error(r.refusal.sentence);
    const sizes = r.value.sizes.map((s): Size => (s.kind === "radius" && s.of.length === 2 ? { ...s, free: true } : s));
    return { ...bracketExercise(), sizes };
  };
  const lost = (e: Exercise, part: PartDocument) =>
    Object.values(lines(e, part)).flatMap((l) => (l.verdict === "met" ? [] : [l.id]));
  it("a rounding to taste costs nothing where it is free, and does where it is not", () => {
    const taste = change(/Fillet: radius 2/, 4);
    expect(lost(free(), taste)).toEqual([]);
    expect(lost(bracketExercise(), taste)).toEqual(expect.arrayContaining(["shape", "sizes"]));
  });
  it("it lets nothing else through", () => {
    expect(lost(free(), change(/Hole: diameter/, 9.5))).toEqual(expect.arrayContaining(["shape", "sizes"]));
    expect(lost(free(), change(/Extrude: depth/, 41))).toEqual(expect.arrayContaining(["shape", "sizes", "volume"]));
  });
  it("a band is held", () => {
    const banded = free();
    const sizes = banded.sizes!.map((s): Size => (s.free ? { ...s, free: { from: 8, to: 12 } } : s));
    const verdict = (r: number) => lines({ ...banded, sizes }, change(/Fillet: radius 2/, r))["sizes"]!.verdict;
    expect([verdict(9), verdict(12), verdict(13)]).toEqual(["met", "met", "missed"]);
  });
});

// ISO 2768-1 tables 1 to 3, a row of each
it.each([
  [2, "f", 0.05],
  [6, "m", 0.1],
  [30.5, "m", 0.3],
  [120, "c", 0.8],
  [401, "v", 4],
  [1500, "m", 1.2],
] as const)("a length of %d in class %s may be off by %d", (value, c, off) =>
  expect(generalFor("length", value, { by: "iso", class: c }, 50)).toBe(off),
);
it("roundings and angles have tables of their own; a size's own tolerance goes before", () => {
  const iso = { by: "iso", class: "m" } as const;
  const radius: Size = { id: "r", kind: "radius", of: ["x"] };
  const value = { what: "radius", quantity: "length", value: 4 } as const;
  expect(toleranceOf(radius, value, iso, 50)).toEqual({ plus: 0.5, minus: 0.5 });
  expect(toleranceOf({ ...radius, tolerance: { plus: 0.1, minus: 0 } }, value, iso, 50)).toEqual({
    plus: 0.1,
    minus: 0,
  });
  expect((generalFor("angle", 1, iso, 60) * 180) / Math.PI).toBeCloseTo(1 / 3, 12);
});

describe("a printed size is what is printed", () => {
  const asked = (diameter: number, size: Partial<Size>, sheet: Partial<Exercise["sheet"]> = {}): Exercise => {
    const exercise = { ...footExercise(), reference: tripodFoot({ baseHole: diameter }) };
    const moved = disturbed(kernel, exercise.reference);
    if (!moved.ok) throw new Error(moved.refusal.sentence);
    const { body } = moved.value;
    const isBore = (s: Size) => s.kind === "diameter" && measureSize(s, body.on)[0]?.[0]?.value === diameter;
    return {
      ...exercise,
      sizes: proposedSizes(moved.value).map((s) => (isBore(s) ? ({ ...s, ...size } as Size) : s)),
      sheet: { ...exercise.sheet, ...sheet },
    };
  };
  const sizesLine = (exercise: Exercise, part: PartDocument) => lines(exercise, part)["sizes"]!;
  it("20.3 printed of 20.346 and built is met, and no sentence tells the rest", () => {
    const exercise = asked(20.346, { lettering: { digits: 1 } });
    expect(sizesLine(exercise, tripodFoot({ baseHole: 20.3 })).verdict).toBe("met");
    const wrong = sizesLine(exercise, tripodFoot({ baseHole: 21 }));
    expect(wrong.studentSentence).toMatch(/is 21 mm, printed 20\.3 mm/);
    expect(wrong.studentSentence).not.toContain("20.346");
  });
  it("a fit is judged by its limits", () => {
    const exercise = asked(20, { lettering: { fit: "H7" } });
    const verdicts = [20, 20.021, 19.99].map((d) => sizesLine(exercise, tripodFoot({ baseHole: d })).verdict);
    expect(verdicts).toEqual(["met", "met", "missed"]);
    expect(sizesLine(exercise, tripodFoot({ baseHole: 19.99 })).studentSentence).toContain("printed 20 mm");
  });
  it("a Sheet that names a class is judged by it", () => {
    const named = asked(20, {}, { general: "ISO 2768-m" });
    expect(sizesLine(named, tripodFoot({ baseHole: 20.15 })).verdict).toBe("met");
    expect(sizesLine(asked(20, {}), tripodFoot({ baseHole: 20.15 })).verdict).toBe("missed");
  });
  it("what asks for sizes that are not on the drawing any more could not be judged", () => {
    const exercise = asked(20, {}),
      only = { ...newLine("sizes", 2), id: "gone", only: ["no-size"] };
    const line = lines({ ...exercise, rubric: [...exercise.rubric, only] }, exercise.reference)["gone"]!;
    expect([line.verdict, line.sentence]).toEqual([
      "unknown",
      "One size that this line asks for is not on the drawing any more, so it could not be judged.",
    ]);
  });
});

describe("lines that an exercise may ask for besides", () => {
  const asking = (check: "place" | "figures"): Exercise => ({
    ...footExercise(),
    rubric: [...footExercise().rubric, newLine(check, 2)],
  });
  it("origin and views as the Sheet's", () => {
    const verdict = (part: PartDocument) => lines(asking("place"), part)["place"]!;
    expect(verdict(tripodFoot()).verdict).toBe("met");
    expect(verdict(tripodFoot({ baseHole: 20 })).verdict).toBe("met");
    const elsewhere = verdict(tripodFootElsewhere());
    expect([elsewhere.verdict, elsewhere.studentSentence]).toEqual([
      "missed",
      "The part lies or stands another way than the Sheet shows: its origin or its views are others.",
    ]);
  });
  it("figures of the whole, for the student without a number of the reference", () => {
    expect(lines(asking("figures"), tripodFootElsewhere())["figures"]!.verdict).toBe("met");
    const empty = lines(asking("figures"), { ...tripodFoot(), steps: [] })["figures"]!;
    expect([empty.verdict, empty.points]).toEqual(["missed", 0]);
    const wrong = lines(asking("figures"), tripodFoot({ baseHole: 26 }))["figures"]!;
    expect(wrong.verdict).toBe("missed");
    expect(wrong.sentence).toMatch(/^Surface area off by/);
    expect(wrong.studentSentence).not.toMatch(/\d/);
  });
  it("what was left lying about is told with the sketches, and costs nothing", () => {
    const part = tripodFoot();
    const [first] = part.steps;
    const stray = { ...first!, id: "left-over", name: "Left over" };
    const line = lines(footExercise(), { ...part, steps: [...part.steps, stray] as PartDocument["steps"] })[
      "sketches"
    ]!;
    expect(line.verdict).toBe("met");
    expect(line.sentence).toMatch(/Beside that: Left over is used by no step\./);
  });
});

describe("a step or a face that is left free", () => {
  const { reference } = bracketExercise();
  const fillets = reference.steps.filter((s) => s.kind === "fillet");
  const fillet = (radius: number): PartDocument => {
    const n = drivingNumbers(reference).find((d) => d.step === fillets[0]!.id)!;
    return n.give(radius);
  };
  const asking = (left: { id: string } & { within?: number }): Exercise => ({
    ...bracketExercise(),
    free: { steps: [left.within ? { of: left.id, within: left.within } : left.id], faces: [] },
  });
  const lost = (e: Exercise, part: PartDocument) =>
    Object.values(lines(e, part)).flatMap((l) => (l.verdict === "met" ? [] : [l.id]));
  const { id } = fillets[0]!;
  const was = drivingNumbers(reference).find((d) => d.step === id)!.value;
  it("costs nothing whatever it is, or left out, and lets nothing else through", () => {
    expect(lost(asking({ id }), fillet(was + 1.5))).toEqual([]);
    const without = { ...reference, steps: reference.steps.map((s) => (s.id === id ? { ...s, suppressed: true } : s)) };
    expect(lost(asking({ id }), without as PartDocument)).toEqual([]);
    const hole = drivingNumbers(reference).find((n) => /Hole: diameter/.test(n.label))!;
    expect(lost(asking({ id }), hole.give(hole.value + 0.5))).toEqual(expect.arrayContaining(["shape", "sizes"]));
  });
  it("within a band must be there, and may be off by no more", () => {
    const verdict = (part: PartDocument) => lines(asking({ id, within: 3 }), part)["shape"]!.verdict;
    expect([verdict(fillet(was + 0.5)), verdict(fillet(was + 6))]).toEqual(["met", "missed"]);
    const without = { ...reference, steps: reference.steps.map((s) => (s.id === id ? { ...s, suppressed: true } : s)) };
    expect(verdict(without as PartDocument)).toBe("missed");
  });
  it("is printed as free, without its size", () => {
    const texts = (e: Exercise) => {
      const r = makeSheet(kernel, e);
      return r.ok ? r.value.dimensions.map((d) => d.text) : [];
    };
    const [drawn, left] = [texts(bracketExercise()), texts(asking({ id }))];
    expect(drawn).not.toContain("free");
    expect(left.filter((t) => t === "free").length).toBeGreaterThan(0);
    expect(left.length).toBe(drawn.length);
  });
});

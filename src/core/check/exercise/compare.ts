import { compareParts } from "@/core/part/compare";
import { massText } from "@/core/units/amounts";
import { isSame } from "@/core/units/same";
import type { Exercise } from "./exercise";
import type { RubricLine } from "./rubric";

const points = (n: number) => `${n} point${n === 1 ? "" : "s"}`;

/** What changed from one revision of an exercise to another, in sentences; empty where they are the same. */
export function compareExercises(before: Exercise, after: Exercise): string[] {
  return [
    ...texts(before, after),
    ...asked(before, after),
    ...reference(before, after),
    ...rubric(before.rubric, after.rubric),
    ...sheet(before, after),
  ];
}

const FIELDS: readonly (readonly [keyof Exercise, string])[] = [
  ["number", "number"],
  ["title", "title"],
  ["units", "unit"],
];

function texts(a: Exercise, b: Exercise): string[] {
  const list = FIELDS.filter(([k]) => a[k] !== b[k]).map(
    ([k, called]) => `The ${called} was “${String(a[k])}” and is “${String(b[k])}”.`,
  );
  if (a.brief !== b.brief) list.push("The brief reads differently.");
  if (!isSame(a.hints ?? [], b.hints ?? []))
    list.push(`The hints changed: there were ${a.hints?.length ?? 0}, and are ${b.hints?.length ?? 0}.`);
  if (!isSame(a.about, b.about)) list.push("Tags, level or time needed changed.");
  if (!isSame(a.series, b.series)) list.push("Its place in a series changed.");
  if (!isSame(a.start, b.start)) list.push("What students start from changed.");
  return list;
}

function asked(a: Exercise, b: Exercise): string[] {
  const list: string[] = [];
  const material = (e: Exercise) => `${e.material.name}, ${e.material.density} g/cm³`;
  if (material(a) !== material(b)) list.push(`The material was ${material(a)} and is ${material(b)}.`);
  if (a.massUnit !== b.massUnit)
    list.push(`Masses are lettered as ${massText(1234, b.massUnit)} instead of ${massText(1234, a.massUnit)}.`);
  const share = (x: number) => `${Number((x * 100).toPrecision(6))} %`;
  for (const k of ["volume", "mass", "shape"] as const)
    if (a.tolerances[k] !== b.tolerances[k])
      list.push(`The tolerance of ${k} was ${share(a.tolerances[k])} and is ${share(b.tolerances[k])}.`);
  if (!isSame(a.tolerances.sizes, b.tolerances.sizes)) list.push("The tolerance of printed sizes changed.");
  if (a.shapeBy !== b.shapeBy) list.push("What the shape line wants changed.");
  if (!isSame(a.free, b.free)) list.push("What is left free changed.");
  if (!isSame(a.questions ?? [], b.questions ?? [])) list.push("The figures that are asked for changed.");
  if (!isSame(a.varies ?? [], b.varies ?? [])) list.push("The own numbers changed.");
  return list;
}

function reference({ reference: a }: Exercise, { reference: b }: Exercise): string[] {
  return compareParts(a, b).flatMap((d): string[] => {
    if (d.kind === "only-first") return [`Reference: ${d.called} is gone.`];
    if (d.kind === "only-second") return [`Reference: ${d.called} is new.`];
    const numbers = d.numbers.map((n) => `${n.name} was ${n.first} and is ${n.second}`);
    const what = numbers.length ? numbers.join("; ") : "drawn or picked differently";
    return [`Reference: ${d.called}: ${what}.`];
  });
}

function rubric(a: readonly RubricLine[], b: readonly RubricLine[]): string[] {
  const gone = a.filter((l) => !b.some((n) => n.id === l.id)).map((l) => `The line “${l.title}” is gone.`);
  const others = b.flatMap((l): string[] => {
    const was = a.find((o) => o.id === l.id);
    if (!was) return [`The line “${l.title}” is new, with ${points(l.points)}.`];
    if (was.points !== l.points)
      return [`The line “${l.title}” gave ${points(was.points)} and gives ${points(l.points)}.`];
    return isSame(was, l) ? [] : [`The line “${l.title}” is judged differently.`];
  });
  return [...gone, ...others];
}

function sheet(a: Exercise, b: Exercise): string[] {
  const { layout: wasLaid, ...wasTitled } = a.sheet;
  const { layout: isLaid, ...isTitled } = b.sheet;
  const list: string[] = [];
  if (!isSame(wasTitled, isTitled)) list.push("What the Sheet says beside the part changed.");
  if (!isSame(wasLaid, isLaid)) list.push("The Sheet is laid out differently.");
  if (!isSame(a.sizes, b.sizes)) list.push("The sizes that the Sheet prints changed.");
  return list;
}

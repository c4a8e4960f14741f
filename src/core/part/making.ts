import { fieldsOf } from "@/core/naming/field";
import type { Sketch } from "@/core/sketch/sketch";
import { lengthText } from "@/core/units/quantity";
import type { PartDocument } from "./document";
import { kindOf, type Step } from "./steps/kinds";

/** How many relations and sizes of its sketches the program proposed. */
export const proposedIn = ({ steps }: PartDocument): number =>
  steps.reduce((n, s) => {
    if (s.kind !== "sketch") return n;
    return n + [...s.sketch.constraints, ...s.sketch.dimensions].filter((r) => r.proposed).length;
  }, 0);

/** So many of a kind, and a pattern is what a person would take. */
const MANY = 3;

/** Steps that do the same as others, and equal circles of one sketch, where no pattern made them. */
export function copiesIn({ steps, units }: PartDocument): string[] {
  const alike = new Map<string, number[]>();
  steps.forEach((s, i) => {
    if (s.kind !== "hole" && s.kind !== "extrude" && s.kind !== "revolve") return;
    const key = signature(s, steps);
    alike.set(key, [...(alike.get(key) ?? []), i]);
  });
  const made = [...alike.values()]
    .filter((list) => list.length >= MANY)
    .map((list) => {
      const { title } = kindOf(steps[list[0]!]!).read(steps[list[0]!]!, units);
      return `${title}, ${list.length} times (steps ${list.map((i) => i + 1).join(", ")})`;
    });
  const drawn = steps.flatMap((s, i) =>
    s.kind === "sketch"
      ? equalCircles(s.sketch).map(
          ({ radius, count }) => `${count} circles ⌀${lengthText(2 * radius, units, false)} in step ${i + 1}`,
        )
      : [],
  );
  return [...made, ...drawn];
}

/** The numbers of a step without its places, and of its sketch the sizes of what is drawn. */
function signature(step: Step, steps: readonly Step[]): string {
  const numbers = fieldsOf(kindOf(step).schema, step)
    .filter((f) => f.meaning === "length" || f.meaning === "angle" || f.meaning === "count")
    .map((f) => `${f.path.filter((p) => typeof p === "string").join(".")}=${String(f.value)}`);
  const id = "sketch" in step ? step.sketch : undefined;
  const of = steps.find((s) => s.id === id);
  const drawn = of?.kind === "sketch" ? outlineOf(of.sketch) : "";
  return [step.kind, "operation" in step ? step.operation : "", ...numbers, drawn].join("|");
}

const ROUNDED = 4;
function outlineOf(s: Sketch): string {
  const list = s.curves
    .filter((c) => !c.construction)
    .map((c) => {
      if (c.kind === "line") return `l${Math.hypot(c.end[0] - c.start[0], c.end[1] - c.start[1]).toFixed(ROUNDED)}`;
      return "radius" in c ? `${c.kind}${Number(c.radius).toFixed(ROUNDED)}` : c.kind;
    });
  return list.sort().join(",");
}

function equalCircles(s: Sketch): { radius: number; count: number }[] {
  const patterned = new Set(
    (s.groups ?? []).filter((g) => g.kind !== "polygon").flatMap((g) => [...g.source, ...g.made]),
  );
  const counts = new Map<string, { radius: number; count: number }>();
  for (const c of s.curves) {
    if (c.kind !== "circle" || c.construction || patterned.has(c.id) || ("projected" in c && c.projected)) continue;
    const key = c.radius.toFixed(ROUNDED);
    counts.set(key, { radius: c.radius, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  return [...counts.values()].filter((c) => c.count >= MANY);
}

import { relationText } from "@/core/sketch/sentences";
import type { PartCommand } from "./commands";
import type { PartDocument } from "./document";
import type { Size } from "./steps/fields";
import { kindOf, titleOf } from "./steps/kinds";
import { fieldsOf, pathText, withValue, type Field, type Meaning } from "@/core/naming/field";

/** One number of a step: where it stands in it, and what it is called. */
export interface PartNumber {
  readonly path: string;
  readonly label: string;
  readonly value: Size;
}
interface StepNumbers {
  readonly step: string;
  readonly title: string;
  readonly numbers: readonly PartNumber[];
}

/** A step by its place in the list, as people read it: "4 · Hole". */
export const stepCalled = (document: PartDocument, at: number): string => `${at + 1} · ${titleOf(document.steps[at]!)}`;

/** Meanings of numbers that are typed. */
const TYPED: ReadonlySet<Meaning> = new Set<Meaning>(["length", "angle", "count"]);

/** Every number of the part that can be typed, step by step. */
export function numbersOf(document: PartDocument): StepNumbers[] {
  return document.steps.flatMap((s, i): StepNumbers[] => {
    const title = stepCalled(document, i);
    if (s.kind === "sketch") {
      const numbers = s.sketch.dimensions
        .filter((d) => !d.reference)
        .map((d): PartNumber => ({
          path: d.id,
          label: `${d.name ? `${d.name}: ` : ""}${relationText(d, document.units, s.sketch)}`,
          value: d.value,
        }));
      return numbers.length ? [{ step: s.id, title, numbers }] : [];
    }
    const numbers = fieldsOf(kindOf(s).schema, s).filter((f) => TYPED.has(f.meaning));
    const called = (f: Field) => f.label ?? pathText(f.path);
    const named = numbers.map((f, k): PartNumber => {
      const alike = numbers.filter((o) => called(o) === called(f));
      const nth = alike.length > 1 ? ` ${numbers.slice(0, k + 1).filter((o) => called(o) === called(f)).length}` : "";
      return { path: pathText(f.path), label: `${called(f)}${nth}`, value: f.value as Size };
    });
    return named.length ? [{ step: s.id, title, numbers: named }] : [];
  });
}

/** The command that changes one number; undefined where there is none. */
export function withNumber(document: PartDocument, id: string, path: string, text: string): PartCommand | undefined {
  const step = document.steps.find((s) => s.id === id);
  if (!step) return undefined;
  if (step.kind === "sketch") return { do: "sketch", step: id, command: { do: "resize", id: path, value: text } };
  const field = fieldsOf(kindOf(step).schema, step).find((f) => TYPED.has(f.meaning) && pathText(f.path) === path);
  if (!field) return undefined;
  const value = field.meaning === "count" ? Math.round(Number(text)) : text;
  return { do: "change-step", step: withValue(step, field.path, value) };
}

import { relationText } from "@/core/sketch/sentences";
import type { PartCommand } from "./commands";
import type { PartDocument } from "./document";
import { kindOf, type Step } from "./steps/registry";
import type { Size } from "./steps/step";

/** One number of a step: where it stands in it, and what it is called. */
export interface PartNumber {
  readonly path: string;
  readonly label: string;
  readonly value: Size;
}
export interface StepNumbers {
  readonly step: string;
  readonly title: string;
  readonly numbers: readonly PartNumber[];
}

/** Fields of steps that hold sizes. */
const SIZES = new Set([
  "depth",
  "back",
  "offset",
  "thickness",
  "diameter",
  "radius",
  "distance",
  "first",
  "second",
  "angle",
  "draft",
  "tip",
  "count",
]);

function sizesIn(v: unknown, path: string, out: PartNumber[]): void {
  if (Array.isArray(v)) return v.forEach((x, i) => sizesIn(x, `${path}.${i}`, out));
  if (typeof v !== "object" || v === null) return;
  for (const [k, x] of Object.entries(v)) {
    const at = path ? `${path}.${k}` : k;
    if (SIZES.has(k) && (typeof x === "number" || typeof x === "string"))
      out.push({
        path: at,
        label: at.replace(/\.\d+/g, (d) => ` ${Number(d.slice(1)) + 1}`).replaceAll(".", " "),
        value: x,
      });
    else if (k !== "at" && k !== "beside") sizesIn(x, at, out);
  }
}

/** Every number of the part that can be typed, step by step. */
export function numbersOf(document: PartDocument): StepNumbers[] {
  return document.steps.flatMap((s, i): StepNumbers[] => {
    const title = `${i + 1} · ${s.name ?? kindOf(s).read(s, document.units).title}`;
    if (s.kind === "sketch") {
      const numbers = s.sketch.dimensions
        .filter((d) => !d.reference)
        .map((d): PartNumber => ({
          path: d.id,
          label: `${d.name ?? d.id}: ${relationText(d, document.units, s.sketch)}`,
          value: d.value,
        }));
      return numbers.length ? [{ step: s.id, title, numbers }] : [];
    }
    const numbers: PartNumber[] = [];
    sizesIn(s, "", numbers);
    return numbers.length ? [{ step: s.id, title, numbers }] : [];
  });
}

/** The command that changes one number; undefined where there is none. */
export function withNumber(document: PartDocument, id: string, path: string, text: string): PartCommand | undefined {
  const step = document.steps.find((s) => s.id === id);
  if (!step) return undefined;
  if (step.kind === "sketch") return { do: "sketch", step: id, command: { do: "resize", id: path, value: text } };
  const next = structuredCopy(step),
    keys = path.split("."),
    last = keys.pop()!;
  const holder = keys.reduce<Record<string, unknown> | undefined>(
    (o, k) => o?.[k] as Record<string, unknown> | undefined,
    next as unknown as Record<string, unknown>,
  );
  if (!holder || holder[last] === undefined) return undefined;
  holder[last] = last === "count" ? Math.round(Number(text)) : text;
  return { do: "change-step", step: next };
}
const structuredCopy = (s: Step): Step => JSON.parse(JSON.stringify(s)) as Step;

import type { Vec3 } from "@/core/geometry/vector";
import { letteredLength, type Lettering } from "@/core/sizes/lettering";

/** One thing of the drawing that is not on the part as drawn, or of the part that the drawing does not have. */
export interface FeatureFinding {
  /** By what the drawing shows: "the hole ⌀9 at the left". */
  readonly name: string;
  readonly state: "missing" | "changed" | "extra";
  /** Lies by so much elsewhere, and which way; mm. */
  readonly moved?: { readonly by: number; readonly way: string } | undefined;
  /** Its radius is larger (or less) by so much, mm. */
  readonly grown?: number | undefined;
  /** Of a part that came as a mesh: its facets lie so far off, mm. */
  readonly off?: number | undefined;
  /** Where to look: middle in the reference's coordinates, mm. */
  readonly at: Vec3;
}

/** How a finding reads for the student: what their part has there, never more than the drawing prints. */
export function findingText(f: FeatureFinding, lettering: Lettering): string {
  if (f.state === "missing") return `${f.name} is missing`;
  if (f.state === "extra") return `${f.name} is there that the drawing does not have`;
  const length = (mm: number) => `${letteredLength(Math.abs(mm), lettering)} ${lettering.unit}`;
  if (f.off) return `${f.name} is up to ${length(f.off)} off`;
  const parts = [
    ...(f.grown ? [grownText(f, f.grown, length)] : []),
    ...(f.moved ? [`lies ${length(f.moved.by)} too far ${f.moved.way}`] : []),
  ];
  return `${f.name} ${parts.length ? parts.join(" and ") : "leans another way"}`;
}

/** A whole round is known by its diameter, part of one by its radius. */
function grownText(f: FeatureFinding, grown: number, length: (mm: number) => string): string {
  if (f.name.includes("⌀")) return `is ${length(2 * grown)} too ${grown > 0 ? "wide" : "narrow"}`;
  return `has a radius ${length(grown)} too ${grown > 0 ? "large" : "small"}`;
}

/** The same in a word or two, beside the place. */
export function findingWord(f: FeatureFinding, lettering: Lettering): string {
  if (f.state !== "changed") return `${f.state}: ${f.name.replace(/^(the|a) /, "")}`;
  const length = (mm: number) => letteredLength(Math.abs(mm), lettering);
  const name = f.name.replace(/^the /, "");
  if (f.grown) {
    const sign = f.grown > 0 ? "+" : "−";
    return name.includes("⌀") ? `${name}: ⌀ ${sign}${length(2 * f.grown)}` : `${name}: R ${sign}${length(f.grown)}`;
  }
  if (f.off) return `${name}: ${length(f.off)} off`;
  return f.moved ? `${name}: ${length(f.moved.by)} ${f.moved.way}` : name;
}

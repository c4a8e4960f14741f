import type { Vec3 } from "@/core/geometry/vector";
import { letteredLength, type Lettering } from "@/core/sizes/lettering";
import { plural } from "@/core/sizes/names";
import { SHIFTED } from "../tolerance";

/** One thing of the drawing that is not on the part as drawn, or of the part that the drawing does not have. */
export interface FeatureFinding {
  /** By what the drawing shows: "the hole ⌀9 at the left". */
  readonly name: string;
  /** What it and those like it are called, and how many there are; left out of what is known by its side alone. */
  readonly like?: { readonly called: string; readonly of: number } | undefined;
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
export const findingText = (f: FeatureFinding, lettering: Lettering): string =>
  `${f.name} ${whatOf(f, [f], lettering, false)}`;

/** How findings read one after the other: those that say the same of like things at once. */
export function findingTexts(list: readonly FeatureFinding[], lettering: Lettering): string[] {
  const groups = new Map<string, FeatureFinding[]>();
  for (const [i, f] of list.entries()) {
    const key = f.like
      ? JSON.stringify([f.like.called, f.state, near(f.grown), near(f.moved?.by), near(f.off)])
      : `${i}`;
    groups.set(key, [...(groups.get(key) ?? []), f]);
  }
  return [...groups.values()].map((group) => {
    const [first] = group as [FeatureFinding];
    const many = group.length > 1;
    return `${many ? namesOf(group) : first.name} ${whatOf(first, group, lettering, many)}`;
  });
}

const near = (mm: number | undefined): number | undefined => mm && Math.round(mm / SHIFTED);

/** "the 6 holes ⌀5.5", "4 of the 6 holes ⌀5.5", "the hole ⌀9 at the left and the hole ⌀9 at the right". */
function namesOf(group: readonly FeatureFinding[]): string {
  const { called, of } = group[0]!.like!;
  if (group[0]!.state === "extra") return `${group.length} ${plural(called)}`;
  if (group.length === of) return `the ${of} ${plural(called)}`;
  return group.length > 2 ? `${group.length} of the ${of} ${plural(called)}` : group.map((f) => f.name).join(" and ");
}

function whatOf(
  finding: FeatureFinding,
  group: readonly FeatureFinding[],
  lettering: Lettering,
  many: boolean,
): string {
  const be = many ? "are" : "is";
  if (finding.state === "missing") return `${be} missing`;
  if (finding.state === "extra") return `${be} there that the drawing does not have`;
  const length = (mm: number) => `${letteredLength(Math.abs(mm), lettering)} ${lettering.unit}`;
  if (finding.off) return `${be} up to ${length(finding.off)} off`;
  const oneWay = group.every((o) => o.moved?.way === finding.moved?.way);
  const lie = many ? "lie" : "lies";
  const parts = [
    ...(finding.grown ? [grownText(finding, finding.grown, length, many)] : []),
    ...(finding.moved
      ? [`${lie} ${length(finding.moved.by)} ${oneWay ? `too far ${finding.moved.way}` : "off their places"}`]
      : []),
  ];
  return parts.length ? parts.join(" and ") : `${many ? "lean" : "leans"} another way`;
}

/** A whole round is known by its diameter, part of one by its radius. */
function grownText(f: FeatureFinding, grown: number, length: (mm: number) => string, many: boolean): string {
  if (f.name.includes("⌀")) return `${many ? "are" : "is"} ${length(2 * grown)} too ${grown > 0 ? "wide" : "narrow"}`;
  return `${many ? "have" : "has"} a radius ${length(grown)} too ${grown > 0 ? "large" : "small"}`;
}

/** The same in a word or two, beside the place. */
export function findingWord(finding: FeatureFinding, lettering: Lettering): string {
  if (finding.state !== "changed") return `${finding.state}: ${finding.name.replace(/^(the|an?) /, "")}`;
  const length = (mm: number) => letteredLength(Math.abs(mm), lettering);
  const name = finding.name.replace(/^the /, "");
  if (finding.grown) {
    const sign = finding.grown > 0 ? "+" : "−";
    return name.includes("⌀")
      ? `${name}: ⌀ ${sign}${length(2 * finding.grown)}`
      : `${name}: R ${sign}${length(finding.grown)}`;
  }
  if (finding.off) return `${name}: ${length(finding.off)} off`;
  return finding.moved ? `${name}: ${length(finding.moved.by)} ${finding.moved.way}` : name;
}

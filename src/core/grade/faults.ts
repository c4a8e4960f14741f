import type { Report } from "@/core/check/check";
import type { Evidence } from "@/core/check/kinds/kinds";

/** A fault that several submissions share, in words for the next lesson. */
interface CommonFault {
  readonly text: string;
  /** Places in the list of reports. */
  readonly who: readonly number[];
}

/** What of a report is to be told once: a key that like faults share, and how it is said. */
function* faultsIn(report: Report): Generator<readonly [key: string, text: string, weight: number]> {
  const shape = found(report, "shape");
  // a part that is wrong as a whole has no other faults
  if (shape?.finding === "scaled") return yield ["scaled", WHOLE.scaled, 0];
  if (shape?.finding === "mirrored") yield ["mirrored", WHOLE.mirrored, 0];
  const sizes = found(report, "sizes");
  const named = new Set<string>();
  for (const s of sizes?.sizes ?? []) {
    if (s.state !== "missed" && s.state !== "lost") continue;
    named.add(s.name);
    const measured = s.state === "lost" ? "was not found" : "is not as printed";
    yield [`size ${s.id}`, `${s.name}, printed ${s.text}, ${measured}`, 1];
  }
  for (const f of shape?.features ?? []) {
    // a hole whose diameter is told above is not told again
    if (f.state === "changed" && [...named].some((n) => n.includes(f.name.replace(/^the /, "")))) continue;
    yield [`${f.state} ${f.name}`, `${f.name} ${FEATURES[f.state]}`, 2];
  }
  const solid = found(report, "solid");
  if (solid && solid.bodies > 1) yield ["bodies", "the part is left in several pieces", 1];
  if (solid && solid.bodies === 0) yield ["no solid", "there is no solid", 0];
  const sketches = found(report, "sketches");
  if (sketches?.verdict === "missed" && sketches.used) yield ["loose", "sketches are not fully defined", 3];
  const mass = found(report, "mass");
  if (mass?.material?.sameDensity === false) yield ["material", "the part is of another material", 2];
  const ways = found(report, "answers");
  for (const a of ways?.answers ?? [])
    if (!a.isRight) yield [`answer ${a.id}`, `the figure “${a.title}” is not right`, 2];
}

const WHOLE = {
  scaled: "the part has the right form in the wrong unit",
  mirrored: "the part is the mirror image of what is drawn",
} as const;
const FEATURES = {
  missing: "is missing",
  changed: "is not where or as the Sheet draws it",
  extra: "is there that the Sheet does not have",
} as const;

const found = <K extends Evidence["check"]>(r: Report, check: K) =>
  r.evidence.find((e): e is Extract<Evidence, { check: K }> => e.check === check);

/**
 * The commonest faults of a class, those that most share first; of like ones what is more basic. Each is counted once
 * a report.
 */
export function commonFaults(reports: readonly Report[], most = 3): CommonFault[] {
  const all = new Map<string, { text: string; weight: number; who: Set<number> }>();
  reports.forEach((r, i) => {
    for (const [key, text, weight] of faultsIn(r)) {
      const known = all.get(key) ?? { text, weight, who: new Set<number>() };
      known.who.add(i);
      all.set(key, known);
    }
  });
  return [...all.values()]
    .sort((a, b) => b.who.size - a.who.size || a.weight - b.weight || a.text.localeCompare(b.text))
    .slice(0, most)
    .map(({ text, who }) => ({ text, who: [...who] }));
}

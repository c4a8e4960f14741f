import type { Evidence } from "@/core/check/check";
import type { Exercise } from "@/core/check/exercise";
import type { Lump } from "@/core/check/difference";
import { massText, percentText, volumeText } from "@/core/units/amounts";
import { lengthText, plainNumber, type LengthUnit } from "@/core/units/quantity";

const amount = (e: Evidence & { check: "volume" | "mass" }, exercise: Exercise) => (v: number) =>
  e.check === "mass" ? massText(v) : volumeText(v, exercise.units);

/** What was measured against what, for the instructor. */
export function instructorSentence(e: Evidence, exercise: Exercise): string {
  switch (e.check) {
    case "sketches":
    case "solid":
      return studentSentence(e, exercise);
    case "volume":
    case "mass": {
      const text = amount(e, exercise);
      const off = (e.measured - e.wanted) / e.wanted;
      return `${text(e.measured)}, wanted ${text(e.wanted)} ± ${percentText(e.tolerance)}${e.off > 5e-7 ? ` (off by ${off > 0 ? "+" : "−"}${percentText(e.off)})` : ""}.`;
    }
    case "shape": {
      if (e.finding === "differs")
        return `${differences(e.missing, e.extra, exercise.units)}; ${e.facesMatched} of ${e.facesOfReference} faces coincide.${e.doubt ? ` Could not be checked: ${e.doubt}` : ""}`;
      if (e.finding === "mirrored")
        return `The part is the mirror image of the reference. Where it lies best: ${differences(e.missing, e.extra, exercise.units, false)}.`;
      return studentSentence(e, exercise);
    }
  }
}

/** The same for the student: their own measure and the verdict, the target only where the Sheet prints it. */
export function studentSentence(e: Evidence, exercise: Exercise): string {
  switch (e.check) {
    case "sketches": {
      if (!e.used) return "No sketch is used by a step.";
      const loose = e.sketches
        .filter((s) => s.freedoms > 0)
        .map(
          (s) =>
            `${s.title} can still move in ${s.freedoms} way${s.freedoms > 1 ? "s" : ""} (${s.loose.slice(0, 6).join(", ")}${s.loose.length > 6 ? " …" : ""})`,
        );
      const trouble = e.sketches.filter((s) => s.trouble).map((s) => `${s.title} cannot be solved`);
      const rest = [...loose, ...trouble];
      return `${e.defined} of ${e.used} used sketch${e.used > 1 ? "es" : ""} fully defined${rest.length ? `: ${rest.join("; ")}` : ", nothing loose"}.`;
    }
    case "solid": {
      if (e.verdict === "met") return "One closed solid; every step builds.";
      const what =
        e.bodies === 0
          ? "There is no solid"
          : e.bodies > 1
            ? `${e.bodies} separate bodies instead of one`
            : e.troubled.length
              ? "One solid"
              : "The solid is not closed or not valid";
      return `${what}${e.troubled.length ? `; ${e.troubled.map((t) => `${t.step}: ${t.sentence}`).join(" ")}` : "."}`;
    }
    case "volume":
    case "mass": {
      const text = amount(e, exercise);
      const printed = e.check === "mass" ? exercise.sheet.printMass : exercise.sheet.printVolume;
      const verdict = e.verdict === "met" ? "within tolerance" : "outside the tolerance";
      return printed
        ? `${text(e.measured)}, the Sheet gives ${text(e.wanted)} ± ${percentText(e.tolerance)}: ${verdict}.`
        : `${text(e.measured)}: ${verdict}.`;
    }
    case "shape":
      switch (e.finding) {
        case "same":
          return `Every face is where the drawing puts it (${e.facesMatched} of ${e.facesOfReference}).`;
        case "differs":
          return e.verdict === "unknown"
            ? "The shape could not be checked by the program; your instructor will look."
            : e.verdict === "met"
              ? "The shape differs from the drawing by less than the tolerance."
              : `The shape differs from the drawing${e.missing.length && e.extra.length ? ": material is missing and there is too much elsewhere" : e.missing.length ? ": material is missing" : ": there is too much material"}.`;
        case "mirrored":
          return "The part is the mirror image of what the drawing shows.";
        case "scaled":
          return `The part has the right form but is ${e.scale > 1 ? `${plainNumber(e.scale, 4)} times too large` : `${plainNumber(1 / e.scale, 4)} times too small`}${inches(e.scale)}.`;
        case "unplaced":
          return "Nothing of the part lies like what the drawing shows.";
        case "absent":
          return "There is no solid to compare.";
      }
  }
}

const inches = (scale: number) =>
  Math.abs(scale / 25.4 - 1) < 1e-4 || Math.abs(scale * 25.4 - 1) < 1e-4
    ? ": inches and millimetres were confused"
    : "";

function differences(missing: readonly Lump[], extra: readonly Lump[], unit: LengthUnit, begins = true): string {
  const tell = (word: string, list: readonly Lump[]) => {
    if (!list.length) return `nothing ${word}`;
    const total = list.reduce((s, l) => s + l.volume, 0);
    const at = list[0]!.centre.map((v) => lengthText(v, unit, false)).join(", ");
    return `${word} ${volumeText(total, unit)}${list.length > 1 ? ` in ${list.length} places, most` : ""} at (${at}) ${unit}`;
  };
  const text = `${tell("missing", missing)}, ${tell("extra", extra)}`;
  return begins ? text[0]!.toUpperCase() + text.slice(1) : text;
}

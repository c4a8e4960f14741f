import type { Report } from "@/core/check/check";
import type { Evidence } from "@/core/check/kinds/kinds";
import type { Exercise } from "@/core/check/exercise/exercise";
import { densityOf } from "@/core/part/document";
import { areaText, massText, momentText, volumeText } from "@/core/units/amounts";
import { lengthText, plainNumber } from "@/core/units/quantity";
import { SizesTable } from "../sizes-table";

interface Row {
  readonly what: string;
  readonly wanted: string;
  readonly own: string;
  readonly off: number | undefined;
  readonly isRight: boolean;
}

/** The part's numbers and the reference's side by side. */
export function NumbersView({ report, exercise }: { report: Report | null; exercise: Exercise }) {
  if (!report) return <p className="quiet p-8">It has not been checked yet.</p>;
  const rows = report.evidence.flatMap((e) => rowsOf(e, exercise));
  const sizes = report.evidence.find((e) => e.check === "sizes");
  return (
    <div className="h-full overflow-y-auto p-5">
      <table className="table table-sm max-w-2xl" aria-label="Numbers side by side">
        <thead>
          <tr>
            <th />
            <th className="text-right">Reference</th>
            <th className="text-right">Submission</th>
            <th className="text-right">Off</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className={row.isRight ? "" : "text-accent"}>
              <td className="first-letter:uppercase">{row.what}</td>
              <td className="figures text-right">{row.wanted}</td>
              <td className="figures text-right">{row.own}</td>
              <td className="figures text-right">
                {row.off === undefined ? "" : `${plainNumber(row.off * 100, 2)} %`} {row.isRight ? "✓" : "✗"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sizes?.check === "sizes" && sizes.sizes.length > 0 && (
        <section className="mt-6 max-w-2xl">
          <h3 className="font-semibold">Printed sizes</h3>
          <SizesTable sizes={sizes.sizes} unit={exercise.units} />
        </section>
      )}
    </div>
  );
}

function rowsOf(evidence: Evidence, { units, massUnit, material }: Exercise): Row[] {
  const isRight = evidence.verdict === "met";
  switch (evidence.check) {
    case "volume":
      return [
        {
          what: "volume",
          wanted: volumeText(evidence.wanted, units),
          own: volumeText(evidence.measured, units),
          off: evidence.off,
          isRight,
        },
      ];
    case "mass":
      return [
        {
          what: "mass",
          wanted: massText(evidence.wanted, massUnit),
          own: massText(evidence.measured, massUnit),
          off: evidence.off,
          isRight,
        },
      ];
    case "solid":
      return [{ what: "solids", wanted: "1", own: String(evidence.bodies), off: undefined, isRight }];
    case "sketches":
      return [
        {
          what: "sketches fully defined",
          wanted: String(evidence.used),
          own: String(evidence.defined),
          off: undefined,
          isRight,
        },
      ];
    case "material":
      return [
        { what: "material", wanted: evidence.asked.name, own: evidence.given?.name ?? "–", off: undefined, isRight },
      ];
    case "figures":
      return evidence.figures.map((figure) => {
        const text = (v: number) => {
          if (figure.what === "surface area") return areaText(v, units);
          if (figure.what === "principal moment") return momentText(v, densityOf(material));
          return lengthText(v, units);
        };
        const isCentre = figure.what === "centre of mass";
        return {
          what: isCentre ? "centre of mass lies off by" : figure.what,
          wanted: isCentre ? lengthText(0, units) : text(figure.wanted),
          own: text(figure.measured),
          off: isCentre ? undefined : figure.off,
          isRight: figure.off <= figure.tolerance,
        };
      });
    case "answers":
      return evidence.answers.map((a) => ({
        what: a.title,
        wanted: plainNumber(a.wanted, 3),
        own: a.typed || "–",
        off: undefined,
        isRight: a.isRight,
      }));
    default:
      return [];
  }
}

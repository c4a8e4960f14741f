import type { Report } from "@/core/check/check";
import type { Evidence } from "@/core/check/kinds/kinds";
import type { Exercise } from "@/core/check/exercise/exercise";
import { areaText, massText, volumeText } from "@/core/units/amounts";
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
          {rows.map((r, i) => (
            <tr key={i} className={r.isRight ? "" : "text-accent"}>
              <td className="first-letter:uppercase">{r.what}</td>
              <td className="figures text-right">{r.wanted}</td>
              <td className="figures text-right">{r.own}</td>
              <td className="figures text-right">
                {r.off === undefined ? "" : `${plainNumber(r.off * 100, 2)} %`} {r.isRight ? "✓" : "✗"}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sizes?.check === "sizes" && sizes.sizes.length > 0 && (
        <section className="mt-6 max-w-2xl">
          <h3 className="text-sm font-semibold">Printed sizes</h3>
          <SizesTable sizes={sizes.sizes} unit={exercise.units} />
        </section>
      )}
    </div>
  );
}

function rowsOf(e: Evidence, { units, massUnit }: Exercise): Row[] {
  const isRight = e.verdict === "met";
  switch (e.check) {
    case "volume":
      return [
        {
          what: "volume",
          wanted: volumeText(e.wanted, units),
          own: volumeText(e.measured, units),
          off: e.off,
          isRight,
        },
      ];
    case "mass":
      return [
        {
          what: "mass",
          wanted: massText(e.wanted, massUnit),
          own: massText(e.measured, massUnit),
          off: e.off,
          isRight,
        },
      ];
    case "solid":
      return [{ what: "solids", wanted: "1", own: String(e.bodies), off: undefined, isRight }];
    case "sketches":
      return [
        { what: "sketches fully defined", wanted: String(e.used), own: String(e.defined), off: undefined, isRight },
      ];
    case "material":
      return [{ what: "material", wanted: e.asked.name, own: e.given?.name ?? "–", off: undefined, isRight }];
    case "figures":
      return e.figures.map((f) => {
        const text = (v: number) => {
          if (f.what === "surface area") return areaText(v, units);
          if (f.what === "principal moment") return v.toPrecision(6);
          return lengthText(v, units);
        };
        const isCentre = f.what === "centre of mass";
        return {
          what: isCentre ? "centre of mass lies off by" : f.what,
          wanted: isCentre ? lengthText(0, units) : text(f.wanted),
          own: text(f.measured),
          off: isCentre ? undefined : f.off,
          isRight: f.off <= f.tolerance,
        };
      });
    case "answers":
      return e.answers.map((a) => ({
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

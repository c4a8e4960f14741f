import type { Tried } from "@/server/exercises/rubrics";

/** What the rubric gives for the reference and for every typical mistake, line by line. */
export function RubricTrial({ tried: { preview, trouble } }: { tried: Tried }) {
  const lines = preview?.reference.lines ?? [];
  const isWhole = lines.every((l) => l.points === l.of || l.check === "hand");
  if (trouble) return <p className="text-error">{trouble}</p>;
  if (!preview) return null;
  return (
    <>
      {!isWhole && (
        <p role="alert" className="mb-2 text-error">
          The reference itself does not get all points: look at the lines in rust.
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="table table-xs" aria-label="What mistakes cost">
          <thead>
            <tr>
              <th />
              {lines.map((l) => (
                <th key={l.id} className="max-w-24 whitespace-normal text-right align-bottom">
                  {l.title}
                </th>
              ))}
              <th className="text-right align-bottom">All</th>
            </tr>
          </thead>
          <tbody>
            {[{ label: "The reference itself", grade: preview.reference }, ...preview.mistakes].map((m) => (
              <tr key={m.label}>
                <td className="max-w-md whitespace-normal">{m.label}</td>
                {m.grade.lines.map((l) => (
                  <td key={l.id} className={`figures text-right ${l.points < l.of ? "text-accent" : "quiet"}`}>
                    {l.check === "hand" ? "by hand" : l.points}
                  </td>
                ))}
                <td className="figures whitespace-nowrap text-right font-semibold">
                  {m.grade.points} / {m.grade.of}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

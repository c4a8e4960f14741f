import { newLine, type Exercise } from "@/core/check/exercise";
import { CHECK_NAMES, checkKind } from "@/core/check/kinds/kinds";
import { percent } from "./field";

/** Kinds of check that have no line yet: one with points is taken in. */
const unused = (rubric: Exercise["rubric"]): Exercise["rubric"] =>
  CHECK_NAMES.filter((name) => !rubric.some((l) => l.check === name)).map((name) => newLine(name, 0));

/** The lines of a rubric: what they are called, their points, and how those are given. */
export function RubricTable({ rubric }: { rubric: Exercise["rubric"] }) {
  return (
    <table className="table table-sm mt-3">
      <thead>
        <tr>
          <th>Line</th>
          <th className="w-24 text-right">Points</th>
          <th className="w-44">Given</th>
          <th className="w-56">none left at</th>
        </tr>
      </thead>
      <tbody>
        {[...rubric, ...unused(rubric)].map((l) => (
          <tr key={l.id}>
            <td>
              <input
                name={`title-${l.id}`}
                aria-label={`Title of ${l.title}`}
                className="input input-sm w-full"
                defaultValue={l.title}
              />
            </td>
            <td>
              <input
                name={`points-${l.id}`}
                aria-label={`Points for ${l.title}`}
                inputMode="decimal"
                className="input input-sm figures w-full text-right"
                defaultValue={l.points}
              />
            </td>
            <td>
              <select
                name={`mode-${l.id}`}
                aria-label={`How ${l.title} is given`}
                className="select select-sm"
                defaultValue={l.scoring.mode}
              >
                <option value="all">all or nothing</option>
                <option value="falling">falling</option>
              </select>
            </td>
            <td className="whitespace-nowrap">
              <input
                name={`limit-${l.id}`}
                aria-label={`Limit for ${l.title}`}
                inputMode="decimal"
                className="input input-sm figures mr-2 w-20 text-right"
                defaultValue={
                  l.scoring.mode === "falling"
                    ? checkKind(l.check).limit?.isShare
                      ? percent(l.scoring.limit)
                      : l.scoring.limit
                    : ""
                }
              />
              <span className="quiet text-xs">{checkKind(l.check).limit?.unit}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { angleText, lengthText } from "@/core/units/quantity";
import { Field, percent } from "./field";

/** What general tolerance of sizes was chosen. */
function ruleOf({ tolerances: { sizes } }: Exercise): string {
  if (!sizes) return "printed";
  return sizes.by === "iso" ? sizes.class : "own";
}

/** What one begins with, mm and radians. */
const OWN_LENGTH = { mm: 0.1, in: 0.005 * 25.4 };
const OWN_ANGLE = Math.PI / 360;

/** How far amounts, sizes and faces may be off. */
export function ToleranceFields({ exercise: e }: { exercise: Exercise }) {
  const [rule, setRule] = useState(() => ruleOf(e));
  const own = e.tolerances.sizes?.by === "plain" ? e.tolerances.sizes : undefined;
  return (
    <>
      <div className="mt-2 grid max-w-xl grid-cols-3 gap-3">
        {(["volume", "mass", "shape"] as const).map((k) => (
          <Field key={k} label={k === "shape" ? "Shape, % of volume" : `${k === "mass" ? "Mass" : "Volume"}, ± %`}>
            <input
              name={`tolerance-${k}`}
              inputMode="decimal"
              className="input figures w-full text-right"
              defaultValue={percent(e.tolerances[k])}
            />
          </Field>
        ))}
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-6">
        <div className="w-72">
          <Field label="Printed sizes and places of faces">
            <select
              name="tolerance-sizes"
              className="select w-full"
              value={rule}
              onChange={(ev) => setRule(ev.target.value)}
            >
              <option value="printed">as printed (± 0.02 mm, ± 0.1°)</option>
              {(["f", "m", "c", "v"] as const).map((k) => (
                <option key={k} value={k}>
                  ISO 2768-{k}
                </option>
              ))}
              <option value="own">one figure for all</option>
            </select>
          </Field>
        </div>
        {rule === "own" && (
          <>
            <div className="w-28">
              <Field label={`Lengths, ± ${e.units}`}>
                <input
                  name="tolerance-length"
                  required
                  className="input figures w-full text-right"
                  defaultValue={lengthText(own?.length ?? OWN_LENGTH[e.units], e.units, false)}
                />
              </Field>
            </div>
            <div className="w-28">
              <Field label="Angles, ± °">
                <input
                  name="tolerance-angle"
                  required
                  className="input figures w-full text-right"
                  defaultValue={angleText(own?.angle ?? OWN_ANGLE)}
                />
              </Field>
            </div>
          </>
        )}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            name="shape-by-faces"
            className="checkbox checkbox-sm"
            defaultChecked={e.shapeBy !== "volume"}
          />
          Shape wants every face there
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            name="material-by-name"
            className="checkbox checkbox-sm"
            defaultChecked={e.materialByName === true}
          />
          Material by its name too
        </label>
      </div>
    </>
  );
}

import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { MATERIALS } from "@/core/part/materials";
import { Field } from "./field";
import { LEVELS } from "./library";

/** What a library finds it by, its place in a series, and what students start from. */
export function LibraryFields({ exercise: e }: { exercise: Exercise }) {
  const [from, setFrom] = useState<string>(e.start?.from ?? "nothing");
  return (
    <fieldset>
      <legend className="font-semibold">Library and series</legend>
      <div className="mt-2 grid grid-cols-6 gap-3">
        <div className="col-span-3">
          <Field label="Tags, with commas between">
            <input
              name="tags"
              className="input w-full"
              defaultValue={(e.about?.tags ?? []).join(", ")}
              maxLength={400}
            />
          </Field>
        </div>
        <Field label="Level">
          <select name="level" className="select w-full" defaultValue={e.about?.level ?? ""}>
            <option value="">not said</option>
            {LEVELS.slice(1).map((l, i) => (
              <option key={l} value={i + 1}>
                {l}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Minutes needed">
          <input
            name="minutes"
            type="number"
            className="input figures w-full text-right"
            min={1}
            max={10000}
            step={1}
            defaultValue={e.about?.minutes ?? ""}
          />
        </Field>
        <span />
        <div className="col-span-2">
          <Field label="Series, if it belongs to one">
            <input name="series" className="input w-full" defaultValue={e.series?.name ?? ""} maxLength={60} />
          </Field>
        </div>
        <Field label="Its place there">
          <input
            name="series-place"
            type="number"
            className="input figures w-full text-right"
            min={1}
            max={99}
            step={1}
            defaultValue={e.series?.place ?? 1}
          />
        </Field>
        <div className="col-span-2">
          <Field label="Students start from">
            <select name="start" className="select w-full" value={from} onChange={(ev) => setFrom(ev.target.value)}>
              <option value="nothing">nothing</option>
              <option value="own">their own part of an earlier exercise</option>
              <option value="starter">a part that all are given</option>
            </select>
          </Field>
        </div>
        {from === "own" && (
          <Field label="Number of that exercise">
            <input
              name="start-number"
              className="input w-full"
              defaultValue={e.start?.from === "own" ? e.start.number : ""}
              maxLength={20}
              required
            />
          </Field>
        )}
        {from === "starter" && (
          <div className="col-span-3">
            <Field label={e.start?.from === "starter" ? "Another starter part (document)" : "Starter part (document)"}>
              <input
                name="starter"
                type="file"
                accept="application/json,.json"
                className="file-input file-input-sm w-full"
                required={e.start?.from !== "starter"}
              />
            </Field>
          </div>
        )}
      </div>
    </fieldset>
  );
}

/** The material, from the table or one's own: choosing one of the table fills its density in. */
export function MaterialFields({ material }: { material: Exercise["material"] }) {
  const [name, setName] = useState(material.name);
  const [density, setDensity] = useState(String(material.density));
  return (
    <>
      <div className="col-span-3">
        <Field label="Material, from the table or your own">
          <input
            name="material"
            list="materials"
            className="input w-full"
            value={name}
            required
            maxLength={80}
            onChange={(ev) => {
              setName(ev.target.value);
              const known = MATERIALS.find((m) => m.name === ev.target.value);
              if (known) setDensity(String(known.density));
            }}
          />
        </Field>
        <datalist id="materials">
          {MATERIALS.map((m) => (
            <option key={m.name} value={m.name}>{`${m.density} g/cm³`}</option>
          ))}
        </datalist>
      </div>
      <Field label="Density, g/cm³">
        <input
          name="density"
          inputMode="decimal"
          className="input figures w-full text-right"
          value={density}
          onChange={(ev) => setDensity(ev.target.value)}
          required
        />
      </Field>
    </>
  );
}

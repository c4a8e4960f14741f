"use client";

import Link from "next/link";
import { useActionState, useState, type ReactNode } from "react";
import type { FormState } from "@/app/actions";
import type { Exercise } from "@/core/check/exercise";
import { massText, volumeText } from "@/core/units/amounts";
import type { Prepared } from "@/server/exercises";
import { Follow } from "../parts/follow";
import { PageFrame } from "../parts/page-frame";
import { SheetFigure } from "../sheet/sheet-figure";

type Act = (state: FormState, form: FormData) => Promise<FormState>;

function Field({ label, children, hint }: { label: string; children: ReactNode; hint?: string }) {
  return (
    <label className="block">
      <span className="quiet text-xs">{label}</span>
      {children}
      {hint && <span className="quiet text-xs">{hint}</span>}
    </label>
  );
}

const WHAT = {
  sketches: "freedoms left",
  solid: "",
  volume: "% off",
  mass: "% off",
  shape: "% of the volume missing or extra",
};
const percent = (share: number) => String(Number((share * 100).toFixed(6)));

/** All of an exercise but its reference part, which is built in the Bench or brought as a document. */
export function ExerciseForm({
  person,
  id,
  exercise: e,
  prepared,
  isCurrent,
  save,
  issue,
}: {
  person: { name: string };
  id: string;
  exercise: Exercise;
  prepared: Prepared | null;
  isCurrent: boolean;
  save: Act;
  issue: Act;
}) {
  const [saved, doSave, saving] = useActionState(save, {});
  const [issued, doIssue, issuing] = useActionState(issue, {});
  const [due, setDue] = useState("");
  const measured = prepared && "sheet" in prepared ? prepared : null;
  return (
    <PageFrame person={person}>
      <Follow url={`/api/exercises/${id}/state`} busy={!isCurrent} />
      <div className="flex items-start gap-8">
        <div className="min-w-0 flex-1">
          <div className="flex items-baseline gap-4">
            <h1 className="text-xl font-semibold">
              {e.number} {e.title}
            </h1>
            <Link className="btn btn-sm btn-primary" href={`/exercises/${id}/bench`}>
              {e.reference.steps.length ? "Open the reference in the Bench" : "Build the reference in the Bench"}
            </Link>
          </div>
          {/* a field set anew after each save: what is typed stays until then */}
          <form action={doSave} className="mt-5 space-y-6">
            <input type="hidden" name="id" value={id} />
            <fieldset className="grid grid-cols-6 gap-3">
              <Field label="Number">
                <input name="number" className="input w-full" defaultValue={e.number} maxLength={20} />
              </Field>
              <div className="col-span-3">
                <Field label="Title">
                  <input name="title" className="input w-full" defaultValue={e.title} required maxLength={120} />
                </Field>
              </div>
              <Field label="Units">
                <select name="units" className="select w-full" defaultValue={e.units}>
                  <option value="mm">mm</option>
                  <option value="in">inches</option>
                </select>
              </Field>
              <Field label="Projection">
                <select name="projection" className="select w-full" defaultValue={e.sheet.projection}>
                  <option value="first-angle">first angle</option>
                  <option value="third-angle">third angle</option>
                </select>
              </Field>
              <div className="col-span-6">
                <Field label="Brief">
                  <textarea name="brief" className="textarea w-full" rows={2} defaultValue={e.brief} maxLength={4000} />
                </Field>
              </div>
              <div className="col-span-3">
                <Field label="Material">
                  <input name="material" className="input w-full" defaultValue={e.material.name} required />
                </Field>
              </div>
              <Field label="Density, g/cm³">
                <input
                  name="density"
                  inputMode="decimal"
                  className="input figures w-full text-right"
                  defaultValue={e.material.density}
                  required
                />
              </Field>
              <div className="col-span-2">
                <Field label="Reference part (document)">
                  <input
                    name="part"
                    type="file"
                    accept="application/json,.json"
                    className="file-input file-input-sm w-full"
                  />
                </Field>
              </div>
            </fieldset>
            <fieldset>
              <legend className="font-semibold">Tolerances and rubric</legend>
              <div className="mt-2 grid max-w-xl grid-cols-3 gap-3">
                {(["volume", "mass", "shape"] as const).map((k) => (
                  <Field
                    key={k}
                    label={k === "shape" ? "Shape, % of volume" : `${k === "mass" ? "Mass" : "Volume"}, ± %`}
                  >
                    <input
                      name={`tolerance-${k}`}
                      inputMode="decimal"
                      className="input figures w-full text-right"
                      defaultValue={percent(e.tolerances[k])}
                    />
                  </Field>
                ))}
              </div>
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
                  {e.rubric.map((l) => (
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
                              ? l.check === "sketches"
                                ? l.scoring.limit
                                : percent(l.scoring.limit)
                              : ""
                          }
                        />
                        <span className="quiet text-xs">{WHAT[l.check]}</span>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </fieldset>
            <fieldset className="flex flex-wrap items-end gap-6">
              <div className="w-80">
                <Field label="Notes on the Sheet">
                  <input name="notes" className="input w-full" defaultValue={e.sheet.notes} maxLength={1000} />
                </Field>
              </div>
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  name="print-mass"
                  className="checkbox checkbox-sm"
                  defaultChecked={e.sheet.printMass}
                />
                Sheet prints the mass
              </label>
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  name="print-volume"
                  className="checkbox checkbox-sm"
                  defaultChecked={e.sheet.printVolume}
                />
                and the volume
              </label>
            </fieldset>
            <div className="flex items-center gap-4">
              <button className="btn btn-primary" disabled={saving}>
                Save
              </button>
              {saved.sentence && (
                <p role="alert" className="text-error">
                  {saved.sentence}
                </p>
              )}
              {saved.done && (
                <p role="status" className="quiet">
                  {saved.done}
                </p>
              )}
            </div>
          </form>
          <form action={doIssue} className="mt-8 flex items-end gap-4 border-t border-base-300 pt-5">
            <input type="hidden" name="id" value={id} />
            <input type="hidden" name="due" value={due && new Date(due).toISOString()} />
            <Field label="Due">
              <input
                type="datetime-local"
                className="input"
                required
                value={due}
                onChange={(ev) => setDue(ev.target.value)}
              />
            </Field>
            <label className="flex items-center gap-2 py-2 text-sm">
              <input type="checkbox" name="define" className="checkbox checkbox-sm" defaultChecked />
              Students may let the Bench define the rest of a sketch
            </label>
            <button className="btn" disabled={issuing || !measured || !isCurrent}>
              Make a handout
            </button>
            {issued.sentence && (
              <p role="alert" className="text-error">
                {issued.sentence}
              </p>
            )}
            {!measured && isCurrent && <p className="quiet">Build the reference part first.</p>}
          </form>
        </div>
        <aside className="w-80 shrink-0">
          <h2 className="font-semibold">Targets</h2>
          {!isCurrent && (
            <p className="quiet">
              <span className="loading loading-dots loading-xs mr-1" />
              The reference is being measured.
            </p>
          )}
          {prepared && "trouble" in prepared && isCurrent && (
            <p role="alert" className="text-error">
              {prepared.trouble}
            </p>
          )}
          {measured && (
            <>
              <table className="table table-sm figures mb-3">
                <tbody>
                  <tr>
                    <td>Volume</td>
                    <td className="text-right">{volumeText(measured.volume, e.units)}</td>
                  </tr>
                  <tr>
                    <td>Mass</td>
                    <td className="text-right">{massText(measured.mass)}</td>
                  </tr>
                  <tr>
                    <td>Dimensions</td>
                    <td className="text-right">{measured.sheet.dimensions.length}</td>
                  </tr>
                </tbody>
              </table>
              <SheetFigure svg={measured.sheet.svg} />
            </>
          )}
        </aside>
      </div>
    </PageFrame>
  );
}

import type { Exercise } from "@/core/check/exercise/exercise";
import { PAPER_NAMES } from "@/core/sheet/layout/paper";
import { Field } from "./field";

/** What the Sheet prints beside the part, and how. */
export function SheetFields({ exercise: { sheet, units } }: { exercise: Exercise }) {
  const papers = PAPER_NAMES.flatMap((name) => [`${name} upright`, `${name} lying`]);
  const chosen = sheet.paper ? `${sheet.paper.name} ${sheet.paper.isLying ? "lying" : "upright"}` : "";
  const tick = (name: string, label: string, isOn: boolean | undefined) => (
    <label className="flex items-center gap-2 py-1">
      <input type="checkbox" name={name} className="checkbox checkbox-sm" defaultChecked={isOn ?? false} />
      {label}
    </label>
  );
  const text = (name: string, label: string, value: string | undefined, most: number, hint?: string) => (
    <div className="w-40">
      <Field label={label}>
        <input name={name} className="input w-full" defaultValue={value ?? ""} maxLength={most} placeholder={hint} />
      </Field>
    </div>
  );
  return (
    <fieldset>
      <legend className="font-semibold">The Sheet</legend>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <div className="w-80">
          <Field label="Notes on the Sheet">
            <input name="notes" className="input w-full" defaultValue={sheet.notes} maxLength={1000} />
          </Field>
        </div>
        <Field label="Paper">
          <select name="paper" className="select w-44" defaultValue={chosen}>
            <option value="">chosen for the part</option>
            {papers.map((p) => (
              <option key={p}>{p}</option>
            ))}
          </select>
        </Field>
        {text("drawn-by", "Drawn by", sheet.drawnBy, 60)}
        {text("date", "Date", sheet.date, 20)}
        {text("revision", "Revision", sheet.revision, 20)}
        {text("count", "Sheet of sheets", sheet.count, 20, "1 of 1")}
        {text("owner", "Owner", sheet.owner, 60, "Saltmarsh Technical College")}
        {text("general", "General tolerances", sheet.general, 60, "as it is checked")}
      </div>
      <div className="mt-2 flex flex-wrap gap-x-6">
        {tick("print-mass", "Sheet prints the mass", sheet.printMass)}
        {tick("mass-tolerance", "with its tolerance", sheet.massTolerance)}
        {tick("print-volume", "and the volume", sheet.printVolume)}
        {tick("exact", "Exact values of rounded sizes", sheet.exact)}
        {units === "in" && tick("fractions", "Inches as fractions", sheet.fractions)}
        {tick("signs", "Signs for counterbore, countersink and depth", sheet.signs)}
      </div>
    </fieldset>
  );
}

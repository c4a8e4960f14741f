"use client";

import { MAX_DOCUMENT } from "@/core/part/document";
import Link from "next/link";
import { useState } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { useKeptForm } from "../parts/kept-form";
import { isForeign } from "@/core/part/foreign";
import { MASS_UNITS, massText, volumeText } from "@/core/units/amounts";
import { Field } from "./field";
import { Difference, IssueForm, type Act, type Issued } from "./issue-form";
import { OwnNumbersEditor } from "./own-numbers-editor";
import { FreeEditor } from "./free-editor";
import { FollowOnForm } from "./follow-on-form";
import { LibraryFields, MaterialFields } from "./library-fields";
import { PrintedSizes } from "./printed-sizes";
import { QuestionsEditor } from "./questions-editor";
import { SheetFields } from "./sheet-fields";
import { RubricEditor } from "./rubric-editor";
import type { RubricTemplate } from "./rubric-templates";
import { ToleranceFields } from "./tolerance-fields";
import { RubricTrial } from "./rubric-trial";
import { Follow } from "../parts/follow";
import { PageFrame } from "../parts/page-frame";
import { ProofList } from "../sheet/proof-list";
import { SheetFigure } from "../sheet/sheet-figure";
import { SheetFiles } from "../sheet/sheet-files";

type Props = {
  person: { name: string };
  exercise: Exercise;
  save: Act;
  templates: readonly RubricTemplate[];
} & (Issued | { readonly course: string; readonly id?: undefined });

/** All of an exercise but its reference part, which is built in the Bench or brought as a document. */
export function ExerciseForm(props: Props) {
  const { person, exercise: e, save } = props;
  const made = props.id === undefined ? undefined : props;
  const { said: saved, busy: saving, onSubmit } = useKeptForm(save, {});
  // the version the fields were filled from: a later one does not make them later
  const [based] = useState(made?.version);
  const isCurrent = made?.isCurrent ?? true;
  const prepared = made?.prepared ?? null;
  const measured = prepared && "sheet" in prepared ? prepared : null;
  // what was read off a file can be printed and checked, and not be changed
  const given = (measured?.table?.numbers ?? []).filter((n) => !isForeign(n, e.reference));
  return (
    <PageFrame person={person} wide>
      {made && <Follow on={`exercise:${made.id}`} busy={!isCurrent} />}
      <div className="flex flex-col gap-8 xl:flex-row xl:items-start">
        <div className="min-w-0 flex-1">
          <div className="flex items-baseline gap-4">
            <h1 className="text-xl font-semibold">
              {e.number} {e.title}
            </h1>
            {made ? (
              <Link className="btn btn-sm btn-primary" href={`/exercises/${made.id}/bench`}>
                {e.reference.steps.length ? "Open the reference in the Bench" : "Build the reference in the Bench"}
              </Link>
            ) : (
              <span className="quiet text-sm">It is made when you save it; then its reference part can be built.</span>
            )}
          </div>
          {made && (
            <p className="no-print mt-1 flex gap-4 text-sm">
              <Link className="text-accent underline" href={`/exercises/${made.id}/revisions`}>
                Revisions
              </Link>
              <a className="text-accent underline" href={`/api/exercises/${made.id}/package`} download>
                As a package
              </a>
              <Link className="text-accent underline" href="/library">
                All exercises
              </Link>
            </p>
          )}
          {made && <Difference made={made} exercise={e} />}
          <form className="mt-5 space-y-6" onSubmit={onSubmit}>
            {made ? (
              <>
                <input type="hidden" name="id" value={made.id} />
                {/* what was typed is typed over this version; where another came first, saving again goes over that */}
                <input type="hidden" name="version" value={saved.version ?? based} />
              </>
            ) : (
              props.id === undefined && <input type="hidden" name="course" value={props.course} />
            )}
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
              <div className="col-span-6">
                <Field label="Hints, one a line; students open them one by one">
                  <textarea
                    name="hints"
                    className="textarea w-full"
                    rows={2}
                    defaultValue={(e.hints ?? []).join("\n")}
                    maxLength={4000}
                  />
                </Field>
              </div>
              <MaterialFields material={e.material} key={e.material.name} />
              <Field label="Masses in">
                <select name="mass-unit" className="select w-full" defaultValue={e.massUnit ?? ""}>
                  <option value="">g or kg</option>
                  {MASS_UNITS.map((u) => (
                    <option key={u} value={u}>
                      {u}
                    </option>
                  ))}
                </select>
              </Field>
              <div className="col-span-6">
                <Field label="Reference part (document), or a STEP file">
                  <input
                    name="part"
                    type="file"
                    accept="application/json,.json,.step,.stp"
                    className="file-input file-input-sm w-full"
                    onChange={(ev) => {
                      // said here, before it is sent all the way to be refused
                      const isLarge = (ev.target.files?.[0]?.size ?? 0) > MAX_DOCUMENT;
                      ev.target.setCustomValidity(isLarge ? "This file is larger than 2 MB." : "");
                      ev.target.reportValidity();
                    }}
                  />
                </Field>
              </div>
            </fieldset>
            <fieldset>
              <legend className="font-semibold">Tolerances and rubric</legend>
              <ToleranceFields exercise={e} />
              <RubricEditor
                rubric={e.rubric}
                sizes={measured?.sheet.dimensions.map(({ id, text }) => ({ id, text })) ?? []}
                templates={props.templates}
                keep={made?.keepRubric}
              />
              {measured?.sizes && (
                <PrintedSizes sizes={measured.sizes} dimensions={measured.sheet.dimensions} units={e.units} />
              )}
              {measured?.things && <FreeEditor exercise={e} things={measured.things} />}
              {made && (
                <QuestionsEditor
                  exercise={e}
                  sizes={(measured?.sheet.dimensions ?? []).flatMap(({ id, text }) => {
                    const size = measured?.sizes?.find((s) => s.id === id);
                    return size ? [{ id, text, size }] : [];
                  })}
                  numbers={given}
                  wanted={measured?.wanted}
                />
              )}
              {made && measured?.table && (
                <OwnNumbersEditor exercise={e} numbers={given} students={made.choices.students.length} />
              )}
            </fieldset>
            <LibraryFields exercise={e} />
            <SheetFields exercise={e} />
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
          {made && measured && (
            <RubricTrial
              preview={made.tried.preview}
              isCurrent={made.tried.version === made.version}
              trying={made.tried.trying}
              start={made.tryRubric}
            />
          )}
          {made && measured?.table && <FollowOnForm id={made.id} numbers={given} units={e.units} act={made.followOn} />}
          {made && (
            <IssueForm
              made={made}
              hasTargets={measured !== null}
              hasQuestions={Boolean(e.questions?.length)}
              open={measured?.proof?.points.length ?? 0}
            />
          )}
        </div>
        <aside className="w-full shrink-0 xl:w-80">
          <h2 className="font-semibold">Targets</h2>
          {!measured && isCurrent && (
            <p className="quiet mt-1">Measured on the reference part once there is one: volume, mass and the Sheet.</p>
          )}
          {!isCurrent && (
            <p className="quiet">
              <span className="loading loading-dots loading-xs mr-1" />
              The reference is being measured{made?.preparing ? `: ${made.preparing}` : ""}.
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
                    <td className="text-right">{massText(measured.mass, e.massUnit)}</td>
                  </tr>
                  <tr>
                    <td>Dimensions</td>
                    <td className="text-right">{measured.sheet.dimensions.length}</td>
                  </tr>
                </tbody>
              </table>
              {measured.proof && <ProofList proof={measured.proof} />}
              <SheetFigure svg={measured.sheet.svg} />
              {made && (
                <p className="no-print mt-2">
                  <Link className="btn btn-sm" href={`/exercises/${made.id}/sheet`}>
                    Arrange the Sheet
                  </Link>
                </p>
              )}
              {made && measured.drawing && <SheetFiles of={`/api/exercises/${made.id}/sheet`} />}
            </>
          )}
        </aside>
      </div>
    </PageFrame>
  );
}

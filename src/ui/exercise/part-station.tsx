import Link from "next/link";
import { useState, type DragEvent } from "react";
import type { Exercise } from "@/core/check/exercise/exercise";
import { partOfFile } from "@/core/exercise/change";
import { isForeign } from "@/core/part/foreign";
import { MAX_DOCUMENT } from "@/core/part/document";
import { MATERIALS } from "@/core/part/materials";
import { areaText, massText, MASS_UNITS, volumeText, type MassUnit } from "@/core/units/amounts";
import { refuse, type Outcome } from "@/core/units/refusal";
import { Amount, Choice, Fold, TextBox } from "./fields";
import { FollowOnForm } from "./follow-on-form";
import type { Issued } from "./give-station";
import { LibraryFolds } from "./library-folds";
import type { ExerciseStore } from "./store";

interface DroppedFiles {
  readonly isOver: boolean;
  /** What became of the last one. */
  readonly said: { readonly isTrouble: boolean; readonly text: string } | undefined;
  readonly bring: (file: File | undefined) => Promise<void>;
  readonly listeners: {
    readonly onDragOver: (e: DragEvent) => void;
    readonly onDragLeave: (e: DragEvent) => void;
    readonly onDrop: (e: DragEvent) => void;
  };
}

/** Files let go anywhere on the page, or chosen: a STEP file or a part becomes the reference. */
export function useDroppedFiles(store: ExerciseStore): DroppedFiles {
  const [isOver, setOver] = useState(false);
  const [said, setSaid] = useState<DroppedFiles["said"]>();
  const bring = async (file: File | undefined) => {
    if (!file) return;
    const wasBuilt = store.getState().exercise.reference.steps.length > 0;
    const r = await broughtIn(store, file);
    if (!r.ok) return setSaid({ isTrouble: true, text: r.refusal.sentence });
    const before = wasBuilt ? " It took the place of the part before; Undo brings that back." : "";
    setSaid({ isTrouble: false, text: `${file.name} is the reference part now.${before}` });
  };
  const holdsFile = (e: DragEvent) => e.dataTransfer.types.includes("Files");
  return {
    isOver,
    said,
    bring,
    listeners: {
      onDragOver: (e) => {
        if (!holdsFile(e)) return;
        e.preventDefault();
        setOver(true);
      },
      onDragLeave: (e) => !e.currentTarget.contains(e.relatedTarget as Node | null) && setOver(false),
      onDrop: (e) => {
        if (!holdsFile(e)) return;
        e.preventDefault();
        setOver(false);
        void bring(e.dataTransfer.files[0]);
      },
    },
  };
}

async function broughtIn(store: ExerciseStore, file: File): Promise<Outcome<void>> {
  if (file.name.endsWith(".zip"))
    return refuse("package", "A package holds whole exercises: bring it in on the page of all exercises.");
  // said before all of it is read
  if (file.size > MAX_DOCUMENT) return refuse("too-large", "This file is larger than 2 MB.");
  const part = partOfFile(file.name, await file.text());
  return part.ok ? store.getState().apply({ do: "reference", part: part.value }) : part;
}

/** The part: what it is called, what it is made of, and where it comes from. */
export function PartStation({
  store,
  id,
  courseId,
  files,
  followOn,
}: { store: ExerciseStore; id: string; courseId: string; files: DroppedFiles } & Issued) {
  const e = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const { apply } = store.getState();
  const say = (to: Extract<Parameters<typeof apply>[0], { do: "say" }>["to"]) => apply({ do: "say", to });
  const isBuilt = e.reference.steps.length > 0;
  // what was read off a file can be printed and checked, and not be changed
  const numbers = (measures?.table?.numbers ?? []).filter((n) => !isForeign(n, e.reference));
  return (
    <>
      <div className="grid grid-cols-[7rem_1fr] gap-3">
        <TextBox label="Number" value={e.number} most={20} take={(number) => say({ number })} />
        <TextBox label="Title" value={e.title} most={120} take={(title) => say({ title })} />
      </div>
      {isBuilt ? <Built store={store} id={id} files={files} /> : <WaysIn id={id} courseId={courseId} files={files} />}
      {files.said && (
        <p
          role={files.said.isTrouble ? "alert" : "status"}
          className={`mt-2 text-sm ${files.said.isTrouble ? "text-error" : ""}`}
        >
          {files.said.text}
        </p>
      )}
      <div className="mt-4 grid grid-cols-2 gap-3 xl:grid-cols-[1fr_8rem_7rem_8rem]">
        <MaterialFields material={e.material} take={(material) => say({ material })} />
        <Choice
          label="Units"
          value={e.units}
          options={[
            ["mm", "mm"],
            ["in", "inches"],
          ]}
          take={(units) => apply({ do: "units", units })}
        />
        <Choice<MassUnit | "">
          label="Masses in"
          value={e.massUnit ?? ""}
          options={[["", "g or kg"], ...MASS_UNITS.map((u) => [u, u] as const)]}
          take={(unit) => say({ massUnit: unit || undefined })}
        />
      </div>
      <div className="mt-3">
        <TextBox
          label="Brief, as students read it"
          value={e.brief}
          most={4000}
          rows={2}
          take={(brief) => say({ brief })}
        />
      </div>
      <div className="mt-5">
        <Fold title="Hints" holds={heldText(e.hints?.length ?? 0, "hint")}>
          <TextBox
            label="One a line; students open them one by one"
            value={(e.hints ?? []).join("\n")}
            most={4000}
            rows={4}
            take={(text) => say({ hints: linesOf(text) })}
          />
        </Fold>
        <LibraryFolds exercise={e} say={say} />
        {isBuilt && numbers.length > 0 && (
          <Fold title="A follow-on: the same part, one size changed" holds="none">
            <FollowOnForm id={id} numbers={numbers} units={e.units} act={followOn} />
          </Fold>
        )}
      </div>
      <p className="no-print mt-3 flex gap-4 text-sm">
        <Link className="text-accent hover:underline" href={`/exercises/${id}/revisions`} prefetch={false}>
          Revisions
        </Link>
        <a className="text-accent hover:underline" href={`/api/exercises/${id}/package`} download>
          As a package
        </a>
      </p>
    </>
  );
}

const heldText = (n: number, one: string): string => (n ? `${n} ${one}${n === 1 ? "" : "s"}` : "none");

/** Lines that say something; undefined where none does. */
function linesOf(text: string): string[] | undefined {
  const lines = text.split(/\r?\n/).flatMap((l) => l.trim() || []);
  return lines.length ? lines : undefined;
}

/** The reference that there is, with what was measured on it. */
function Built({ store, id, files }: { store: ExerciseStore; id: string; files: DroppedFiles }) {
  const e = store((s) => s.exercise),
    measures = store((s) => s.measures);
  return (
    <>
      <div className="mt-4 flex flex-wrap items-center gap-x-6 gap-y-2 border-y border-base-300 py-3">
        <Link className="btn btn-sm btn-primary" href={`/exercises/${id}/bench`} prefetch={false}>
          Open the reference in the Bench
        </Link>
        <FileButton files={files}>Bring another part</FileButton>
        {measures && (
          <dl className="figures ml-auto flex flex-wrap gap-x-5 text-sm" aria-label="Targets">
            <Target name="Volume" text={volumeText(measures.volume, e.units)} />
            <Target name="Surface" text={areaText(measures.area, e.units)} />
            <Target name="Mass" text={massText(measures.mass, e.massUnit)} />
          </dl>
        )}
      </div>
      <Difference store={store} exercise={e} />
    </>
  );
}

const Target = ({ name, text }: { name: string; text: string }) => (
  <div className="flex gap-1.5">
    <dt className="quiet">{name}</dt>
    <dd>{text}</dd>
  </div>
);

function FileButton({ files, children }: { files: DroppedFiles; children: string }) {
  return (
    <label className="btn btn-sm focus-within:outline-2 focus-within:outline-offset-2">
      {children}
      <input
        type="file"
        aria-label="Reference part (document), or a STEP file"
        accept="application/json,.json,.step,.stp"
        className="sr-only"
        onChange={(e) => {
          void files.bring(e.target.files?.[0]);
          e.target.value = "";
        }}
      />
    </label>
  );
}

/** Three ways to a part. */
function WaysIn({ id, courseId, files }: { id: string; courseId: string; files: DroppedFiles }) {
  return (
    <div className="mt-4 grid gap-3 sm:grid-cols-3">
      <Way title="Build the part" text="Draw and model it in the Bench; the Sheet follows.">
        <Link className="btn btn-sm btn-primary" href={`/exercises/${id}/bench`} prefetch={false}>
          Build the reference in the Bench
        </Link>
      </Way>
      <Way title="Bring a file" text="A STEP file or a part: let go of it anywhere on this page.">
        <FileButton files={files}>Choose a file</FileButton>
      </Way>
      <Way title="Take one from the library" text="Exercises of all courses you teach.">
        <Link className="btn btn-sm" href={`/library?into=${courseId}`} prefetch={false}>
          Open the library
        </Link>
      </Way>
    </div>
  );
}

export const Way = ({ title, text, children }: { title: string; text: string; children: React.ReactNode }) => (
  <div className="flex flex-col rounded-box border border-base-300 bg-base-200 p-4">
    <h3 className="font-semibold">{title}</h3>
    <p className="quiet mb-3 mt-1 flex-1 text-sm">{text}</p>
    <div>{children}</div>
  </div>
);

/** What is asked and what the reference says may differ; which is meant is asked. */
function Difference({ store, exercise: e }: { store: ExerciseStore; exercise: Exercise }) {
  const { material, units } = e.reference;
  const differs = material.name !== e.material.name || material.density !== e.material.density || units !== e.units;
  if (!differs) return null;
  const text = (m: Exercise["material"], u: string) => `${m.name} (${m.density} g/cm³), ${u}`;
  return (
    <div className="mt-3 flex items-start gap-3 bg-base-200 p-3 text-sm" role="note" aria-label="Difference">
      <p>
        The reference part is in <b>{text(material, units)}</b>; this exercise asks for{" "}
        <b>{text(e.material, e.units)}</b>. The Sheet and the check go by the exercise.
      </p>
      <button
        className="btn btn-sm"
        onClick={() => {
          const { apply } = store.getState();
          apply({ do: "units", units });
          apply({ do: "say", to: { material } });
        }}
      >
        Ask for what the part says
      </button>
    </div>
  );
}

/** The material, from the table or one's own: choosing one of the table fills its density in. */
function MaterialFields({
  material,
  take,
}: {
  material: Exercise["material"];
  take: (m: Exercise["material"]) => Outcome<void>;
}) {
  return (
    <>
      <TextBox
        label="Material, from the table or your own"
        value={material.name}
        most={80}
        list="materials"
        take={(text) => {
          const name = text.trim();
          if (!name) return refuse("no-material", "Name a material.");
          return take({ name, density: MATERIALS.find((m) => m.name === name)?.density ?? material.density });
        }}
      />
      <datalist id="materials">
        {MATERIALS.map((m) => (
          <option key={m.name} value={m.name}>{`${m.density} g/cm³`}</option>
        ))}
      </datalist>
      <Amount
        label="Density"
        value={material.density}
        unit="g/cm³"
        take={(density) => take({ ...material, density: density! })}
      />
    </>
  );
}

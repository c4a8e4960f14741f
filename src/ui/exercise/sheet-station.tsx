import Link from "next/link";
import { PAPER_NAMES } from "@/core/sheet/layout/paper";
import { SheetFiles } from "../sheet/sheet-files";
import { Choice, Fold, TextBox, Tick } from "./fields";
import type { ExerciseStore } from "./store";

/** What the Sheet prints beside the part, and how. */
export function SheetStation({ store, id }: { store: ExerciseStore; id: string }) {
  const { sheet, units } = store((s) => s.exercise),
    isDrawn = store((s) => s.measures !== undefined);
  const put = (to: Partial<typeof sheet>) => store.getState().arrange({ change: "settings", to });
  const papers = PAPER_NAMES.flatMap((name) => [`${name} upright`, `${name} lying`]);
  const chosen = sheet.paper ? `${sheet.paper.name} ${sheet.paper.isLying ? "lying" : "upright"}` : "";
  const text = (name: "drawnBy" | "date" | "revision" | "count" | "owner" | "general", label: string, most: number) => (
    <TextBox label={label} value={sheet[name] ?? ""} most={most} take={(t) => put({ [name]: t.trim() || undefined })} />
  );
  const titled = [sheet.owner, sheet.drawnBy, sheet.date, sheet.revision].filter(Boolean);
  return (
    <>
      <div className="flex flex-wrap items-center gap-4 border-y border-base-300 py-3">
        {isDrawn ? (
          <Link className="btn btn-sm btn-primary" href={`/exercises/${id}/sheet`} prefetch={false}>
            Arrange the Sheet
          </Link>
        ) : (
          <span className="quiet text-sm">Views and sizes can be arranged as soon as there is a part.</span>
        )}
        {isDrawn && <SheetFiles of={`/api/exercises/${id}/sheet`} />}
      </div>
      <div className="mt-4 grid grid-cols-2 gap-3">
        <Choice
          label="Projection"
          value={sheet.projection}
          options={[
            ["first-angle", "first angle"],
            ["third-angle", "third angle"],
          ]}
          take={(projection) => put({ projection })}
        />
        <Choice
          label="Paper"
          value={chosen}
          options={[["", "chosen for the part"], ...papers.map((p) => [p, p] as const)]}
          take={(p) => {
            const name = PAPER_NAMES.find((n) => p.startsWith(n));
            put({ paper: name && { name, isLying: p.endsWith("lying") } });
          }}
        />
      </div>
      <div className="mt-3">
        <TextBox label="Notes on the Sheet" value={sheet.notes} most={1000} take={(notes) => put({ notes })} />
      </div>
      <div className="mt-3 grid grid-cols-2 gap-x-6 gap-y-2">
        <Tick label="Sheet prints the mass" on={sheet.printMass} set={(printMass) => put({ printMass })} />
        <Tick
          label="with its tolerance"
          on={sheet.massTolerance ?? false}
          set={(on) => put({ massTolerance: on || undefined })}
        />
        <Tick label="and the volume" on={sheet.printVolume} set={(printVolume) => put({ printVolume })} />
        <Tick
          label="Exact values of rounded sizes"
          on={sheet.exact ?? false}
          set={(on) => put({ exact: on || undefined })}
        />
        {units === "in" && (
          <Tick
            label="Inches as fractions"
            on={sheet.fractions ?? false}
            set={(on) => put({ fractions: on || undefined })}
          />
        )}
        <Tick
          label="Signs for counterbore, countersink and depth"
          on={sheet.signs ?? false}
          set={(on) => put({ signs: on || undefined })}
        />
      </div>
      <div className="mt-5">
        <Fold title="Title block" holds={titled.join(" · ") || "none"}>
          <div className="grid grid-cols-3 gap-3">
            {text("owner", "Owner", 60)}
            {text("drawnBy", "Drawn by", 60)}
            {text("date", "Date", 20)}
            {text("revision", "Revision", 20)}
            {text("count", "Sheet of sheets", 20)}
            {text("general", "General tolerances; empty: as checked", 60)}
          </div>
        </Fold>
      </div>
    </>
  );
}

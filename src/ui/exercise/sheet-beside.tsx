import Link from "next/link";
import { isSolidStep } from "@/core/part/steps/kinds";
import { ProofList } from "../sheet/proof-list";
import { SheetFigure } from "../sheet/sheet-figure";
import type { Station } from "./standing";
import type { ExerciseStore } from "./store";

/** The Sheet, in sight at every station; before there is one, what will come. */
export function SheetBeside({
  store,
  id,
  isDropping,
  go,
}: {
  store: ExerciseStore;
  id: string;
  /** A file is being held over the page. */
  isDropping: boolean;
  /** @param size the one whose number was pointed at */
  go: (station: Station, size?: string) => void;
}) {
  const measures = store((s) => s.measures),
    measuring = store((s) => s.measuring),
    trouble = store((s) => s.trouble),
    isBuilt = store((s) => s.exercise.reference.steps.some(isSolidStep));
  const isWaiting = measuring !== undefined && isBuilt;
  return (
    <aside aria-label="Sheet" className="min-w-0 bg-base-200 px-3 py-3 lg:overflow-y-auto">
      {isDropping && (
        <p className="mb-3 rounded-box border-2 border-dashed border-accent p-4 text-center">
          Let go: the file becomes the reference part.
        </p>
      )}
      {isWaiting && (
        <p role="status" className="quiet mb-2 text-sm">
          <span className="loading loading-dots loading-xs mr-1" />
          The reference is being measured{measuring && measuring !== "waiting" ? `: ${measuring}` : ""}.
        </p>
      )}
      {trouble && !isWaiting && isBuilt && (
        <p role="alert" className="mb-2 text-error">
          {trouble}
        </p>
      )}
      {measures ? (
        <>
          <button
            className={`block w-full cursor-pointer ${isWaiting ? "opacity-60" : ""}`}
            title="To the Sheet's station; a number: to its tolerance"
            onClick={(e) => {
              const number = (e.target as Element).closest("[data-dimension]")?.getAttribute("data-dimension");
              go(number ? "check" : "sheet", number ?? undefined);
            }}
          >
            <SheetFigure svg={measures.sheet.svg} />
          </button>
          <div className="mt-3 flex items-start gap-4">
            <div className="min-w-0 flex-1">{measures.proof && <ProofList proof={measures.proof} />}</div>
            <Link
              className="btn btn-sm shrink-0 border-base-content/30 bg-base-100"
              href={`/exercises/${id}/sheet`}
              prefetch={false}
            >
              Arrange the Sheet
            </Link>
          </div>
        </>
      ) : (
        !isWaiting &&
        !(trouble && isBuilt) && (
          <div
            className="flex aspect-[420/297] flex-col items-center justify-center border border-base-300 bg-base-100
              p-6"
          >
            <p className="font-medium">The Sheet will stand here.</p>
            <p className="quiet mt-1 max-w-sm text-center text-sm">
              As soon as there is a part its views are drawn, the sizes it needs are printed, and it is proved that
              somebody can build the part from them.
            </p>
          </div>
        )
      )}
    </aside>
  );
}

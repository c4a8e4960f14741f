import { isForeign } from "@/core/part/foreign";
import type { GeneralTolerance } from "@/core/sizes/general";
import { Choice, Fold, Percent, Tick } from "./fields";
import { FreeEditor, freeText } from "./free-editor";
import { Measure } from "./measure";
import { OwnNumbersEditor } from "./own-numbers-editor";
import { PrintedSizes } from "./printed-sizes";
import { QuestionsEditor } from "./questions-editor";
import { printedSizes, type ExerciseStore } from "./store";

/** What one begins with, mm and radians. */
const OWN_LENGTH = { mm: 0.1, in: 0.005 * 25.4 };
const OWN_ANGLE = Math.PI / 360;

/** What is checked, and how far it may be off. */
export function CheckStation({
  store,
  students,
  sought,
}: {
  store: ExerciseStore;
  students: number;
  /** The size whose number was clicked on the Sheet. */
  sought: string | undefined;
}) {
  const e = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const { apply } = store.getState();
  const numbers = (measures?.table?.numbers ?? []).filter((n) => !isForeign(n, e.reference));
  const held = (n: number, one: string) => (n ? `${n} ${one}${n === 1 ? "" : "s"}` : "none");
  return (
    <>
      <div className="grid grid-cols-3 gap-3">
        {(["volume", "mass", "shape"] as const).map((of) => (
          <Percent
            key={of}
            label={of === "shape" ? "Shape, of the volume" : `${of === "mass" ? "Mass" : "Volume"}, ±`}
            value={e.tolerances[of]}
            take={(share) => apply({ do: "tolerance", of, share })}
          />
        ))}
      </div>
      <GeneralFields store={store} />
      <div className="mt-3 flex flex-wrap gap-x-6 gap-y-2">
        <Tick
          label="Shape wants every face there"
          on={e.shapeBy !== "volume"}
          set={(on) => apply({ do: "say", to: { shapeBy: on ? undefined : "volume" } })}
        />
        <Tick
          label="Material by its name too"
          on={e.materialByName === true}
          set={(on) => apply({ do: "say", to: { materialByName: on || undefined } })}
        />
      </div>
      <PrintedSizes store={store} sought={sought} />
      <div className="mt-5">
        {measures?.things && (
          <Fold title="Left to the student" holds={freeText(e, measures.things)}>
            <FreeEditor store={store} things={measures.things} />
          </Fold>
        )}
        {measures && (
          <Fold title="Own numbers" holds={held(e.varies?.length ?? 0, "number")}>
            <OwnNumbersEditor store={store} numbers={numbers} students={students} />
          </Fold>
        )}
        {measures && (
          <Fold title="Just the figure" holds={held(e.questions?.length ?? 0, "question")}>
            <QuestionsEditor
              store={store}
              sizes={measures.sheet.dimensions.flatMap(({ id, text }) => {
                const size = printedSizes(e, measures).find((s) => s.id === id);
                return size ? [{ id, text, size }] : [];
              })}
              numbers={numbers}
              wanted={measures.wanted}
            />
          </Fold>
        )}
      </div>
      {!measures && <p className="quiet mt-4">What else can be checked shows when there is a part.</p>}
    </>
  );
}

/** How far sizes may be off that have no tolerance of their own. */
function GeneralFields({ store }: { store: ExerciseStore }) {
  const { tolerances, units } = store((s) => s.exercise);
  const { apply } = store.getState();
  const { sizes } = tolerances;
  const rule = sizes?.by === "iso" ? sizes.class : sizes && "own";
  const own = sizes?.by === "plain" ? sizes : undefined;
  const put = (to: GeneralTolerance | undefined) => apply({ do: "general", to });
  return (
    <div className="mt-3 grid grid-cols-3 items-end gap-3">
      <Choice
        label="Printed sizes and places of faces"
        value={rule ?? "printed"}
        options={[
          ["printed", "as printed (± 0.02 mm, ± 0.1°)"],
          ...(["f", "m", "c", "v"] as const).map((k) => [k, `ISO 2768-${k}`] as const),
          ["own", "one figure for all"],
        ]}
        take={(chosen) => {
          if (chosen === "printed") return put(undefined);
          if (chosen === "own") return put({ by: "plain", length: OWN_LENGTH[units], angle: OWN_ANGLE });
          return put({ by: "iso", class: chosen });
        }}
      />
      {own && (
        <>
          <Measure
            label="Lengths, ±"
            value={own.length}
            quantity="length"
            units={units}
            take={(length) => put({ ...own, length: length! }).ok}
          />
          <Measure
            label="Angles, ±"
            value={own.angle}
            quantity="angle"
            units={units}
            take={(angle) => put({ ...own, angle: angle! }).ok}
          />
        </>
      )}
    </div>
  );
}

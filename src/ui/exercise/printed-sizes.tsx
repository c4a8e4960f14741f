import { useEffect, useRef } from "react";
import { quantityOfSize, type Size } from "@/core/sizes/size";
import { Measure } from "./measure";
import { printedSizes, type ExerciseStore } from "./store";

/** The sizes that the Sheet prints, each with a tolerance of its own, or left free with or without a band. */
export function PrintedSizes({ store, sought }: { store: ExerciseStore; sought: string | undefined }) {
  const e = store((s) => s.exercise),
    measures = store((s) => s.measures);
  const sizes = printedSizes(e, measures);
  if (!measures || !sizes.length) return null;
  const texts = new Map(measures.sheet.dimensions.map((d) => [d.id, d.text]));
  const free = sizes.filter((s) => s.free).length;
  return (
    <section className="mt-5" aria-label="Printed sizes">
      <h3 className="font-semibold">Printed sizes</h3>
      <p className="quiet text-sm">
        {sizes.length} are printed{free ? `, ${free} of them free` : ""}. One without a tolerance of its own goes by the
        general one; a free one is left to the student, or asked to lie within its band.
      </p>
      <div className="overflow-x-auto">
        <table className="table table-xs mt-2 w-auto">
          <thead>
            <tr>
              <th>Printed</th>
              <th className="text-right">+</th>
              <th className="text-right">−</th>
              <th>Free</th>
              <th className="text-right">from</th>
              <th className="text-right">to</th>
            </tr>
          </thead>
          <tbody>
            {sizes.map((s) => (
              <SizeRow
                key={s.id}
                store={store}
                size={s}
                called={texts.get(s.id) ?? `${s.kind}, not printed`}
                isSought={s.id === sought}
              />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function SizeRow({
  store,
  size,
  called,
  isSought,
}: {
  store: ExerciseStore;
  size: Size;
  called: string;
  isSought: boolean;
}) {
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (!isSought) return;
    row.current?.scrollIntoView({ block: "center" });
    row.current?.querySelector("input")?.focus();
  }, [isSought]);
  const units = store((s) => s.exercise.units);
  const { lettering, tolerance, free } = size;
  const letter = (to: Pick<Size, "tolerance" | "free">): boolean =>
    store.getState().arrange({
      change: "letter",
      id: size.id,
      to: {
        ...(lettering && { lettering }),
        ...(tolerance && { tolerance }),
        ...(free !== undefined && { free }),
        ...to,
      },
    }).ok;
  const band = typeof free === "object" ? free : undefined;
  const own = (side: "plus" | "minus") => (value: number | undefined) => {
    const other = tolerance?.[side === "plus" ? "minus" : "plus"];
    const isNone = value === undefined && !other;
    return letter({
      tolerance: isNone ? undefined : { plus: 0, minus: 0, ...tolerance, [side]: Math.abs(value ?? 0) },
    });
  };
  const ends = (side: "from" | "to") => (value: number | undefined) => {
    if (value === undefined) return letter({ free: true });
    const both = [side === "from" ? value : (band?.from ?? value), side === "to" ? value : (band?.to ?? value)];
    return letter({ free: { from: Math.min(...both), to: Math.max(...both) } });
  };
  const field = (label: string, value: number | undefined, take: (v: number | undefined) => boolean) => (
    <td>
      <Measure
        ariaLabel={`${label} of ${called}`}
        value={value}
        quantity={quantityOfSize(size)}
        units={units}
        optional
        width="row"
        take={take}
      />
    </td>
  );
  return (
    <tr ref={row} className={isSought ? "bg-accent/15" : ""}>
      <td className="figures whitespace-nowrap">{called}</td>
      {field("Upper tolerance", tolerance?.plus, own("plus"))}
      {field("Lower tolerance", tolerance?.minus, own("minus"))}
      <td>
        <input
          type="checkbox"
          aria-label={`${called} is free`}
          className="checkbox checkbox-sm"
          checked={free !== undefined}
          onChange={(ev) => letter({ free: ev.target.checked || undefined })}
        />
      </td>
      {free === undefined ? (
        <td colSpan={2} />
      ) : (
        <>
          {field("Least", band?.from, ends("from"))}
          {field("Most", band?.to, ends("to"))}
        </>
      )}
    </tr>
  );
}

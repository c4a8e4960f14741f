import type { Sheet } from "@/core/sheet/sheet";
import { quantityOfSize, type Size } from "@/core/sizes/size";
import { angleText, lengthText, type LengthUnit } from "@/core/units/quantity";

/** The sizes that the Sheet prints, each with a tolerance of its own, or left free with or without a band. */
export function PrintedSizes({
  sizes,
  dimensions,
  units,
}: {
  sizes: readonly Size[];
  dimensions: Sheet["dimensions"];
  units: LengthUnit;
}) {
  if (!sizes.length) return null;
  const texts = new Map(dimensions.map((d) => [d.id, d.text]));
  return (
    <details className="mt-4">
      <summary className="cursor-pointer font-semibold">
        Printed sizes ({sizes.length}, {sizes.filter((s) => s.free).length} free)
      </summary>
      <p className="quiet mt-1 text-sm">
        A size without a tolerance of its own goes by the general one. A free size is left to the student, or only asked
        to lie within its band; a free rounding or chamfer is left out of the shape as well.
      </p>
      <input type="hidden" name="sizes-known" value={sizes.length} />
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
          {sizes.map((s) => {
            const called = texts.get(s.id) ?? `${s.kind}, not printed`;
            const isAngle = quantityOfSize(s) === "angle";
            const text = (v: number | undefined) => {
              if (v === undefined) return "";
              return isAngle ? angleText(v) : lengthText(v, units, false);
            };
            const field = (name: string, label: string, value: number | undefined) => (
              <td>
                <input
                  name={`${name}-${s.id}`}
                  aria-label={`${label} of ${called}`}
                  className="input input-xs figures w-20 text-right"
                  defaultValue={text(value)}
                />
              </td>
            );
            const band = typeof s.free === "object" ? s.free : undefined;
            return (
              <tr key={s.id}>
                <td className="figures whitespace-nowrap">{called}</td>
                {field("plus", "Upper tolerance", s.tolerance?.plus)}
                {field("minus", "Lower tolerance", s.tolerance?.minus)}
                <td>
                  <input
                    type="checkbox"
                    name={`free-${s.id}`}
                    aria-label={`${called} is free`}
                    className="checkbox checkbox-sm"
                    defaultChecked={s.free !== undefined}
                  />
                </td>
                {field("from", "Least", band?.from)}
                {field("to", "Most", band?.to)}
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}

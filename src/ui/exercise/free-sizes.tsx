import type { Sheet } from "@/core/sheet/sheet";
import type { Size } from "@/core/sizes/size";

/** The sizes that the Sheet prints; those marked free are not asked for, and are not printed. */
export function FreeSizes({ sizes, dimensions }: { sizes: readonly Size[]; dimensions: Sheet["dimensions"] }) {
  if (!sizes.length) return null;
  const texts = new Map(dimensions.map((d) => [d.id, d.text]));
  return (
    <details className="mt-4">
      <summary className="cursor-pointer font-semibold">
        Sizes left free ({sizes.filter((s) => s.free).length} of {sizes.length})
      </summary>
      <p className="quiet mt-1 text-sm">
        A free size is left to the student: no check asks for it. A free rounding or chamfer is left out of the shape as
        well.
      </p>
      <input type="hidden" name="sizes-known" value={sizes.length} />
      <ul className="mt-2 grid max-w-xl grid-cols-3 gap-1">
        {sizes.map((s) => (
          <li key={s.id}>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                name={`free-${s.id}`}
                className="checkbox checkbox-sm"
                defaultChecked={s.free === true}
              />
              <span className="figures">{texts.get(s.id) ?? `${s.kind}, not printed`}</span>
            </label>
          </li>
        ))}
      </ul>
    </details>
  );
}

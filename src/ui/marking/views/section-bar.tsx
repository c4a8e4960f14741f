import type { Vec3 } from "@/core/geometry/vector";
import { lengthText, type LengthUnit } from "@/core/units/quantity";

/** Where both parts are cut: along which axis, and how far across the reference. */
export interface Section {
  readonly axis: 0 | 1 | 2;
  readonly share: number;
}

const WAYS = [
  [1, "front to back"],
  [0, "left to right"],
  [2, "bottom to top"],
] as const;

/** Chooses the plane that cuts both parts, and moves it. */
export function SectionBar({
  section,
  change,
  box,
  units,
}: {
  section: Section;
  change: (s: Section) => void;
  box: { readonly low: Vec3; readonly high: Vec3 };
  units: LengthUnit;
}) {
  const [low, high] = [box.low[section.axis], box.high[section.axis]];
  return (
    <>
      <label className="flex items-center gap-2">
        <span className="quiet">Cut from</span>
        <select
          className="select select-xs w-36"
          value={section.axis}
          onChange={(e) => change({ ...section, axis: Number(e.target.value) as Section["axis"] })}
        >
          {WAYS.map(([axis, text]) => (
            <option key={axis} value={axis}>
              {text}
            </option>
          ))}
        </select>
      </label>
      <input
        type="range"
        className="range range-xs w-44"
        aria-label="Where it is cut"
        min={0.002}
        max={0.998}
        step={0.002}
        value={section.share}
        onChange={(e) => change({ ...section, share: Number(e.target.value) })}
      />
      <span className="figures w-24 text-right">{lengthText(low + (high - low) * section.share, units)}</span>
      <span className="quiet">reference in rust, submission hatched</span>
    </>
  );
}

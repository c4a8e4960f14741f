import { ON_THE_LIMIT } from "@/core/check/tolerance";
import { TINY } from "@/core/geometry/tolerance";
import { massText, type MassUnit } from "@/core/units/amounts";

/** A reading against its tolerance: the main scale with the band marked, and a sliding scale that points. */
export function Vernier({
  value,
  target,
  tolerance,
  unit,
}: {
  value: number;
  target: number;
  tolerance: number;
  unit?: MassUnit | undefined;
}) {
  const text = (g: number) => massText(g, unit);
  const reach = Math.max(target * tolerance * 2, TINY);
  const x = (v: number) => 130 + Math.max(-1.06, Math.min(1.06, (v - target) / reach)) * 120;
  const off = Math.abs(value - target) - target * tolerance;
  const inside = off <= ON_THE_LIMIT * target;
  const beyond = Math.abs(value - target) > reach * 1.06;
  const here = x(value);
  return (
    <svg
      viewBox="0 0 260 62"
      className="figures w-full"
      role="img"
      aria-label={`${text(value)}, ${inside ? "inside" : "outside"} the band around ${text(target)}`}
    >
      <rect
        x={x(target - target * tolerance)}
        y={14}
        width={120}
        height={14}
        fill="var(--color-success)"
        opacity={0.22}
      />
      <path d="M10 28H250" stroke="currentColor" />
      {Array.from({ length: 9 }, (_, i) => (
        <path
          key={i}
          d={`M${10 + i * 30} 28v${i % 4 ? -7 : -12}`}
          stroke="currentColor"
          strokeWidth={i % 4 ? 0.8 : 1.3}
        />
      ))}
      <text x={10} y={10} fontSize={9} fill="currentColor" textAnchor="start">
        {text(target - reach)}
      </text>
      <text x={130} y={10} fontSize={9} fill="currentColor" textAnchor="middle">
        {text(target)}
      </text>
      <text x={250} y={10} fontSize={9} fill="currentColor" textAnchor="end">
        {text(target + reach)}
      </text>
      <g stroke="var(--color-accent)" fill="none">
        <path d={`M${here} 28v14`} strokeWidth={2} />
        <rect
          x={Math.max(4, Math.min(here - 50, 156))}
          y={30}
          width={100}
          height={12}
          fill="var(--rust-wash)"
          fillOpacity={0.75}
        />
        {Array.from({ length: 11 }, (_, i) => (
          <path
            key={i}
            d={`M${Math.max(4, Math.min(here - 50, 156)) + i * 10} 30v${i % 5 ? 4 : 7}`}
            strokeWidth={0.8}
          />
        ))}
        <path d={`M${here} 28v14`} strokeWidth={2} />
      </g>
      <text
        x={130}
        y={56}
        fontSize={9.5}
        textAnchor="middle"
        fill={inside ? "var(--color-success)" : "var(--color-accent)"}
      >
        {inside
          ? `inside by ${text(-off)}`
          : `${value > target ? "over" : "under"} by ${text(off)}${beyond ? ", off the scale" : ""}`}
      </text>
    </svg>
  );
}

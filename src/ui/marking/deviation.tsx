import { useEffect, useState } from "react";
import type { DeviationMap } from "@/core/check/facets/deviation-map";
import type { ReportPicture } from "@/core/check/check";
import { lengthText, type LengthUnit } from "@/core/units/quantity";
import type { DeviationBands } from "../bench/view/deviation-material";

/** Distances below this are the facets' own, share of the size; and never below what any drawing asks, mm. */
const LEAST_SHARE = 1 / 5_000;
const LEAST = 0.02;

interface ShownMap {
  readonly map: DeviationMap;
  readonly bands: DeviationBands;
}

/** The map of deviations, made in a worker when it is first looked at. @param wanted whether it is looked at */
export function useDeviation(meshes: ReportPicture | undefined, wanted: boolean): ShownMap | "busy" | "failed" | null {
  const [shown, setShown] = useState<{ of: ReportPicture; what: ShownMap | "failed" }>();
  useEffect(() => {
    if (!wanted || !meshes?.submission || shown?.of === meshes) return;
    const worker = new Worker(new URL("./deviation-worker.ts", import.meta.url), { type: "module" });
    worker.onmessage = ({ data }: MessageEvent<DeviationMap>) => {
      setShown({ of: meshes, what: { map: data, bands: bandsOf(data) } });
      worker.terminate();
    };
    worker.onerror = () => setShown({ of: meshes, what: "failed" });
    worker.postMessage({ part: meshes.submission, reference: meshes.reference });
    return () => worker.terminate();
  }, [meshes, wanted, shown?.of]);
  if (!wanted || !meshes?.submission) return null;
  return shown?.of === meshes ? shown.what : "busy";
}

function bandsOf({ positions, most }: DeviationMap): DeviationBands {
  let [low, high] = [Infinity, -Infinity];
  for (const v of positions) [low, high] = [Math.min(low, v), Math.max(high, v)];
  const least = Math.max(LEAST, (high - low) * LEAST_SHARE);
  const step = Math.max(0, most - least) / 3;
  return [least, least + step, least + 2 * step];
}

/** The scale of the map: too little at the left, too much at the right, denser hatch the further off. */
export function DeviationScale({ shown, units }: { shown: ShownMap; units: LengthUnit }) {
  const { map, bands } = shown;
  const text = (mm: number) => lengthText(mm, units, false);
  if (map.most <= bands[0])
    return (
      <span>
        No place lies further off than {text(bands[0])} {units}.
      </span>
    );
  const levels = [3, 2, 1];
  const swatch = (level: number, isOut: boolean) => {
    const colour = isOut ? "--color-primary" : "--color-accent",
      turn = isOut ? -45 : 45,
      from = text(bands[level - 1]!);
    return (
      <span key={`${isOut}${level}`} className="flex flex-col items-center">
        <span
          className="h-4 w-14 border border-base-300"
          style={{
            background: `repeating-linear-gradient(${turn}deg, var(${colour}) 0 ${level + 1}px,
              color-mix(in oklab, var(${colour}) ${level * 22}%, var(--color-base-100)) 0 ${11 - 2 * level}px)`,
          }}
        />
        <span className="figures text-xs">
          {isOut ? "+" : "−"}
          {from}
        </span>
      </span>
    );
  };
  return (
    <div className="flex flex-wrap items-center gap-4" data-testid="deviation-scale">
      <span className="quiet text-xs">too little</span>
      <div className="flex">
        {levels.map((l) => swatch(l, false))}
        <span className="flex flex-col items-center">
          <span className="h-4 w-14 border border-base-300" style={{ background: "var(--model)" }} />
          <span className="figures text-xs">0</span>
        </span>
        {[...levels].reverse().map((l) => swatch(l, true))}
      </div>
      <span className="quiet text-xs">too much</span>
      <span>
        largest <span className="figures">{lengthText(map.most, units)}</span>, typical{" "}
        <span className="figures">{lengthText(map.typical, units)}</span>
      </span>
    </div>
  );
}

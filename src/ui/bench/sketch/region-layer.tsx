"use client";

import { frameOf } from "@/core/part/steps/sketch/schema";
import { useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Vec2 } from "@/core/geometry/vector";
import { begun } from "@/core/naming/words";
import { regionCalls } from "@/core/sketch/region-words";
import type { Region } from "@/core/sketch/regions";
import { areaText } from "@/core/units/amounts";
import { regionsOf } from "../documents";
import { choiceOf, isSwept, type Swept } from "../steps/regions";
import type { BenchStore } from "../store";
import { isSeen } from "../view/paint";
import { useCamera } from "../view/viewport";
import { curvePath, regionPath } from "./curve-ink";

/** A step along the screen, from region to region: the nearest whose middle lies that way. */
const ARROWS: Record<string, Vec2> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** While a step is being made: the regions of its sketch, taken or left by a click, or by arrows and Space. */
export function RegionLayer({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const mode = store((s) => s.mode),
    isPicking = store((s) => s.pickField !== undefined);
  const document = store((s) => s.history.present);
  const layer = useRef<SVGSVGElement>(null);
  const [reached, setReached] = useState(0);
  const draft = mode.kind === "step" && isSwept(mode.draft) ? mode.draft : undefined;
  const choice = draft && choiceOf(draft, document);
  const drawn = choice?.sketch,
    units = document.units;
  const calls = useMemo(() => (drawn ? regionCalls(regionsOf(drawn).regions, drawn, units) : []), [drawn, units]);
  if (!choice) return null;
  const { sketch, regions, taken } = choice;
  const frame = frameOf(sketch.plane);
  const toggle = (region: Region) => {
    const next = regions.filter((r) => (r === region) !== taken.has(r)).map((r) => r.identity);
    if (!next.length)
      return store.getState().say({ kind: "notice", text: "At least one region is built on.", about: [] });
    store.getState().changeDraft((d) => ({ ...(d as Swept), regions: next }));
  };
  const press = (e: KeyboardEvent<SVGPathElement>, i: number) => {
    const way = ARROWS[e.key];
    if (e.key !== " " && !way) return;
    e.preventDefault();
    e.stopPropagation();
    if (!way) return toggle(regions[i]!);
    const paths = [...layer.current!.querySelectorAll<SVGPathElement>("[data-region]")];
    const middles = paths
      .map((p) => p.getBoundingClientRect())
      .map((b): Vec2 => [b.x + b.width / 2, b.y + b.height / 2]);
    const from = middles[i]!;
    const ahead = middles.map(([x, y]) => (x - from[0]) * way[0] + (y - from[1]) * way[1]);
    const order = middles.map((m, k) => [k, Math.hypot(m[0] - from[0], m[1] - from[1]), ahead[k]!] as const);
    const [next] = order.filter(([k, , a]) => k !== i && a > 1).sort((a, b) => 2 * a[1] - a[2] - (2 * b[1] - b[2]));
    // nothing that way, or one within the other: on in their order
    const step = way[0] + way[1] > 0 ? 1 : -1;
    const to = next?.[0] ?? (i + step + paths.length) % paths.length;
    setReached(to);
    paths[to]!.focus();
  };
  return (
    <svg
      ref={layer}
      className="pointer-events-none absolute inset-0 h-full w-full text-base-content"
      role="group"
      aria-label="Regions of the sketch"
    >
      {sketch.curves.map((c) => (
        <path
          key={c.id}
          d={curvePath(camera, frame, c)}
          stroke="currentColor"
          strokeWidth={1.2}
          strokeDasharray={c.construction ? "6 4" : undefined}
          fill="none"
        />
      ))}
      {regions.map((r, i) => (
        <path
          key={r.name}
          d={regionPath(camera, frame, r)}
          fillRule="evenodd"
          className={`region ${taken.has(r) ? "is-taken" : ""}
            ${isPicking ? "" : "pointer-events-auto cursor-pointer"}`}
          data-region={r.name}
          role="checkbox"
          aria-checked={taken.has(r)}
          aria-label={`${calls[i]}, ${areaText(r.area, document.units)}`}
          tabIndex={i === Math.min(reached, regions.length - 1) ? 0 : -1}
          onFocus={() => setReached(i)}
          onKeyDown={(e) => press(e, i)}
          onClick={() => toggle(r)}
        >
          <title>
            {`${begun(calls[i]!)}, ${areaText(r.area, units)}: click to ${taken.has(r) ? "leave" : "take"} it`}
          </title>
        </path>
      ))}
    </svg>
  );
}

/**
 * While the solid is looked at: sketches that no step uses yet, so that they are not lost from sight, and those
 * switched on.
 */
export function IdleSketches({ store }: { store: BenchStore }) {
  const camera = store((s) => s.camera);
  useCamera(camera);
  const document = store((s) => s.history.present),
    looking = store((s) => s.looking);
  const used = new Set(
    document.steps.flatMap((s) => ("sketch" in s && typeof s.sketch === "string" ? [s.sketch] : [])),
  );
  const idle = document.steps.flatMap((s) =>
    s.kind === "sketch" && isSeen(looking, s.id, looking.sketches && !used.has(s.id)) ? [s] : [],
  );
  return (
    <svg className="pointer-events-none absolute inset-0 h-full w-full text-base-content">
      {idle.map((s) => (
        <g key={s.id} data-idle={s.id}>
          {s.sketch.curves.map((c) => (
            <path
              key={c.id}
              d={curvePath(camera, frameOf(s.sketch.plane), c)}
              stroke="currentColor"
              strokeWidth={1.6}
              strokeDasharray={c.construction ? "6 4" : undefined}
              fill="none"
            />
          ))}
        </g>
      ))}
    </svg>
  );
}

import { useEffect, useState } from "react";
import { pointAt, type Sketch } from "@/core/sketch/sketch";
import { swinging } from "@/core/sketch/swing";
import type { LengthUnit } from "@/core/units/quantity";
import type { BenchStore } from "../store";

/** While swinging is on, the sketch a moment later, frame by frame; still where motion is not wanted. */
export function useSwing(store: BenchStore, sketch: Sketch, unit: LengthUnit): Sketch | undefined {
  const on = store((s) => s.swinging);
  const [swung, setSwung] = useState<Sketch>();
  useEffect(() => {
    if (!on || window.matchMedia("(prefers-reduced-motion: reduce)").matches) return setSwung(undefined);
    const at = swinging(sketch, unit, 9 / store.getState().camera.scale);
    if (!at) return setSwung(undefined);
    let frame = 0;
    const step = (t: number) => {
      setSwung(at(t / 260));
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [on, sketch, unit, store]);
  return on ? swung : undefined;
}

/** One arrow per place: joined ends would show it twice. */
export function distinctWays<W extends { point: string }>(ways: readonly W[], sketch: Sketch): W[] {
  const seen = new Set<string>();
  return ways.filter((w) => {
    const key = pointAt(sketch, w.point)
      .map((v) => v.toFixed(4))
      .join();
    return !seen.has(key) && seen.add(key);
  });
}

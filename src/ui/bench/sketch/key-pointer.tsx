import { useEffect, useRef } from "react";
import type { Vec2 } from "@/core/geometry/vector";
import { inUnit, lengthText, type LengthUnit } from "@/core/units/quantity";
import type { BenchStore } from "../store";
import type { Camera } from "../view/camera";

/** A step of the keyboard's pointer is near this many pixels. */
const STEP_PIXELS = 8;
/** It is kept so far from the edges of the view, pixels. */
const MARGIN = 40;
const MM_PER = { mm: 1, in: 25.4 };

/** What one press of an arrow moves: a whole, double or five-fold decimal of the unit. @param pixel mm */
export function keyStep(pixel: number, unit: LengthUnit): number {
  const wanted = (STEP_PIXELS * pixel) / MM_PER[unit];
  const decade = 10 ** Math.floor(Math.log10(wanted));
  const nice = [1, 2, 5, 10].find((n) => n * decade >= wanted) ?? 10;
  return nice * decade * MM_PER[unit];
}

export const middleOf = (c: Camera): Vec2 => [c.width / 2, (c.height - c.foot) / 2];
export const isInView = (c: Camera, [x, y]: Vec2): boolean => x > 0 && x < c.width && y > 0 && y < c.height - c.foot;

/** The view follows the pointer where it would leave it. */
export function keepInView(c: Camera, [x, y]: Vec2): void {
  const beyond = (at: number, low: number, high: number) => Math.max(low - at, 0) - Math.max(at - high, 0);
  const by: Vec2 = [beyond(x, c.side + MARGIN, c.width - MARGIN), beyond(y, MARGIN, c.height - c.foot - MARGIN)];
  if (by[0] || by[1]) c.pan(...by);
}

export const placeText = ([x, y]: Vec2, unit: LengthUnit): string =>
  `${Number(inUnit(x, unit).toFixed(4))}, ${lengthText(y, unit)}`;

interface Site {
  /** Where it begins. */
  start(): Vec2;
  /** mm of one press. */
  readonly step: number;
  /** Where it stands while it is in use. */
  readonly at: Vec2 | undefined;
  show(at: Vec2): void;
  press(at: Vec2, shift: boolean): void;
}

/** Hands the arrow keys a pointer over the sketch; places are whole steps. */
export function useKeyPointer(store: BenchStore, site: Site): void {
  const now = useRef(site);
  useEffect(() => {
    now.current = site;
  });
  useEffect(() => {
    const { hand } = store.getState();
    hand.keyPointer = {
      nudge(right, up) {
        const { start, step, show } = now.current;
        const [x, y] = start();
        show([(Math.round(x / step) + right) * step, (Math.round(y / step) + up) * step]);
      },
      press(shift) {
        const { at, press } = now.current;
        if (at) press(at, shift);
        return at !== undefined;
      },
    };
    return () => void (hand.keyPointer = undefined);
  }, [store]);
}

/** The pointer, and where it is. */
export const KeyCross = ({ at: [x, y], text }: { at: Vec2; text: string }) => (
  <g data-key-pointer={text} stroke="var(--color-accent)" fill="none" strokeWidth={1.4}>
    <path d={`M${x - 14} ${y}h9M${x + 5} ${y}h9M${x} ${y - 14}v9M${x} ${y + 5}v9`} />
    <circle cx={x} cy={y} r={3.2} />
    <text x={x + 14} y={y - 10} fontSize={11} stroke="none" fill="var(--color-accent)" className="figures">
      {text}
    </text>
  </g>
);

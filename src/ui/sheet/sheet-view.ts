import { useEffect, useRef, type RefObject } from "react";

/** Times a turn of the wheel and a key enlarge, and at most over the whole sheet. */
const WHEEL = 1.0018;
const KEY = 1.25;
const MOST = 24;
/** Pixels that a press may wander and still be a click. */
const STILL = 4;

type Window = readonly [x: number, y: number, width: number, height: number];

/**
 * Lets a Sheet be looked at closely: wheel and pinch enlarge about the pointer, dragging moves, double click shows one
 * view or the whole again, + − 0 and the arrows do the same from the keyboard. The window of the SVG is changed, so
 * that lines stay sharp, and another Sheet on the same paper is looked at where this one was.
 * @param holds what is dragged by itself, rather than with the paper
 */
export function useSheetView(
  box: RefObject<HTMLElement | null>,
  svg: string | undefined,
  holds?: (target: Element) => boolean,
): void {
  const held = useRef(holds);
  held.current = holds;
  const kept = useRef<{ readonly whole: Window; readonly now: Window }>(undefined);
  useEffect(() => {
    const host = box.current,
      sheet = host?.querySelector("svg");
    if (!host || !sheet) return;
    const { width, height } = sheet.viewBox.baseVal;
    const whole: Window = [0, 0, width, height];
    let now: Window = whole;
    const isSamePaper = kept.current?.whole.every((v, i) => v === whole[i]);
    if (isSamePaper) {
      now = kept.current!.now;
      sheet.setAttribute("viewBox", now.join(" "));
    }
    const show = ([x, y, w, h]: Window) => {
      const scale = Math.min(1, Math.max(1 / MOST, w / width));
      const [nw, nh] = [width * scale, height * scale];
      // never past the paper
      now = [
        Math.min(Math.max(0, x + (w - nw) / 2), width - nw),
        Math.min(Math.max(0, y + (h - nh) / 2), height - nh),
        nw,
        nh,
      ];
      kept.current = { whole, now };
      sheet.setAttribute("viewBox", now.join(" "));
    };
    const at = (clientX: number, clientY: number): readonly [number, number] => {
      const m = sheet.getScreenCTM()?.inverse();
      if (!m) return [now[0] + now[2] / 2, now[1] + now[3] / 2];
      const p = new DOMPoint(clientX, clientY).matrixTransform(m);
      return [p.x, p.y];
    };
    const zoom = (times: number, [px, py]: readonly [number, number]) => {
      const [x, y, w, h] = now,
        k = 1 / times;
      show([px - (px - x) * k, py - (py - y) * k, w * k, h * k]);
    };
    const middle = () => [now[0] + now[2] / 2, now[1] + now[3] / 2] as const;

    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      // a pinch on a touchpad comes as a wheel with Control, in small steps
      zoom(WHEEL ** (-e.deltaY * (e.ctrlKey ? 6 : 1)), at(e.clientX, e.clientY));
    };
    const fingers = new Map<number, readonly [number, number]>();
    let wandered = 0;
    const down = (e: PointerEvent) => {
      if (held.current?.(e.target as Element)) return;
      fingers.set(e.pointerId, [e.clientX, e.clientY]);
      wandered = 0;
    };
    const move = (event: PointerEvent) => {
      const before = fingers.get(event.pointerId);
      if (!before) return;
      const after = [event.clientX, event.clientY] as const;
      const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
      wandered += Math.hypot(dx, dy);
      const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1];
      if (other) {
        const apart = (p: readonly [number, number]) => Math.hypot(p[0] - other[0], p[1] - other[1]);
        zoom(apart(after) / Math.max(1, apart(before)), at((after[0] + other[0]) / 2, (after[1] + other[1]) / 2));
      } else if (wandered > STILL) {
        const [a, b] = [at(...before), at(...after)];
        show([now[0] + a[0] - b[0], now[1] + a[1] - b[1], now[2], now[3]]);
        host.setPointerCapture(event.pointerId);
      }
      fingers.set(event.pointerId, after);
    };
    const up = (e: PointerEvent) => void fingers.delete(e.pointerId);
    // what was dragged was not meant as a click
    const click = (e: MouseEvent) => wandered > STILL && e.stopPropagation();
    const twice = (e: MouseEvent) => {
      const view = (e.target as Element).closest<SVGGElement>("[data-view]");
      if (!view || now[2] < width * 0.99) return show(whole);
      const b = view.getBBox(),
        w = Math.max(b.width, (b.height * width) / height) * 1.5;
      show([b.x + b.width / 2 - w / 2, b.y + b.height / 2 - (w * height) / width / 2, w, (w * height) / width]);
    };
    const key = (e: KeyboardEvent) => {
      const step = now[2] / 8;
      const [x, y, w, h] = now;
      const acts: Record<string, () => void> = {
        "+": () => zoom(KEY, middle()),
        "-": () => zoom(1 / KEY, middle()),
        "0": () => show(whole),
        ArrowLeft: () => show([x - step, y, w, h]),
        ArrowRight: () => show([x + step, y, w, h]),
        ArrowUp: () => show([x, y - step, w, h]),
        ArrowDown: () => show([x, y + step, w, h]),
      };
      const act = acts[e.key];
      if (!act || e.altKey || e.metaKey || e.ctrlKey) return;
      e.preventDefault();
      e.stopPropagation();
      act();
    };
    const end = new AbortController(),
      { signal } = end;
    host.addEventListener("wheel", wheel, { passive: false, signal });
    host.addEventListener("pointerdown", down, { signal });
    host.addEventListener("pointermove", move, { signal });
    host.addEventListener("pointerup", up, { signal });
    host.addEventListener("pointercancel", up, { signal });
    host.addEventListener("click", click, { capture: true, signal });
    host.addEventListener("dblclick", twice, { signal });
    host.addEventListener("keydown", key, { signal });
    return () => end.abort();
  }, [box, svg]);
}

import { useEffect, useRef, useState, type RefObject } from "react";
import { scaleIn, windowOn, type PaperWindow } from "./paper-window";

/** Times a turn of the wheel and a key enlarge, and at most over the whole sheet. */
const WHEEL = 1.0012;
const KEY = 1.25;
const MOST = 24;
/** A notch that comes as lines, in pixels. */
const LINE_PX = 30;
/** Pixels that a press may wander and still be a click. */
const STILL = 4;
/** Beside what is drawn, mm of the paper. */
const MARGIN = 4;
/** Lettering below it is not read, pixels; then the views are offered one by one. */
const LEGIBLE = 9;

/** A view that can fill the pane. */
interface Offered {
  readonly key: string;
  readonly title: string;
}

/** How a Sheet is looked at, for whoever offers to look at it otherwise. */
export interface SheetLook {
  readonly views: readonly Offered[];
  /** Lettering is too small to be read where all that is drawn is looked at. */
  readonly isSmall: boolean;
  /** The view that fills the pane; undefined: none. */
  readonly at: string | undefined;
  readonly showView: (key: string) => void;
  /** All that is drawn, without frame and title block. */
  readonly showDrawn: () => void;
  readonly showPaper: () => void;
}

interface Options {
  /** What is dragged by itself, rather than with the paper. */
  readonly holds?: (target: Element) => boolean;
  /** Opens on what is drawn: frame and title block stay outside where that makes it larger. */
  readonly onDrawn?: boolean;
}

/** The views of a Sheet with the sizes that stand at each, as boxes on the paper. */
function boxesOf(sheet: SVGSVGElement): { readonly views: Map<string, DOMRect>; readonly drawn: DOMRect | undefined } {
  const boxOf = (g: SVGGElement) => {
    const { x, y, width, height } = g.getBBox();
    return new DOMRect(x, y, width, height);
  };
  const joined = (a: DOMRect | undefined, b: DOMRect): DOMRect => {
    if (!a) return b;
    const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
    return new DOMRect(x, y, Math.max(a.right, b.right) - x, Math.max(a.bottom, b.bottom) - y);
  };
  const bare = new Map<string, DOMRect>();
  for (const g of sheet.querySelectorAll<SVGGElement>("[data-view]")) bare.set(g.dataset["view"]!, boxOf(g));
  const views = new Map(bare);
  let drawn = [...bare.values()].reduce<DOMRect | undefined>(joined, undefined);
  for (const g of sheet.querySelectorAll<SVGGElement>("[data-dimension], [data-remark]")) {
    const b = boxOf(g);
    if (!b.width && !b.height) continue;
    drawn = joined(drawn, b);
    // a size belongs to the view it stands at
    const away = (v: DOMRect) =>
      Math.hypot(Math.max(v.x - b.right, b.x - v.right, 0), Math.max(v.y - b.bottom, b.y - v.bottom, 0));
    const [own] = [...bare].sort(([, p], [, q]) => away(p) - away(q));
    if (own) views.set(own[0], joined(views.get(own[0]), b));
  }
  return { views, drawn };
}

/**
 * Lets a Sheet be looked at closely: wheel and pinch enlarge about the pointer, dragging moves, double click shows one
 * view or the whole again, + − 0 and the arrows do the same from the keyboard. The window of the SVG is changed, so
 * that lines stay sharp, and another Sheet on the same paper is looked at where this one was. Lines keep to widths that
 * a screen shows well, however close one is.
 */
export function useSheetView(
  box: RefObject<HTMLElement | null>,
  svg: string | undefined,
  { holds, onDrawn = false }: Options = {},
): SheetLook | undefined {
  const held = useRef(holds);
  held.current = holds;
  const kept = useRef<{ readonly whole: PaperWindow; readonly now: PaperWindow }>(undefined);
  const [look, setLook] = useState<SheetLook>();
  useEffect(() => {
    const host = box.current,
      sheet = host?.querySelector("svg");
    if (!host || !sheet) return;
    const { width, height } = sheet.viewBox.baseVal;
    const whole: PaperWindow = [0, 0, width, height];
    let now: PaperWindow = whole,
      isFitted = false;
    const { views, drawn } = boxesOf(sheet);
    const pane = () => ({ width: host.clientWidth, height: host.clientHeight });
    const wide = sheet.querySelector(".pen-outline")?.getAttribute("stroke-width") ?? "0.5";
    sheet.style.setProperty("--wide", `${wide}px`);
    /** A pixel of the screen, in mm of the paper: what widths of lines are kept within. */
    const measure = () => {
      const scale = scaleIn(now, pane());
      if (scale > 0) sheet.style.setProperty("--pixel", `${1 / scale}px`);
    };
    const isSamePaper = kept.current?.whole.every((v, i) => v === whole[i]);
    if (isSamePaper) {
      now = kept.current!.now;
      sheet.setAttribute("viewBox", now.join(" "));
    }
    measure();
    const show = ([x, y, w, h]: PaperWindow, isFit = false) => {
      isFitted = isFit;
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
      measure();
    };
    const fit = (b: DOMRect | undefined, isFit = false) =>
      b && host.clientWidth && show(windowOn(b, pane(), { width, height }, MARGIN), isFit);
    const letters = [...sheet.querySelectorAll(".dimension text")].map((t) => Number(t.getAttribute("font-size")) || 0);
    const smallest = Math.min(...letters.filter((n) => n > 0));
    const scaleOf = (b: DOMRect) => scaleIn(windowOn(b, pane(), { width, height }, MARGIN), pane());
    const tell = (at: string | undefined) =>
      setLook({
        views: [...views.keys()].map((key) => ({ key, title: titleOf(sheet, key) })),
        isSmall: drawn !== undefined && smallest * scaleOf(drawn) < LEGIBLE,
        at,
        showView: (key) => {
          fit(views.get(key));
          tell(key);
        },
        showDrawn: () => {
          fit(drawn, true);
          tell(undefined);
        },
        showPaper: () => {
          show(whole);
          tell(undefined);
        },
      });
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
      const turned = e.deltaMode === WheelEvent.DOM_DELTA_LINE ? e.deltaY * LINE_PX : e.deltaY;
      // a pinch on a touchpad comes as a wheel with Control, in small steps
      zoom(WHEEL ** (-turned * (e.ctrlKey ? 8 : 1)), at(e.clientX, e.clientY));
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
      const view = (e.target as Element).closest<SVGGElement>("[data-view]")?.dataset["view"];
      const isWide = now[2] >= width * 0.99 || isFitted;
      if (!view || !isWide) {
        if (onDrawn) fit(drawn, true);
        else show(whole);
        return tell(undefined);
      }
      fit(views.get(view));
      tell(view);
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
    if (onDrawn && !isSamePaper) fit(drawn, true);
    tell(undefined);
    // a pane of another size shows as much as before; what was fitted is fitted again
    const resized = new ResizeObserver(() => {
      if (isFitted) fit(drawn, true);
      else measure();
    });
    resized.observe(host);
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
    return () => {
      end.abort();
      resized.disconnect();
    };
  }, [box, svg, onDrawn]);
  return look;
}

/** What a view is called on the Sheet. */
const titleOf = (sheet: SVGSVGElement, key: string): string =>
  sheet.querySelector(`[data-view="${CSS.escape(key)}"] > title`)?.textContent ?? key;

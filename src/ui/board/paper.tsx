"use client";

import { useEffect, useMemo, useRef } from "react";
import type { Vec2 } from "@/core/geometry/vector";
import { useSheetView } from "../sheet/sheet-view";
import type { BoardStore, Chosen } from "./store";

/** How near a click must be to a line, in pixels, and how far a press may wander and still be a click. */
const NEAR = 10;
const STILL = 4;
/** What an arrow key moves, mm; with Shift ten times as much. */
const NUDGE = 1;

const KINDS = ["size", "remark", "view"] as const;
const attribute = { size: "data-dimension", remark: "data-remark", view: "data-view" };

/** What of the Sheet an element belongs to. */
function chosenAt(el: Element): (Chosen & { readonly group: SVGGElement }) | undefined {
  for (const what of KINDS) {
    const group = el.closest<SVGGElement>(`[${attribute[what]}]`);
    if (group) return { what, id: group.getAttribute(attribute[what])!, group };
  }
  return undefined;
}

/** Pixels to the Sheet's own mm. */
function placeOf(host: HTMLElement, clientX: number, clientY: number): Vec2 {
  const m = host.querySelector("svg")?.getScreenCTM()?.inverse();
  if (!m) return [0, 0];
  const p = new DOMPoint(clientX, clientY).matrixTransform(m);
  return [p.x, p.y];
}

/** Where something stands that is dragged: a number by its middle, a view by its own. */
function middleOf(c: Chosen & { readonly group: SVGGElement }, store: BoardStore): Vec2 {
  if (c.what === "view") return store.getState().drawn?.views.find((v) => v.key === c.id)?.middle ?? [0, 0];
  const text = c.group.querySelector("text"),
    box = c.group.querySelector<SVGRectElement>(".patch")?.getBBox();
  if (c.what === "remark" && text) return [Number(text.getAttribute("x")), Number(text.getAttribute("y"))];
  return box ? [box.x + box.width / 2, box.y + box.height / 2] : [0, 0];
}

/** The Sheet on the board: its numbers, remarks and views can be dragged, and tools are given places on it. */
export function BoardPaper({ store }: { store: BoardStore }) {
  const host = useRef<HTMLDivElement>(null);
  const svg = store((s) => s.drawn?.svg),
    tool = store((s) => s.tool),
    chosen = store((s) => s.chosen),
    places = store((s) => s.places);
  const isHeld = (el: Element) => store.getState().tool === "move" && chosenAt(el) !== undefined;
  useSheetView(host, svg, { holds: isHeld });
  const markup = useMemo(() => ({ dangerouslySetInnerHTML: { __html: svg ?? "" } }), [svg]);

  useEffect(() => {
    if (!chosen || !host.current) return;
    const own = host.current.querySelectorAll(`[${attribute[chosen.what]}="${CSS.escape(chosen.id)}"]`);
    own.forEach((g) => g.classList.add("chosen"));
    return () => own.forEach((g) => g.classList.remove("chosen"));
  }, [chosen, svg]);

  // the places a tool has been given
  useEffect(() => {
    const sheet = host.current?.querySelector("svg");
    if (!sheet || !places.length) return;
    const layer = document.createElementNS("http://www.w3.org/2000/svg", "g");
    layer.setAttribute("class", "given");
    const mm = sheet.viewBox.baseVal.width / Math.max(1, sheet.clientWidth);
    const line = document.createElementNS("http://www.w3.org/2000/svg", "polyline");
    line.setAttribute("points", places.map((p) => p.paper.join()).join(" "));
    layer.append(line);
    for (const p of places) {
      const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle");
      dot.setAttribute("cx", String(p.paper[0]));
      dot.setAttribute("cy", String(p.paper[1]));
      dot.setAttribute("r", String(4 * mm));
      layer.append(dot);
    }
    sheet.append(layer);
    return () => layer.remove();
  }, [places, svg]);

  // what an open point of the proof is about
  const lines = store((s) => (s.shown === undefined ? undefined : s.shows[s.shown]));
  useEffect(() => {
    const sheet = host.current?.querySelector("svg");
    if (!sheet || !lines) return;
    const layer = document.createElementNS("http://www.w3.org/2000/svg", "path");
    layer.setAttribute("class", "shown");
    layer.setAttribute("d", lines.map((l) => `M${l.map((p) => p.join(" ")).join("L")}`).join(""));
    sheet.append(layer);
    return () => layer.remove();
  }, [lines, svg]);

  useEffect(() => {
    const el = host.current;
    if (!el) return;
    let drag: { c: Chosen; grab: Vec2; from: Vec2; isMoving: boolean } | undefined,
      pressed: readonly [number, number] | undefined;
    const down = (event: PointerEvent) => {
      if (event.button !== 0) return;
      pressed = [event.clientX, event.clientY];
      if (store.getState().tool !== "move") return;
      const c = chosenAt(event.target as Element);
      if (!c) return;
      const at = placeOf(el, event.clientX, event.clientY),
        middle = middleOf(c, store);
      drag = { c: { what: c.what, id: c.id }, grab: [middle[0] - at[0], middle[1] - at[1]], from: at, isMoving: false };
      el.setPointerCapture(event.pointerId);
    };
    const hasWandered = (e: PointerEvent) =>
      pressed !== undefined && Math.hypot(e.clientX - pressed[0], e.clientY - pressed[1]) > STILL;
    const move = (e: PointerEvent) => {
      if (!drag || (!drag.isMoving && !hasWandered(e))) return;
      if (!drag.isMoving) store.getState().choose(drag.c);
      drag.isMoving = true;
      const [x, y] = placeOf(el, e.clientX, e.clientY);
      store.getState().pull(drag.c, [x + drag.grab[0], y + drag.grab[1]], e.altKey);
    };
    const up = (e: PointerEvent) => {
      const done = drag,
        isClick = !hasWandered(e);
      drag = undefined;
      pressed = undefined;
      if (done?.isMoving) return void store.getState().drop();
      if (!isClick) return;
      if (store.getState().tool === "move") {
        const c = done?.c ?? chosenAt(e.target as Element);
        return store.getState().choose(c && { what: c.what, id: c.id });
      }
      const sheet = el.querySelector("svg");
      const mm = sheet ? 1 / (sheet.getScreenCTM()?.a ?? 1) : 1;
      void store.getState().click(placeOf(el, e.clientX, e.clientY), NEAR * mm);
    };
    const cancel = () => {
      if (drag?.isMoving) void store.getState().drop();
      drag = undefined;
      pressed = undefined;
    };
    const key = (e: KeyboardEvent) => {
      const { chosen: c, drawn } = store.getState();
      const ways: Record<string, Vec2> = {
        ArrowLeft: [-1, 0],
        ArrowRight: [1, 0],
        ArrowUp: [0, -1],
        ArrowDown: [0, 1],
      };
      const way = ways[e.key],
        group = c && el.querySelector<SVGGElement>(`[${attribute[c.what]}="${CSS.escape(c.id)}"]`);
      if (!way || !c || !group || !drawn) return;
      e.preventDefault();
      // the paper would move with it
      e.stopImmediatePropagation();
      const [x, y] = middleOf({ ...c, group }, store),
        by = NUDGE * (e.shiftKey ? 10 : 1);
      store.getState().pull(c, [x + way[0] * by, y + way[1] * by], e.altKey);
      void store.getState().drop();
    };
    const focus = (e: FocusEvent) => {
      const c = store.getState().tool === "move" ? chosenAt(e.target as Element) : undefined;
      if (c?.what === "size" && (e.target as Element).matches(":focus-visible"))
        store.getState().choose({ what: c.what, id: c.id });
    };
    const end = new AbortController(),
      { signal } = end;
    el.addEventListener("pointerdown", down, { signal });
    el.addEventListener("pointermove", move, { signal });
    el.addEventListener("pointerup", up, { signal });
    el.addEventListener("pointercancel", cancel, { signal });
    el.addEventListener("keydown", key, { signal, capture: true });
    el.addEventListener("focusin", focus, { signal });
    return () => end.abort();
  }, [store]);

  return (
    <div
      ref={host}
      className={`live-sheet board-paper h-full touch-none overflow-hidden bg-base-200 [&_svg]:block [&_svg]:h-full
        [&_svg]:w-full ${tool === "move" ? "" : "cursor-crosshair"}`}
      aria-label="The Sheet"
      tabIndex={0}
      {...markup}
    />
  );
}

"use client";

import { memo, useCallback, useRef, type PointerEvent } from "react";
import type { Sketch } from "@/core/sketch/sketch";
import type { Vec2 } from "@/core/geometry/vector";
import type { BenchStore } from "../store";
import { DRAG_PIXELS } from "../view/navigation";
import { PASSIVE } from "./dimension-ink";
import { GLYPHS, marksOf, type Mark } from "./marks";

/** One mark of a constraint: picked at a click. */
const MarkInk = memo(function MarkInk({
  store,
  id,
  kind,
  x,
  y,
  chosen,
  agreeing,
  passive,
  dragFrom,
}: {
  store: BenchStore;
  id: string;
  kind: Mark["kind"];
  x: number;
  y: number;
  chosen: boolean;
  agreeing: boolean;
  passive: boolean;
  /** It is no mark that is dragged, but a box across the paper. */
  dragFrom: (e: PointerEvent, from: Vec2) => void;
}) {
  const pressed = useRef<Vec2>(undefined);
  return (
    <button
      aria-label={`${kind.replaceAll("-", " ")} constraint`}
      title={`${kind}${agreeing ? " (agrees with the others and adds nothing)" : ""}`}
      className={`${passive ? PASSIVE : ""} absolute flex size-4.5 items-center justify-center rounded-full
        border bg-base-100 text-[10px] leading-none
        ${chosen ? "border-accent text-accent" : "border-secondary"}
        ${agreeing ? "border-dashed opacity-70" : ""}`}
      style={{ left: x, top: y }}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        // a quick hand leaves the mark with its first movement
        e.currentTarget.setPointerCapture(e.pointerId);
        pressed.current = [e.clientX, e.clientY];
      }}
      onPointerMove={(e) => {
        const from = pressed.current;
        if (!from || Math.hypot(e.clientX - from[0], e.clientY - from[1]) < DRAG_PIXELS) return;
        pressed.current = undefined;
        dragFrom(e, from);
      }}
      onPointerUp={() => (pressed.current = undefined)}
      onPointerCancel={() => (pressed.current = undefined)}
      onClick={(e) => store.getState().select(e.shiftKey ? [...store.getState().selection, id] : [id])}
    >
      {GLYPHS[kind]}
    </button>
  );
});

/** The marks of all constraints, each beside what it ties. */
export function MarkInks({
  sketch,
  px,
  selection,
  agreeing,
  dragFrom,
  ...rest
}: {
  store: BenchStore;
  sketch: Sketch;
  px: (p: Vec2) => Vec2;
  selection: readonly string[];
  agreeing: ReadonlySet<string>;
  passive: boolean;
  dragFrom: (e: PointerEvent, from: Vec2) => void;
}) {
  // one function over all drawings, so that a mark that stays is not drawn anew
  const now = useRef(dragFrom);
  now.current = dragFrom;
  const begin = useCallback((e: PointerEvent, from: Vec2) => now.current(e, from), []);
  return marksOf(sketch).map((m) => {
    const at = px(m.at);
    return (
      <MarkInk
        key={m.id}
        {...rest}
        id={m.id}
        kind={m.kind}
        x={Math.round(at[0] + 6 + m.place * 20)}
        y={Math.round(at[1] + 7)}
        chosen={selection.includes(m.id)}
        agreeing={agreeing.has(m.id)}
        dragFrom={begin}
      />
    );
  });
}

"use client";

import { memo } from "react";
import type { BenchStore } from "../store";
import { PASSIVE } from "./dimension-ink";
import { GLYPHS, type Mark } from "./marks";

/** One mark of a constraint: picked at a click. */
export const MarkInk = memo(function MarkInk({
  store,
  id,
  kind,
  x,
  y,
  chosen,
  agreeing,
  passive,
}: {
  store: BenchStore;
  id: string;
  kind: Mark["kind"];
  x: number;
  y: number;
  chosen: boolean;
  agreeing: boolean;
  passive: boolean;
}) {
  return (
    <button
      aria-label={`${kind.replaceAll("-", " ")} constraint`}
      title={`${kind}${agreeing ? " (agrees with the others and adds nothing)" : ""}`}
      className={`${passive ? PASSIVE : ""} absolute flex size-4.5 items-center justify-center rounded-full
        border bg-base-100 text-[10px] leading-none
        ${chosen ? "border-accent text-accent" : "border-secondary"}
        ${agreeing ? "border-dashed opacity-70" : ""}`}
      style={{ left: x, top: y }}
      onClick={(e) => store.getState().select(e.shiftKey ? [...store.getState().selection, id] : [id])}
    >
      {GLYPHS[kind]}
    </button>
  );
});

"use client";

import { ChevronDown, ChevronUp } from "lucide-react";
import { useState } from "react";
import { useOverlaid } from "../view/overlaid";
import { GLYPHS } from "../sketch/marks";
import type { BenchStore } from "../store";
import { TrayIcon } from "../../parts/tray-icon";
import { isTaken, takeTool, trayRows } from "./rows";
import type { TrayTool } from "./tool";

/** What is kept free above the tray, pixels. */
const ABOVE = 24;

/** Smaller where a row would not hold them all. */
const SOLID_TOOL = "h-10 w-[66px] text-[10.5px] @max-[39rem]:w-[56px] @max-[39rem]:text-[9.5px]";
const SKETCH_TOOL = "h-[37px] w-[47px] text-[9.5px]";

/** The tools, under the hand: rows of the tray are rows of the keyboard. */
export function Tray({ store }: { store: BenchStore }) {
  const mode = store((s) => s.mode);
  const toolName = store((s) => s.toolName);
  const isSketch = mode.kind === "sketch";
  const rows = trayRows(isSketch);
  const taken = isSketch ? rows.flatMap((r) => r.tools).find((t) => t.variants && isTaken(t, toolName)) : undefined;
  const [folded, setFolded] = useState(false);
  const camera = store((s) => s.camera);
  const box = useOverlaid((_, height) => (camera.foot = height + ABOVE));
  const press = (t: TrayTool) => (e: { currentTarget: HTMLElement }) => (takeTool(store, t), e.currentTarget.blur());
  return (
    <div
      ref={box}
      className={`pointer-events-auto relative max-w-full rounded-box border border-base-300 bg-base-100/95
        px-1.5 py-1 shadow-md`}
      role="toolbar"
      aria-label={isSketch ? "Sketch tools" : "Solid tools"}
    >
      {taken && (
        <div
          className="absolute -top-7 left-9 flex gap-px rounded-field border border-base-300 bg-base-100 text-xs"
          role="group"
          aria-label={`Ways of ${taken.label}`}
        >
          {taken.variants!.map((v) => (
            <button
              key={v.tool}
              aria-pressed={v.tool === toolName}
              className={`px-2 py-1 leading-none
                ${v.tool === toolName ? "bg-[var(--rust-wash)] text-accent" : "hover:bg-base-200"}`}
              onClick={(e) => (store.getState().setTool(v.tool), e.currentTarget.blur())}
            >
              {v.label}
            </button>
          ))}
        </div>
      )}
      <button
        className="btn btn-ghost btn-xs btn-square absolute -top-6 right-1 bg-base-100/95"
        aria-label={folded ? "Unfold the tools" : "Fold the tools away"}
        aria-expanded={!folded}
        title={folded ? "Unfold the tools" : "Fold the tools away"}
        onClick={() => setFolded(!folded)}
      >
        {folded ? <ChevronUp size={14} aria-hidden /> : <ChevronDown size={14} aria-hidden />}
      </button>
      {folded && <span className="quiet px-2 text-xs">Tools folded away; their keys go on working.</span>}
      {(folded ? [] : rows).map((row) => (
        <div key={row.name} className="flex flex-wrap items-center">
          <span className="quiet w-8 text-[11px] @max-[36rem]:hidden">{row.name}</span>
          {row.tools.map((t) => {
            const active = isSketch && isTaken(t, toolName);
            const look = active ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200";
            return row.slim ? (
              <button
                key={t.key}
                title={`${t.label}: ${t.help} (${t.key})`}
                onClick={press(t)}
                className={`relative flex h-6 items-center gap-0.5 whitespace-nowrap rounded-field border px-1
                  text-[10.5px] leading-none tracking-tight ${look}`}
              >
                <kbd className="figures quiet text-[9px]" aria-hidden>
                  {t.key}
                </kbd>
                {t.label}
              </button>
            ) : (
              <button
                key={t.key}
                title={`${t.label}: ${t.help} (${t.key})`}
                aria-label={t.label}
                aria-pressed={active}
                onClick={press(t)}
                className={`relative flex ${isSketch ? SKETCH_TOOL : SOLID_TOOL}
                  @max-[36rem]:h-7 @max-[36rem]:w-8 flex-col items-center justify-center gap-0.5
                  rounded-field border leading-none ${look}`}
              >
                {t.icon ? (
                  <TrayIcon name={t.icon} />
                ) : (
                  <span className="h-[15px] text-[15px] leading-[15px]" aria-hidden>
                    {GLYPHS[t.glyph!]}
                  </span>
                )}
                <span className="@max-[36rem]:hidden">{t.label}</span>
                <kbd className="figures quiet absolute right-0.5 top-0 text-[9px]">{t.key}</kbd>
              </button>
            );
          })}
        </div>
      ))}
    </div>
  );
}

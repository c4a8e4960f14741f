"use client";

import { Check, Circle, Eye, Lock, Maximize, MousePointer2, MoveHorizontal, Pencil, RectangleHorizontal, Slash, SquareDashed, SquareMinus, SquarePlus, Trash2, type LucideIcon } from "lucide-react";
import { frameOf } from "@/core/part/steps/sketch/sketch";
import type { Constraint } from "@/core/sketch/sketch";
import { GLYPHS } from "./sketch/marks";
import { sketchOf, type BenchStore } from "./store";
import { straightAt } from "./view/camera";

interface TrayTool {
  readonly label: string;
  readonly icon?: LucideIcon;
  /** The mark the constraint carries in the sketch. */
  readonly glyph?: Constraint["kind"];
  /** Its place in the tray is its key on the keyboard. */
  readonly key: string;
  readonly tool?: string;
  readonly act?: (store: BenchStore) => void;
}

const look = (store: BenchStore) => {
  const { mode, history, camera, fit } = store.getState();
  const sketch = mode.kind === "sketch" ? sketchOf(history.present, mode.step) : undefined;
  if (sketch) camera.turnTo(straightAt(frameOf(sketch.plane)), fit);
};
const remove = (store: BenchStore) => {
  const { selection, draw, select } = store.getState();
  const ids = [...new Set(selection.map((r) => r.split(".")[0]!))].filter((r) => r !== "origin" && !r.endsWith("-axis"));
  if (ids.length && draw({ do: "delete", ids })) select([]);
};
const construction = (store: BenchStore) => {
  const { selection, draw, history, mode, say } = store.getState();
  const sketch = mode.kind === "sketch" ? sketchOf(history.present, mode.step) : undefined;
  const curves = sketch?.curves.filter((c) => selection.includes(c.id)) ?? [];
  if (!curves.length) return say({ kind: "notice", text: "Pick the curves first that are to become construction lines, or real again.", about: [] });
  draw({ do: "construction", ids: curves.map((c) => c.id), on: !curves.every((c) => c.construction) });
};

const SKETCH_ROWS: readonly { readonly name: string; readonly tools: readonly TrayTool[] }[] = [
  {
    name: "Draw",
    tools: [
      { label: "Pick", icon: MousePointer2, key: "q", tool: "pick" },
      { label: "Line", icon: Slash, key: "w", tool: "line" },
      { label: "Rectangle", icon: RectangleHorizontal, key: "e", tool: "rectangle" },
      { label: "Circle", icon: Circle, key: "r", tool: "circle" },
      { label: "Construct", icon: SquareDashed, key: "t", act: construction },
      { label: "Delete", icon: Trash2, key: "y", act: remove },
      { label: "Fit", icon: Maximize, key: "u", act: (s) => s.getState().fit() },
      { label: "Straight", icon: Eye, key: "i", act: look },
      { label: "Done", icon: Check, key: "o", act: (s) => { s.getState().setTool("pick"); s.getState().select([]); s.getState().leave(); } },
    ],
  },
  {
    name: "Pin",
    tools: [
      { label: "Dimension", icon: MoveHorizontal, key: "a", tool: "dimension" },
      { label: "Coincide", glyph: "coincident", key: "s", tool: "constrain:coincident" },
      { label: "Level", glyph: "horizontal", key: "d", tool: "constrain:horizontal" },
      { label: "Upright", glyph: "vertical", key: "f", tool: "constrain:vertical" },
      { label: "Parallel", glyph: "parallel", key: "g", tool: "constrain:parallel" },
      { label: "Square", glyph: "perpendicular", key: "h", tool: "constrain:perpendicular" },
      { label: "Equal", glyph: "equal", key: "j", tool: "constrain:equal" },
      { label: "Centre", glyph: "concentric", key: "k", tool: "constrain:concentric" },
      { label: "Midpoint", glyph: "midpoint", key: "l", tool: "constrain:midpoint" },
      { label: "On curve", glyph: "point-on-curve", key: ";", tool: "constrain:point-on-curve" },
      { label: "Fix", icon: Lock, key: "'", tool: "constrain:fixed" },
    ],
  },
];

const SOLID_ROWS: typeof SKETCH_ROWS = [
  {
    name: "Build",
    tools: [
      { label: "Sketch", icon: Pencil, key: "q", act: (s) => s.getState().choosePlane() },
      { label: "Add material", icon: SquarePlus, key: "w", act: (s) => s.getState().openExtrude("add") },
      { label: "Cut material", icon: SquareMinus, key: "e", act: (s) => s.getState().openExtrude("cut") },
      { label: "Fit", icon: Maximize, key: "r", act: (s) => s.getState().fit() },
    ],
  },
];

export const trayRows = (isSketch: boolean) => (isSketch ? SKETCH_ROWS : SOLID_ROWS);

export function takeTool(store: BenchStore, t: TrayTool): void {
  if (t.act) t.act(store);
  else if (t.tool) store.getState().setTool(t.tool);
}

/** The tools, under the hand: rows of the tray are rows of the keyboard. */
export function Tray({ store }: { store: BenchStore }) {
  const mode = store((s) => s.mode);
  const toolName = store((s) => s.toolName);
  const isSketch = mode.kind === "sketch";
  return (
    <div className="pointer-events-auto rounded-box border border-base-300 bg-base-100/95 px-1.5 py-1 shadow-md" role="toolbar" aria-label={isSketch ? "Sketch tools" : "Solid tools"}>
      {trayRows(isSketch).map((row) => (
        <div key={row.name} className="flex items-center">
          <span className="quiet w-9 text-xs">{row.name}</span>
          {row.tools.map((t) => {
            const active = isSketch && t.tool === toolName;
            return (
              <button
                key={t.key} title={`${t.label} (${t.key})`} aria-pressed={active} onClick={(e) => (takeTool(store, t), e.currentTarget.blur())}
                className={`relative flex h-11 ${isSketch ? "w-[50px] text-[10px]" : "w-22 text-[11px]"} flex-col items-center justify-center gap-0.5 rounded-field border leading-none ${active ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}
              >
                {t.icon ? <t.icon size={15} strokeWidth={1.6} aria-hidden /> : <span className="h-[15px] text-[15px] leading-[15px]" aria-hidden>{GLYPHS[t.glyph!]}</span>}
                {t.label}
                <kbd className="figures quiet absolute right-0.5 top-0 text-[9px]">{t.key}</kbd>
              </button>
            );
          })}
        </div>
      ))}
    </div>
  );
}

import { useEffect } from "react";
import type { BenchStore } from "./store";
import { takeTool, trayRows } from "./tray";

/** The keyboard of the Bench: keys by a tool's place in the tray, and the few that mean the same everywhere. */
export function useBenchKeys(store: BenchStore): void {
  useEffect(() => {
    const down = (e: KeyboardEvent) => {
      const el = e.target as HTMLElement;
      if (el instanceof HTMLInputElement || el instanceof HTMLTextAreaElement || el instanceof HTMLSelectElement) return;
      const s = store.getState();
      const { camera } = s;
      const key = e.key.toLowerCase();
      const done = () => e.preventDefault();
      if ((e.ctrlKey || e.metaKey) && key === "z") return (e.shiftKey ? s.redo() : s.undo()), done();
      if ((e.ctrlKey || e.metaKey) && key === "y") return s.redo(), done();
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (key === "escape") return s.leave(), done();
      if (key === "delete" || key === "backspace") {
        const row = trayRows(s.mode.kind === "sketch").flatMap((r) => r.tools).find((t) => t.label === "Delete");
        return row && takeTool(store, row), done();
      }
      if (key.startsWith("arrow") && !(el instanceof SVGGElement)) {
        const [dx, dy] = { arrowleft: [-1, 0], arrowright: [1, 0], arrowup: [0, -1], arrowdown: [0, 1] }[key] ?? [0, 0];
        return e.shiftKey ? camera.pan(-dx * 40, -dy * 40) : s.mode.kind === "sketch" ? camera.pan(-dx * 40, -dy * 40) : camera.orbit(-dx * 32.7, -dy * 32.7), done();
      }
      if (key === "+" || key === "=") return camera.zoom(1.25), done();
      if (key === "-") return camera.zoom(0.8), done();
      if (key === "home") return s.fit(), done();
      if (s.mode.kind === "extrude" || s.mode.kind === "plane") return;
      const tool = trayRows(s.mode.kind === "sketch").flatMap((r) => r.tools).find((t) => t.key === key);
      if (tool && !e.repeat) {
        takeTool(store, tool);
        done();
      }
    };
    window.addEventListener("keydown", down);
    return () => window.removeEventListener("keydown", down);
  }, [store]);
  // a part half built is kept on the server; the worker and the timers end with the page
  useEffect(() => () => store.getState().close(), [store]);
}

import type { BenchStore } from "../store";
import { SKETCH_ROWS } from "./sketch-rows";
import { SOLID_ROWS } from "./solid-rows";
import type { TrayRow, TrayTool } from "./tool";

export const trayRows = (isSketch: boolean): readonly TrayRow[] => (isSketch ? SKETCH_ROWS : SOLID_ROWS);
/** Whether a tool of the tray is the one at work, in one of its ways. */
export const isTaken = (t: TrayTool, toolName: string): boolean =>
  t.tool === toolName || (t.variants?.some((v) => v.tool === toolName) ?? false);

export function takeTool(store: BenchStore, t: TrayTool): void {
  const { toolName, hand, setTool } = store.getState();
  if (t.act) return t.act(store);
  if (!t.tool) return;
  if (!isTaken(t, toolName)) return setTool(t.tool);
  // its key once more: the tool's own other way, or the next variant
  if (hand.again()) return;
  const ways = t.variants;
  if (ways) setTool(ways[(ways.findIndex((v) => v.tool === toolName) + 1) % ways.length]!.tool);
}

import type { Constraint } from "@/core/sketch/sketch";
import type { PanelName } from "../state";
import type { BenchStore } from "../store";

export interface TrayTool {
  readonly label: string;
  /** Its drawing in the tray. */
  readonly icon?: string;
  /** The mark the constraint carries in the sketch. */
  readonly glyph?: Constraint["kind"];
  /** Its place in the tray is its key on the keyboard. */
  readonly key: string;
  readonly tool?: string;
  /** Other ways of the same tool; its key pressed again goes on to the next. */
  readonly variants?: readonly { readonly label: string; readonly tool: string }[];
  readonly act?: (store: BenchStore) => void;
  /** What it does, for the help sheet. */
  readonly help: string;
}
export interface TrayRow {
  readonly name: string;
  readonly tools: readonly TrayTool[];
  /** Words in a slim row, above the drawings. */
  readonly slim?: boolean;
}

/** Opens a card over the model, or closes it. */
export const panel = (name: PanelName) => (store: BenchStore) => store.getState().openPanel(name);

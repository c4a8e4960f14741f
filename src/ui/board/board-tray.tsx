"use client";

import { TrayIcon } from "../parts/tray-icon";
import type { BoardStore } from "./store";
import { BOARD_ROWS } from "./tools";

const TAKEN = "border-accent bg-[var(--rust-wash)]";

/** The board's tools, under the hand. */
export function BoardTray({ store }: { store: BoardStore }) {
  const taken = store((s) => s.tool);
  return (
    <div
      className="flex flex-wrap items-center gap-x-3 rounded-box border border-base-300
        bg-base-100 px-1.5 py-1"
      role="toolbar"
      aria-label="Tools of the drawing board"
    >
      {BOARD_ROWS.map((row) => (
        <div key={row.name} className="flex flex-wrap items-center">
          <span className="quiet w-8 text-[11px]">{row.name}</span>
          {row.tools.map((entry) => (
            <button
              key={entry.tool}
              title={`${entry.label}: ${entry.wants[0]} (${entry.key})`}
              aria-label={entry.label}
              aria-pressed={taken === entry.tool}
              onClick={(e) => (store.getState().take(entry.tool), e.currentTarget.blur())}
              className={`relative flex h-10 w-[66px] flex-col items-center justify-center gap-0.5 rounded-field border
                text-[10.5px] leading-none
                ${taken === entry.tool ? TAKEN : "border-transparent hover:bg-base-200"}`}
            >
              <TrayIcon name={entry.icon} />
              <span>{entry.label}</span>
              <kbd className="figures quiet absolute right-0.5 top-0 text-[9px]">{entry.key}</kbd>
            </button>
          ))}
        </div>
      ))}
    </div>
  );
}

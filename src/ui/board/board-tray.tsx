"use client";

import { TrayIcon } from "../parts/tray-icon";
import type { BoardStore } from "./store";
import { BOARD_ROWS } from "./tools";

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
          {row.tools.map((t) => (
            <button
              key={t.tool}
              title={`${t.label}: ${t.wants[0]} (${t.key})`}
              aria-label={t.label}
              aria-pressed={taken === t.tool}
              onClick={(e) => (store.getState().take(t.tool), e.currentTarget.blur())}
              className={`relative flex h-10 w-[66px] flex-col items-center justify-center gap-0.5 rounded-field border
                text-[10.5px] leading-none
                ${taken === t.tool ? "border-accent bg-[var(--rust-wash)]" : "border-transparent hover:bg-base-200"}`}
            >
              <TrayIcon name={t.icon} />
              <span>{t.label}</span>
              <kbd className="figures quiet absolute right-0.5 top-0 text-[9px]">{t.key}</kbd>
            </button>
          ))}
        </div>
      ))}
    </div>
  );
}

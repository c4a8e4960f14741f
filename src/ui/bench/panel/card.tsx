"use client";

import type { ReactNode } from "react";
import type { BenchStore } from "../store";

/** A card over the model, closed by its cross or Escape. */
export function Card({
  store,
  title,
  children,
  wide,
  aside,
}: {
  store: BenchStore;
  title: string;
  children: ReactNode;
  wide?: boolean;
  /** At the left, so that the part stays in sight. */ aside?: boolean;
}) {
  const close = () => store.getState().openPanel(undefined);
  return (
    <div
      role="dialog"
      aria-label={title}
      className={`absolute top-4 z-30 max-h-[80%] ${aside ? "left-3" : "left-1/2 -translate-x-1/2"}
        overflow-y-auto rounded-box border border-accent bg-base-100 p-3 text-[13px] shadow-lg
        ${wide ? "w-[620px] max-w-[97%]" : "w-80"}`}
      data-overlay
      onKeyDown={(e) => e.key === "Escape" && (e.stopPropagation(), close())}
    >
      <div className="flex items-center justify-between pb-2">
        <h2 className="font-semibold">{title}</h2>
        <button className="btn btn-ghost btn-xs" aria-label="Close" onClick={close}>
          ×
        </button>
      </div>
      {children}
    </div>
  );
}

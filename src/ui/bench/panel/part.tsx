"use client";

import type { ReactNode } from "react";

/** A titled stretch of the pane at the right; warm where it asks for a decision. */
export function Part({ title, children, warm }: { title: string; children: ReactNode; warm?: boolean }) {
  return (
    <div className={`px-3.5 py-2 ${warm ? "border-l-3 border-accent bg-[var(--rust-wash)]" : ""}`}>
      <h3 className={`pb-1 text-xs font-semibold ${warm ? "" : "quiet"}`}>{title}</h3>
      {children}
    </div>
  );
}

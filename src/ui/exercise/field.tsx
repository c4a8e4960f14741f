import type { ReactNode } from "react";

export function Field({ label, children, hint }: { label: string; children: ReactNode; hint?: string }) {
  return (
    <label className="block">
      <span className="quiet block text-xs">{label}</span>
      {children}
      {hint && <span className="quiet text-xs">{hint}</span>}
    </label>
  );
}

/** A share as typed in per cent. */
export const percent = (share: number) => String(Number((share * 100).toFixed(6)));

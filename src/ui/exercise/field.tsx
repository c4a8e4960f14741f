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

"use client";

import { begun } from "@/core/naming/words";
import type { Step } from "@/core/part/steps/kinds";
import type { BenchStore } from "./store";

const STEP_HINTS: Partial<Record<Step["kind"], string>> = {
  extrude: "type a depth or drag the arrow, pick regions",
  revolve: "choose what it turns about and how far",
  hole: "click a flat face where the hole shall be; rings can be dragged",
  fillet: "click edges, type a radius or drag the arrow",
  chamfer: "click edges, type a distance or drag the arrow",
  shell: "click the faces that shall be open",
  mirror: "choose what is mirrored and about which plane",
  pattern: "choose what is repeated, the way and how many",
};
export function stepHint(kind: Step["kind"], field: string | undefined): string {
  const wanted = field ? `click on the part for “${field}”` : (STEP_HINTS[kind] ?? "choose what it stands on");
  return `${begun(kind)}: ${wanted}. Enter accepts, Escape leaves without harm.`;
}

/** What the tool wants next, or what just happened. Of one height, so that the drawing never jumps. */
export function HintLine({ store, hint }: { store: BenchStore; hint: string }) {
  const message = store((s) => s.message);
  return (
    <div
      className="h-14 shrink-0 overflow-y-auto border-t border-base-300 px-4 py-1 text-[13px] leading-[17px]"
      aria-live="polite"
    >
      {message ? (
        <p
          role={message.kind === "trouble" ? "alert" : "status"}
          className={`flex justify-between gap-3 ${message.kind === "trouble" ? "text-error" : ""}`}
        >
          <span>{message.text}</span>
          <span className="flex shrink-0 gap-1">
            {message.text.includes("Undo takes it back") && (
              <button className="btn btn-xs" onClick={() => store.getState().undo()}>
                Take it back
              </button>
            )}
            <button className="btn btn-ghost btn-xs" onClick={() => store.getState().say(undefined)}>
              All right
            </button>
          </span>
        </p>
      ) : (
        <p>{hint}</p>
      )}
    </div>
  );
}

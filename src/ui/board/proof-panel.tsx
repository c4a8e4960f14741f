"use client";

import { Plus } from "lucide-react";
import { freeId } from "@/core/sheet/layout/edit";
import { isSameSize, type Size } from "@/core/sizes/size";
import { ProofList } from "../sheet/proof-list";
import type { BoardStore } from "./store";

/** Whether the Sheet says enough, and what the program would print beside. */
export function ProofPanel({ store }: { store: BoardStore }) {
  const proof = store((s) => s.proof),
    proving = store((s) => s.proving),
    proposed = store((s) => s.proposed),
    sizes = store((s) => s.arrangement.sizes),
    dimensions = store((s) => s.drawn?.sheet.dimensions);
  const { apply, choose } = store.getState();
  const missing = proposed.filter((p) => !sizes.some((s) => isSameSize(s, p.size)));
  const shown = new Set(dimensions?.map((d) => d.id));
  const unseen = dimensions ? sizes.filter((s) => s.free !== true && !shown.has(s.id)) : [];
  const add = (size: Size) => {
    const taken = sizes.map((s) => s.id);
    const id = taken.includes(size.id) ? freeId("h", taken) : size.id;
    apply({ change: "add-size", size: { ...size, id } });
    choose({ what: "size", id });
  };
  return (
    <>
      {proof ? (
        <div aria-busy={proving !== undefined}>
          <ProofList proof={proof} show={store.getState().show} />
        </div>
      ) : (
        <section aria-label="Sheet proof">
          <h2 className="font-semibold">Sheet proof</h2>
          <p className="quiet text-sm">
            <span className="loading loading-dots loading-xs mr-1" />
            The numbers of the reference are being followed
            {proving?.of ? `: ${proving.done} of ${proving.of}` : ""}.
          </p>
        </section>
      )}
      {(missing.length > 0 || unseen.length > 0) && (
        <section aria-label="Not on the Sheet">
          <h2 className="font-semibold">Not on the Sheet</h2>
          <ul className="mt-1 space-y-0.5">
            {missing.map(({ size, text }) => (
              <li key={size.id} className="flex items-center gap-2">
                <span className="figures flex-1">{text}</span>
                <button className="btn btn-xs" aria-label={`Add ${text}`} onClick={() => add(size)}>
                  <Plus size={13} aria-hidden /> Add
                </button>
              </li>
            ))}
            {unseen.map((s) => (
              <li key={s.id} className="flex items-center gap-2 text-accent">
                <span className="flex-1 text-sm">A {NOUNS[s.kind] ?? "size"} that no view shows, or that is lost</span>
                <button className="btn btn-xs" onClick={() => apply({ change: "drop-size", id: s.id })}>
                  Leave out
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

const NOUNS: Partial<Record<Size["kind"], string>> = {
  distance: "distance",
  diameter: "diameter",
  radius: "radius",
  angle: "angle",
  depth: "depth",
  wall: "wall",
  chamfer: "chamfer",
};

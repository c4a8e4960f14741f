"use client";

import { COINCIDENT } from "@/core/geometry/tolerance";
import { useEffect, useRef } from "react";
import { readQuantity } from "@/core/units/quantity";
import type { Sheet } from "@/core/sheet/sheet";
import type { BenchStore } from "./store";
import { PICTORIAL } from "./view/camera";
import { LOOKS } from "./view/unfolded-box";

/**
 * The Sheet in the Bench is alive: sizes can be ticked off and tick themselves when used; a click on a view turns the
 * model to it.
 */
export function SheetPane({
  store,
  sheet,
  trouble,
}: {
  store: BenchStore;
  sheet: Sheet | null;
  trouble: string | null;
}) {
  const box = useRef<HTMLDivElement>(null);
  const ticked = store((s) => s.ticked);
  const document = store((s) => s.history.present);

  // a size is used when a dimension or a depth of the same kind and value stands in the part
  useEffect(() => {
    if (!sheet) return;
    const sizes: { size: number; kind: string }[] = [];
    const give = (value: string | number, kind: string) => {
      const r = readQuantity(value, "length", document.units);
      if (r.ok) sizes.push({ size: r.value, kind });
    };
    for (const s of document.steps) {
      if (s.kind === "sketch")
        for (const d of s.sketch.dimensions) {
          if (d.kind !== "angle")
            give(d.value, d.kind === "diameter" ? "diameter" : d.kind === "radius" ? "radius" : "linear");
        }
      if (s.kind === "extrude" && "depth" in s.extent) give(s.extent.depth, "linear");
    }
    const { ticked: now, tick } = store.getState();
    for (const d of sheet.dimensions)
      if (
        !now.has(d.id) &&
        sizes.some((s) => s.kind === d.kind && Math.abs(s.size - d.size) < COINCIDENT * Math.max(1, d.size))
      )
        tick(d.id);
  }, [document, sheet, store]);

  useEffect(() => {
    box.current
      ?.querySelectorAll<SVGGElement>("[data-dimension]")
      .forEach((g) => g.classList.toggle("used", ticked.has(g.dataset["dimension"]!)));
  }, [ticked, sheet]);

  if (!sheet)
    return (
      <div className="quiet p-6 text-sm">
        {trouble ? (
          <p role="alert" className="text-error">
            {trouble}
          </p>
        ) : (
          "No Sheet yet. It is drawn from the reference part as soon as that has a solid."
        )}
      </div>
    );
  const click = (e: React.MouseEvent | React.KeyboardEvent) => {
    const el = e.target as Element;
    const dimension = el.closest("[data-dimension]");
    if (dimension) return store.getState().tick(dimension.getAttribute("data-dimension")!);
    const view = el.closest("[data-view]")?.getAttribute("data-view");
    const side = sheet.projection === "first-angle" ? "left" : "right";
    if (view)
      store
        .getState()
        .camera.turnTo(
          view === "pictorial" ? PICTORIAL : LOOKS[view === "side" ? side : (view as "front" | "top")],
          store.getState().fit,
        );
  };
  return (
    <div
      ref={box}
      className={`live-sheet h-full overflow-auto bg-base-200 [&_svg]:mx-auto [&_svg]:block [&_svg]:h-full
        [&_svg]:max-w-full`}
      aria-label="The Sheet"
      onClick={click}
      onKeyDown={(e) => e.key === "Enter" && click(e)}
      dangerouslySetInnerHTML={{ __html: sheet.svg }}
    />
  );
}

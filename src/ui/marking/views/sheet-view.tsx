"use client";

import { useEffect, useMemo, useRef } from "react";
import type { SizesEvidence } from "@/core/check/kinds/sizes/kind";
import type { Comment } from "@/core/grade/decision";
import { useSheetView } from "../../sheet/sheet-view";

const CLASSES = { met: "size-right", missed: "size-wrong", lost: "size-wrong", free: "size-free" } as const;

/** The Sheet with right and wrong sizes on it, and remarks pinned to its paper. */
export function SheetView({
  svg,
  sizes,
  pins,
  onPlace,
  note,
}: {
  svg: string | undefined;
  sizes: SizesEvidence | undefined;
  pins: readonly Pick<Comment, "pin">[];
  onPlace: ((at: [number, number]) => void) | undefined;
  /** What is said below, in place of what the colours mean. */
  note?: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  useSheetView(box, svg);
  const markup = useMemo(() => ({ dangerouslySetInnerHTML: { __html: svg ?? "" } }), [svg]);
  useEffect(() => {
    const states = new Map(sizes?.sizes.map((s) => [s.id, sizes.scale === undefined ? s.state : ("missed" as const)]));
    box.current?.querySelectorAll<SVGGElement>("[data-dimension]").forEach((g) => {
      g.classList.remove(...Object.values(CLASSES));
      const state = states.get(g.dataset["dimension"]!);
      if (state) g.classList.add(CLASSES[state]);
    });
  }, [sizes, svg]);
  useEffect(() => {
    const sheet = box.current?.querySelector("svg");
    if (!sheet) return;
    const layer = document.createElementNS("http://www.w3.org/2000/svg", "g");
    layer.setAttribute("class", "sheet-pins");
    pins.forEach((c, i) => {
      if (c.pin?.on !== "sheet") return;
      const [x, y] = c.pin.at;
      const dot = document.createElementNS("http://www.w3.org/2000/svg", "circle"),
        text = document.createElementNS("http://www.w3.org/2000/svg", "text");
      for (const [k, v] of [
        ["cx", x],
        ["cy", y],
        ["r", 3],
      ] as const)
        dot.setAttribute(k, String(v));
      for (const [k, v] of [
        ["x", x],
        ["y", y + 1.2],
      ] as const)
        text.setAttribute(k, String(v));
      text.textContent = String(i + 1);
      layer.append(dot, text);
    });
    sheet.append(layer);
    return () => layer.remove();
  }, [pins, svg]);
  const place = (e: React.MouseEvent) => {
    const sheet = box.current?.querySelector("svg"),
      m = sheet?.getScreenCTM()?.inverse();
    if (!m || !onPlace) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    onPlace([p.x, p.y]);
  };
  if (!svg) return <p className="quiet p-8">This handout has no Sheet.</p>;
  return (
    <div className="flex h-full flex-col">
      <div
        ref={box}
        className={`marked-sheet min-h-0 flex-1 touch-none overflow-hidden bg-base-200 [&_svg]:block [&_svg]:h-full
          [&_svg]:w-full ${onPlace ? "cursor-crosshair" : ""}`}
        role="img"
        aria-label="The Sheet"
        title="Wheel enlarges, drag moves, double click shows a view or the whole"
        onClick={place}
        {...markup}
      />
      <div className="flex min-h-11 items-center gap-6 border-t border-base-300 px-4 py-1.5 text-sm">
        <Legend note={note} hasSizes={sizes !== undefined} />
      </div>
    </div>
  );
}

/** What the colours mean, or what is said in their place. */
function Legend({ note, hasSizes }: { note: string | undefined; hasSizes: boolean }) {
  if (note) return <span className="quiet">{note}</span>;
  if (!hasSizes) return <span className="quiet">The rubric has no line for printed sizes, so none were measured.</span>;
  return (
    <>
      <span className="text-success">✓ as printed</span>
      <span className="font-semibold text-accent underline decoration-wavy">✗ not as printed, or not found</span>
    </>
  );
}

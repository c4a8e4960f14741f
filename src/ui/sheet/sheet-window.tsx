"use client";

import { useEffect, useMemo, useRef, useState } from "react";
import { SheetBar } from "../bench/sheet-bar";
import { SheetLink } from "./sheet-link";
import { useSheetView } from "./sheet-view";

/** How long a Bench may take to answer before the window says where to find it. */
const PATIENCE_MS = 1500;

/** The Sheet on a second screen, in step with its Bench: what is pointed at, ticked off and turned to. */
export function SheetWindow({ of }: { of: string }) {
  const box = useRef<HTMLDivElement>(null);
  const [sheet, setSheet] = useState<{ readonly heading: string; readonly svg: string }>();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [hovered, setHovered] = useState<string | null>(null);
  const [isLate, setLate] = useState(false);
  const link = useRef<SheetLink>(undefined);
  const look = useSheetView(box, sheet?.svg, { onDrawn: true });
  const looked = useRef(look);
  looked.current = look;
  useEffect(() => {
    const way = new SheetLink(of, (told) => {
      if (told.told === "sheet") setSheet(told);
      if (told.told === "ticked") setTicked(new Set(told.ids));
      if (told.told === "hovered") setHovered(told.id);
      if (told.told === "turned") looked.current?.showView(told.key);
    });
    link.current = way;
    way.tell({ told: "hello" });
    const timer = setTimeout(() => setLate(true), PATIENCE_MS);
    return () => {
      clearTimeout(timer);
      way.close();
    };
  }, [of]);
  useEffect(() => {
    for (const g of box.current?.querySelectorAll<SVGGElement>("[data-dimension]") ?? []) {
      const id = g.dataset["dimension"]!;
      g.classList.toggle("used", ticked.has(id));
      g.classList.toggle("chosen", id === hovered);
    }
  }, [ticked, hovered, sheet]);
  useEffect(() => {
    if (sheet) document.title = sheet.heading;
  }, [sheet]);
  const markup = useMemo(() => ({ dangerouslySetInnerHTML: { __html: sheet?.svg ?? "" } }), [sheet?.svg]);
  if (!sheet)
    return (
      <main className="p-8">
        <h1 className="font-semibold">The Sheet</h1>
        <p className="quiet mt-2">
          {isLate
            ? "Open the part in the Bench: its Sheet shows here as soon as it is there."
            : "Looking for its Bench …"}
        </p>
      </main>
    );
  const idAt = (t: EventTarget) => (t as Element).closest("[data-dimension]")?.getAttribute("data-dimension") ?? null;
  const click = (e: React.MouseEvent | React.KeyboardEvent) => {
    const id = idAt(e.target);
    if (id) return link.current?.tell({ told: "size", id, asSum: e.altKey });
    const key = (e.target as Element).closest("[data-view]")?.getAttribute("data-view");
    if (key) link.current?.tell({ told: "view", key });
  };
  return (
    <main className="relative h-screen">
      <h1 className="sr-only">{sheet.heading}</h1>
      <div
        ref={box}
        className="live-sheet h-full touch-none overflow-hidden bg-base-200 [&_svg]:block [&_svg]:h-full [&_svg]:w-full"
        role="region"
        aria-label="The Sheet"
        tabIndex={0}
        onClick={click}
        onKeyDown={(e) => e.key === "Enter" && click(e)}
        onMouseOver={(e) => link.current?.tell({ told: "hovered", id: idAt(e.target) })}
        onMouseLeave={() => link.current?.tell({ told: "hovered", id: null })}
        {...markup}
      />
      <SheetBar look={look} />
    </main>
  );
}

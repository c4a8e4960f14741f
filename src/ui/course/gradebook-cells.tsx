import { useRef, useState } from "react";
import { PartPicture } from "../parts/part-picture";

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Cells by the arrow keys: one of them takes the keyboard, and shows its part. */
export function Cells({ children }: { children: React.ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [shown, setShown] = useState<{ readonly hash: string; readonly x: number; readonly y: number }>();
  // one picture for all cells: that of the one pointed at, or focused
  const point = (e: { readonly target: EventTarget }) => {
    const cell = (e.target as Element).closest<HTMLElement>("[data-picture]");
    const hash = cell?.dataset["picture"];
    if (!cell || !hash) return setShown(undefined);
    const at = cell.getBoundingClientRect();
    setShown({ hash, x: Math.min(at.left, window.innerWidth - 200), y: at.bottom + 4 });
  };
  const key = (event: React.KeyboardEvent) => {
    const step = STEPS[event.key];
    const grid = box.current;
    if (!step || !grid) return;
    const rows = [...grid.querySelectorAll("tbody tr")].map((r) => [...r.children]);
    const now = (document.activeElement?.closest("td, th") ?? rows[0]?.[0]) as Element;
    let [r, c] = [rows.findIndex((list) => list.includes(now)), 0];
    if (r < 0) r = 0;
    else c = rows[r]!.indexOf(now);
    // on to the next cell that can be opened
    for (;;) {
      r += step[1];
      c += step[0];
      const cell = rows[r]?.[c];
      if (!cell) return;
      const target = cell.querySelector<HTMLElement>("[data-cell]");
      if (!target) continue;
      event.preventDefault();
      return target.focus();
    }
  };
  return (
    <div
      ref={box}
      className="mt-3 max-h-[75vh] overflow-auto print:max-h-none print:overflow-visible"
      tabIndex={0}
      role="region"
      aria-label="Students against handouts"
      onKeyDown={key}
      onMouseOver={point}
      onMouseLeave={() => setShown(undefined)}
      onFocus={point}
      onBlur={() => setShown(undefined)}
      onScroll={() => setShown(undefined)}
    >
      {children}
      {shown && (
        <div
          className="no-print pointer-events-none fixed z-20 w-48 border border-base-300 bg-base-100 p-2 shadow"
          style={{ left: shown.x, top: shown.y }}
        >
          <PartPicture hash={shown.hash} alt="" isLarge />
        </div>
      )}
    </div>
  );
}

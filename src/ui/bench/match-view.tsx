"use client";

import { useEffect, useState, type RefObject } from "react";
import type { Sheet } from "@/core/sheet/sheet";
import type { BenchStore } from "./store";

/** What lies over the Sheet: nothing, the student's own lines, or both in turn. */
const WAYS = [
  ["off", "Match view"],
  ["over", "Own lines over the Sheet"],
  ["blink", "Sheet and own lines in turn"],
] as const;
type Way = (typeof WAYS)[number][0];

/**
 * Draws the part that stands on the Bench the way the Sheet's views are drawn, over them: it shows only the student's
 * own lines, and one sees where they part from the paper.
 */
export function MatchView({
  store,
  sheet,
  host,
}: {
  store: BenchStore;
  sheet: Sheet;
  host: RefObject<HTMLElement | null>;
}) {
  const [way, setWay] = useState<Way>("off");
  const [trouble, setTrouble] = useState("");
  const [sought, setSought] = useState("");
  useEffect(() => {
    const text = sought.trim().toLowerCase();
    const isFound = (g: Element) =>
      text !== "" && (g.querySelector("text")?.textContent ?? "").toLowerCase().includes(text);
    host.current?.querySelectorAll("[data-dimension]").forEach((g) => g.classList.toggle("found", isFound(g)));
  }, [sought, sheet, host]);
  const built = store((s) => s.built);
  const building = store((s) => s.building);
  const views = sheet.views?.filter((v) => v.scale !== undefined) ?? [];
  useEffect(() => {
    const svg = host.current?.querySelector("svg");
    if (!svg || way === "off" || building) return;
    if (!built?.properties) return setTrouble("There is no part yet to lay over the Sheet.");
    setTrouble("");
    const layer = document.createElementNS("http://www.w3.org/2000/svg", "g");
    layer.setAttribute("class", `matched ${way}`);
    let isOver = false;
    const draw = async () => {
      for (const view of views) {
        const a = await store.getState().ask({ ask: "match", of: built.id, view });
        if (isOver) return;
        // our own drawing: numbers and names of pens alone
        if ("lines" in a) layer.insertAdjacentHTML("beforeend", a.lines);
      }
    };
    svg.append(layer);
    draw().catch(() => !isOver && setTrouble("The part has changed meanwhile, or a view of it could not be drawn."));
    return () => {
      isOver = true;
      layer.remove();
    };
    // the views belong to the sheet
  }, [way, built, building, sheet, store, host]);
  if (!views.length) return null;
  return (
    <div className="absolute inset-x-2 bottom-2 z-10 flex flex-wrap items-center gap-2" data-overlay>
      <select
        aria-label="Match view"
        className="select select-xs min-w-28 max-w-52 flex-1"
        value={way}
        onChange={(e) => setWay(e.target.value as Way)}
      >
        {WAYS.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </select>
      <input
        type="search"
        aria-label="Find a number on the Sheet"
        placeholder="Find a number"
        className="input input-xs min-w-24 max-w-36 flex-1"
        value={sought}
        onChange={(e) => setSought(e.target.value)}
        onKeyDown={(e) => e.stopPropagation()}
      />
      {way !== "off" && trouble && (
        <span role="status" className="rounded-field bg-base-100 px-2 text-xs">
          {trouble}
        </span>
      )}
    </div>
  );
}

import { useState } from "react";
import type { Sheet } from "@/core/sheet/sheet";
import { placeFor } from "../sheet/paper-window";
import type { SheetPlace } from "./sheet-bar";

const KEPT = "caliper-sheet-place";
/** Room that sizes take around the views, mm. */
const ROUND = 14;
const VIEW =
  /class="view"[^>]*>(?:<title>[^<]*<\/title>)?<rect x="([-\d.]+)" y="([-\d.]+)" width="([\d.]+)" height="([\d.]+)"/g;

/** How wide and high what is drawn on a Sheet is, about: its views and the sizes around them. */
export function drawnExtent(svg: string): { readonly width: number; readonly height: number } | undefined {
  const views = [...svg.matchAll(VIEW)].map((m) => m.slice(1, 5).map(Number) as [number, number, number, number]);
  if (!views.length) return undefined;
  const reach = (at: 0 | 1) =>
    Math.max(...views.map((v) => v[at] + v[at + 2]!)) - Math.min(...views.map((v) => v[at])) + 2 * ROUND;
  return { width: reach(0), height: reach(1) };
}

/** Where the Sheet stands beside the model: as it was put, else where what is drawn on it is larger. */
export function useSheetPlace(sheet: Sheet | null): readonly [SheetPlace, (place: SheetPlace) => void] {
  const [place, setPlace] = useState<SheetPlace>(() => {
    const kept = localStorage.getItem(KEPT);
    if (kept === "left" || kept === "top") return kept;
    const drawn = sheet ? drawnExtent(sheet.svg) : undefined;
    return drawn ? placeFor(drawn, { width: window.innerWidth, height: window.innerHeight - 45 }) : "left";
  });
  const put = (next: SheetPlace) => {
    localStorage.setItem(KEPT, next);
    setPlace(next);
  };
  return [place, put];
}

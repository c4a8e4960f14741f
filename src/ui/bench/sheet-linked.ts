import { useEffect, useRef, type RefObject } from "react";
import type { Sheet } from "@/core/sheet/sheet";
import { SheetLink } from "../sheet/sheet-link";
import type { BenchStore } from "./store";

/** The size that something on the Sheet belongs to. */
export const sizeAt = (t: EventTarget): string | null =>
  (t as Element).closest("[data-dimension]")?.getAttribute("data-dimension") ?? null;

/** Opens the Sheet in a window of its own; once open it comes to the front. */
export const openSheetWindow = (of: string): void =>
  void window.open(`/sheet?of=${encodeURIComponent(of)}`, `caliper-sheet ${of}`, "popup,width=1100,height=800");

interface Linked {
  readonly store: BenchStore;
  readonly box: RefObject<HTMLElement | null>;
  readonly sheet: Sheet | null;
  readonly heading: string;
  readonly of: string;
  readonly ticked: ReadonlySet<string>;
  /** What a click in the other window does here. */
  readonly clicks: RefObject<{ size: (id: string, asSum: boolean) => void; view: (key: string) => void } | undefined>;
}

/** Keeps the window of the Sheet in step with what is pointed at, ticked off and turned to here, and the other way. */
export function useSheetLink({ box, sheet, heading, of, ticked, clicks }: Linked): RefObject<SheetLink | undefined> {
  const link = useRef<SheetLink>(undefined);
  const now = useRef({ sheet, heading, ticked });
  now.current = { sheet, heading, ticked };
  useEffect(() => {
    const show = (): void => {
      const { sheet: s, heading: h, ticked: t } = now.current;
      if (s) way.tell({ told: "sheet", heading: h, svg: s.svg });
      way.tell({ told: "ticked", ids: [...t] });
    };
    const way = new SheetLink(of, (told) => {
      if (told.told === "hello") show();
      if (told.told === "size") clicks.current?.size(told.id, told.asSum);
      if (told.told === "view") clicks.current?.view(told.key);
      if (told.told === "hovered")
        for (const g of box.current?.querySelectorAll<SVGGElement>("[data-dimension]") ?? [])
          g.classList.toggle("chosen", g.dataset["dimension"] === told.id);
    });
    link.current = way;
    // a window that outlived an earlier Bench hears of this one
    show();
    return () => way.close();
  }, [of, box, clicks]);
  useEffect(() => {
    if (sheet) link.current?.tell({ told: "sheet", heading, svg: sheet.svg });
  }, [sheet, heading]);
  useEffect(() => link.current?.tell({ told: "ticked", ids: [...ticked] }), [ticked]);
  return link;
}

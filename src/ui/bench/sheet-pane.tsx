"use client";

import { COINCIDENT } from "@/core/geometry/tolerance";
import { useEffect, useMemo, useRef } from "react";
import { quantityOf } from "@/core/sketch/sketch";
import { readQuantity } from "@/core/units/quantity";
import type { Sheet } from "@/core/sheet/sheet";
import type { BenchStore } from "./store";
import { MatchView } from "./match-view";
import { fieldAtWork, typedNumber, typeInto, withNumberTaken } from "./take-size";
import { useSheetView } from "../sheet/sheet-view";
import { SheetBar, type SheetPlace } from "./sheet-bar";
import { openSheetWindow, sizeAt, useSheetLink } from "./sheet-linked";
import { PICTORIAL, type Look } from "./view/camera";
import { LOOKS } from "./view/unfolded-box";

/** How a view of the Sheet looks, by its key; in Sheets of before by its name. */
function lookOf(sheet: Sheet, view: string): Look | undefined {
  const known = sheet.views?.find((v) => (v.key ?? v.name) === view);
  if (known) return known.gaze;
  if (view === "pictorial") return PICTORIAL;
  const side = sheet.projection === "first-angle" ? "left" : "right";
  return LOOKS[view === "side" ? side : (view as "front" | "top")];
}

/** Ticks those that are not ticked yet. */
function tickAll(store: BenchStore, ids: readonly string[]): void {
  const { ticked, tick } = store.getState();
  for (const id of ids) if (!ticked.has(id)) tick(id);
}

/**
 * The Sheet in the Bench is alive: sizes can be ticked off and tick themselves when used; a click on a view turns the
 * model to it.
 */
export function SheetPane({
  store,
  sheet,
  trouble,
  heading,
  of,
  place,
  put,
}: {
  store: BenchStore;
  sheet: Sheet | null;
  trouble: string | null;
  heading: string;
  /** What tells this part from others: where it is saved to. */
  of: string;
  place: SheetPlace;
  put: (place: SheetPlace) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const look = useSheetView(box, sheet?.svg, { onDrawn: true });
  const markup = useMemo(() => ({ dangerouslySetInnerHTML: { __html: sheet?.svg ?? "" } }), [sheet?.svg]);
  const ticked = store((s) => s.ticked);
  const document = store((s) => s.history.present);

  const built = store((s) => s.built);
  const building = store((s) => s.building);

  // a size is used when a sketch has a dimension of its kind and value, and when the part shows it
  useEffect(() => {
    if (!sheet) return;
    const typed = document.steps.flatMap((s) => (s.kind === "sketch" ? s.sketch.dimensions : []));
    const sizes = typed.flatMap((d) => {
      const r = quantityOf(d) === "length" ? readQuantity(d.value, "length", document.units) : undefined;
      return r?.ok ? [{ size: r.value, kind: d.kind === "diameter" || d.kind === "radius" ? d.kind : "distance" }] : [];
    });
    const near = (a: number, b: number) => Math.abs(a - b) < COINCIDENT * Math.max(1, b);
    const used = sheet.dimensions.filter((d) =>
      sizes.some((s) => s.kind === d.kind && d.values?.[0] !== undefined && near(s.size, d.values[0])),
    );
    tickAll(
      store,
      used.map((d) => d.id),
    );
  }, [document, sheet, store]);
  useEffect(() => {
    const open = sheet?.dimensions.filter((d) => !store.getState().ticked.has(d.id)) ?? [];
    if (!open.length || !built?.properties || building) return;
    const sizes = open.flatMap(({ id, kind, values, limits }) => (values ? [{ id, kind, values, limits }] : []));
    store
      .getState()
      .ask({ ask: "printed", of: built.id, sizes, unit: document.units })
      .then((a) => "found" in a && tickAll(store, a.found))
      // the part has changed since: the next one is asked again
      .catch(() => {});
  }, [built, building, sheet, store, document.units]);

  useEffect(() => {
    box.current
      ?.querySelectorAll<SVGGElement>("[data-dimension]")
      .forEach((g) => g.classList.toggle("used", ticked.has(g.dataset["dimension"]!)));
  }, [ticked, sheet]);

  const clicks = useRef<{ size: (id: string, asSum: boolean) => void; view: (key: string) => void }>(undefined);
  const link = useSheetLink({ store, box, sheet, heading, of, ticked, clicks });
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
  // while a number is being typed a printed one is taken into it
  const takeSize = (id: string, asSum: boolean): boolean => {
    const field = fieldAtWork(),
      size = sheet.dimensions.find((d) => d.id === id);
    const number = size && typedNumber(size, document.units);
    if (!field || number === undefined) return false;
    const isWhole = field.selectionEnd !== field.selectionStart && field.selectionEnd === field.value.length;
    typeInto(field, withNumberTaken(field.value, !asSum && isWhole && field.selectionStart === 0, number));
    tickAll(store, [id]);
    return true;
  };
  const turnTo = (view: string) => {
    const found = lookOf(sheet, view);
    if (found) store.getState().camera.turnTo(found, store.getState().fit);
  };
  clicks.current = {
    size: (id, asSum) => void (takeSize(id, asSum) || store.getState().tick(id)),
    view: turnTo,
  };
  const click = (e: React.MouseEvent | React.KeyboardEvent) => {
    const el = e.target as Element;
    const dimension = el.closest("[data-dimension]");
    if (dimension) {
      const id = dimension.getAttribute("data-dimension")!;
      return clicks.current!.size(id, e.altKey);
    }
    const view = el.closest("[data-view]")?.getAttribute("data-view");
    if (!view) return;
    turnTo(view);
    link.current?.tell({ told: "turned", key: view });
  };
  return (
    <div className="relative h-full">
      <div
        ref={box}
        className="live-sheet h-full touch-none overflow-hidden bg-base-200 [&_svg]:block [&_svg]:h-full [&_svg]:w-full"
        aria-label="The Sheet"
        title={
          "Wheel or + and − enlarge, drag moves, double click shows a view or all; 0 the whole paper. " +
          "While a number is asked for, a click types a printed one, Alt and click adds it as a sum"
        }
        tabIndex={0}
        onMouseDown={(e) => {
          // the field that is typed in keeps the keyboard
          if (fieldAtWork() && (e.target as Element).closest("[data-dimension]")) e.preventDefault();
        }}
        onClick={click}
        onKeyDown={(e) => e.key === "Enter" && click(e)}
        onMouseOver={(e) => link.current?.tell({ told: "hovered", id: sizeAt(e.target) })}
        onMouseLeave={() => link.current?.tell({ told: "hovered", id: null })}
        // made anew only with another Sheet: what lies over it stays
        {...markup}
      />
      <SheetBar look={look} place={place} put={put} openWindow={() => openSheetWindow(of)} />
      <MatchView store={store} sheet={sheet} host={box} />
    </div>
  );
}

import type { z } from "zod";
import type { Vec2 } from "@/core/geometry/vector";
import type { Size } from "@/core/sizes/size";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import type { Layout, Place, Remark, ViewSpec } from "./layout";
import type { SheetSettingsSchema } from "../subject";

type Settings = z.infer<typeof SheetSettingsSchema>;

/** What somebody arranges: the sizes a Sheet prints, and how they stand on it. */
export interface Arrangement {
  readonly sizes: readonly Size[];
  readonly sheet: Settings;
}

/** A change to a Sheet, as it is made by hand. */
export type SheetChange =
  | { readonly change: "place"; readonly id: string; readonly place: Place }
  | { readonly change: "drop-size"; readonly id: string }
  | { readonly change: "add-size"; readonly size: Size }
  /** Tolerance, lettering, freedom; what it measures stays. */
  | { readonly change: "letter"; readonly id: string; readonly to: Pick<Size, "lettering" | "tolerance" | "free"> }
  | { readonly change: "add-view"; readonly view: ViewSpec }
  /** Several views are put somewhere at once. */
  | { readonly change: "views"; readonly to: readonly { readonly key: string; readonly middle: Vec2 }[] }
  | { readonly change: "view"; readonly key: string; readonly to: Partial<Omit<ViewSpec, "key">> }
  | { readonly change: "drop-view"; readonly key: string }
  | { readonly change: "remark"; readonly remark: Remark }
  | { readonly change: "drop-remark"; readonly id: string }
  | { readonly change: "scale"; readonly scale: number }
  | { readonly change: "settings"; readonly to: Partial<Settings> }
  /** Everything is laid out anew. */
  | { readonly change: "lay-out" };

const NO_LAYOUT = refuse("no-layout", "The Sheet has not been laid out yet.");

/** An arrangement with a change; refused in a sentence where it cannot be. */
export function changed(arrangement: Arrangement, c: SheetChange): Outcome<Arrangement> {
  switch (c.change) {
    case "settings":
      return done({ ...arrangement, sheet: { ...arrangement.sheet, ...c.to } });
    case "lay-out":
      return done({ ...arrangement, sheet: withoutLayout(arrangement.sheet) });
    case "add-size":
      return done({ ...arrangement, sizes: [...arrangement.sizes, c.size] });
    case "letter":
      return done({ ...arrangement, sizes: arrangement.sizes.map((s) => (s.id === c.id ? lettered(s, c.to) : s)) });
    case "drop-size":
      return done(withoutSize(arrangement, c.id));
    default: {
      const { layout } = arrangement.sheet;
      if (!layout) return NO_LAYOUT;
      const next = changedLayout(layout, c);
      return next.ok ? done({ ...arrangement, sheet: { ...arrangement.sheet, layout: next.value } }) : next;
    }
  }
}

/**
 * An arrangement with everything where it stands: what is changed next then changes alone. What somebody has arranged
 * stays, and what has gone since it was drawn does not come back.
 * @param drawn all that the arrangement came to when it was drawn last
 */
export function frozen(arrangement: Arrangement, drawn: Layout, paper: NonNullable<Settings["paper"]>): Arrangement {
  const { layout } = arrangement.sheet;
  const stood = new Map(drawn.views.map((v) => [v.key, v]));
  const views = layout ? layout.views.map((v) => ({ ...stood.get(v.key), ...v })) : drawn.views;
  const sizes = new Set(arrangement.sizes.map((s) => s.id));
  const places = Object.entries({ ...drawn.places, ...layout?.places }).filter(([id]) => sizes.has(id));
  return {
    sizes: arrangement.sizes,
    sheet: {
      ...arrangement.sheet,
      paper: arrangement.sheet.paper ?? paper,
      layout: {
        scale: layout?.scale ?? drawn.scale,
        views,
        places: Object.fromEntries(places),
        remarks: layout?.remarks ?? [],
      },
    },
  };
}

function withoutLayout({ layout: _, paper: __, ...rest }: Settings): Settings {
  return rest;
}

/** What is left out goes back to what the drawing does. */
function lettered(s: Size, to: Pick<Size, "lettering" | "tolerance" | "free">): Size {
  const { lettering: _, tolerance: __, free: ___, ...bare } = s;
  const { lettering, tolerance, free } = to;
  return {
    ...bare,
    ...(lettering && Object.values(lettering).some((v) => v !== undefined) && { lettering }),
    ...(tolerance && { tolerance }),
    ...(free !== undefined && { free }),
  } as Size;
}

function withoutSize(a: Arrangement, id: string): Arrangement {
  const sizes = a.sizes.filter((s) => s.id !== id);
  const { layout } = a.sheet;
  if (!layout) return { ...a, sizes };
  const { [id]: _, ...places } = layout.places;
  return { sizes, sheet: { ...a.sheet, layout: { ...layout, places } } };
}

type LayoutChange = Exclude<SheetChange, { change: "settings" | "lay-out" | "add-size" | "letter" | "drop-size" }>;

function changedLayout(l: Layout, c: LayoutChange): Outcome<Layout> {
  switch (c.change) {
    case "place":
      return done({ ...l, places: { ...l.places, [c.id]: c.place } });
    case "scale":
      return done({ ...l, scale: c.scale });
    case "add-view":
      return done({ ...l, views: [...l.views, c.view] });
    case "view":
      return done({ ...l, views: l.views.map((v) => (v.key === c.key ? { ...v, ...c.to } : v)) });
    case "views": {
      const middles = new Map(c.to.map((v) => [v.key, v.middle]));
      const put = (v: ViewSpec) => {
        const middle = middles.get(v.key);
        return middle ? { ...v, middle: [middle[0], middle[1]] as [number, number] } : v;
      };
      return done({ ...l, views: l.views.map(put) });
    }
    case "drop-view":
      return withoutView(l, c.key);
    case "remark": {
      const others = (l.remarks ?? []).filter((r) => r.id !== c.remark.id);
      return done({ ...l, remarks: [...others, c.remark] });
    }
    case "drop-remark":
      return done({ ...l, remarks: (l.remarks ?? []).filter((r) => r.id !== c.id) });
  }
}

/** A view goes with all that was taken from it; its sizes look for another. */
function withoutView(l: Layout, key: string): Outcome<Layout> {
  const gone = new Set([key]);
  for (const v of l.views) if (v.look.from !== "planned" && gone.has(v.look.of)) gone.add(v.key);
  const views = l.views.filter((v) => !gone.has(v.key));
  if (!views.length) return refuse("last-view", "A Sheet needs one view at least.");
  return done({
    ...l,
    views,
    places: Object.fromEntries(Object.entries(l.places).filter(([, p]) => !gone.has(p.view))),
    remarks: (l.remarks ?? []).filter((r) => !gone.has(r.view)),
  });
}

/** A key that no view has yet, and the next free letter for it (I and O are left out, ISO 128). */
export function nextLetter(taken: readonly (string | undefined)[]): string {
  const used = new Set(taken);
  return [..."ABCDEFGHJKLMNPQRSTUVWXYZ"].find((c) => !used.has(c)) ?? "Z";
}

/** An id that no size or remark has yet. */
export function freeId(prefix: string, taken: readonly string[]): string {
  const used = new Set(taken);
  for (let n = 1; ; n++) if (!used.has(`${prefix}${n}`)) return `${prefix}${n}`;
}

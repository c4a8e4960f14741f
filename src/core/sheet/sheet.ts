import type { Drawing } from "@/core/formats/drawing";
import { svgOf } from "@/core/formats/drawing-svg";
import type { Vec2 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import { densityOf } from "@/core/part/document";
import { freeAmong, freeOnPaper, sizesLeftFree } from "@/core/sizes/free";
import type { Size } from "@/core/sizes/size";
import { sizesOf } from "@/core/sizes/sizes";
import { massAsLettered } from "@/core/units/amounts";
import { done, type Outcome } from "@/core/units/refusal";
import { plannedViews } from "./views/choose";
import { compose, composeKept, type Composition } from "./layout/compose";
import { openDraft, type Draft } from "./views/draft";
import { holesEndingInside } from "./views/ends";
import { itemsOf, remarkItem } from "./sizes/items";
import type { Layout, Look, Place, ViewSpec } from "./layout/layout";
import { neededViews } from "./views/needed";
import { notesOf, pageOf } from "./page/page";
import { SCALES, scaleText, type PaperName } from "./layout/paper";
import { plansOf, titleOf } from "./views/plans";
import { middleOf, type Standing } from "./layout/standing";
import { generalOf, letteringOf, type LaidSubject, type SheetSubject } from "./subject";
import { PICTORIAL } from "./picture";
import type { View, ViewPlan } from "./views/views";

/** A finished Sheet. Nothing in it but what is printed. */
export interface Sheet {
  readonly svg: string;
  readonly scale: string;
  readonly projection: SheetSubject["sheet"]["projection"];
  /** Targets the title block prints: mass in g with its tolerance as a share. */
  readonly printedMass?: { readonly target: number; readonly tolerance: number };
  readonly dimensions: readonly {
    readonly id: string;
    readonly text: string;
    /** Its numbers as lettered, mm and radians; left out in Sheets of before, which are ticked by hand. */
    readonly values?: readonly number[] | undefined;
    /** From where to where a part may have each of them; left out in Sheets of before. */
    readonly limits?: readonly (readonly [least: number, most: number])[] | undefined;
    readonly kind: Size["kind"];
  }[];
  /** Ids of sizes that no view could show; left out in Sheets of before. */
  readonly unplaced?: readonly string[] | undefined;
  /** How each view looks, so that the model can be turned to it; left out in Sheets of before. */
  readonly views?: readonly SheetView[] | undefined;
}

/** A view of a Sheet as others can draw it again: how it looks, and where it stands on the paper. */
export interface SheetView extends Omit<ViewPlan, "key" | "scale"> {
  /** Left out in Sheets of before, whose views are told apart by their names. */
  readonly key?: string | undefined;
  /** Left out in Sheets of before. */
  readonly scale?: number | undefined;
  /** Middle of the view, mm from the upper left corner of the paper. */
  readonly middle?: Vec2 | undefined;
}

const METRIC: readonly PaperName[] = ["A4", "A3", "A2"];
const INCH: readonly PaperName[] = ["ANSI A", "ANSI B", "ANSI C"];
const OWNER = "Saltmarsh Technical College";

/** Builds the Sheet of an exercise from its reference, as a draughtsman would lay it out, as SVG. */
export function makeSheet(kernel: Kernel, subject: SheetSubject, owner?: string): Outcome<Sheet> {
  const r = drawSheet(kernel, subject, owner);
  return r.ok ? done({ ...r.value.sheet, svg: svgOf(r.value.drawing) }) : r;
}

/** A Sheet before it is written as a file of some kind. */
export interface DrawnSheet {
  readonly drawing: Drawing;
  readonly sheet: Omit<Sheet, "svg">;
  readonly composition: Composition;
  /** Holes that end in a hollow, which the paper does not say. */
  readonly endingInside: readonly string[];
  /** Views that do not show what was asked for, in a sentence each. */
  readonly troubles: readonly string[];
}

/** The same before it is written as a file of some kind. */
export function drawSheet(kernel: Kernel, subject: SheetSubject, owner?: string): Outcome<DrawnSheet> {
  const draft = openDraft(kernel, subject.reference, subject.units);
  if (!draft.ok) return draft;
  const sizes = subject.sizes ?? proposedFor(kernel, subject);
  const drawn = layOut(draft.value, { ...subject, sizes }, owner);
  draft.value.close();
  return done(drawn);
}

function proposedFor(kernel: Kernel, subject: SheetSubject): readonly Size[] {
  const r = sizesOf(kernel, subject.reference);
  return r.ok ? r.value.sizes : [];
}

/**
 * Lays a Sheet out: as its layout says, else as a draughtsman would. A new view that finds no free place is drawn
 * smaller; where that does not help either, it lies over others and that is said.
 */
export function layOut(draft: Draft, given: LaidSubject, owner = OWNER): DrawnSheet {
  const first = laidOut(draft, given, owner),
    { layout } = given.sheet,
    crowded = first.composition.crowded ?? [];
  if (!layout || !crowded.length) return first;
  for (const scale of SCALES.filter((s) => s < layout.scale).slice(0, SMALLER)) {
    const views = layout.views.map((v) => (crowded.includes(v.key) ? { ...v, scale: v.scale ?? scale } : v));
    const smaller = laidOut(draft, { ...given, sheet: { ...given.sheet, layout: { ...layout, views } } }, owner);
    if (!smaller.composition.crowded?.length) return smaller;
  }
  return first;
}
/** So many scales smaller a view may be than the Sheet: then it is hardly to be read. */
const SMALLER = 2;

function laidOut(draft: Draft, given: LaidSubject, owner: string): DrawnSheet {
  const { model, features } = draft,
    { projection, layout, unhatched } = given.sheet,
    { surfaces } = model.body;
  const sizes = sizesLeftFree(given.sizes, freeOnPaper(freeAmong(given.free, surfaces)), surfaces);
  const subject = { ...given, sizes };
  const planned = plannedViews(model, projection);
  const printing = { lettering: letteringOf(subject), general: generalOf(subject) };
  const place = (views: readonly View[]) => itemsOf(model, features, sizes, views, printing);
  const views = layout
    ? draft.views(plansOf(model, layout.views, [...planned, PICTORIAL]), unhatched)
    : neededViews(draft.views(planned, unhatched), place);
  const { items, unplaced } = place(views),
    lost = unplaced.filter((s) => s.free !== true);
  const notes = notesOf(subject, model, lost.length);
  const remarks = (layout?.remarks ?? []).flatMap((r) => {
    const view = views.find((v) => v.key === r.view);
    return view ? [remarkItem(r, view)] : [];
  });
  const job = {
    model,
    views,
    pictorial: layout ? undefined : draft.views([PICTORIAL])[0],
    items: [...items, ...remarks],
    sizes,
    projection,
    notes: notes.length,
    papers: subject.units === "in" ? INCH : METRIC,
    paper: subject.sheet.paper,
  };
  const composition = layout ? composeKept(job, withRemarks(layout)) : compose(job);
  const drawing = pageOf(subject, model, sizes, composition, notes, owner);
  const target = massAsLettered(model.properties.volume * densityOf(subject.material), subject.massUnit);
  return {
    drawing,
    composition,
    troubles: views.flatMap((v) => {
      const trouble = v.trouble ?? (composition.crowded?.includes(v.key) ? "crowded" : undefined);
      return trouble ? [`${titleOf(v)}: ${TROUBLES[trouble]}`] : [];
    }),
    endingInside: holesEndingInside(draft.reference, model.body, features, views),
    sheet: {
      scale: scaleText(composition.scale),
      projection,
      // the Sheet goes to students: nothing behind the last digit printed goes with it
      ...(subject.sheet.printMass && { printedMass: { target, tolerance: subject.tolerances.mass } }),
      dimensions: composition.views.flatMap((v) => v.placed.flatMap((p) => p.item.lines.flatMap(asDimension))),
      unplaced: lost.map((s) => s.id),
      views: composition.views.map(sheetViewOf),
    },
  };
}

const TROUBLES: Record<NonNullable<View["trouble"]> | "crowded", string> = {
  crowded: "there is no free place for it on this paper, so it lies over others. Move it, or choose larger paper.",
  nothing: "nothing of the part is left. Draw the line through the part, or look from the other side.",
  missed: "its line meets nothing of the part.",
  uncut: "this cannot be cut. Draw the line so that it does not cross itself.",
};

type Line = Composition["views"][number]["placed"][number]["item"]["lines"][number];
const asDimension = ({ id, kind, text, values, limits }: Line): Sheet["dimensions"] =>
  kind === "remark" || kind === "letter" ? [] : [{ id, kind, text, values, limits }];

/** Remarks stay where they were pinned. */
function withRemarks(layout: Layout): Layout {
  const own = (layout.remarks ?? []).map(({ id, view, tip, elbow }): [string, Place] => [
    id,
    { form: "leader", view, tip, elbow },
  ]);
  return { ...layout, places: { ...layout.places, ...Object.fromEntries(own) } };
}

function sheetViewOf(s: Standing): SheetView {
  const { strokes: _, cuts: __, byFace: ___, box: ____, trouble: _____, ...plan } = s.view;
  return { ...plan, scale: s.scale, middle: middleOf(s) };
}

/** How a view came to be that the program chose. */
const lookOf = ({ name, of, path, isSlice }: View): Look =>
  of !== undefined && path
    ? { from: "section", of, line: path.map(([x, y]) => [x, y]), ...(isSlice && { slice: true }) }
    : { from: "planned", name };

/** All that a Sheet's arrangement is, to be kept: what is changed then changes alone. @param specs its views so far */
export function layoutOf({ scale, views }: Composition, specs: readonly ViewSpec[] = []): Layout {
  const known = new Map(specs.map((s) => [s.key, s]));
  const viewSpec = (s: Standing): ViewSpec => {
    const { key, letter } = s.view;
    const own = s.scale === scale ? undefined : s.scale;
    return {
      ...(known.get(key) ?? { key, look: lookOf(s.view), ...(letter !== undefined && { letter }) }),
      middle: [...middleOf(s)],
      ...(own !== undefined && { scale: own }),
    };
  };
  const places = views.flatMap((s) =>
    s.placed.flatMap(({ item, place }): [string, Place][] => {
      const [line] = item.lines;
      return line && place && line.kind !== "remark" ? [[line.id, place]] : [];
    }),
  );
  return { scale, views: views.map(viewSpec), places: Object.fromEntries(places) };
}

import { textLength, type Drawing, type Group } from "@/core/formats/drawing";
import { svgOf } from "@/core/formats/drawing-svg";
import type { Vec2 } from "@/core/geometry/vector";
import type { Kernel } from "@/core/kernel/opencascade";
import type { Solid } from "@/core/kernel/solid";
import { densityOf } from "@/core/part/document";
import { rebuild } from "@/core/part/rebuild";
import { featuresOf } from "@/core/sizes/features";
import type { Size } from "@/core/sizes/size";
import { sizesOf } from "@/core/sizes/sizes";
import { massAsLettered, massText, volumeText } from "@/core/units/amounts";
import { done, refuse, type Outcome } from "@/core/units/refusal";
import { plannedViews } from "./choose";
import { compose, NOTES_BESIDE, scaleText, type Composition, type Standing } from "./compose";
import { dimensionGroups, viewGroup } from "./draw";
import { holesEndingInside } from "./ends";
import { itemsOf, type Item } from "./items";
import { sheetModel, type SheetModel } from "./model";
import { frameGroup, type PaperName } from "./paper";
import { letteringOf, type SheetSubject } from "./subject";
import { TITLE_HEIGHT, TITLE_WIDTH, titleBlock } from "./title-block";
import { ALONG_VIEW } from "./tolerance";
import { heightOf, widthOf } from "./plane";
import { drawnView, GAZES, type View, type ViewPlan } from "./views";

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
    readonly kind: Size["kind"];
  }[];
  /** Ids of sizes that no view could show; left out in Sheets of before. */
  readonly unplaced?: readonly string[] | undefined;
  /** How each view looks, so that the model can be turned to it; left out in Sheets of before. */
  readonly views?: readonly SheetView[] | undefined;
}

/** A view of a Sheet as others can draw it again: how it looks, and where it stands on the paper. */
export interface SheetView extends Pick<ViewPlan, "name" | "gaze" | "hidden" | "cut"> {
  /** Left out in Sheets of before. */
  readonly scale?: number | undefined;
  /** Middle of the view, mm from the upper left corner of the paper. */
  readonly middle?: Vec2 | undefined;
}

const METRIC: readonly PaperName[] = ["A4", "A3", "A2"];
const INCH: readonly PaperName[] = ["ANSI A", "ANSI B", "ANSI C"];

/** Builds the Sheet of an exercise from its reference, as a draughtsman would lay it out, as SVG. */
export function makeSheet(kernel: Kernel, subject: SheetSubject, owner?: string): Outcome<Sheet> {
  const r = drawSheet(kernel, subject, owner);
  return r.ok ? done({ ...r.value.sheet, svg: svgOf(r.value.drawing) }) : r;
}

/** A Sheet before it is written as a file of some kind. */
interface DrawnSheet {
  readonly drawing: Drawing;
  readonly sheet: Omit<Sheet, "svg">;
  readonly composition: Composition;
  /** Holes that end in a hollow, which the paper does not say. */
  readonly endingInside: readonly string[];
}

/** The same before it is written as a file of some kind. */
export function drawSheet(
  kernel: Kernel,
  subject: SheetSubject,
  owner = "Saltmarsh Technical College",
): Outcome<DrawnSheet> {
  const built = rebuild(kernel, subject.reference);
  const trouble = built.steps.find((s) => s.refusal);
  if (!built.body || trouble) {
    kernel.release(built.body?.shape);
    const why = trouble?.refusal?.sentence ?? "it has no solid.";
    return refuse("bad-reference", `The reference part cannot be drawn: ${why}`);
  }
  const { body } = built;
  const model = sheetModel(kernel, body);
  const sizes = (subject.sizes ?? proposedFor(kernel, subject)).filter((s) => s.free !== true);
  const { projection } = subject.sheet;
  const features = featuresOf(model.body, { unit: subject.units });
  const all = plannedViews(model, projection).map((plan) => drawnView(kernel, body, plan));
  const place = (views: readonly View[]) => itemsOf(model, features, sizes, views, letteringOf(subject));
  const views = neededViews(all, place);
  const pictorial = drawnPictorial(kernel, body);
  kernel.release(body.shape);
  const { items, unplaced } = place(views);
  const notes = notesOf(subject, model, unplaced.length);
  const composition = compose({
    model,
    views,
    pictorial,
    items,
    sizes,
    projection,
    notes: notes.length,
    papers: subject.units === "in" ? INCH : METRIC,
    paper: subject.sheet.paper,
  });
  const drawing = drawingOf(subject, model, sizes, composition, notes, owner);
  const target = massAsLettered(model.properties.volume * densityOf(subject.material), subject.massUnit);
  return done({
    drawing,
    composition,
    endingInside: holesEndingInside(subject.reference, model.body, features, views),
    sheet: {
      scale: scaleText(composition.scale),
      projection,
      // the Sheet goes to students: nothing behind the last digit printed goes with it
      ...(subject.sheet.printMass && { printedMass: { target, tolerance: subject.tolerances.mass } }),
      dimensions: composition.views.flatMap((v) => v.placed.flatMap((p) => p.item.lines)),
      unplaced: unplaced.map((s) => s.id),
      views: composition.views.map(sheetViewOf),
    },
  });
}

function sheetViewOf({ view, scale, corner }: Standing): SheetView {
  const { name, gaze, hidden, cut, box } = view;
  const middle: Vec2 = [corner[0] + (widthOf(box) * scale) / 2, corner[1] - (heightOf(box) * scale) / 2];
  return { name, gaze, hidden, ...(cut && { cut }), scale, middle };
}

const drawnPictorial = (kernel: Kernel, body: Solid): View =>
  drawnView(kernel, body, { name: "pictorial", gaze: GAZES.pictorial, hidden: false });

function proposedFor(kernel: Kernel, subject: SheetSubject): readonly Size[] {
  const r = sizesOf(kernel, subject.reference);
  return r.ok ? r.value.sizes : [];
}

/** As few views as show every size as well as all would; the main view always, and one more of what is not turned. */
function neededViews(all: readonly View[], place: (views: readonly View[]) => { items: Item[] }): readonly View[] {
  const least = all[0]!.name === "long" ? 1 : 2;
  const faults = (views: readonly View[]) => {
    const { items } = place(views);
    return items.reduce((s, i) => s + i.presentations[0]!.fault, 0) - SHOWN * items.length;
  };
  let views = all;
  const whole = faults(all);
  // the last are the first to go
  for (const v of [...all].reverse()) {
    const fewer = views.filter((o) => o !== v);
    const isNeeded = v === all[0] || v.letter !== undefined || showsOwnShape(v, fewer);
    if (!isNeeded && fewer.length >= least && faults(fewer) <= whole + SLIGHT) views = fewer;
  }
  return views;
}
/** A size that is shown is worth more than any fault; and how much worse is still as good. */
const SHOWN = 1_000;
const SLIGHT = 15;

/** Whether only this view shows an outline that is more than a rectangle. */
function showsOwnShape(v: View, others: readonly View[]): boolean {
  const isShaped = (o: View) => o.strokes.some((s) => !s.hidden && (s.kind !== "line" || isSlanting(s.a, s.b)));
  if (!isShaped(v)) return outlineCorners(v) > 4 && !others.some((o) => outlineCorners(o) > 4);
  return !others.some(isShaped);
}
const isSlanting = (a: readonly number[], b: readonly number[]) =>
  Math.min(Math.abs(a[0]! - b[0]!), Math.abs(a[1]! - b[1]!)) > ALONG_VIEW / 1000;
const outlineCorners = (v: View): number => v.strokes.filter((s) => !s.hidden && s.kind === "line").length;

function notesOf(subject: SheetSubject, model: SheetModel, unplaced: number): string[] {
  return [
    ...subject.sheet.notes.split("\n").filter(Boolean),
    ...(subject.sheet.printVolume ? [`Volume ${volumeText(model.properties.volume, subject.units)}`] : []),
    ...(unplaced ? [`${unplaced} size${unplaced > 1 ? "s" : ""} could not be shown in these views.`] : []),
  ];
}

function drawingOf(
  subject: SheetSubject,
  model: SheetModel,
  sizes: readonly Size[],
  { paper, scale, views }: Composition,
  notes: readonly string[],
  owner: string,
): Drawing {
  const mass = model.properties.volume * densityOf(subject.material);
  const title = titleBlock(paper, {
    owner,
    title: subject.title,
    number: subject.number,
    material: `${subject.material.name} · ${subject.material.density} g/cm³`,
    mass: subject.sheet.printMass ? massText(mass, subject.massUnit) : "–",
    scale: scaleText(scale),
    drawn: subject.sheet.drawnBy ?? "",
    revision: subject.sheet.revision ?? "",
    units: subject.units === "in" ? "inches" : "mm",
    tolerance: subject.sheet.general ?? (subject.units === "in" ? "±.005, angles ±.5°" : "ISO 2768-m"),
    projection: subject.sheet.projection,
  });
  const shown = views.map((s) => s.view);
  const [l, , r, b] = paper.frame;
  const isBeside = r - l - TITLE_WIDTH >= NOTES_BESIDE;
  const pitch = paper.letter * 1.8;
  const lines = isBeside ? notes.flatMap((n) => wrapped(n, r - l - TITLE_WIDTH - 7, paper.letter)) : notes;
  const first = b - (isBeside ? 5 : TITLE_HEIGHT + 4) - (lines.length - 1) * pitch;
  const noteGroup: Group = {
    role: "note",
    marks: lines.map((text, i) => ({
      mark: "text",
      at: [l + 4, first + i * pitch],
      text,
      height: paper.letter,
      anchor: "start",
    })),
  };
  const groups = [
    frameGroup(paper),
    title,
    noteGroup,
    ...views.map((s) => viewGroup(s, model, sizes, paper, shown)),
    ...views.flatMap((s) => s.placed.flatMap((p) => dimensionGroups(p, s, paper))),
  ];
  return {
    title: `${subject.number} ${subject.title}`,
    width: paper.width,
    height: paper.height,
    wide: paper.wide,
    groups,
  };
}

/** A text in lines that are no longer than there is room, mm. */
function wrapped(text: string, room: number, letter: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const last = lines[lines.length - 1];
    if (last !== undefined && textLength(`${last} ${word}`, letter) <= room)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

import { textLength, type Drawing, type Group } from "@/core/formats/drawing";
import { densityOf } from "@/core/part/document";
import { asLettered, letteredAngle, letteredLength } from "@/core/sizes/lettering";
import { letteringFor, printedText } from "@/core/sizes/printed";
import { facesOfSize, measureSize, type Size } from "@/core/sizes/size";
import { massText, percentText, volumeText } from "@/core/units/amounts";
import { NOTES_BESIDE, type Composition } from "../layout/compose";
import { dimensionGroups, lightsOf, viewGroup } from "./draw";
import type { SheetModel } from "../views/model";
import { frameGroup, scaleText } from "../layout/paper";
import type { LaidSubject } from "../subject";
import { generalOf, generalText, letteringOf } from "../subject";
import { NEAR } from "../tolerance";
import { TITLE_HEIGHT, TITLE_WIDTH, titleBlock } from "./title-block";

/** What stands beside the views in words. */
export function notesOf(subject: LaidSubject, model: SheetModel, unplaced: number): string[] {
  return [
    ...subject.sheet.notes.split("\n").filter(Boolean),
    ...(subject.sheet.printVolume ? [`Volume ${volumeText(model.properties.volume, subject.units)}`] : []),
    ...(subject.sheet.exact ? exactValues(subject, model) : []),
    ...(unplaced ? [`${unplaced} size${unplaced > 1 ? "s" : ""} could not be shown in these views.`] : []),
  ];
}

/** Printed numbers that are rounded, with what is behind them. */
function exactValues(subject: LaidSubject, model: SheetModel): string[] {
  const lettering = letteringOf(subject);
  const rounded = subject.sizes.flatMap((size) => {
    if (size.free === true) return [];
    const own = letteringFor(size, lettering),
      text = printedText(size, model.body.on, lettering);
    const exact = measureSize(size, model.body.on)[0]?.flatMap((v) => {
      if (v.quantity === "count" || Math.abs(asLettered(v.value, v.quantity, own) - v.value) < NEAR / 100) return [];
      return v.quantity === "angle"
        ? [letteredAngle(v.value, 5)]
        : [letteredLength(v.value, { ...own, digits: EXACT_DIGITS, fractions: false })];
    });
    return exact?.length ? [`${text}: ${exact.join(", ")}`] : [];
  });
  return rounded.length ? [`Exact values: ${[...new Set(rounded)].join("; ")}`] : [];
}
const EXACT_DIGITS = 6;

function massField({ massUnit, tolerances, sheet }: LaidSubject, mass: number): string {
  const plain = massText(mass, massUnit);
  return sheet.massTolerance ? `${plain} ± ${percentText(tolerances.mass)}` : plain;
}

/** Everything on the paper, as marks. */
export function pageOf(
  subject: LaidSubject,
  model: SheetModel,
  sizes: readonly Size[],
  { paper, scale, views }: Composition,
  notes: readonly string[],
  owner: string,
): Drawing {
  const mass = model.properties.volume * densityOf(subject.material);
  const title = titleBlock(paper, {
    owner: subject.sheet.owner ?? owner,
    title: subject.title,
    number: subject.number,
    material: `${subject.material.name} · ${subject.material.density} g/cm³`,
    mass: subject.sheet.printMass ? massField(subject, mass) : "–",
    scale: scaleText(scale),
    drawn: subject.sheet.drawnBy ?? "",
    revision: subject.sheet.revision ?? "",
    date: subject.sheet.date ?? "",
    count: subject.sheet.count ?? "1 of 1",
    units: subject.units === "in" ? "inches" : "mm",
    tolerance: subject.sheet.general ?? generalText(generalOf(subject), subject),
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
  const lights = (id: string) => {
    const size = sizes.find((o) => o.id === id);
    return size ? lightsOf(views, facesOfSize(size)) : [];
  };
  const groups = [
    frameGroup(paper),
    title,
    noteGroup,
    ...views.map((s) => viewGroup(s, model, sizes, paper, shown)),
    ...views.flatMap((s) => s.placed.flatMap((p) => dimensionGroups(p, s, paper, lights, subject.units))),
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

import type { Answers, Wanted } from "@/core/check/exercise/question";
import { densityOf, type PartDocument } from "@/core/part/document";
import { tripodFoot, tripodFootElsewhere, vaneArm } from "./parts";
import {
  anemometerHub,
  bearingSpacer,
  bearingSpacerFromDiscs,
  mastBracket,
  POLYMER,
  sensorHousing,
} from "./solid-parts";

const student = (name: string) => ({ name, email: `${name.toLowerCase().replace(" ", ".")}@saltmarsh.example` });
export const INSTRUCTOR = student("Hedda Lark");
/** Looks after the server; is in no course. */
export const ADMINISTRATOR = student("Wystan Grebe");
/** Teaches the second course; its assistant helps with marking. */
export const SECOND_INSTRUCTOR = student("Alasdair Finch");
export const ASSISTANT = student("Rosalind Thorne");
export const SECOND_STUDENTS = [
  "Amabel Crane",
  "Benedict Sorrel",
  "Cordelia Nash",
  "Dorian Pike",
  "Eudora Wren",
  "Fergus Hale",
  "Giselle Moor",
  "Hamish Oakes",
  "Imogen Swale",
  "Jasper Thrift",
  "Keziah Dale",
  "Lucian Frost",
  "Mirabel Stone",
  "Nathaniel Birch",
  "Odette Marlow",
  "Quentin Sedge",
  "Rowena Tarn",
].map(student);
export const STUDENTS = [
  "Ottoline Marsh",
  "Casimir Dunn",
  "Perpetua Lowe",
  "Idris Fenwick",
  "Sunniva Rook",
  "Barnaby Teal",
  "Linnea Holt",
].map(student);

/** What each student handed in for the tripod foot; Linnea Holt has not begun. */
export const footSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Barnaby Teal", tripodFoot()],
    ["Sunniva Rook", tripodFootElsewhere()],
    ["Ottoline Marsh", tripodFoot({ baseHole: 20 })],
    ["Idris Fenwick", tripodFoot({ leaveLoose: true })],
    ["Perpetua Lowe", tripodFoot({ mirrored: true })],
    ["Casimir Dunn", tripodFoot({ units: "in" })],
  ]);

export const armSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Barnaby Teal", vaneArm()],
    ["Ottoline Marsh", vaneArm({ bossHeight: "5/8 in" })],
  ]);

export const spacerSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Barnaby Teal", bearingSpacer()],
    ["Sunniva Rook", bearingSpacerFromDiscs()],
    ["Ottoline Marsh", bearingSpacer({ grooveDiameter: 26 })],
    ["Idris Fenwick", bearingSpacer({ onlyOneChamfer: true })],
  ]);
export const housingSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Barnaby Teal", sensorHousing()],
    ["Perpetua Lowe", sensorHousing({ shellFirst: true })],
    ["Ottoline Marsh", sensorHousing({ wall: 2.5 })],
  ]);
/** What two of them typed beside it: one forgot that the wall was to change. @param wanted what is right */
export const housingAnswers = (wanted: Wanted): ReadonlyMap<string, Answers> => {
  const [mass, after] = [wanted["q1"]!.value, wanted["q2"]!.value];
  return new Map([
    ["Barnaby Teal", { q1: `${mass.toFixed(1)} g`, q2: `${(after / 1000).toFixed(2)} cm³` }],
    ["Ottoline Marsh", { q1: mass.toFixed(2), q2: (mass / densityOf(POLYMER)).toFixed(0) }],
  ]);
};
export const hubSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Barnaby Teal", anemometerHub()],
    ["Idris Fenwick", anemometerHub({ holes: 5 })],
    ["Ottoline Marsh", anemometerHub({ through: false })],
  ]);
export const bracketSubmissions = (): Map<string, PartDocument> =>
  new Map([
    ["Sunniva Rook", mastBracket()],
    ["Perpetua Lowe", mastBracket({ forgetInner: true })],
  ]);

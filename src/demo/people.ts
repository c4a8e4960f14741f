import type { PartDocument } from "@/core/part/document";
import { tripodFoot, tripodFootElsewhere, vaneArm } from "./parts";

const student = (name: string) => ({ name, email: `${name.toLowerCase().replace(" ", ".")}@saltmarsh.example` });
export const INSTRUCTOR = student("Hedda Lark");
export const STUDENTS = ["Ottoline Marsh", "Casimir Dunn", "Perpetua Lowe", "Idris Fenwick", "Sunniva Rook", "Barnaby Teal", "Linnea Holt"].map(student);

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

export const armSubmissions = (): Map<string, PartDocument> => new Map([["Barnaby Teal", vaneArm()], ["Ottoline Marsh", vaneArm({ bossHeight: "5/8 in" })]]);

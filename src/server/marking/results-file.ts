import type { Mark } from "@/core/grade/mark";
import type { Comment } from "@/core/grade/decision";
import type { Gradebook, GradebookStudent } from "./gradebook";
import { markingOf } from "./marking";
import { flatPicture, type FlatPicture } from "../files/part-picture";
import { pdfWith } from "../files/pdf";
import type { PackedPicture } from "../files/pictures";
import { pictureOf } from "../tries/submissions";

const INK = "#22292f";
const QUIET = "#5d6f7b";
const RUST = "#b4522b";
const LINE = "#cfcabd";
const MARGIN = 48;

type Doc = PDFKit.PDFDocument;

/** Signs that the lettering font lacks, as a typewriter has them. */
const PLAIN: readonly (readonly [RegExp, string])[] = [
  [/⌀/g, "ø"],
  [/[⌴⌵]/g, "sunk "],
  [/↧/g, "deep "],
  [/−/g, "-"],
  [/[\u202f\u2009]/g, " "],
  [/→/g, "to"],
  [/…/g, "..."],
  [/[“”]/g, '"'],
  [/’/g, "'"],
];
const lettered = (text: string): string =>
  PLAIN.reduce((t, [sign, plain]) => t.replace(sign, plain), text).replace(/[^\u0020-\u024f\n€]/g, "?");

const document = (title: string, layout: "portrait" | "landscape", write: (doc: Doc) => void): Promise<Buffer> =>
  pdfWith({ size: "A4", layout, margin: MARGIN, info: { Title: title, Creator: "Rusty Caliper" } }, write);

/** One student's results with a picture of each part; what it says is what a student may read. */
export async function studentPdf(course: string, student: GradebookStudent, book: Gradebook): Promise<Buffer> {
  const results = await Promise.all(
    ownCells(student, book).map(async ({ handout, cell }) => {
      if (!cell.submission) return { handout, cell };
      const m = await markingOf(cell.submission);
      const packed = await pictureOf(cell.submission);
      return { handout, cell, mark: m.mark, comments: m.decided.comments, picture: packed && flatOf(packed) };
    }),
  );
  return document(`Results of ${student.name}`, "portrait", (doc) => {
    heading(doc, student.name, course);
    if (student.average !== null)
      doc
        .font("plain", 9)
        .fillColor(QUIET)
        .text(`Average ${(student.average * 100).toFixed(1)} % of what counts so far`);
    doc.moveDown(0.8);
    for (const r of results) {
      const name = lettered(`${r.handout.number} ${r.handout.title}`.trim());
      room(doc, r.mark ? 150 : 40);
      rule(doc);
      doc.font("bold", 11).fillColor(INK).text(name, { continued: false });
      if (!r.mark) {
        doc.font("plain", 9).fillColor(QUIET).text(lettered(r.cell.state)).moveDown(0.6);
        continue;
      }
      result(doc, r.mark, r.comments, r.picture);
    }
  });
}

const flatOf = ({ submission, missing, extra }: PackedPicture): FlatPicture | undefined =>
  flatPicture({ submission, missing, extra });

/** A student's cells in the order of the handouts, those that are for them. */
const ownCells = ({ cells }: GradebookStudent, book: Gradebook) =>
  book.handouts.flatMap((handout) => {
    const cell = cells[handout.id];
    return cell ? [{ handout, cell }] : [];
  });

/** Width of a picture on paper, points. */
const PICTURE = 130;

function result(doc: Doc, mark: Mark, comments: readonly Comment[], picture: FlatPicture | undefined): void {
  const top = doc.y;
  const right = doc.page.width - MARGIN;
  if (picture) draw(doc, picture, right - PICTURE, top, PICTURE);
  const width = right - MARGIN - (picture ? PICTURE + 14 : 0);
  doc.font("bold", 10).fillColor(INK).text(`${mark.points} of ${mark.of} points`, MARGIN, top, { width });
  for (const l of mark.lines) {
    room(doc, 30);
    doc
      .font("bold", 8.5)
      .fillColor(l.points < l.of ? RUST : INK)
      .text(lettered(`${l.title}  ${l.points} / ${l.of}`), MARGIN, doc.y + 3, { width });
    doc.font("plain", 8).fillColor(QUIET).text(lettered(l.studentSentence), { width });
    for (const text of [l.overruled?.reason, ...comments.filter((c) => c.line === l.id).map((c) => c.text)])
      if (text)
        doc
          .font("plain", 8)
          .fillColor(INK)
          .text(lettered(`> ${text}`), { width });
  }
  for (const d of mark.deductions)
    doc
      .font("plain", 8)
      .fillColor(RUST)
      .text(lettered(`${d.title} ${d.points}: ${d.sentence}`), { width });
  for (const c of comments.filter((o) => !o.line))
    doc
      .font("plain", 8.5)
      .fillColor(INK)
      .text(lettered(`> ${c.text}`), { width });
  // the next one begins below the picture
  doc.y = Math.max(doc.y, picture && doc.y >= top ? top + PICTURE : doc.y) + 10;
  doc.x = MARGIN;
}

function draw(doc: Doc, { facets }: FlatPicture, x: number, y: number, size: number): void {
  const at = ([u, v]: readonly [number, number]) => [x + u * size, y + (1 - v) * size] as const;
  doc.save().lineWidth(0.2);
  for (const f of facets) {
    const [a, b, c] = [at(f.corners[0]), at(f.corners[1]), at(f.corners[2])];
    const ink = shade(f);
    doc
      .moveTo(...a)
      .lineTo(...b)
      .lineTo(...c)
      .closePath()
      .fillAndStroke(ink, ink);
  }
  doc.restore();
}

const BASES = { part: [205, 214, 220], missing: [180, 82, 43], extra: [62, 92, 112] } as const;
function shade({ light, kind }: FlatPicture["facets"][number]): string {
  const hex = BASES[kind].map((v) =>
    Math.round(v * light)
      .toString(16)
      .padStart(2, "0"),
  );
  return `#${hex.join("")}`;
}

function heading(doc: Doc, title: string, course: string): void {
  doc.font("bold", 16).fillColor(INK).text(lettered(title));
  doc.font("plain", 9).fillColor(QUIET).text(lettered(course));
}
function rule(doc: Doc): void {
  doc
    .moveTo(MARGIN, doc.y)
    .lineTo(doc.page.width - MARGIN, doc.y)
    .lineWidth(0.6)
    .strokeColor(LINE)
    .stroke();
  doc.y += 6;
  doc.x = MARGIN;
}
/** A new page where less than this is left of it. */
function room(doc: Doc, height: number): void {
  if (doc.y + height > doc.page.height - MARGIN) doc.addPage();
}

/** So many handouts side by side on one page. */
const ACROSS = 10;

/** The class: every student against every handout, and the average. */
export const classPdf = (course: string, book: Gradebook): Promise<Buffer> =>
  document(`Results of ${course}`, "landscape", (doc) => {
    const pages = Math.max(1, Math.ceil(book.handouts.length / ACROSS));
    for (let page = 0; page < pages; page++) {
      if (page) doc.addPage();
      const from = page * ACROSS;
      const shown = book.handouts.slice(from, from + ACROSS);
      heading(doc, course, `${book.students.length} students${pages > 1 ? `, part ${page + 1} of ${pages}` : ""}`);
      doc.moveDown(0.8);
      const row = (cells: readonly string[], isBold: boolean) => {
        room(doc, 16);
        const y = doc.y;
        doc.font(isBold ? "bold" : "plain", 8).fillColor(INK);
        doc.text(cells[0]!, MARGIN, y, { width: 150, lineBreak: false, ellipsis: true });
        cells
          .slice(1)
          .forEach((c, i) => doc.text(c, MARGIN + 155 + i * 52, y, { width: 50, align: "right", lineBreak: false }));
        doc.y = y + 14;
      };
      row(["Student", ...shown.map((h) => lettered(h.number || h.title.slice(0, 8))), "Average"], true);
      row(["", ...shown.map((h) => `/ ${h.of}`), "%"], false);
      rule(doc);
      for (const s of book.students) {
        const points = shown.map((h) => {
          const cell = s.cells[h.id];
          return cell ? String(cell.points ?? "-") : "";
        });
        row([lettered(s.name), ...points, s.average === null ? "-" : (s.average * 100).toFixed(1)], false);
      }
    }
  });

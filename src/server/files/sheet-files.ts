import { dashes, penWidth, textLength, typeSize, type Drawing, type Mark, type Pen } from "@/core/formats/drawing";
import { dxfOf } from "@/core/formats/drawing-dxf";
import { arcPath, svgOf } from "@/core/formats/drawing-svg";
import { signStrokes } from "@/core/formats/signs";
import type { Vec2 } from "@/core/geometry/vector";
import { printable } from "@/core/units/text";
import { pdfWith } from "./pdf";

/** What a drawing can be had as. */
export const SHEET_FILES = ["pdf", "dxf", "svg"] as const;
type SheetFile = (typeof SHEET_FILES)[number];

const TYPES: Record<SheetFile, string> = {
  pdf: "application/pdf",
  dxf: "image/vnd.dxf",
  svg: "image/svg+xml; charset=utf-8",
};

/** Drawings as a file; of several only a PDF can be made, a page each. @param isShown opened rather than kept */
export async function sheetFile(drawings: readonly Drawing[], as: SheetFile, isShown = false): Promise<Response> {
  const [first] = drawings as [Drawing];
  const name = `${first.title.replace(/[^\w.-]+/g, "-")}.${as}`;
  const data = as === "pdf" ? await pdfOf(drawings) : as === "dxf" ? dxfOf(first) : svgOf(first);
  return new Response(typeof data === "string" ? data : new Uint8Array(data), {
    headers: {
      "content-type": TYPES[as],
      "content-disposition": `${isShown ? "inline" : "attachment"}; filename="${name}"`,
      "cache-control": "no-store",
    },
  });
}

/** Points of a PDF in a millimetre. */
const MM = 72 / 25.4;
const INK = "#22292f";
const STEEL = "#3e5c70";
const THIN: ReadonlySet<Pen> = new Set<Pen>(["thin", "centre", "hatch"]);

/** Drawings as one PDF, at their right size, lines as lines and text as text. */
export const pdfOf = (drawings: readonly Drawing[]): Promise<Buffer> =>
  pdfWith({ autoFirstPage: false, info: { Title: drawings[0]?.title ?? "Sheet", Creator: "Rusty Caliper" } }, (doc) => {
    for (const d of drawings) {
      doc.addPage({ size: [d.width * MM, d.height * MM], margin: 0 });
      doc.scale(MM);
      for (const g of d.groups) for (const m of g.marks) drawMark(doc, m, d.wide);
    }
  });

type Doc = PDFKit.PDFDocument;

function pen(doc: Doc, kind: Pen, wide: number): Doc {
  const list = dashes(kind, wide);
  doc.lineWidth(penWidth(kind, wide)).strokeColor(THIN.has(kind) ? STEEL : INK);
  doc.lineCap(kind === "outline" ? "round" : "butt").lineJoin("round");
  // dashes of a number each: the types know one alone
  if (list.length) doc.dash(list as unknown as number, {});
  else doc.undash();
  return doc;
}

function path(doc: Doc, points: readonly Vec2[], isClosed = false): Doc {
  points.forEach(([x, y], i) => (i ? doc.lineTo(x, y) : doc.moveTo(x, y)));
  return isClosed ? doc.closePath() : doc;
}

function drawMark(doc: Doc, m: Mark, wide: number): void {
  switch (m.mark) {
    case "line":
      path(pen(doc, m.pen, wide), [m.a, m.b]).stroke();
      return;
    case "path":
      path(pen(doc, m.pen, wide), m.points, m.isClosed).stroke();
      return;
    case "fill":
      path(doc, m.points, true).fill(STEEL);
      return;
    case "arc":
      pen(doc, m.pen, wide)
        .path(arcPath(m.centre, m.radius, m.from, m.to))
        .stroke();
      return;
    case "light":
      return;
    case "text":
      text(doc, m);
  }
}
/** Lettering: signs that the font lacks are drawn, with their character behind them for whoever searches. */
function text(doc: Doc, m: Extract<Mark, { mark: "text" }>): void {
  const size = typeSize(m.height),
    long = textLength(m.text, m.height);
  const back = m.anchor === "middle" ? long / 2 : m.anchor === "end" ? long : 0;
  const advance = textLength("0", m.height);
  doc.save();
  doc.translate(...m.at);
  if (m.turn) doc.rotate(-m.turn);
  doc.translate(-back, 0);
  doc.font(m.isBold ? "bold" : "plain", size).fillColor(INK);
  let run = "",
    from = 0;
  const flush = () => {
    if (run) doc.text(run, from * advance, 0, { lineBreak: false, baseline: "alphabetic" });
    run = "";
  };
  [...printable(m.text)].forEach((c, i) => {
    const strokes = signStrokes(c);
    if (!strokes) {
      if (!run) from = i;
      run += c;
      return;
    }
    flush();
    doc
      .lineWidth(m.height / 10)
      .strokeColor(INK)
      .undash()
      .lineCap("round");
    doc.save();
    doc.translate(i * advance, 0);
    for (const line of strokes)
      path(
        doc,
        line.map(([x, y]): Vec2 => [x * m.height, -y * m.height]),
      ).stroke();
    doc.markContent("Span", { actual: c } as never);
    behind(doc, size);
    doc.endMarkedContent();
    doc.restore();
  });
  flush();
  doc.restore();
}

/** What a page knows of its fonts; the types do not tell. */
interface Inside {
  readonly _font: { readonly id: string; ref(): unknown; encode(text: string): readonly [readonly string[], unknown] };
  readonly page: { readonly fonts: Record<string, unknown> };
}

/**
 * A letter that is not painted, at the origin: it carries the meaning of the sign drawn there. Written by hand, since a
 * reader of texts wants it in the same coordinates as the end of the marked content.
 */
function behind(doc: Doc, size: number): void {
  const { _font: own, page } = doc as unknown as Inside;
  page.fonts[own.id] ??= own.ref();
  const [codes] = own.encode("o");
  doc.addContent(`BT /${own.id} ${size} Tf 3 Tr 1 0 0 -1 0 0 Tm <${codes.join("")}> Tj 0 Tr ET`);
}

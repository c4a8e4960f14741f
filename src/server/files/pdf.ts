import { readFile } from "node:fs/promises";
import { join } from "node:path";
import PDFDocument from "pdfkit";
import { fit } from "@/core/units/text";

let fonts: Promise<readonly [Buffer, Buffer]> | undefined;
// the newer packing of the same font (woff2) is embedded with empty letters: they can be searched and not seen
const font = (weight: 400 | 700) =>
  readFile(join(process.cwd(), `node_modules/@fontsource/b612-mono/files/b612-mono-latin-${weight}-normal.woff`));

/** Writes a PDF with the lettering as its fonts `plain` and `bold`. */
export async function pdfWith(
  options: PDFKit.PDFDocumentOptions,
  write: (doc: PDFKit.PDFDocument) => void,
): Promise<Buffer> {
  const [plain, bold] = await (fonts ??= Promise.all([font(400), font(700)]));
  const { info } = options;
  const doc = new PDFDocument({ ...options, ...(info?.Title && { info: { ...info, Title: fit(info.Title) } }) });
  const letter = doc.text.bind(doc) as (text: string, ...rest: unknown[]) => PDFKit.PDFDocument;
  doc.text = (text: string, ...rest: unknown[]) => letter(fit(text), ...rest);
  const pieces: Buffer[] = [];
  const ended = new Promise<void>((resolve, reject) => {
    doc.on("data", (b: Buffer) => pieces.push(b));
    doc.on("end", resolve);
    doc.on("error", reject);
  });
  doc.registerFont("plain", plain).registerFont("bold", bold);
  write(doc);
  doc.end();
  await ended;
  return Buffer.concat(pieces);
}

import type { TDF_Label } from "replicad-opencascadejs";
import { KERNEL_VERSION, KernelFault, type Kernel } from "./opencascade";
import { type FaceName } from "@/core/naming/names";
import type { Carrier } from "./carrier";
import { carrierOf } from "./recognise";
import { SAME_CARRIER } from "./tolerance";
import { printable } from "@/core/units/text";
import { distinct, faceShapes, type Solid } from "./solid";

/** A body's own colour and those of single faces (by place in explorer order), as #rrggbb. */
export interface Paint {
  readonly body?: string;
  readonly faces?: ReadonlyMap<number, string>;
}

/** The library's own file system in memory. */
interface Files {
  readFile(path: string): Uint8Array;
  writeFile(path: string, data: Uint8Array | string): void;
  unlink(path: string): void;
}
const filesOf = (kernel: Kernel): Files => (kernel.library as unknown as { FS: Files }).FS;
const PATH = "/exchange.step";

/** Linear parts of a colour; the file holds them as they are shown. */
const linear = (hex: string): [number, number, number] =>
  [1, 3, 5].map((i) => {
    const v = parseInt(hex.slice(i, i + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];

/** A body as a STEP file (ISO 10303-21, AP214), in millimetres, with its name and colours. */
export function writeStep(kernel: Kernel, solid: Solid, name: string, paint: Paint = {}): string {
  return kernel.guard("writing STEP", () => {
    const oc = kernel.library,
      text = (t: string) => new oc.TCollection_ExtendedString(t, true);
    const format = text("XmlOcaf"),
      called = text(CALLED),
      document = new oc.TDocStd_Document(format),
      main = document.Main();
    const shapes = oc.XCAFDoc_DocumentTool.ShapeTool(main),
      colours = oc.XCAFDoc_DocumentTool.ColorTool(main);
    const node = shapes.AddShape(solid.shape, false, false);
    oc.TDataStd_Name.Set(node, called);
    const dye = (label: TDF_Label, hex: string) => {
      const c = new oc.Quantity_ColorRGBA(...linear(hex), 1);
      colours.SetColor(label, c, oc.XCAFDoc_ColorType.XCAFDoc_ColorSurf);
      c.delete();
    };
    if (paint.body) dye(node, paint.body);
    if (paint.faces?.size) {
      const { shapes: faces } = faceShapes(kernel, solid.shape);
      for (const [i, hex] of paint.faces) {
        if (!faces[i]) continue;
        const sub = shapes.AddSubShape(node, faces[i]);
        dye(sub, hex);
        sub.delete();
      }
    }
    shapes.UpdateAssemblies();
    const session = new oc.XSControl_WorkSession(),
      writer = new oc.STEPCAFControl_Writer(session, false),
      progress = new oc.Message_ProgressRange();
    writer.SetColorMode(true);
    writer.SetNameMode(true);
    // Transfer by itself would write geometry into files of its own
    const ok = writer.Perform(document, PATH, progress);
    kernel.release(progress, writer, session, node, main, document, called, format);
    if (!ok) throw new KernelFault("the body could not be put into the file");
    const files = filesOf(kernel),
      bytes = files.readFile(PATH);
    files.unlink(PATH);
    return headed(withPlainRings(decode(bytes), ringsOf(kernel, solid)), name || "part");
  });
}

/**
 * Stands for the name while the library writes: what it makes of letters outside ASCII is not what the standard says.
 */
const CALLED = "caliper-name";

/**
 * Text as a STEP file holds it (ISO 10303-21, 6.4.3): quotes and backslashes doubled, other letters by their numbers.
 */
export function stepString(text: string): string {
  const parts = printable(text).match(/[\x20-\x7e]+|[^\x20-\x7e]+/gu) ?? [];
  const number = (letter: string) => letter.codePointAt(0)!.toString(16).toUpperCase();
  return parts
    .map((part) => {
      if (/^[\x20-\x7e]/.test(part)) return part.replace(/\\/g, "\\\\").replace(/'/g, "''");
      const letters = [...part];
      const isWide = letters.some((l) => l.codePointAt(0)! > 0xffff);
      const digits = letters.map((l) => number(l).padStart(isWide ? 8 : 4, "0")).join("");
      return `\\X${isWide ? 4 : 2}\\${digits}\\X0\\`;
    })
    .join("");
}

const RING = /(#\d+)\s*=\s*(?:DEGENERATE_)?TOROIDAL_SURFACE\s*\(\s*'[^']*',\s*(#\d+),\s*([^,)]+),\s*([^,)]+)/g;
const OFFSET = /(#\d+)(\s*=\s*)OFFSET_SURFACE\s*\(\s*'[^']*'\s*,\s*(#\d+)\s*,\s*([^,)]+),\s*\.[TFU]\.\s*\)/g;
const FACE = /(\bADVANCED_FACE\s*\([^;]*,\s*(#\d+)\s*,\s*)\.([TF])\.(\s*\)\s*;)/g;

/**
 * The file with offsets of rings as rings. The library keeps the offset of one whose tube reaches its axis,
 * and writes it on the wrong side where that ring stands left-handed: then the face looks the other way as well.
 * @param rings that the body has
 */
function withPlainRings(text: string, rings: readonly Ring[]): string {
  const bases = new Map([...text.matchAll(RING)].map(([, id, ...ring]) => [id!, ring as [string, string, string]]));
  const turned = new Set<string>();
  const plain = text.replace(OFFSET, (whole, id: string, is: string, of: string, by: string) => {
    const [place, major, minor] = bases.get(of) ?? [];
    const isNear = (a: number, b: number) => Math.abs(a - b) < SAME_CARRIER;
    const known = rings.find(
      (ring) => isNear(ring.major, Number(major)) && isNear(Math.abs(ring.minor - Number(minor)), Math.abs(Number(by))),
    );
    if (!known) return whole;
    if (!isNear(known.minor, Number(minor) + Number(by))) turned.add(id);
    return `${id}${is}TOROIDAL_SURFACE('',${place},${major},${real(known.minor)})`;
  });
  if (!turned.size) return plain;
  return plain.replace(FACE, (whole, head: string, surface: string, sense: string, end: string) =>
    turned.has(surface) ? `${head}.${sense === "T" ? "F" : "T"}.${end}` : whole,
  );
}
type Ring = Extract<Carrier, { kind: "torus" }>;
const ringsOf = (kernel: Kernel, solid: Solid): Ring[] =>
  faceShapes(kernel, solid.shape).shapes.flatMap((shape) => {
    const face = kernel.library.TopoDS.Face(shape),
      carrier = carrierOf(kernel, face);
    face.delete();
    return carrier.kind === "torus" ? [carrier] : [];
  });

/** As a STEP file holds numbers: with a point. */
const real = (value: number): string => {
  const text = String(Number(value.toPrecision(15)));
  return /[.e]/.test(text) ? text.replace("e", "E") : `${text}.`;
};

/**
 * The file with the part's name and ours in its head. The time of writing is left out: the same part, the same file.
 */
function headed(text: string, name: string): string {
  const called = stepString(name);
  return text
    .replace(/FILE_DESCRIPTION\([^;]*\);/, () => `FILE_DESCRIPTION(('${called}'),'2;1');`)
    .replace(
      /FILE_NAME\([^;]*\);/,
      () => `FILE_NAME('${called}','2000-01-01T00:00:00',(''),(''),'${KERNEL_VERSION}','Rusty Caliper','');`,
    )
    .replaceAll(`'${CALLED}'`, () => `'${called}'`);
}

/** Text of bytes in Latin-1, as STEP files are: core has no decoder of its own. */
function decode(bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return text;
}

/** Reads the bodies of a STEP file. Faces have no history: they are named file/face/N in explorer order. */
export function readStep(kernel: Kernel, text: string): Solid {
  return kernel.guard("reading STEP", () => {
    const oc = kernel.library,
      files = filesOf(kernel);
    files.writeFile(PATH, text);
    const reader = new oc.STEPControl_Reader(),
      progress = new oc.Message_ProgressRange();
    try {
      if (String(reader.ReadFile(PATH)) !== "IFSelect_RetDone") throw new KernelFault("this is no STEP file");
      reader.TransferRoots(progress);
      const shape = reader.OneShape(),
        { shapes } = distinct(kernel, shape, "FACE");
      kernel.release(...shapes);
      return { shape, names: shapes.map((_, i): FaceName[] => [{ step: "file", role: "face", of: String(i + 1) }]) };
    } finally {
      kernel.release(progress, reader);
      files.unlink(PATH);
    }
  });
}

/** A body in plain data, for threads and caches: identity is lost on the way, names keep their order. */
export interface Packed {
  readonly brep: string;
  readonly names: Solid["names"];
}
export const pack = (kernel: Kernel, solid: Solid): Packed => ({
  brep: kernel.library.BRepToolsWrapper.Write(solid.shape),
  names: solid.names,
});
export const unpack = (kernel: Kernel, packed: Packed): Solid => ({
  shape: kernel.guard("unpacking", () => kernel.library.BRepToolsWrapper.Read(packed.brep)),
  names: packed.names,
});

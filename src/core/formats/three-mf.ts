import { strToU8, zipSync } from "fflate";
import type { Mesh } from "@/core/kernel/mesh";
import { welded } from "./weld";
import { printable } from "@/core/units/text";

const escaped = (s: string) =>
  printable(s).replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]!);
/** Zip archives want a date; the same part gives the same file. */
const WHEN = new Date(2000, 0, 1, 12);

const DECLARATION = '<?xml version="1.0" encoding="UTF-8"?>';
const SCHEMAS = "http://schemas.microsoft.com";
const PACKAGES = "http://schemas.openxmlformats.org/package/2006";
/** The two lists every Open Packaging package has: what kinds of files it holds, and which one to open. */
const TYPES = [
  `${DECLARATION}<Types xmlns="${PACKAGES}/content-types">`,
  '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>',
  '<Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>',
].join("");
const LINKS = [
  `${DECLARATION}<Relationships xmlns="${PACKAGES}/relationships">`,
  `<Relationship Target="/3D/3dmodel.model" Id="rel0" Type="${SCHEMAS}/3dmanufacturing/2013/01/3dmodel"/>`,
  "</Relationships>",
].join("");

/** Facets as a 3MF package (3MF Core Specification 1.3), millimetres, with name and colour. */
export function threeMfOf(mesh: Pick<Mesh, "positions" | "triangles">, name: string, colour?: string): Uint8Array {
  const { positions: p, triangles: t } = welded(mesh),
    vertices: string[] = [],
    faces: string[] = [];
  for (let i = 0; i < p.length; i += 3) vertices.push(`<vertex x="${p[i]}" y="${p[i + 1]}" z="${p[i + 2]}"/>`);
  for (let i = 0; i < t.length; i += 3) faces.push(`<triangle v1="${t[i]}" v2="${t[i + 1]}" v3="${t[i + 2]}"/>`);
  const material = colour
    ? `<basematerials id="2"><base name="body" displaycolor="${colour.toUpperCase()}"/></basematerials>`
    : "";
  const colouring = colour ? ' pid="2" pindex="0"' : "";
  const model = [
    DECLARATION,
    `\n<model unit="millimeter" xml:lang="en" xmlns="${SCHEMAS}/3dmanufacturing/core/2015/02">`,
    `<metadata name="Title">${escaped(name)}</metadata>`,
    `<resources>${material}<object id="1" name="${escaped(name)}" type="model"${colouring}>`,
    `<mesh><vertices>${vertices.join("")}</vertices><triangles>${faces.join("")}</triangles></mesh>`,
    '</object></resources><build><item objectid="1"/></build></model>',
  ].join("");
  return zipSync(
    { "[Content_Types].xml": strToU8(TYPES), "_rels/.rels": strToU8(LINKS), "3D/3dmodel.model": strToU8(model) },
    { mtime: WHEN },
  );
}

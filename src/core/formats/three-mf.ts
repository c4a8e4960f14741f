import { strToU8, zipSync } from "fflate";
import type { Mesh } from "@/core/kernel/mesh";
import { welded } from "./weld";

const escaped = (s: string) =>
  s.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c]!);
/** Zip archives want a date; the same part gives the same file. */
const WHEN = new Date(2000, 0, 1, 12);

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
  const model = `<?xml version="1.0" encoding="UTF-8"?>
<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><metadata name="Title">${escaped(name)}</metadata><resources>${material}<object id="1" name="${escaped(name)}" type="model"${colour ? ' pid="2" pindex="0"' : ""}><mesh><vertices>${vertices.join("")}</vertices><triangles>${faces.join("")}</triangles></mesh></object></resources><build><item objectid="1"/></build></model>`;
  const types =
    '<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>';
  const links =
    '<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>';
  return zipSync(
    { "[Content_Types].xml": strToU8(types), "_rels/.rels": strToU8(links), "3D/3dmodel.model": strToU8(model) },
    { mtime: WHEN },
  );
}

import type { SheetSubject } from "./subject";
import { element, escaped } from "./svg";
import type { Projection } from "./views";

export const TITLE_HEIGHT = 40;

const text = (x: number, y: number, size: number, s: string, weight?: string, anchor?: string) =>
  element("text", { x, y, "font-size": size, "font-weight": weight, "text-anchor": anchor }, escaped(s));

/** The symbol of the projection method (ISO 5456-2): a truncated cone from the side and from its narrow end. */
function projectionSymbol(x: number, y: number, projection: Projection): string {
  const cone = (left: number) =>
    element("path", { d: `M${left} ${y - 2}L${left + 8} ${y - 4}V${y + 4}L${left} ${y + 2}Z`, fill: "none" });
  const rings = (cx: number) =>
    element("circle", { cx, cy: y, r: 2, fill: "none" }) + element("circle", { cx, cy: y, r: 4, fill: "none" });
  // the narrow end is seen from the left: drawn at the right in first angle, at the left in third
  return projection === "first-angle" ? cone(x) + rings(x + 14) : rings(x + 4) + cone(x + 10);
}

/** Title block across the foot of the frame: x, y are its upper left corner. */
export function titleBlock(
  subject: SheetSubject,
  x: number,
  y: number,
  width: number,
  scale: string,
  mass: string | undefined,
  school: string,
): string {
  const rows = [0, 13.3, 26.6, TITLE_HEIGHT].map((v) => y + v);
  const split = x + width * 0.5;
  const lines =
    [rows[0]!, rows[1]!, rows[2]!].map((v) => element("line", { x1: x, y1: v, x2: x + width, y2: v })).join("") +
    element("line", { x1: split, y1: y, x2: split, y2: y + TITLE_HEIGHT });
  const at = (row: number, col: 0 | 1, s: string, size = 4.2, weight?: string) =>
    text((col ? split : x) + 3, rows[row]! + 8.6, size, s, weight);
  const inch = subject.units === "in";
  return (
    element("g", { class: "frame" }, lines) +
    at(0, 0, school, 3.8) +
    at(0, 1, subject.title, 5.4, "bold") +
    at(1, 0, subject.material.name, 4.2) +
    at(1, 1, subject.number) +
    text(x + width - 4, rows[1]! + 8.6, 4.2, `Scale ${scale}`, undefined, "end") +
    at(2, 0, mass ?? `Density ${subject.material.density} g/cm³`, 4.2) +
    at(2, 1, inch ? "Sizes in inches" : "Sizes in mm", 4.2) +
    element("g", { class: "thin" }, projectionSymbol(x + width - 26, rows[2]! + 6.7, subject.sheet.projection))
  );
}

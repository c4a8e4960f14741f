import type { Vec2 } from "@/core/geometry/vector";
import type { Drawing, Group, Mark, Measured, Pen } from "./drawing";
import { DxfLines } from "./dxf-lines";
import { printable } from "@/core/units/text";

/** Layers by kind of line: name, colour number, line type. */
const LAYERS: Record<Pen | "text" | "arrow", readonly [name: string, colour: number, type: string]> = {
  outline: ["OUTLINE", 7, "CONTINUOUS"],
  hidden: ["HIDDEN", 8, "DASHED"],
  thin: ["DIMENSION", 4, "CONTINUOUS"],
  centre: ["CENTRE", 4, "CENTER"],
  cutting: ["CUTTING", 7, "CENTER"],
  hatch: ["HATCH", 8, "CONTINUOUS"],
  frame: ["FRAME", 7, "CONTINUOUS"],
  text: ["TEXT", 7, "CONTINUOUS"],
  arrow: ["DIMENSION", 4, "CONTINUOUS"],
};
const TYPES = [
  ["CONTINUOUS", "Solid", []],
  ["DASHED", "__ __", [3, -1]],
  ["CENTER", "____ _ ____", [8, -1, 1, -1]],
] as const;
const TURN = 2 * Math.PI;
const WHOLE = 1 / 1_000_000;

/** A drawing as an ASCII DXF file (R12), mm, y upwards from the lower left corner of the paper. */
export function dxfOf(drawing: Drawing): string {
  const file = new DxfLines(
    (n) => String(Math.round(n * 1e6) / 1e6),
    ([x, y]) => [x, drawing.height - y],
  );
  const dimensions = drawing.groups.flatMap((g, i) => (g.measures ? [{ g, m: g.measures, name: `*D${i}` }] : []));
  file.section("HEADER", () => {
    file.put(9, "$ACADVER");
    file.put(1, "AC1009");
  });
  const scales = [...new Set(dimensions.map(({ m }) => scaleOf(m)))];
  file.section("TABLES", () => putTables(file, scales));
  // a dimension is one as such: its lines stand in a block of its own
  file.section("BLOCKS", () => {
    for (const { g: group, name } of dimensions) putBlock(file, group, name);
  });
  file.section("ENTITIES", () => {
    for (const g of drawing.groups) if (!g.measures) for (const m of g.marks) putMark(file, m);
    for (const { g, m, name } of dimensions) putDimension(file, g, m, name);
  });
  return file.text("\n");
}

const scaleOf = (m: Measured): number => (m.kind === "straight" && m.scale) || 1;
/** Of a dimension in a view of a scale: what it measures is told as long as the thing is, not as its picture. */
const styleFor = (scale: number): string => `SCALE_${String(Math.round(scale * 1e6) / 1e6).replace(".", "_")}`;

function putTables(file: DxfLines, scales: readonly number[]): void {
  file.table("LTYPE", TYPES, ([name, look, dashes]) => {
    file.put(0, "LTYPE");
    file.put(2, name);
    file.put(70, 0);
    file.put(3, look);
    file.put(72, 65);
    file.put(73, dashes.length);
    const whole = dashes.reduce<number>((sum, dash) => sum + Math.abs(dash), 0);
    file.put(40, whole);
    for (const dash of dashes) file.put(49, dash);
  });
  const layers = new Map(Object.values(LAYERS).map((l) => [l[0], l]));
  file.table("LAYER", [...layers.values()], ([name, colour, type]) => {
    file.put(0, "LAYER");
    file.put(2, name);
    file.put(70, 0);
    file.put(62, colour);
    file.put(6, type);
  });
  file.table("DIMSTYLE", scales, (scale) => {
    file.put(0, "DIMSTYLE");
    file.put(2, styleFor(scale));
    file.put(70, 0);
    file.put(144, 1 / scale);
  });
}

function putBlock(file: DxfLines, group: Group, name: string): void {
  file.put(0, "BLOCK");
  file.put(8, "0");
  file.put(2, name);
  file.put(70, 1);
  for (const code of [10, 20, 30]) file.put(code, 0);
  for (const m of group.marks) putMark(file, m);
  file.put(0, "ENDBLK");
  file.put(8, "0");
}

function begin(file: DxfLines, kind: string, layer: keyof typeof LAYERS): void {
  file.put(0, kind);
  file.put(8, LAYERS[layer][0]);
}

function putLine(file: DxfLines, layer: keyof typeof LAYERS, from: Vec2, to: Vec2): void {
  begin(file, "LINE", layer);
  file.place(10, from);
  file.place(11, to);
}

function putMark(file: DxfLines, m: Mark): void {
  switch (m.mark) {
    case "line":
      return putLine(file, m.pen, m.a, m.b);
    case "path": {
      const points = m.isClosed ? [...m.points, m.points[0]!] : m.points;
      return points.slice(1).forEach((p, i) => putLine(file, m.pen, points[i]!, p));
    }
    case "arc":
      return putArc(file, m);
    case "light":
      return;
    case "fill": {
      const [a, b, c = b] = m.points as [Vec2, Vec2, Vec2?];
      begin(file, "SOLID", "arrow");
      return [a, b, c, c].forEach((p, i) => file.place(10 + i, p));
    }
    case "text":
      return putText(file, m);
  }
}

function putArc(file: DxfLines, arc: Extract<Mark, { mark: "arc" }>): void {
  const isWhole = arc.to - arc.from > TURN - WHOLE;
  begin(file, isWhole ? "CIRCLE" : "ARC", arc.pen);
  file.place(10, arc.centre);
  file.put(40, arc.radius);
  if (isWhole) return;
  file.put(50, (arc.from * 360) / TURN);
  file.put(51, (arc.to * 360) / TURN);
}

function putText(file: DxfLines, { at, height, text, turn, anchor }: Extract<Mark, { mark: "text" }>): void {
  begin(file, "TEXT", "text");
  file.place(10, at);
  file.put(40, height);
  file.put(1, asDxf(text));
  if (turn) file.put(50, turn);
  if (anchor === "start") return;
  file.put(72, anchor === "middle" ? 1 : 2);
  file.place(11, at);
}

function putDimension(file: DxfLines, group: Group, measured: Measured, name: string): void {
  const text = group.marks.find((k) => k.mark === "text");
  begin(file, "DIMENSION", "thin");
  file.put(2, name);
  file.place(10, measured.on);
  file.place(11, text?.mark === "text" ? text.at : measured.on);
  file.put(70, measured.kind === "straight" ? 0 : 5);
  file.put(1, text?.mark === "text" ? asDxf(text.text) : "");
  file.put(3, styleFor(scaleOf(measured)));
  file.place(13, measured.from);
  file.place(14, measured.to);
  if (measured.kind === "straight") file.put(50, measured.turn);
  else file.place(15, measured.vertex);
}

/** R12 holds no letters beyond ASCII: its own codes for three signs, the rest by number. */
const asDxf = (text: string): string =>
  // a line of the file is a value: a break in a text would begin another
  [...printable(text)]
    .map((c) => {
      if (c === "⌀") return "%%c";
      if (c === "°") return "%%d";
      if (c === "±") return "%%p";
      return c.charCodeAt(0) < 128 ? c : `\\U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`;
    })
    .join("");

import type { Vec2 } from "@/core/geometry/vector";
import type { Drawing, Group, Mark, Measured, Pen } from "./drawing";
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
  const out: string[] = [];
  const put = (code: number, value: string | number) =>
    out.push(String(code), typeof value === "number" ? String(Math.round(value * 1e6) / 1e6) : value);
  const place = (code: number, [x, y]: Vec2) => {
    put(code, x);
    put(code + 10, drawing.height - y);
    put(code + 20, 0);
  };
  const entity = (kind: string, layer: keyof typeof LAYERS) => {
    put(0, kind);
    put(8, LAYERS[layer][0]);
  };
  const line = (layer: keyof typeof LAYERS, a: Vec2, b: Vec2) => {
    entity("LINE", layer);
    place(10, a);
    place(11, b);
  };
  const mark = (m: Mark): void => {
    switch (m.mark) {
      case "line":
        return line(m.pen, m.a, m.b);
      case "path": {
        const points = m.isClosed ? [...m.points, m.points[0]!] : m.points;
        return points.slice(1).forEach((p, i) => line(m.pen, points[i]!, p));
      }
      case "arc": {
        const isWhole = m.to - m.from > TURN - WHOLE;
        entity(isWhole ? "CIRCLE" : "ARC", m.pen);
        place(10, m.centre);
        put(40, m.radius);
        if (isWhole) return;
        put(50, (m.from * 360) / TURN);
        put(51, (m.to * 360) / TURN);
        return;
      }
      case "light":
        return;
      case "fill": {
        const [a, b, c = b] = m.points as [Vec2, Vec2, Vec2?];
        entity("SOLID", "arrow");
        [a, b, c, c].forEach((p, i) => place(10 + i, p!));
        return;
      }
      case "text":
        entity("TEXT", "text");
        place(10, m.at);
        put(40, m.height);
        put(1, asDxf(m.text));
        if (m.turn) put(50, m.turn);
        if (m.anchor === "start") return;
        put(72, m.anchor === "middle" ? 1 : 2);
        place(11, m.at);
    }
  };
  /** A dimension as such: its lines stand in a block of its own. */
  const dimension = (g: Group, measured: Measured, name: string) => {
    const text = g.marks.find((k) => k.mark === "text");
    entity("DIMENSION", "thin");
    put(2, name);
    place(10, measured.on);
    place(11, text?.mark === "text" ? text.at : measured.on);
    put(70, measured.kind === "straight" ? 0 : 5);
    put(1, text?.mark === "text" ? asDxf(text.text) : "");
    place(13, measured.from);
    place(14, measured.to);
    if (measured.kind === "straight") put(50, measured.turn);
    else place(15, measured.vertex);
  };
  const table = (name: string, rows: readonly (() => void)[]) => {
    put(0, "TABLE");
    put(2, name);
    put(70, rows.length);
    for (const row of rows) row();
    put(0, "ENDTAB");
  };
  put(0, "SECTION");
  put(2, "HEADER");
  put(9, "$ACADVER");
  put(1, "AC1009");
  put(0, "ENDSEC");
  put(0, "SECTION");
  put(2, "TABLES");
  table(
    "LTYPE",
    TYPES.map(([name, look, dashes]) => () => {
      put(0, "LTYPE");
      put(2, name);
      put(70, 0);
      put(3, look);
      put(72, 65);
      put(73, dashes.length);
      put(
        40,
        dashes.reduce<number>((s, d) => s + Math.abs(d), 0),
      );
      for (const d of dashes) put(49, d);
    }),
  );
  const layers = new Map(Object.values(LAYERS).map((l) => [l[0], l]));
  table(
    "LAYER",
    [...layers.values()].map(([name, colour, type]) => () => {
      put(0, "LAYER");
      put(2, name);
      put(70, 0);
      put(62, colour);
      put(6, type);
    }),
  );
  put(0, "ENDSEC");
  const dimensions = drawing.groups.flatMap((g, i) => (g.measures ? [{ g, m: g.measures, name: `*D${i}` }] : []));
  put(0, "SECTION");
  put(2, "BLOCKS");
  for (const { g: group, name } of dimensions) {
    put(0, "BLOCK");
    put(8, "0");
    put(2, name);
    put(70, 1);
    put(10, 0);
    put(20, 0);
    put(30, 0);
    group.marks.forEach(mark);
    put(0, "ENDBLK");
    put(8, "0");
  }
  put(0, "ENDSEC");
  put(0, "SECTION");
  put(2, "ENTITIES");
  for (const g of drawing.groups) if (!g.measures) g.marks.forEach(mark);
  for (const { g, m, name } of dimensions) dimension(g, m, name);
  put(0, "ENDSEC");
  put(0, "EOF");
  return `${out.join("\n")}\n`;
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

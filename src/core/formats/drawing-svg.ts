import type { Vec2 } from "@/core/geometry/vector";
import { dashes, penWidth, typeSize, type Drawing, type Group, type Mark, type Pen } from "./drawing";
import { element, escaped, figure } from "./svg";

/** Colours of paper and print; a page that shows the drawing may set others by its classes. */
const INK = "#22292f";
const STEEL = "#3e5c70";
const PAPER = "#ffffff";
const COLOURS: Record<Pen, string> = {
  outline: INK,
  hidden: INK,
  cutting: INK,
  frame: INK,
  thin: STEEL,
  centre: STEEL,
  hatch: STEEL,
};

/**
 * A drawing as SVG that looks the same wherever it is opened: every colour, width and dash stands with its line, and
 * classes stand beside them for pages that have a theme.
 */
export function svgOf(drawing: Drawing): string {
  const { width, height, wide, groups } = drawing;
  return element(
    "svg",
    {
      xmlns: "http://www.w3.org/2000/svg",
      viewBox: `0 0 ${figure(width)} ${figure(height)}`,
      width: `${figure(width)}mm`,
      height: `${figure(height)}mm`,
      "font-family": "'B612 Mono', 'DejaVu Sans Mono', monospace",
      class: "sheet",
    },
    element("title", {}, escaped(drawing.title)),
    element("rect", { x: 0, y: 0, width, height, class: "paper", fill: PAPER }),
    ...groups.map((g) => groupOf(g, wide)),
  );
}

/** Marks alone, to be laid over a drawing. */
export const svgMarks = (marks: readonly Mark[], wide: number): string => marks.map((m) => markOf(m, wide)).join("");

function groupOf(group: Group, wide: number): string {
  const isNamed = group.role === "view" || group.role === "dimension" || group.role === "remark";
  const own = isNamed ? { [`data-${group.role}`]: group.name } : {};
  const isLive = group.role === "dimension";
  const [x, y, width, height] = group.patch ?? [];
  return element(
    "g",
    { class: group.role, ...own, ...(isLive && { tabindex: 0 }) },
    ...(group.title ? [element("title", {}, escaped(group.title))] : []),
    ...(group.patch
      ? [element("rect", { x, y, width, height, fill: "#ffffff", "fill-opacity": 0, class: "patch" })]
      : []),
    ...group.marks.map((m) => markOf(m, wide)),
  );
}

const at = (p: Vec2) => `${figure(p[0])} ${figure(p[1])}`;

function markOf(m: Mark, wide: number): string {
  switch (m.mark) {
    case "line":
      return stroke(`M${at(m.a)}L${at(m.b)}`, m.pen, wide);
    case "path":
      return stroke(`M${m.points.map(at).join("L")}${m.isClosed ? "Z" : ""}`, m.pen, wide);
    case "arc":
      return stroke(arcPath(m.centre, m.radius, m.from, m.to), m.pen, wide);
    case "light":
      return m.lines.length
        ? element("path", {
            d: m.lines.map(smooth).join(""),
            class: "light",
            fill: "none",
            display: "none",
          })
        : "";
    case "fill":
      return element("path", { d: `M${m.points.map(at).join("L")}Z`, class: "arrow", fill: STEEL });
    case "text":
      return element(
        "text",
        {
          x: m.at[0],
          y: m.at[1],
          "font-size": typeSize(m.height),
          "text-anchor": m.anchor === "start" ? undefined : m.anchor,
          "font-weight": m.isBold ? "bold" : undefined,
          transform: m.turn ? `rotate(${figure(-m.turn)} ${figure(m.at[0])} ${figure(m.at[1])})` : undefined,
          fill: INK,
        },
        escaped(m.text),
      );
  }
}

const TURN = 2 * Math.PI;
/** What a whole circle may lack of a turn, radians. */
const WHOLE = 1 / 1_000_000;

export function arcPath(c: Vec2, radius: number, from: number, to: number): string {
  const on = (t: number): Vec2 => [c[0] + radius * Math.cos(t), c[1] - radius * Math.sin(t)];
  const r = figure(radius);
  if (to - from > TURN - WHOLE) return `M${at(on(0))}A${r} ${r} 0 1 0 ${at(on(Math.PI))}A${r} ${r} 0 1 0 ${at(on(0))}Z`;
  return `M${at(on(from))}A${r} ${r} 0 ${to - from > Math.PI ? 1 : 0} 0 ${at(on(to))}`;
}

/** From so many points on a line stands for a curve. */
const CURVE = 7;

/** A line through points; of a curve rounded from middle to middle: it has no corners, however close one looks. */
function smooth(points: readonly Vec2[]): string {
  if (points.length < CURVE) return `M${points.map(at).join("L")}`;
  const middles = points.slice(1, -2).map((p, i): Vec2 => {
    const next = points[i + 2]!;
    return [(p[0] + next[0]) / 2, (p[1] + next[1]) / 2];
  });
  const bends = middles.map((m, i) => `Q${at(points[i + 1]!)} ${at(m)}`).join("");
  return `M${at(points[0]!)}${bends}Q${at(points[points.length - 2]!)} ${at(points[points.length - 1]!)}`;
}

function stroke(d: string, pen: Pen, wide: number): string {
  const list = dashes(pen, wide);
  return element("path", {
    d,
    class: `pen-${pen}`,
    fill: "none",
    stroke: COLOURS[pen],
    "stroke-width": penWidth(pen, wide),
    "stroke-linecap": pen === "outline" ? "round" : undefined,
    "stroke-linejoin": pen === "outline" ? "round" : undefined,
    "stroke-dasharray": list.length ? list.map(figure).join(" ") : undefined,
  });
}

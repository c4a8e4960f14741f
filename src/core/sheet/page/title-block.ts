import { textLength, type Group, type Mark } from "@/core/formats/drawing";
import type { Vec2 } from "@/core/geometry/vector";
import type { Paper } from "../layout/paper";
import type { Projection } from "../views/views";

/** What a title block says (ISO 7200). */
interface TitleFields {
  readonly owner: string;
  readonly title: string;
  readonly number: string;
  readonly material: string;
  readonly mass: string;
  readonly scale: string;
  readonly drawn: string;
  readonly revision: string;
  readonly date: string;
  readonly count: string;
  readonly units: string;
  readonly tolerance: string;
  readonly projection: Projection;
}

/** Width and height, mm. */
export const TITLE_WIDTH = 180;
export const TITLE_HEIGHT = 36;
const ROWS = 3;
/** Of what names a field. */
const SMALL = 1.8;

/** The block in the lower right corner of the frame. */
export function titleBlock(paper: Paper, fields: TitleFields): Group {
  const [, , right, bottom] = paper.frame,
    left = Math.max(paper.frame[0], right - TITLE_WIDTH),
    top = bottom - TITLE_HEIGHT,
    width = right - left;
  const row = TITLE_HEIGHT / ROWS;
  const columns = [0, 0.36, 0.7, 0.86, 1].map((share) => left + share * width);
  const marks: Mark[] = [
    {
      mark: "path",
      pen: "frame",
      points: [
        [left, bottom],
        [left, top],
        [right, top],
      ],
    },
    ...[1, 2].map((i): Mark => line([left, top + i * row], [right, top + i * row])),
    line([columns[1]!, top], [columns[1]!, bottom]),
    line([columns[2]!, top], [columns[2]!, bottom]),
    line([columns[3]!, top + row], [columns[3]!, bottom]),
  ];
  const field = (r: number, c: number, to: number, name: string, value: string, isBold = false) => {
    const x = columns[c]! + 1.5,
      room = columns[to]! - columns[c]! - 3;
    // a long text is lettered smaller rather than over its neighbour
    const height = Math.min(
      paper.letter * 0.8,
      (paper.letter * 0.8 * room) / Math.max(room, textLength(value, paper.letter * 0.8)),
    );
    marks.push(text([x, top + r * row + 3.6], name, SMALL), {
      ...text([x, top + r * row + row - 2.6], value, height),
      ...(isBold && { isBold }),
    });
  };
  field(0, 0, 1, "owner", fields.owner);
  field(0, 1, 2, "title", fields.title, true);
  field(0, 2, 4, "number", fields.number);
  field(1, 0, 1, "material", fields.material);
  field(1, 1, 2, "mass", fields.mass);
  field(1, 2, 3, "scale", fields.scale);
  field(1, 3, 4, "sheet", fields.count);
  field(
    2,
    0,
    1,
    "drawn by · date · revision",
    [fields.drawn, fields.date, fields.revision].filter(Boolean).join(" · "),
  );
  field(2, 1, 2, "general tolerances", fields.tolerance);
  field(2, 2, 3, "sizes in", fields.units);
  const middle: Vec2 = [(columns[3]! + columns[4]!) / 2, top + 2.5 * row];
  return { role: "title", marks: [...marks, ...projectionSymbol(middle, fields.projection)] };
}

const line = (a: Vec2, b: Vec2): Mark => ({ mark: "line", pen: "thin", a, b });
const text = (at: Vec2, s: string, height: number): Mark & { mark: "text" } => ({
  mark: "text",
  at,
  text: s,
  height,
  anchor: "start",
});

/** A truncated cone from the side and from its narrow end (ISO 5456-2). */
function projectionSymbol([x, y]: Vec2, projection: Projection): Mark[] {
  const isFirst = projection === "first-angle";
  // the narrow end is seen from the left: drawn at the right in first angle, at the left in third
  const cone = isFirst ? x - 5 : x + 5,
    rings = isFirst ? x + 5 : x - 5;
  const ring = (radius: number): Mark => ({
    mark: "arc",
    pen: "thin",
    centre: [rings, y],
    radius,
    from: 0,
    to: 2 * Math.PI,
  });
  return [
    {
      mark: "path",
      pen: "thin",
      points: [
        [cone - 3.5, y - 1.5],
        [cone + 3.5, y - 3],
        [cone + 3.5, y + 3],
        [cone - 3.5, y + 1.5],
      ],
      isClosed: true,
    },
    ring(1.5),
    ring(3),
    { mark: "line", pen: "centre", a: [x - 10, y], b: [x + 10, y] },
  ];
}

import { fixtures } from "../views/cutting";
import type { Placed } from "../sizes/placed";
import { heightOf, joinedBoxes, widthOf, type Box } from "../plane";
import type { Projection, View, ViewName } from "../views/views";

/** Air between views and their sizes, mm. */
export const AIR = 12;

interface Cell {
  readonly view: View;
  readonly placed: readonly Placed[];
  /** View and sizes, from the view's lower left corner, paper mm, y upwards. */
  readonly extent: Box;
  readonly column: number;
  readonly row: number;
}
export interface Grid {
  readonly cells: readonly Cell[];
  readonly columns: readonly Track[];
  readonly rows: readonly Track[];
  readonly width: number;
  readonly height: number;
}
/** A column or row: its views' own reach, and what their sizes want before and after it. */
export interface Track {
  readonly from: number;
  readonly size: number;
  readonly before: number;
  readonly after: number;
}

/** Which column and row a view stands in. @param cut how many sections across stand before it */
function cellOf(name: ViewName, projection: Projection, cut: number): readonly [column: number, row: number] {
  const isFirst = projection === "first-angle";
  // the part lies in the middle of its end views
  if (name === "start") return [0, 0];
  if (name === "long") return [1, 0];
  if (name === "end") return [2, 0];
  if (name === "section") return [3 + cut, 0];
  if (name === "top") return [0, isFirst ? 1 : 0];
  if (name === "front") return [0, isFirst ? 0 : 1];
  return name === "left" || name === "right" ? [1, isFirst ? 0 : 1] : [0, 0];
}

/** Cells of views, without the columns and rows that stay empty. */
export function cellsOf(views: readonly View[], projection: Projection): readonly (readonly [number, number])[] {
  const cuts = views.filter((v) => v.name === "section");
  const raw = views.map((v) => cellOf(v.name, projection, cuts.indexOf(v)));
  const used = ([0, 1] as const).map((i) => [...new Set(raw.map((c) => c[i]))].sort((a, b) => a - b));
  return raw.map(([c, r]) => [used[0]!.indexOf(c), used[1]!.indexOf(r)] as const);
}

/** What a view and all that stands at it fill, from the view's lower left corner, paper mm, y upwards. */
export function extentOf(
  view: View,
  placed: readonly Placed[],
  views: readonly View[],
  scale: number,
  letter: number,
): Box {
  const frame: Box = { min: [0, 0], max: [widthOf(view.box) * scale, heightOf(view.box) * scale] };
  const all = joinedBoxes([frame, ...[...placed, ...fixtures(view, views, scale, letter)].map((p) => p.box)]);
  // the letters of a section stand above all
  return view.letter ? { ...all, max: [all.max[0], all.max[1] + 2.2 * letter + 3] } : all;
}

/** Views in columns and rows, each with its sizes. */
export function gridOf(
  views: readonly View[],
  projection: Projection,
  placed: readonly Placed[],
  scale: number,
  letter: number,
): Grid {
  const at = cellsOf(views, projection);
  const cells = views.map((view, n): Cell => {
    const own = placed.filter((p) => p.view === view);
    const [column, row] = at[n]!;
    return { view, placed: own, extent: extentOf(view, own, views, scale, letter), column, row };
  });
  const tracks = (axis: 0 | 1, at: (c: Cell) => number): Track[] => {
    const count = Math.max(...cells.map(at)) + 1;
    return Array.from({ length: count }, (_, n): Track => {
      const own = cells.filter((c) => at(c) === n);
      const from = Math.min(...own.map((c) => c.view.box.min[axis])),
        to = Math.max(...own.map((c) => c.view.box.max[axis]));
      const before = Math.max(...own.map((c) => (from - c.view.box.min[axis]) * scale - c.extent.min[axis]));
      const after = Math.max(...own.map((c) => (c.view.box.min[axis] - to) * scale + c.extent.max[axis]));
      return { from, size: (to - from) * scale, before, after };
    });
  };
  const columns = tracks(0, (c) => c.column),
    rows = tracks(1, (c) => c.row);
  const sum = (list: readonly Track[]) =>
    list.reduce((s, t) => s + t.before + t.size + t.after, 0) + AIR * (list.length - 1);
  return { cells, columns, rows, width: sum(columns), height: sum(rows) };
}

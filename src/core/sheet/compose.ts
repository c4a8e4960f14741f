import type { Vec2 } from "@/core/geometry/vector";
import { arrange } from "./arrange";
import { paperOf, type Placed } from "./placed";
import { centresOf } from "./centres";
import { fixtures } from "./cutting";
import type { Item } from "./items";
import type { SheetModel } from "./model";
import { paperOf as sheetOf, type Paper, type PaperName } from "./paper";
import { heightOf, joinedBoxes, widthOf, type Box, type Segment } from "./plane";
import type { Size } from "@/core/sizes/size";
import { TITLE_HEIGHT, TITLE_WIDTH } from "./title-block";
import type { Projection, View, ViewName } from "./views";

/** Standard scales (ISO 5455), largest first. */
const SCALES = [20, 10, 5, 2, 1, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01];
export const scaleText = (s: number): string => (s >= 1 ? `${s}:1` : `1:${Math.round(1 / s)}`);

/** Air between views and their sizes, and to the frame, mm. */
const AIR = 12;
const EDGE = 5;

/** A view where it stands on paper: its lower left corner, mm from the upper left of the sheet, y downwards. */
export interface Standing {
  readonly view: View;
  readonly scale: number;
  readonly corner: Vec2;
  readonly placed: readonly Placed[];
}

export interface Composition {
  readonly paper: Paper;
  readonly scale: number;
  readonly views: readonly Standing[];
}

interface Job {
  readonly model: SheetModel;
  readonly views: readonly View[];
  readonly pictorial: View | undefined;
  readonly items: readonly Item[];
  readonly sizes: readonly Size[];
  readonly projection: Projection;
  /** Lines of notes above or beside the title block. */
  readonly notes: number;
  readonly papers: readonly PaperName[];
  /** The one that was asked for; left out: one of the papers is chosen. */
  readonly paper?: { readonly name: PaperName; readonly isLying: boolean } | undefined;
}

/** A larger sheet must make so many doublings of the scale worth its while. */
const LARGER = 0.9;

/**
 * Chooses paper and scale, and puts the views with their sizes on it: the largest standard scale that fits, on a larger
 * sheet only where that more than doubles it.
 */
export function compose(job: Job): Composition {
  const done = new Map<string, Placed[]>();
  const placedAt = (scale: number, letter: number): Placed[] => {
    const key = `${scale} ${letter}`;
    let list = done.get(key);
    if (!list) {
      const centres = (view: View): Segment[] => {
        const toPaper = paperOf(view, scale);
        return centresOf(job.model, job.sizes, view, scale).lines.map(([a, b]): Segment => [toPaper(a), toPaper(b)]);
      };
      const fixed = (view: View) => fixtures(view, job.views, scale, letter);
      done.set(key, (list = arrange(job.items, scale, letter, centres, fixed)));
    }
    return list;
  };
  let best: { score: number; make: () => Composition } | undefined;
  const names = job.paper ? [job.paper.name] : job.papers,
    ways = job.paper ? [job.paper.isLying] : [false, true];
  names.forEach((name, larger) => {
    for (const isLying of ways) {
      const paper = sheetOf(name, isLying);
      for (const scale of SCALES) {
        if (!couldFit(job, paper, scale)) continue;
        const grid = gridOf(job, placedAt(scale, paper.letter), scale, paper.letter);
        if (!fits(job, grid, paper)) continue;
        const filled = (grid.width * grid.height) / ((paper.frame[2] - paper.frame[0]) * roomHeight(job, paper));
        // what is enlarged anyway wants no larger paper
        if (larger && scale > 1) break;
        const score = Math.log2(scale) - LARGER * larger + FILLED * Math.min(filled, 1);
        if (!best || score > best.score)
          best = { score, make: () => ({ paper, scale, views: standing(job, grid, paper, scale) }) };
        break;
      }
    }
  });
  if (best) return best.make();
  // nothing fits: the smallest scale on the largest sheet, rather than none
  const paper = sheetOf(names[names.length - 1]!, ways[ways.length - 1]!),
    scale = SCALES[SCALES.length - 1]!;
  return {
    paper,
    scale,
    views: standing(job, gridOf(job, placedAt(scale, paper.letter), scale, paper.letter), paper, scale),
  };
}
/** How much a well filled sheet counts beside a doubling of the scale. */
const FILLED = 0.5;

const roomHeight = ({ notes }: Job, paper: Paper): number => {
  const [l, t, r, b] = paper.frame;
  // notes stand beside the title block where there is room
  const above = r - l - TITLE_WIDTH < NOTES_BESIDE ? notes * paper.letter * 1.8 + 3 : 0;
  return b - t - TITLE_HEIGHT - above;
};
export const NOTES_BESIDE = 60;

/** Which column and row a view stands in. */
function cellOf(name: ViewName, projection: Projection): readonly [column: number, row: number] {
  const isFirst = projection === "first-angle";
  // the part lies in the middle of its end views
  if (name === "start") return [0, 0];
  if (name === "long") return [1, 0];
  if (name === "end") return [2, 0];
  if (name === "top") return [0, isFirst ? 1 : 0];
  if (name === "front") return [0, isFirst ? 0 : 1];
  return name === "left" || name === "right" ? [1, isFirst ? 0 : 1] : [0, 0];
}

interface Cell {
  readonly view: View;
  readonly placed: readonly Placed[];
  /** View and sizes, from the view's lower left corner, paper mm, y upwards. */
  readonly extent: Box;
  readonly column: number;
  readonly row: number;
}
interface Grid {
  readonly cells: readonly Cell[];
  readonly columns: readonly Track[];
  readonly rows: readonly Track[];
  readonly width: number;
  readonly height: number;
}
/** A column or row: its views' own reach, and what their sizes want before and after it. */
interface Track {
  readonly from: number;
  readonly size: number;
  readonly before: number;
  readonly after: number;
}

/** Cells of views, without the columns and rows that stay empty. */
function cellsOf(views: readonly View[], projection: Projection): readonly (readonly [number, number])[] {
  const raw = views.map((v) => cellOf(v.name, projection));
  const used = ([0, 1] as const).map((i) => [...new Set(raw.map((c) => c[i]))].sort((a, b) => a - b));
  return raw.map(([c, r]) => [used[0]!.indexOf(c), used[1]!.indexOf(r)] as const);
}

function gridOf({ views, projection }: Job, placed: readonly Placed[], scale: number, letter: number): Grid {
  const at = cellsOf(views, projection);
  const cells = views.map((view, n): Cell => {
    const own = placed.filter((p) => p.view === view);
    const frame: Box = { min: [0, 0], max: [widthOf(view.box) * scale, heightOf(view.box) * scale] };
    const [column, row] = at[n]!;
    const boxes = [frame, ...[...own, ...fixtures(view, views, scale, letter)].map((p) => p.box)];
    const all = joinedBoxes(boxes);
    // the letters of a section stand above all
    const extent = view.letter ? { ...all, max: [all.max[0], all.max[1] + 2.2 * letter + 3] as const } : all;
    return { view, placed: own, extent, column, row };
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

/** Without any size it must fit all the more. */
function couldFit({ views, projection }: Job, paper: Paper, scale: number): boolean {
  const cells = cellsOf(views, projection);
  const at = (axis: 0 | 1, n: number) =>
    Math.max(0, ...views.filter((_, k) => cells[k]![axis] === n).map((v) => v.box.max[axis] - v.box.min[axis]));
  const [l, t, r, b] = paper.frame;
  const all = (axis: 0 | 1) => at(axis, 0) + at(axis, 1) + at(axis, 2);
  return all(0) * scale < r - l && all(1) * scale < b - t - TITLE_HEIGHT;
}

const fits = (job: Job, grid: Grid, paper: Paper): boolean =>
  grid.width <= paper.frame[2] - paper.frame[0] - 2 * EDGE && grid.height <= roomHeight(job, paper) - 2 * EDGE;

function standing(job: Job, grid: Grid, paper: Paper, scale: number): Standing[] {
  const [l, t, r] = paper.frame;
  const wide = r - l,
    high = roomHeight(job, paper);
  const beside = pictureBeside(job, wide - 2 * EDGE - grid.width, high - 2 * EDGE, scale);
  const columns = beside ? [...grid.columns, beside.track] : grid.columns,
    used = grid.width + (beside ? beside.track.size + AIR : 0);
  const x = startsOf(columns, l, wide, used),
    // rows are counted from above, views measured from below
    y = startsOf(
      grid.rows.map((row) => ({ ...row, before: row.after, after: row.before })),
      t,
      high,
      grid.height,
    );
  const views = grid.cells.map(({ view, placed, column, row }): Standing => {
    const left = x[column]! + (view.box.min[0] - grid.columns[column]!.from) * scale;
    const track = grid.rows[row]!;
    const low = y[row]! + track.size - (view.box.min[1] - track.from) * scale;
    return { view, scale, corner: [left, low], placed };
  });
  if (beside) {
    const { view } = beside,
      low = t + (high + heightOf(view.box) * beside.scale) / 2;
    return [...views, { view, scale: beside.scale, corner: [x[x.length - 1]!, low], placed: [] }];
  }
  const picture = job.pictorial && pictureOf(job.pictorial, grid, views, paper, high, scale);
  return picture ? [...views, picture] : views;
}

/** Where two views or one leave room at their side, the pictorial view has a column of its own there. */
function pictureBeside({ pictorial: view, views }: Job, spare: number, high: number, scale: number) {
  if (!view || views.length > 2) return undefined;
  const most = Math.min(scale, (spare - 2 * AIR) / widthOf(view.box), (high * PICTURE_SHARE) / heightOf(view.box));
  const size = most * widthOf(view.box);
  if (most <= 0 || Math.max(size, most * heightOf(view.box)) < LEAST_PICTURE) return undefined;
  return { view, scale: most, track: { from: 0, size, before: 0, after: 0 } };
}
const PICTURE_SHARE = 0.8;

/** Where each track's own reach begins: what is left over goes evenly before, between and after. */
function startsOf(tracks: readonly Track[], from: number, room: number, used: number): number[] {
  // somewhat more between the views than around them
  const spare = Math.max(0, room - used) / (tracks.length - 1 + 2 * AROUND);
  let at = from;
  return tracks.map((t, i) => {
    at += (i ? spare : spare * AROUND) + t.before + (i ? AIR : 0);
    const start = at;
    at += t.size + t.after;
    return start;
  });
}

const AROUND = 0.6;

/** The pictorial view in the largest place that is free, at no more than the scale of the others. */
function pictureOf(
  view: View,
  grid: Grid,
  views: readonly Standing[],
  paper: Paper,
  high: number,
  scale: number,
): Standing | undefined {
  const [l, t, r] = paper.frame;
  const taken = grid.cells.map((c, i): Box => {
    const [x, y] = views[i]!.corner;
    return { min: [x + c.extent.min[0], y - c.extent.max[1]], max: [x + c.extent.max[0], y - c.extent.min[1]] };
  });
  // only where three views leave a corner empty does it stand among them
  const among = views.length > 2 ? taken : [joinedBoxes(taken)];
  const place = largestFree({ min: [l + EDGE, t + EDGE], max: [r - EDGE, t + high - EDGE] }, among);
  if (!place) return undefined;
  const [w, h] = [widthOf(place) - AIR, heightOf(place) - AIR];
  const most = Math.min(w / widthOf(view.box), h / heightOf(view.box), scale);
  if (most * Math.max(widthOf(view.box), heightOf(view.box)) < LEAST_PICTURE) return undefined;
  const corner: Vec2 = [
    (place.min[0] + place.max[0] - widthOf(view.box) * most) / 2,
    (place.min[1] + place.max[1] + heightOf(view.box) * most) / 2,
  ];
  return { view, scale: most, corner, placed: [] };
}
/** A pictorial view that came out smaller would show nothing, mm. */
const LEAST_PICTURE = 28;

/** The largest rectangle that none of the boxes reaches into, its sides along theirs. */
function largestFree(room: Box, taken: readonly Box[]): Box | undefined {
  const xs = [room.min[0], room.max[0], ...taken.flatMap((b) => [b.min[0], b.max[0]])].sort((a, b) => a - b);
  const ys = [room.min[1], room.max[1], ...taken.flatMap((b) => [b.min[1], b.max[1]])].sort((a, b) => a - b);
  let best: Box | undefined,
    most = 0;
  for (const [i, x0] of xs.entries())
    for (const x1 of xs.slice(i + 1))
      for (const [k, y0] of ys.entries())
        for (const y1 of ys.slice(k + 1)) {
          if (x0 < room.min[0] || x1 > room.max[0] || y0 < room.min[1] || y1 > room.max[1]) continue;
          // a long strip holds no picture
          const worth = Math.min(x1 - x0, y1 - y0) ** 2 * Math.sqrt((x1 - x0) * (y1 - y0));
          if (worth <= most) continue;
          const isFree = taken.every((b) => b.min[0] >= x1 || b.max[0] <= x0 || b.min[1] >= y1 || b.max[1] <= y0);
          if (isFree) [best, most] = [{ min: [x0, y0], max: [x1, y1] }, worth];
        }
  return best;
}

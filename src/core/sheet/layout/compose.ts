import { type Vec2, eachAxis2 } from "@/core/geometry/vector";
import type { Size } from "@/core/sizes/size";
import { arrange, between, UNREADABLE } from "../sizes/arrange";
import { kept } from "../sizes/candidates";
import { centresOf } from "../views/centres";
import { fixtures } from "../views/cutting";
import { AIR, cellsOf, extentOf, gridOf, type Grid, type Track } from "./grid";
import type { Item } from "../sizes/items";
import type { Layout } from "./layout";
import type { SheetModel } from "../views/model";
import { paperOf as sheetOf, SCALES, type Paper, type PaperName } from "./paper";
import { largestFree, pictureBeside, pictureOf } from "./picture";
import { paperOf, type Placed } from "../sizes/placed";
import { grown, heightOf, moved, overlap, widthOf, type Box, type Segment } from "../plane";
import { cornerFor, EDGE, middleOf, type Standing } from "./standing";
import { TITLE_HEIGHT, TITLE_WIDTH } from "../page/title-block";
import type { Projection, View } from "../views/views";

export interface Composition {
  readonly paper: Paper;
  readonly scale: number;
  readonly views: readonly Standing[];
  /** New views that found no free place and lie over others, by their keys. */
  readonly crowded?: readonly string[];
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

/** Every item at its best place, at a scale. */
function placedAt(job: Job, scale: number, letter: number, places?: Layout["places"]): Placed[] {
  const centres = (view: View): Segment[] => {
    const own = view.scale ?? scale,
      toPaper = paperOf(view, own);
    return centresOf(job.model, job.sizes, view, own).lines.map(([a, b]): Segment => [toPaper(a), toPaper(b)]);
  };
  const fixed = (view: View) => fixtures(view, job.views, view.scale ?? scale, letter);
  return arrange(job.items, scale, letter, centres, fixed, places);
}

/**
 * Chooses paper and scale, and puts the views with their sizes on it: the largest standard scale that fits, on a larger
 * sheet only where that more than doubles it.
 */
export function compose(job: Job): Composition {
  const done = new Map<string, Placed[]>();
  const placed = (scale: number, letter: number): Placed[] => {
    const key = `${scale} ${letter}`;
    let list = done.get(key);
    if (!list) done.set(key, (list = placedAt(job, scale, letter)));
    return list;
  };
  const grid = (paper: Paper, scale: number) =>
    gridOf(job.views, job.projection, placed(scale, paper.letter), scale, paper.letter);
  let best: { score: number; make: () => Composition } | undefined;
  const names = job.paper ? [job.paper.name] : job.papers,
    ways = job.paper ? [job.paper.isLying] : [false, true];
  names.forEach((name, larger) => {
    for (const isLying of ways) {
      const paper = sheetOf(name, isLying);
      for (const scale of SCALES) {
        if (!couldFit(job, paper, scale)) continue;
        const g = grid(paper, scale);
        if (!fits(job, g, paper)) continue;
        const filled = (g.width * g.height) / ((paper.frame[2] - paper.frame[0]) * roomHeight(job.notes, paper));
        // what is enlarged anyway wants no larger paper
        if (larger && scale > 1) break;
        const score = Math.log2(scale) - LARGER * larger + FILLED * Math.min(filled, 1);
        if (!best || score > best.score)
          best = { score, make: () => ({ paper, scale, views: standing(job, g, paper, scale) }) };
        break;
      }
    }
  });
  if (best) return best.make();
  // nothing fits: the smallest scale on the largest sheet, rather than none
  const paper = sheetOf(names[names.length - 1]!, ways[ways.length - 1]!),
    scale = SCALES[SCALES.length - 1]!;
  return { paper, scale, views: standing(job, grid(paper, scale), paper, scale) };
}
/** How much a well filled sheet counts beside a doubling of the scale. */
const FILLED = 0.5;

/** Puts the views where a layout says; what it does not place stands in line with its parent, or where is room. */
export function composeKept(job: Job, layout: Layout): Composition {
  const [first] = job.papers;
  const paper = job.paper ? sheetOf(job.paper.name, job.paper.isLying) : sheetOf(first!, true);
  const placed = placedAt(job, layout.scale, paper.letter, clearOfNew(job, layout, paper.letter));
  const done: Standing[] = [],
    taken: Box[] = [],
    crowded: string[] = [];
  const specs = new Map(layout.views.map((v) => [v.key, v]));
  const [l, t, r] = paper.frame,
    room: Box = { min: [l, t], max: [r, t + roomHeight(job.notes, paper)] };
  const isPlaced = (v: View) => specs.get(v.key)?.middle !== undefined;
  for (const view of [...job.views.filter(isPlaced), ...job.views.filter((v) => !isPlaced(v))]) {
    const scale = view.scale ?? layout.scale,
      own = placed.filter((p) => p.view === view);
    const extent = extentOf(view, own, job.views, scale, paper.letter);
    const parent = done.find((s) => s.view.key === view.of);
    const middle = specs.get(view.key)?.middle ?? freeMiddle(view, scale, extent, parent, taken, room);
    const corner = cornerFor(view, scale, middle);
    const box = onPaper(extent, corner);
    if (!isPlaced(view) && taken.some((o) => overlap(o, box))) crowded.push(view.key);
    done.push({ view, scale, corner, placed: own });
    taken.push(box);
  }
  return { paper, scale: layout.scale, views: job.views.map((v) => done.find((s) => s.view === v)!), crowded };
}

/** Places without those that stand in the way of what a view that is new draws into the others. */
function clearOfNew(job: Job, { places, scale, views }: Layout, letter: number): Layout["places"] {
  const fresh = new Set(views.filter((v) => !v.middle).map((v) => v.key));
  if (!fresh.size) return places;
  const without = job.views.filter((v) => !fresh.has(v.key));
  const added = new Map(
    job.views.map((view) => {
      const of = (views: readonly View[]) => fixtures(view, views, view.scale ?? scale, letter);
      const before = of(without).map((f) => JSON.stringify(f.box));
      return [view.key, of(job.views).filter((f) => !before.includes(JSON.stringify(f.box)))] as const;
    }),
  );
  const isInTheWay = (item: Item): boolean => {
    const place = places[item.lines[0]!.id],
      own = place && kept(item, place, scale, letter);
    return !!own && (added.get(own.view.key) ?? []).some((f) => between(own, f) >= UNREADABLE);
  };
  const gone = new Set(job.items.filter(isInTheWay).map((i) => i.lines[0]!.id));
  return Object.fromEntries(Object.entries(places).filter(([id]) => !gone.has(id)));
}

const onPaper = (extent: Box, [x, y]: Vec2): Box => ({
  min: [x + extent.min[0], y - extent.max[1]],
  max: [x + extent.max[0], y - extent.min[1]],
});

/** In line with the view it is taken from where that is free, else in the middle of the largest free place. */
function freeMiddle(
  view: View,
  scale: number,
  extent: Box,
  parent: Standing | undefined,
  taken: readonly Box[],
  room: Box,
): Vec2 {
  const zero = onPaper(extent, cornerFor(view, scale, [0, 0]));
  const isFree = (at: Vec2): boolean => {
    const box = moved(zero, at);
    const isInside =
      box.min[0] >= room.min[0] && box.max[0] <= room.max[0] && box.min[1] >= room.min[1] && box.max[1] <= room.max[1];
    return isInside && !taken.some((o) => overlap(grown(o, AIR / 2), box));
  };
  if (parent && view.name !== "detail") {
    const [x, y] = middleOf(parent);
    const beside: Vec2[] = [
        [1, 0],
        [-1, 0],
      ],
      over: Vec2[] = [
        [0, 1],
        [0, -1],
      ];
    const ways = view.path && isUprightPath(view.path) ? [...beside, ...over] : [...over, ...beside];
    for (const [dx, dy] of ways)
      for (let far = AIR; far < widthOf(room) + heightOf(room); far += AIR / 2) {
        const at: Vec2 = [x + dx * far, y + dy * far];
        if (isFree(at)) return at;
      }
  }
  const place = largestFree(room, taken) ?? room;
  return eachAxis2((i) => {
    const middle = (place.min[i] + place.max[i] - zero.min[i] - zero.max[i]) / 2;
    // over another view rather than off the paper
    return Math.max(room.min[i] - zero.min[i], Math.min(room.max[i] - zero.max[i], middle));
  });
}
const isUprightPath = (path: readonly Vec2[]): boolean => {
  const [a, b] = [path[0]!, path[path.length - 1]!];
  return Math.abs(b[1] - a[1]) > Math.abs(b[0] - a[0]);
};

const roomHeight = (notes: number, paper: Paper): number => {
  const [l, t, r, b] = paper.frame;
  // notes stand beside the title block where there is room
  const above = r - l - TITLE_WIDTH < NOTES_BESIDE ? notes * paper.letter * 1.8 + 3 : 0;
  return b - t - TITLE_HEIGHT - above;
};
export const NOTES_BESIDE = 60;

/** Without any size it must fit all the more. */
function couldFit({ views, projection }: Job, paper: Paper, scale: number): boolean {
  const cells = cellsOf(views, projection);
  const at = (axis: 0 | 1, n: number) =>
    Math.max(0, ...views.filter((_, k) => cells[k]![axis] === n).map((v) => v.box.max[axis] - v.box.min[axis]));
  const [l, t, r, b] = paper.frame;
  const all = (axis: 0 | 1) => views.reduce((sum, _, n) => sum + at(axis, n), 0);
  return all(0) * scale < r - l && all(1) * scale < b - t - TITLE_HEIGHT;
}

const fits = (job: Job, grid: Grid, paper: Paper): boolean =>
  grid.width <= paper.frame[2] - paper.frame[0] - 2 * EDGE && grid.height <= roomHeight(job.notes, paper) - 2 * EDGE;

function standing(job: Job, grid: Grid, paper: Paper, scale: number): Standing[] {
  const { pictorial } = job,
    [l, t, r] = paper.frame;
  const wide = r - l,
    high = roomHeight(job.notes, paper);
  const beside =
    pictorial && job.views.length <= 2
      ? pictureBeside(pictorial, wide - 2 * EDGE - grid.width, high - 2 * EDGE, scale)
      : undefined;
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
  const picture = pictorial && pictureOf(pictorial, grid, views, paper, high, scale);
  return picture ? [...views, picture] : views;
}

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

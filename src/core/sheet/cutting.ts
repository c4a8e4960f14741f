import { dot3, type Vec2 } from "@/core/geometry/vector";
import { paperOf, type Placed } from "./placed";
import { boxAround, joinedBoxes, type Box, type Segment } from "./plane";
import { ALONG_VIEW } from "./tolerance";
import { project, upOf, type View } from "./views";

/** Where a section runs, seen edge on in another view. */
interface CuttingLine {
  readonly letter: string;
  /** Level along the view's own x or y, mm of the part. */
  readonly along: "x" | "y";
  readonly level: number;
  /** Which way the section is looked at: towards more or less across. */
  readonly sense: 1 | -1;
}

/** How far its ends stand off the outline, their length, and that of the arrows; mm of paper. */
const OFF = 8;
const LONG = 5;
const ARM = 7;

/**
 * The ends of cutting lines in a view, with arrows and letters, as things that sizes keep clear of: paper mm from the
 * view's lower left corner. A section's line stands in the first view that sees its plane edge on.
 */
export function fixtures(view: View, views: readonly View[], scale: number, letter: number): Placed[] {
  return views.flatMap((o) => {
    if (!o.cut || !o.letter || views.find((v) => lineIn(v, o)) !== view) return [];
    return ends(lineIn(view, o)!, view, scale, letter);
  });
}

function lineIn(view: View, o: View): CuttingLine | undefined {
  if (view === o || view.name === "pictorial" || !o.cut || !o.letter) return undefined;
  const at = project(view.gaze, o.cut.frame.origin);
  const [right, up] = [dot3(o.gaze.toViewer, view.gaze.right), dot3(o.gaze.toViewer, upOf(view.gaze))];
  // arrows show the way one looks: against where the viewer stands
  if (Math.abs(up) > ALONG_VIEW) return { letter: o.letter, along: "x", level: at[1], sense: up > 0 ? -1 : 1 };
  if (Math.abs(right) > ALONG_VIEW) return { letter: o.letter, along: "y", level: at[0], sense: right > 0 ? -1 : 1 };
  return undefined;
}

function ends({ letter, along, level, sense }: CuttingLine, view: View, scale: number, height: number): Placed[] {
  const [i, k] = along === "x" ? ([0, 1] as const) : ([1, 0] as const);
  const at = (level - view.box.min[k]) * scale,
    long = paperOf(view, scale)(view.box.max)[i];
  const point = (u: number, v: number): Vec2 => (i === 0 ? [u, v] : [v, u]);
  const tall = height * 1.2;
  return [-OFF, long + OFF].map((u, n): Placed => {
    const inward = n === 0 ? 1 : -1;
    const foot = point(u, at),
      tip = point(u, at + sense * ARM);
    const extensions: Segment[] = [[foot, point(u + inward * LONG, at)]],
      lines: Segment[] = [[foot, tip]];
    const middle = point(u - inward * 3, at + sense * 4);
    const box: Box = {
      min: [middle[0] - tall / 2, middle[1] - tall / 2],
      max: [middle[0] + tall / 2, middle[1] + tall / 2],
    };
    const text = { id: "", kind: "distance" as const, text: letter, values: [] };
    return {
      item: { lines: [], presentations: [] },
      view,
      texts: [{ line: text, at: [middle[0], box.min[1]], anchor: "middle", isTurned: false, box }],
      lines,
      extensions,
      arrows: [{ tip, way: i === 0 ? [0, sense] : [sense, 0] }],
      box: joinedBoxes([box, boxAround([...lines, ...extensions].flat())]),
      own: 0,
    };
  });
}

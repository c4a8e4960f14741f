/** What of the paper is looked at: a rectangle of its own shape, mm. */
export type PaperWindow = readonly [x: number, y: number, width: number, height: number];

interface Extent {
  readonly width: number;
  readonly height: number;
}

/** Pixels a millimetre of the paper takes where a window is looked at in a pane. */
export const scaleIn = ([, , w, h]: PaperWindow, pane: Extent): number => Math.min(pane.width / w, pane.height / h);

/** The window in which something is seen as large as the pane allows, with a margin around it. */
export function windowOn(
  box: { readonly x: number; readonly y: number } & Extent,
  pane: Extent,
  paper: Extent,
  margin: number,
): PaperWindow {
  const [w, h] = [box.width + 2 * margin, box.height + 2 * margin];
  const scale = Math.min(pane.width / w, pane.height / h);
  // a window has the shape of the paper; the pane shows what lies beside it as well
  const width = Math.min(pane.width, (pane.height * paper.width) / paper.height) / scale;
  const height = (width * paper.height) / paper.width;
  return [box.x + box.width / 2 - width / 2, box.y + box.height / 2 - height / 2, width, height];
}

/** Room left for the model beside a Sheet at the left, and below one along the top. */
const LEFT = 0.31;
const TOP = 0.36;
/** What the model and its tools want below a Sheet along the top, pixels; on a smaller screen it stands at the left. */
const LEAST_MODEL = 560;
/** At the left it is read like a page beside the work: along the top it has to be so much larger. */
const WORTH = 1.15;

/** Where a drawing is seen larger: at the left of the model, or along the top. @param screen of the whole Bench */
export function placeFor(drawn: Extent, screen: Extent): "left" | "top" {
  if (screen.height * (1 - TOP) < LEAST_MODEL) return "left";
  const scale = (pane: Extent) => Math.min(pane.width / drawn.width, pane.height / drawn.height);
  const left = scale({ width: screen.width * LEFT, height: screen.height }),
    top = scale({ width: screen.width, height: screen.height * TOP });
  return top > left * WORTH ? "top" : "left";
}

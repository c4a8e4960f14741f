import type { Group, Mark } from "@/core/formats/drawing";
import type { Vec2 } from "@/core/geometry/vector";

/** Sizes of paper, lying: ISO 216 and ASME Y14.1; mm. */
const PAPERS = {
  A4: [297, 210],
  A3: [420, 297],
  A2: [594, 420],
  "ANSI A": [279.4, 215.9],
  "ANSI B": [431.8, 279.4],
  "ANSI C": [558.8, 431.8],
} as const satisfies Record<string, readonly [number, number]>;
export type PaperName = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as [PaperName, ...PaperName[]];

/** Standard scales (ISO 5455), largest first. */
export const SCALES = [20, 10, 5, 2, 1, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01];
export const scaleText = (s: number): string => (s >= 1 ? `${s}:1` : `1:${Math.round(1 / s)}`);

/** A sheet of paper with its frame. mm. */
export interface Paper {
  readonly name: PaperName;
  readonly isLying: boolean;
  readonly width: number;
  readonly height: number;
  /** Edges of the frame: left, top, right, bottom. */
  readonly frame: readonly [number, number, number, number];
  /** Height of capitals, and width of wide lines. */
  readonly letter: number;
  readonly wide: number;
}

const isSmall = (name: PaperName) => name === "A4" || name === "ANSI A";
/** Binding edge of larger sheets, and the other edges (ISO 5457). */
const BINDING = 20;
const EDGE = 10;

export function paperOf(name: PaperName, isLying: boolean): Paper {
  const [long, short] = PAPERS[name],
    [width, height] = isLying ? [long, short] : [short, long];
  const left = isSmall(name) ? EDGE : BINDING;
  const isLarge = name === "A2" || name === "ANSI C";
  return {
    name,
    isLying,
    width,
    height,
    frame: [left, EDGE, width - EDGE, height - EDGE],
    // 3.5 mm also on the small ones: they are read on a screen beside the model
    letter: isLarge ? 5 : 3.5,
    wide: isSmall(name) ? 0.35 : 0.5,
  };
}

/** Fields of about 50 mm that places are named by (ISO 5457), on all but the smallest sheets. */
const ZONE = 50;
const ZONE_LETTERS = "ABCDEFGHJKLMNP";

export function frameGroup(paper: Paper): Group {
  const [l, t, r, b] = paper.frame;
  const corners: Vec2[] = [
    [l, t],
    [r, t],
    [r, b],
    [l, b],
  ];
  const marks: Mark[] = [{ mark: "path", pen: "frame", points: corners, isClosed: true }];
  if (!isSmall(paper.name)) marks.push(...zoneMarks(paper));
  return { role: "frame", marks };
}

function zoneMarks({ frame: [l, t, r, b] }: Paper): Mark[] {
  const height = 2.5,
    marks: Mark[] = [];
  const fields = (from: number, to: number) => Math.max(2, 2 * Math.round((to - from) / ZONE / 2));
  const text = (at: Vec2, s: string): Mark => ({ mark: "text", at, text: s, height, anchor: "middle" });
  const [across, down] = [fields(l, r), fields(t, b)];
  for (let i = 0; i < across; i++) {
    const x = l + ((r - l) * i) / across,
      middle = x + (r - l) / across / 2;
    for (const [y, out] of [
      [t, -5],
      [b, 5],
    ] as const) {
      if (i) marks.push({ mark: "line", pen: "thin", a: [x, y], b: [x, y + out] });
      marks.push(text([middle, y + out / 2 + height / 2], String(i + 1)));
    }
  }
  for (let i = 0; i < down; i++) {
    const y = t + ((b - t) * i) / down,
      middle = y + (b - t) / down / 2;
    for (const [x, out] of [
      [l, -5],
      [r, 5],
    ] as const) {
      if (i) marks.push({ mark: "line", pen: "thin", a: [x, y], b: [x + out, y] });
      marks.push(text([x + out / 2, middle + height / 2], ZONE_LETTERS[i] ?? ""));
    }
  }
  return marks;
}

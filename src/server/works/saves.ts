/** A save that was taken, by its own id, and the version it made. */
export interface SaveMark {
  readonly id: string;
  readonly version: number;
}

/** So many are remembered; a window sends one at a time, so two would do. */
export const REMEMBERED = 8;

export const remembered = (saves: readonly SaveMark[], next: SaveMark): SaveMark[] =>
  [...saves, next].slice(-REMEMBERED);
